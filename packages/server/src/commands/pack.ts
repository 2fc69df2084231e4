import { parseArgs } from 'node:util'
import { PackError, problemLine, inEarlierKeysToo, viewOf, type Pack, type Problem, type SourceFile } from '@kneecap-awl/core'
import {
  aloneRows,
  aloneTable,
  casesReport,
  deservingRows,
  leastTiers,
  lintAsked,
  lintDestinations,
  lintQualifiers,
  lintReassurance,
  lintPlates,
  lintThreats,
  lexiconProblems,
  lintPack,
  numbersFrom,
  packReport,
  randomlyTooLow,
  reviewDocument,
  thresholdsCsv,
  thresholdsOf,
  tooLow,
  unstated,
  type RegionReport,
  type ReviewSubject,
} from '@kneecap-awl/core/review'
import { isArgumentFault } from './isArgumentFault.js'
import { readCaseFiles, readContent, shippedPack } from '../packs/service.js'

/**
 * `npm run pack -- --json` prints the compiled pack, each item as each region sees it; `--report` what a reviewer wants to know of each
 * region, with every fault that the linter finds; `--thresholds` every number that a rule compares with, as CSV; `--review NAME` one page to
 * read and sign about a condition (as its file is called) or a whole region, as HTML; `--alone REGION` every abnormal value alone and in a
 * set of contexts: what it deserves, floor, ceiling, flags, tab-separated; without any of them a summary. Exit code 2 when the pack has a
 * fault or a name is unknown.
 */
// A reader that has seen enough (`| head`) is no fault.
process.stdout.on('error', (error: NodeJS.ErrnoException) => process.exit(error.code === 'EPIPE' ? 0 : 1))
const say = (line: string): void => void process.stdout.write(`${line}\n`)
/** How many random records are held against what their values deserve, in each region. */
const RECORDS = 10_000
const HELP = 'npm run pack -- [--json | --report | --thresholds | --review NAME | --alone REGION]'
try {
  const { values } = parseArgs({
    options: {
      json: { type: 'boolean' },
      report: { type: 'boolean' },
      thresholds: { type: 'boolean' },
      review: { type: 'string' },
      alone: { type: 'string' },
    },
  })
  const pack = shippedPack()
  if (values.json) say(JSON.stringify(printed(pack), null, 2))
  else if (values.report) report(pack)
  else if (values.thresholds) say(thresholdsCsv(thresholdsOf(pack)))
  else if (values.review !== undefined) review(pack, values.review)
  else if (values.alone !== undefined) alone(pack, values.alone)
  else summary(pack).forEach(say)
} catch (error) {
  if (error instanceof PackError) for (const problem of error.problems) process.stderr.write(`${problemLine(problem)}\n`)
  else if (isArgumentFault(error)) process.stderr.write(`${error.message}\n${HELP}\n`)
  else throw error
  process.exitCode = 2
}

/** Shared items stand once for each region, with the depth, shorthand and seconds that they have there. */
function printed(pack: Pack): object {
  const items = pack.regions.flatMap(({ id }) => viewOf(pack, id).items.map((item) => ({ region: id, ...item })))
  return { ...inEarlierKeysToo(pack), items }
}

/** A condition by the name of its file, or all of a region. */
function subjectOf(pack: Pack, name: string): ReviewSubject | undefined {
  const region = pack.regions.find((one) => one.id === name)
  if (region) {
    const here = [...pack.flags, ...pack.conditions].filter((one) => one.region === name)
    return { title: `${region.name}: conditions`, ids: new Set(here.map(({ id }) => id)) }
  }
  const files = readContent().filter(({ path }) => path.startsWith('conditions/') && path.endsWith(`/${name}.yaml`))
  const known = [...pack.flags, ...pack.conditions].map(({ id }) => id)
  const ids = new Set(known.filter((id) => files.some(({ text }) => new RegExp(`(flag|id): ${id.replaceAll('.', '\\.')}$`, 'm').test(text))))
  const title = name.charAt(0).toUpperCase() + name.slice(1).replaceAll('-', ' ')
  return ids.size > 0 ? { title, ids } : undefined
}

