import { regionSuite } from './regionSuite.js'

regionSuite('elbow', { core: 61, flags: 88 })
