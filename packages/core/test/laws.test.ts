import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { recordOf, judge, judgeAlong, judgement, openItems, slotKey, tierRank, viewOf, type FindingEntry, type RuleNode, type Side } from '../src/index.js'
import { rulesOfCalc } from '../src/rules/calc.js'
import { itemsOfLeaf } from '../src/rules/leaves.js'
import { atTheCouch, entryOf } from './randomEntries.js'
import { AS_OF, calm, calmRecord, exam, judged, newId, theKnee, thePack } from './support.js'

const pack = theKnee()
/** Later than any random entry: what is learnt late of an earlier time can show that a Now was met then. */
const AFTERWARDS = new Date(Date.parse(AS_OF) + 3_600_000).toISOString()
const askable = atTheCouch(pack)

/**
 * Items for which the floor may fall: those that a guard (`not: { proven: … }`) reads, directly or through a calculated value or a flag, and
 * those of which a rule asks whether they were seen at all.
 */
const guarded = new Set(pack.flags.flatMap((flag) => flag.clauses.flatMap((clause) => guardedBy(clause.when, false))))
function guardedBy(node: RuleNode, isGuard: boolean): readonly string[] {
  if (node.op !== 'leaf') return node.of.flatMap((kid) => guardedBy(kid, isGuard || node.op === 'proven'))
  const { leaf } = node
  const behind = (rules: readonly RuleNode[]): readonly string[] => rules.flatMap((rule) => guardedBy(rule, isGuard))
  switch (leaf.type) {
    case 'calc': {
      const calc = pack.calcs.find(({ id }) => id === leaf.calc)
      return calc ? behind(rulesOfCalc(calc)) : []
    }
    case 'flag':
      return behind(pack.flags.filter(({ id }) => id === leaf.ref).flatMap(({ clauses }) => clauses.map(({ when }) => when)))
    case 'unseen':
    case 'could-not':
    case 'not-valid':
    case 'rechecked':
      return [leaf.item]
    case 'all-examined':
      return leaf.items
    default:
      return isGuard ? itemsOfLeaf(leaf) : []
  }
}

const anEntry = entryOf(askable)
const someEntries = fc.array(anEntry, { minLength: 0, maxLength: 25 })
const shape = (entries: readonly FindingEntry[]): string[] =>
  recordOf(entries)
    .findings.map((entry) => entry.id)
    .sort()

describe('the fold', () => {
  it('is idempotent', () =>
    fc.assert(
      fc.property(someEntries, (entries) => {
        expect(shape([...entries, ...entries])).toEqual(shape(entries))
      }),
    ))
  it('does not depend on the order in which entries arrive', () =>
    fc.assert(
      fc.property(someEntries, fc.infiniteStream(fc.nat()), (entries, keys) => {
        const shuffled = entries
          .map((entry) => [keys.next().value as number, entry] as const)
          .sort((a, b) => a[0] - b[0])
          .map(([, entry]) => entry)
        expect(shape(shuffled)).toEqual(shape(entries))
      }),
    ))
  it('lets the later time win for one item and side', () => {
    const [first] = calm()
    if (!first) throw new Error('empty')
    const later = { ...first, id: newId(), at: '2030-01-01T00:00:00Z' }
    expect(recordOf([later, first]).finding(first.item, first.side)?.id).toBe(later.id)
  })
})

