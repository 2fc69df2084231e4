import { writeFileSync } from 'node:fs'
import { BUILT_PACK, compiledPack } from '../packs/service.js'
import { PackError, problemLine } from '@kneecap-awl/core'

/** Compiles the content once; the server and every command load what it made as data. Exit code 2 when the content has a fault. */
try {
  writeFileSync(BUILT_PACK, JSON.stringify(compiledPack()))
} catch (error) {
  if (!(error instanceof PackError)) throw error
  for (const problem of error.problems) process.stderr.write(`${problemLine(problem)}\n`)
  process.exitCode = 2
}
