import { regionSuite } from './regionSuite.js'

regionSuite('shoulder', { core: 62, flags: 85 })
