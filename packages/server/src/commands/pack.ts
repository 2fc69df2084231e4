import { PackError, problemLine, type Pack } from '@kneecap-awl/core'
import { shippedPack } from '../packs/service.js'

/** `npm run pack -- --json` prints the compiled pack; without it, what the pack holds, or every fault it has (exit code 2). */
try {
  const pack = shippedPack()
  process.stdout.write(process.argv.includes('--json') ? `${JSON.stringify(pack, null, 2)}\n` : `${summary(pack).join('\n')}\n`)
} catch (error) {
  if (!(error instanceof PackError)) throw error
  for (const problem of error.problems) process.stderr.write(`${problemLine(problem)}\n`)
  process.exitCode = 2
}

function summary(pack: Pack): string[] {
  const depth = (d: string): number => pack.items.filter((item) => item.depth === d).length
  const figures = pack.items.flatMap((item) => item.accuracy)
  return [
    `${pack.id} ${pack.version}, content ${pack.hash}`,
    `items ${pack.items.length}: core ${depth('core')}, prompted ${depth('prompted')}, on demand ${depth('on-demand')}, patient card ${depth('card')}`,
    `core seconds ${pack.items.filter((item) => item.depth === 'core').reduce((sum, item) => sum + item.seconds, 0)}`,
    `flags ${pack.flags.length}, holds ${pack.holds.length}, prompt groups ${pack.groups.length}, conditions ${pack.conditions.length}`,
    `accuracy figures ${figures.length}, not yet checked against the paper ${figures.filter((f) => !f.checked).length}, never used in a probability ${figures.filter((f) => f.unverified).length}`,
  ]
}
