import { PackError, problemLine, viewOf, type Pack } from '@kneecap-awl/core'
import { lintPack, packReport, type RegionReport } from '@kneecap-awl/core/review'
import { shippedPack } from '../packs/service.js'

/**
 * `npm run pack -- --json` prints the compiled pack, each item as each region sees it; `--report` what a reviewer wants to know of each
 * region, with every fault that the linter finds; without either a summary. Exit code 2 when the pack has a fault.
 */
const say = (line: string): void => void process.stdout.write(`${line}\n`)
try {
  const pack = shippedPack()
  if (process.argv.includes('--json')) say(JSON.stringify(printed(pack), null, 2))
  else if (process.argv.includes('--report')) report(pack)
  else summary(pack).forEach(say)
} catch (error) {
  if (!(error instanceof PackError)) throw error
  for (const problem of error.problems) process.stderr.write(`${problemLine(problem)}\n`)
  process.exitCode = 2
}

/** Shared items stand once for each region, with the depth, shorthand and seconds that they have there. */
function printed(pack: Pack): object {
  const items = pack.regions.flatMap(({ id }) => viewOf(pack, id).items.map((item) => ({ region: id, ...item })))
  return { ...pack, items }
}

function summary(pack: Pack): string[] {
  const figures = pack.items.flatMap((item) => item.accuracy)
  return [
    `${pack.id} ${pack.version}, content ${pack.hash}`,
    `regions ${pack.regions.length}: ${pack.regions.map((region) => region.name).join(', ')}`,
    `items ${pack.items.length}, flags ${pack.flags.length}, holds ${pack.holds.length}, prompt groups ${pack.groups.length}, conditions ${pack.conditions.length}`,
    `accuracy figures ${figures.length}, not yet checked against the paper ${figures.filter((f) => !f.checked).length}, never used in a probability ${figures.filter((f) => f.unverified).length}`,
  ]
}

function report(pack: Pack): void {
  const reports = packReport(pack)
  reports.forEach((one) => regionLines(one).forEach(say))
  const faults = lintPack(pack)
  for (const fault of faults) process.stderr.write(`${problemLine(fault)}\n`)
  const unsourced = reports.flatMap((one) => one.unsourced)
  for (const id of unsourced) process.stderr.write(`${id}: an accuracy figure without a source\n`)
  say(faults.length + unsourced.length === 0 ? '\nclean' : `\n${faults.length + unsourced.length} faults`)
  if (faults.length + unsourced.length > 0) process.exitCode = 2
}

function regionLines(one: RegionReport): string[] {
  const depth = (name: keyof RegionReport['depths']): number => one.depths[name]
  const stages = Object.entries(one.coreByStage).map(([stage, count]) => `${stage} ${count}`)
  return [
    `\n${one.region}`,
    `  items    core ${depth('core')} (${one.coreSeconds} s), prompted ${depth('prompted')}, on demand ${depth('on-demand')}`,
    `  core     ${stages.join(', ')}`,
    `  flags    ${one.flags}, of which the core alone excludes ${one.excludedByCore}${one.openAfterCore.length > 0 ? `; open after a normal core: ${one.openAfterCore.join(', ')}` : ''}`,
    `  figures  review ${one.figures.review}, study ${one.figures.study}, expert ${one.figures.expert}; unchecked ${one.unchecked}, not verified ${one.unverified}`,
    `  schools  ${one.schools.all}, of which ${one.schools.switching} have choices that change rules; local: ${one.schools.local.length === 0 ? 'none' : one.schools.local.join('; ')}`,
    `  unused   ${one.unused.length === 0 ? 'none' : one.unused.join(', ')}`,
  ]
}
