import { regionSuite } from './regionSuite.js'

regionSuite('jaw', { core: 39, flags: 46 })
