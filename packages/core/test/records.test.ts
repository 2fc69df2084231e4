import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { checkEntries, inTodaysNames, judge, viewOf, type EntryOf, type Side, type Tier, type Value } from '../src/index.js'
import { mostUrgent } from '../src/model/tier.js'
import { thePack } from './support.js'

/** Item, side, value (null for none) and qualifiers of one finding. */
type Row = readonly [string, Side, Value | null, NonNullable<EntryOf<'examined'>['qualifiers']>?]

interface Written {
  readonly region: string
  readonly asOf: string
  readonly records: readonly {
    readonly sides: readonly Side[]
    readonly floor: Tier
    readonly ceiling: Tier
    readonly flags: readonly string[]
    readonly entries: readonly Row[]
  }[]
}

const FOLDER = join(import.meta.dirname, 'files/records')
const written = readdirSync(FOLDER).map((name) => JSON.parse(readFileSync(join(FOLDER, name), 'utf8')) as Written)

/** What stands in every joint since, by decision 0027: it may only raise what a record was judged to be. */
const SINCE: ReadonlySet<string> = new Set([
  'any.flag.pulse-absent',
  'any.flag.imaging-found',
  'any.flag.reduced-consciousness',
  'any.flag.venous-thrombosis-proven',
  'any.flag.skin-at-risk',
  'any.flag.necrotising',
  'neuro.flag.stroke',
])

/** Records in which the items of a joint took one after another of their words, as they were written once in the names of then, each with the verdict that it had. */
describe('records of every joint, as they were written', () => {
  it('are there for each', () =>
    expect(written.map(({ region }) => region).sort()).toEqual(
      thePack()
        .regions.map(({ id }) => id)
        .sort(),
    ))
  describe.each(written.map((one) => [one.region, one] as const))('%s', (region, { asOf, records }) => {
    const view = viewOf(thePack(), region)
    it.each(records.map((record, at) => [at + 1, record] as const))('record %i is still read, and judged as then', (_at, { sides, entries, ...verdict }) => {
      const asWritten = entries.map(([item, side, value, qualifiers], at): EntryOf<'examined'> => ({
        id: `01920000-0000-7000-8000-${String(at + 1).padStart(12, '0')}`,
        item,
        side,
        state: 'examined',
        ...(value === null ? {} : { value }),
        ...(qualifiers ? { qualifiers } : {}),
        by: 'test',
        at: asOf,
      }))
      const read = inTodaysNames(view, asWritten)
      expect(checkEntries(view, read)).toEqual([])
      const { floor, ceiling, flags, openFlags } = judge(view, { complaint: { region, sides }, asOf, entries: read })
      // Among equals the flags stand in the order of their names.
      const then = verdict.flags.map((flag) => flag.replace(/^\S+/, (id) => view.formerly.ids[id] ?? id)).filter((flag) => !SINCE.has(flag.split(' ')[0] ?? ''))
      const met = flags.filter(({ id }) => !SINCE.has(id)).map(({ id, side, tier }) => `${id} ${side} ${tier ?? ''}`)
      expect(met.sort()).toEqual(then.sort())
      const added = [...flags, ...openFlags].filter(({ id }) => SINCE.has(id))
      const raised = (tier: Tier, tiers: readonly (Tier | undefined)[]): Tier => mostUrgent([tier, ...tiers.filter((one) => one !== undefined)])
      const newFloor = raised(
        verdict.floor,
        added.map(({ tier }) => tier),
      )
      expect([floor, ceiling]).toEqual([
        newFloor,
        raised(
          verdict.ceiling,
          added.flatMap(({ tier, ceiling: open }) => [tier, open]),
        ),
      ])
    })
  })
})
