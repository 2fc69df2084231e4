// The suites of checks and tests, each with its own count of what passed and what failed.
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { ROOT, say, tell } from './run.mjs'

const node = process.execPath
const bin = (path) => join(ROOT, 'node_modules', path)
const REPORTS = join(ROOT, '.test', 'reports')

/** A check that passes or fails as a whole. */
async function check(title, script, args) {
  const { code } = await tell(node, [bin(script), ...args], title)
  return { title, passed: code === 0 ? 1 : 0, failed: code === 0 ? 0 : 1 }
}

/** The program, then the tests that are not built. */
export async function types() {
  const built = await check('types', 'typescript/bin/tsc', ['-b'])
  const tests = await check('types of the tests', 'typescript/bin/tsc', ['-p', 'tsconfig.tests.json'])
  return { title: 'types', passed: built.passed + tests.passed, failed: built.failed + tests.failed }
}
export const lint = () => check('lint', 'eslint/bin/eslint.js', ['.'])
/** Files, exports and packages that nothing uses. */
export const unused = () => check('unused', 'knip/bin/knip.js', ['--no-progress'])
/** As lint, reading again only the files that changed; a rule that reads types across files may miss a change elsewhere. */
export const lintChanged = () => check('lint', 'eslint/bin/eslint.js', ['--cache', '--cache-strategy', 'content', '--cache-location', '.test/eslint', '.'])
export const format = () =>
  check('format', 'prettier/bin/prettier.cjs', ['--check', '--log-level', 'warn', '--cache', '--cache-location', '.test/prettier', '.'])

/** Vitest over one folder of packages. @param more further arguments, such as what to leave out */
export async function unit(title, folder, more = []) {
  const report = freshReport(`${title.replace(/\W+/g, '-')}.json`)
  const { code } = await tell(
    node,
    [bin('vitest/vitest.mjs'), 'run', '--dir', folder, '--reporter=default', '--reporter=json', `--outputFile.json=${report}`, ...more],
    title,
  )
  const { numPassedTests: passed = 0, numFailedTests = 0, numTotalTests = 0 } = readReport(report)
  return { title, passed, failed: Math.max(numFailedTests, numTotalTests - passed, code === 0 && passed > 0 ? 0 : 1) }
}

/** Playwright against the real application, started by its own start command. */
export async function journeys() {
  const report = freshReport('journeys.json')
  const env = { ...process.env, PLAYWRIGHT_JSON_OUTPUT_FILE: report }
  const { code } = await tell(node, [bin('@playwright/test/cli.js'), 'test', '--reporter=list,json'], 'journeys', { env, live: true })
  const { stats = {} } = readReport(report)
  const passed = stats.expected ?? 0
  return { title: 'journeys', passed, failed: Math.max((stats.unexpected ?? 0) + (stats.flaky ?? 0) + (stats.skipped ?? 0), code === 0 && passed > 0 ? 0 : 1) }
}

function freshReport(name) {
  mkdirSync(REPORTS, { recursive: true })
  const path = join(REPORTS, name)
  rmSync(path, { force: true })
  return path
}

const readReport = (path) => (existsSync(path) ? JSON.parse(readFileSync(path, 'utf8')) : {})

/**
 * Runs steps one after the other, then says the totals. A step that is a list of lanes runs these side by side, the suites of each lane in turn.
 * @returns the exit code
 */
export async function runAll(steps) {
  const results = []
  for (const step of steps) {
    const lanes = Array.isArray(step) ? step : [[step]]
    results.push(...(await Promise.all(lanes.map(inTurn))).flat())
  }
  say('')
  for (const { title, passed, failed, seconds } of results)
    say(`${title.padEnd(22)} ${String(passed).padStart(5)} passed ${String(failed).padStart(4)} failed ${seconds.toFixed(0).padStart(5)} s`)
  const sum = (key) => results.reduce((total, result) => total + result[key], 0)
  say(`${sum('passed')} passed, ${sum('failed')} failed`)
  return sum('failed') === 0 && sum('passed') > 0 ? 0 : 1
}

async function inTurn(suites) {
  const results = []
  for (const suite of suites) results.push(await timed(suite))
  return results
}

async function timed(suite) {
  const from = Date.now()
  return { ...(await suite()), seconds: (Date.now() - from) / 1000 }
}