describe('the verdict', () => {
  it('may fall by less than half of the items', () =>
    expect([...guarded].filter((id) => askable.some((item) => item.id === id)).length).toBeLessThan(askable.length * 0.5))
  it('never raises the ceiling through more knowledge, and lowers the floor only through a guard', () => {
    fc.assert(
      fc.property(someEntries, anEntry, (entries, more) => {
        const known = entries.filter((entry) => slotKey(entry.item, entry.side) !== slotKey(more.item, more.side))
        const later = { ...more, at: AFTERWARDS }
        const before = judge(pack, exam(known))
        const at = pack.items.findIndex((item) => item.id === more.item)
        if (before.asked.level[at] === 0) return
        const after = judge(pack, exam([...known, later]))
        expect(tierRank(after.ceiling)).toBeGreaterThanOrEqual(tierRank(before.ceiling))
        if (!guarded.has(more.item)) expect(tierRank(after.floor)).toBeLessThanOrEqual(tierRank(before.floor))
      }),
      { numRuns: 400 },
    )
  })
  it.each(thePack().regions.map((region) => region.id))('of a %s that is not settled names what would settle it', (region) => {
    const view = viewOf(thePack(), region)
    const about = { complaint: { region, sides: view.regions[0].side ? (['right'] as const) : (['none'] as const) }, asOf: AS_OF }
    const ordinary = calmRecord(view, view.regions[0].ordinary)
    fc.assert(
      fc.property(fc.array(entryOf(atTheCouch(view)), { maxLength: 8 }), fc.boolean(), (entries, isCalm) => {
        const told = entries.map((entry) => ({ ...entry, at: AFTERWARDS }))
        const judged = judgement(view, { ...about, entries: isCalm ? [...ordinary, ...told] : told })
        if (judged.verdict.floor !== judged.verdict.ceiling) expect(openItems(judged)).not.toEqual([])
      }),
      { numRuns: 25 },
    )
  })
  it('keeps the floor within the ceiling', () =>
    fc.assert(
      fc.property(someEntries, (entries) => {
        const verdict = judge(pack, exam(entries))
        expect(tierRank(verdict.ceiling)).toBeLessThanOrEqual(tierRank(verdict.floor))
      }),
      { numRuns: 80 },
    ))
  it('mirrors when right and left are exchanged', () => {
    const flip = (side: Side): Side => (side === 'right' ? 'left' : side === 'left' ? 'right' : 'none')
    fc.assert(
      fc.property(someEntries, (entries) => {
        const here = judge(pack, exam(entries, 'right'))
        const there = judge(
          pack,
          exam(
            entries.map((entry) => ({ ...entry, side: flip(entry.side) })),
            'left',
          ),
        )
        expect([there.floor, there.ceiling]).toEqual([here.floor, here.ceiling])
        expect(there.flags.map((flag) => `${flag.id} ${flip(flag.side)}`).sort()).toEqual(here.flags.map((flag) => `${flag.id} ${flag.side}`).sort())
      }),
      { numRuns: 60 },
    )
  })
  it('does not depend on the order of entries', () =>
    fc.assert(
      fc.property(someEntries, (entries) => {
        const once = judge(pack, exam(entries))
        const again = judge(pack, exam([...entries].reverse()))
        expect([again.floor, again.ceiling, again.flags.map((f) => f.id)]).toEqual([once.floor, once.ceiling, once.flags.map((f) => f.id)])
      }),
      { numRuns: 60 },
    ))
  it('is the same when the record is judged entry by entry as it grows', () =>
    fc.assert(
      fc.property(someEntries, (entries) => {
        const { entries: _none, ...about } = exam([])
        const along = judgeAlong(pack, about)
        along([])
        for (let known = 1; known <= entries.length; known++) {
          const grown = along(entries.slice(0, known))
          const anew = judgement(pack, exam(entries.slice(0, known)))
          expect(JSON.stringify(grown.verdict)).toBe(JSON.stringify(anew.verdict))
          expect(openItems(grown)).toEqual(openItems(anew))
        }
      }),
      { numRuns: 40 },
    ))
  it('says of a calm knee that nothing is open', () => expect(judged(calm()).verdict.openFlags).toEqual([]))
})

describe.each(thePack().regions.map(({ id }) => id))('the range of the %s', (region) => {
  const view = viewOf(thePack(), region)
  const items = atTheCouch(view)
  const judgeOf = (entries: readonly FindingEntry[]): ReturnType<typeof judge> => judge(view, { complaint: { region, sides: ['right'] }, asOf: AS_OF, entries })
  /** Flags that speak because something was not examined, or was not proven: examining it may rightly end them. */
  const silent = new Set(view.calcs.filter((calc) => /"unseen"|"proven"/.test(JSON.stringify(calc))).map(({ id }) => `"calc":"${id}"`))
  const readsSilence = new Set(
    view.flags
      .filter(({ clauses }) => {
        const text = JSON.stringify(clauses)
        return /"unseen"|"proven"/.test(text) || [...silent].some((calc) => text.includes(calc))
      })
      .map(({ id }) => id),
  )
  it('never rises through a finding that was asked for, also when that was asked for something else', () => {
    fc.assert(
      fc.property(fc.array(entryOf(items), { maxLength: 30 }), fc.array(entryOf(items), { minLength: 1, maxLength: 4 }), (known, more) => {
        let before = judgeOf(known)
        let record: readonly FindingEntry[] = known
        for (const entry of more) {
          const isNew = record.every((held) => slotKey(held.item, held.side) !== slotKey(entry.item, entry.side))
          if (!isNew || before.asked.level[view.items.findIndex(({ id }) => id === entry.item)] === 0) continue
          record = [...record, { ...entry, at: AFTERWARDS }]
          const after = judgeOf(record)
          expect(tierRank(after.ceiling)).toBeGreaterThanOrEqual(tierRank(before.ceiling))
          before = after
        }
      }),
      { numRuns: 40 },
    )
  })
  it('lets a finding count that nobody asked for', () => {
    fc.assert(
      fc.property(entryOf(items), (entry) => {
        const { flags } = judgeOf([entry])
        const alone = flags.filter(({ id, side }) => side !== 'left' && !readsSilence.has(id))
        for (const flag of alone)
          expect(tierRank(judgeOf([...calmRecord(view, view.regions[0].ordinary), entry]).floor)).toBeLessThanOrEqual(tierRank(flag.tier ?? 'here'))
      }),
      { numRuns: 60 },
    )
  })
})
