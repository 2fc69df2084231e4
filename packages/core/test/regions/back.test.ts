import { regionSuite } from './regionSuite.js'

regionSuite('back', { core: 51, flags: 57 })
