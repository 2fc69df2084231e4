import { spawnSync } from 'node:child_process'
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, describe, expect, it } from 'vitest'
import { examinationFile, type FindingEntry } from '@kneecap-awl/core'
import { ROOT } from './database.js'

const run = (command: string, args: readonly string[], input = '') =>
  spawnSync(process.execPath, [join(ROOT, `packages/server/dist/commands/${command}.js`), ...args], { encoding: 'utf8', input, maxBuffer: 64 * 1024 * 1024 })
const folder = mkdtempSync(join(tmpdir(), 'awl-judge-'))
afterAll(() => rmSync(folder, { recursive: true }))
const AT = '2026-03-10T09:00:00Z'
const told = (item: string, value: FindingEntry['value'], side: FindingEntry['side'] = 'none'): FindingEntry => ({
  id: `01920000-0000-7000-8000-${String(item.length * 1000 + side.length).padStart(12, '0')}`,
  item,
  side,
  state: 'examined',
  ...(value === undefined ? {} : { value }),
  by: 'test',
  at: AT,
})
const pulseless = examinationFile(
  {
    complaint: { region: 'knee', sides: ['right'] },
    asOf: AT,
    entries: [told('story.trauma', 'present'), told('vascular.pulse-dorsalis-pedis', 'absent', 'right')],
  },
  { id: 'pulseless' },
)
const write = (name: string, text: string): string => {
  const path = join(folder, name)
  writeFileSync(path, text)
  return path
}

describe('npm run judge', () => {
  it('prints a verdict for each file, with proof, open items, measures and conditions', () => {
    const { status, stdout } = run('judge', [write('one.json', JSON.stringify(pulseless))])
    expect(status).toBe(0)
    const [verdict] = JSON.parse(stdout) as Record<string, unknown>[]
    expect(verdict).toMatchObject({ id: 'pulseless', floor: 'now', ceiling: 'now' })
    expect(Object.keys(verdict ?? {})).toEqual(expect.arrayContaining(['flags', 'holds', 'open', 'measures', 'conditions']))
    expect((verdict?.flags as { id: string; truth: string; tier: string; destination: string; proof: unknown }[])[0]).toMatchObject({
      id: 'any.flag.arterial-hard',
      side: 'right',
      truth: 'met',
      tier: 'now',
      destination: 'dest.ed-resus',
      proof: { truth: 'met' },
    })
  })
  it('reads one examination a line', () => {
    const { status, stdout } = run('judge', ['--ndjson'], `${JSON.stringify(pulseless)}\n\n${JSON.stringify({ ...pulseless, id: 'two', entries: [] })}\n`)
    expect(status).toBe(0)
    expect(
      stdout
        .trim()
        .split('\n')
        .map((line) => (JSON.parse(line) as { floor: string }).floor),
    ).toEqual(['now', 'here'])
  })
  it.each([
    ['a file that is not JSON', '{', /bad\.json: \/: is not JSON/],
    [
      'an item that does not exist',
      JSON.stringify({ ...pulseless, entries: [told('story.dragon', 'present')] }),
      /bad\.json: \/entries\/0\/item: "story\.dragon" is not an item of this pack \(expected /,
    ],
    [
      'a value that is no option',
      JSON.stringify({ ...pulseless, entries: [told('story.trauma', 'maybe')] }),
      /\/entries\/0\/value: "maybe" is not a value of Trauma in this episode \(expected one of: absent, present\)/,
    ],
  ])('answers %s with one clear line and exit code 2', (_what, text, line) => {
    const { status, stderr, stdout } = run('judge', [write('bad.json', text)])
    expect(status).toBe(2)
    expect(stderr).toMatch(line)
    expect(stdout).toBe('')
  })
})

describe('npm run pack', () => {
  it('prints every item with region, stage, kind, depth, label, shorthand, position and seconds', () => {
    const { status, stdout } = run('pack', ['--json'])
    expect(status).toBe(0)
    const pack = JSON.parse(stdout) as { items: Record<string, unknown>[]; flags: unknown[] }
    expect(pack.items.find((item) => item.id === 'knee.test.lachman' && item.region === 'knee')).toMatchObject({
      owner: 'knee',
      stage: 'test',
      kind: 'laxity',
      depth: 'core',
      label: 'Lachman test',
      key: 'lach',
      position: 'supine',
      seconds: 12,
    })
    expect(pack.flags.length).toBeGreaterThanOrEqual(54)
  })
})