function review(pack: Pack, name: string): void {
  const subject = subjectOf(pack, name)
  if (subject) return say(reviewDocument(pack, subject))
  process.stderr.write(
    `"${name}" is neither a condition nor a region; conditions are the files under content/conditions, regions: ${pack.regions.map(({ id }) => id).join(', ')}\n`,
  )
  process.exitCode = 2
}

function alone(pack: Pack, region: string): void {
  if (pack.regions.some(({ id }) => id === region)) {
    const view = viewOf(pack, region)
    return say(aloneTable(aloneRows(view, leastTiers(readContent(), view))))
  }
  process.stderr.write(`"${region}" is no region; regions: ${pack.regions.map(({ id }) => id).join(', ')}\n`)
  process.exitCode = 2
}

function summary(pack: Pack): string[] {
  const figures = pack.items.flatMap((item) => item.accuracy)
  return [
    `${pack.id} ${pack.version}, content ${pack.hash}`,
    `regions ${pack.regions.length}: ${pack.regions.map((region) => region.name).join(', ')}`,
    `items ${pack.items.length}, flags ${pack.flags.length}, holds ${pack.holds.length}, prompt groups ${pack.prompts.length}, conditions ${pack.conditions.length}`,
    `accuracy figures ${figures.length}, not yet checked against the paper ${figures.filter((f) => !f.checked).length}, never used in a probability ${figures.filter((f) => f.unverified).length}`,
  ]
}

function report(pack: Pack): void {
  const content = readContent()
  const reports = packReport(pack, content)
  reports.forEach((one) => regionLines(one).forEach(say))
  cases(pack)
  const views = pack.regions.map(({ id }) => viewOf(pack, id))
  const faults = [
    ...lexiconProblems(content),
    ...lintPack(pack),
    ...lintAsked(content, views),
    ...lintThreats(content, views),
    ...views.flatMap(lintPlates),
    ...views.flatMap((view) => [...lintDestinations(view), ...lintReassurance(view), ...lintQualifiers(view), ...accounted(pack, content, view.regions[0].id)]),
  ]
  for (const fault of faults) process.stderr.write(`${problemLine(fault)}\n`)
  const unsourced = reports.flatMap((one) => one.unsourced)
  for (const id of unsourced) process.stderr.write(`${id}: an accuracy figure without a source\n`)
  say(faults.length + unsourced.length === 0 ? '\nclean' : `\n${faults.length + unsourced.length} faults`)
  if (faults.length + unsourced.length > 0) process.exitCode = 2
}

/** The hand-written cases: how many are judged slower, and how many faster, than they should be. */
function cases(pack: Pack): void {
  const { all, sparse, children, calm, contradictory, slow, fast } = casesReport(pack, readCaseFiles())
  const share = (count: number): string => `${count} (${((100 * count) / all).toFixed(1)} in 100)`
  say(
    `\ncases ${all}: sparse ${sparse}, children ${children}, not to be over-triaged ${calm}, contradictory or reassuring ${contradictory}; too slow ${share(slow.length)}, too fast ${share(fast.length)}`,
  )
  for (const one of slow) say(`  too slow: ${one}`)
  for (const one of fast) say(`  too fast: ${one}`)
}

/** Double entry: every abnormal value says what it deserves, and the rules give it, in every context and among whatever else is drawn. */
function accounted(pack: Pack, content: readonly SourceFile[], region: string): Problem[] {
  const view = viewOf(pack, region)
  const least = leastTiers(content, view)
  const rows = deservingRows(view, least)
  const faults = [...unstated(least), ...tooLow(rows), ...randomlyTooLow(view, least, RECORDS, numbersFrom(RECORDS))]
  say(`${region}: ${rows.length} values in context and ${RECORDS} random records held against the rules, ${faults.length} faults`)
  return faults
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
    `  variants ${one.practiceVariants.all}, of which ${one.practiceVariants.switching} have choices that change rules; local: ${one.practiceVariants.local.length === 0 ? 'none' : one.practiceVariants.local.join('; ')}`,
    `  values   ${one.values.deserving} deserve a tier, ${one.values.none} none; said of the item ${one.values.item}, of a set ${one.values.set}, of the stage ${one.values.stage}`,
    `  because  ${one.clausesWithBecause} clauses wait for an exclusion or a date, and say why`,
    `  unused   ${one.unused.length === 0 ? 'none' : one.unused.join(', ')}`,
  ]
}
