import { regionSuite } from './regionSuite.js'

regionSuite('infant-hip', { core: 36, flags: 19 })
