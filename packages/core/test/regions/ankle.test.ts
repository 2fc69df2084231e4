import { regionSuite } from './regionSuite.js'

regionSuite('ankle', { core: 56, flags: 86 })
