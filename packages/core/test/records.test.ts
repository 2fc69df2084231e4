import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { checkEntries, inTodaysNames, judge, viewOf, type EntryOf, type Side, type Tier, type Value } from '../src/index.js'
import { mostUrgent, tierRank } from '../src/model/tier.js'
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

/** Flags that were corrected since, each with why (decision 0027): a record may meet one of them no longer, or later. */
const INJURED = 'a mechanism of injury that was told is an injury'
const OLD_WOUND = 'a wound beside a tear that is weeks old has not cut the tendon'
const OLDER = 'age and a fall raise what would have waited weeks, not what is seen within days'
const CORRECTED: ReadonlyMap<string, string> = new Map([
  ['any.flag.acute-ischaemia', 'an absent pulse that is old, or alike on both sides for months, is no acute ischaemia'],
  ['any.flag.arterial-hard', 'a pulse long known to be absent and a refill of two seconds are no hard sign'],
  ['any.flag.skin-at-risk', 'one scale in every joint: tented and perfused, or blistered, is Today'],
  ['any.flag.joint-wound', 'a cut of the skin alone is closed, not taken to theatre'],
  ['any.flag.haemarthrosis', 'a small effusion of a sprain is no bleed'],
  ['any.flag.pe', 'tightness of the chest without breathlessness goes the way of the heart'],
  ['back.flag.cauda-equina', 'urgency or hesitancy alone is Today'],
  ['neck.flag.vertebrobasilar', 'dizziness for years is no stroke'],
  ['wrist.flag.perilunate', 'a fork deformity is a fracture until the radiograph shows the carpus'],
  ['shoulder.flag.posterior-dislocation', 'lost rotation for months without injury or seizure is filmed within days'],
  ['shoulder.flag.chronic-full-tear', 'amyotrophy explains it better'],
  ['any.flag.early-arthritis', INJURED],
  ['any.flag.reactive', INJURED],
  ['any.flag.bone-tumour-adult', INJURED],
  ['any.flag.fracture-stress-high-risk', INJURED],
  ['foot.flag.navicular-stress', INJURED],
  ['foot.flag.sesamoid', INJURED],
  ['foot.flag.second-metatarsal-base-stress', INJURED],
  ['wrist.flag.clubbing', INJURED],
  ['wrist.flag.kienbock', INJURED],
  ...[
    'ankle.flag.achilles-rupture',
    'ankle.flag.achilles-suspected',
    'elbow.flag.biceps-partial',
    'elbow.flag.biceps-rupture',
    'elbow.flag.triceps-rupture',
    'foot.flag.posterior-tibial',
    'hip.flag.hamstring-avulsion',
    'shoulder.flag.acute-cuff-tear',
    'shoulder.flag.pec-major',
    'shoulder.flag.subscapularis-acute',
  ].map((id) => [id, OLD_WOUND] as const),
  ['hip.flag.metal-reaction', 'a bearing without a symptom is under scheduled surveillance'],
  ['foot.flag.anterior-process', OLDER],
  ['foot.flag.fifth-metatarsal-shaft', OLDER],
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
    it.each(records.map((record, at) => [at + 1, record] as const))(
      'record %i is still read, and judged no less urgent than then',
      (_at, { sides, entries, ...verdict }) => {
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
        const { floor, flags } = judge(view, { complaint: { region, sides }, asOf, entries: read })
        // The side that does not hurt tells a flag only when the sore one does not.
        const now = new Map([...flags].reverse().map(({ id, tier }) => [id, tier ?? 'here']))
        const then = verdict.flags.map((flag) => {
          const [id = '', , tier = ''] = flag.split(' ')
          return { id: view.formerly.ids[id] ?? id, tier: tier as Tier }
        })
        const less = then.filter(({ id, tier }) => tier !== 'here' && tierRank(now.get(id) ?? 'here') > tierRank(tier))
        expect(less.filter(({ id }) => !CORRECTED.has(id))).toEqual([])
        const kept = then.filter(({ id }) => !CORRECTED.has(id)).map(({ tier }) => tier)
        expect(tierRank(floor)).toBeLessThanOrEqual(tierRank(mostUrgent(['here', ...kept])))
      },
    )
  })
})
