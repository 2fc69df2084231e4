import { regionSuite } from './regionSuite.js'

regionSuite('knee', { core: 61, flags: 88 })
