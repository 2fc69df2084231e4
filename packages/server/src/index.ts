export { buildApp, type AppOptions } from './app.js'
export { PackShelf, readContent, shippedPack } from './packs/service.js'
