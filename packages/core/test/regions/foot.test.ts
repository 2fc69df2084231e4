import { regionSuite } from './regionSuite.js'

regionSuite('foot', { core: 55, flags: 99 })
