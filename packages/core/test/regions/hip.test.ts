import { regionSuite } from './regionSuite.js'

regionSuite('hip', { core: 59, flags: 87 })
