import { regionSuite } from './regionSuite.js'

regionSuite('neck', { core: 54, flags: 61 })
