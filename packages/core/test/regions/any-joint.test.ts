import { regionSuite } from './regionSuite.js'

regionSuite('any-joint', { core: 41, flags: 54 })
