export { buildApp, type AppOptions } from './app.js'
export { PackStore, readContent, shippedPack } from './packs/service.js'
