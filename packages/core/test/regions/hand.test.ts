import { regionSuite } from './regionSuite.js'

regionSuite('hand', { core: 50, flags: 85 })
