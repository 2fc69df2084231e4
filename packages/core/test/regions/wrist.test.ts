import { regionSuite } from './regionSuite.js'

regionSuite('wrist', { core: 59, flags: 76 })
