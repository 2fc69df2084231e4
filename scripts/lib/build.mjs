import { join } from 'node:path'
import { NODE_FLAGS, ROOT, onceFor, run, stampOf } from './run.mjs'

const bin = (name) => join(ROOT, 'node_modules', '.bin', name)
const CODE = [
  'packages/contract/src',
  'packages/contract/tsconfig.json',
  'packages/core/src',
  'packages/core/tsconfig.json',
  'packages/server/src',
  'packages/server/tsconfig.json',
  'tsconfig.base.json',
  'package-lock.json',
]

/** Compiles core and server with TypeScript, unless nothing changed. */
export const buildServer = () => onceFor(join(ROOT, '.data/stamp-server'), stampOf(CODE), 'packages/server/dist/main.js', compile)

const CONTENT = ['content', 'packages/core/src']

/** Compiles the content pack into what the server and its commands load, unless nothing changed. */
export const buildPack = () =>
  onceFor(join(ROOT, '.data/stamp-pack'), stampOf(CONTENT), 'packages/server/dist/pack.json', () => {
    run(process.execPath, [...NODE_FLAGS, join(ROOT, 'packages/server/dist/commands/buildPack.js')], { quiet: true })
    return 'built'
  })

function compile() {
  run(process.execPath, [bin('tsc'), '-b', 'packages/server'], { quiet: true })
  return 'built'
}

/** Builds the web application, unless nothing changed. */
export const buildWeb = () => {
  const paths = [...CODE, 'packages/web/src', 'packages/web/index.html', 'packages/web/vite.config.ts', 'packages/web/public']
  return onceFor(join(ROOT, '.data/stamp-web'), stampOf(paths), 'packages/web/dist/index.html', () => {
    run(process.execPath, [bin('vite'), 'build', '--logLevel', 'warn'], { cwd: join(ROOT, 'packages/web'), quiet: true })
    return 'built'
  })
}
