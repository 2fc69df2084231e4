import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { fold, slotKey, tierRank, type Entry, type Item, type Side } from '../src/index.js'
import { AS_OF, calm, exam, judged, newId, theKnee } from './support.js'
import { judge, judgeAlong, judgement, openItems } from '../src/index.js'

const pack = theKnee()
const askable = pack.items.filter((item) => item.depth !== 'on-demand' && item.stage !== 'result' && item.kind !== 'moment' && item.derive === undefined)

/** Items that a guard (`proven`) reads, directly or through a calculated value: for those the floor may fall. */
const guarded = new Set(
  JSON.stringify(pack.flags.map((flag) => flag.clauses.map((clause) => clause.when)))
    .match(/"item":"[^"]+"/g)
    ?.map((text) => text.slice(8, -1)),
)

function valueFor(item: Item): fc.Arbitrary<Pick<Entry, 'value' | 'qualifiers'>> {
  const inRow = fc.record(
    Object.fromEntries(
      Object.entries(item.qualifiers)
        .filter(([, q]) => q.inRow)
        .map(([name, q]) => [
          name,
          q.kind === 'sign'
            ? fc.boolean()
            : q.kind === 'number'
              ? fc.integer({ min: q.min ?? 0, max: q.max ?? 60 })
              : fc.constantFrom(...(q.options ?? ['none'])),
        ]),
    ),
  )
  const value: fc.Arbitrary<Entry['value']> =
    item.kind === 'multi'
      ? fc.constantFrom(...item.options).map((word) => [word])
      : item.options.length > 0
        ? fc.constantFrom(...item.options)
        : fc.integer({ min: item.min ?? 0, max: Math.min(item.max ?? 100, 300) })
  return fc
    .tuple(value, inRow)
    .map(
      ([v, qualifiers]) =>
        ({ ...(item.readings.length > 0 ? {} : { value: v }), qualifiers: qualifiers as Entry['qualifiers'] }) as Pick<Entry, 'value' | 'qualifiers'>,
    )
}

const anEntry: fc.Arbitrary<Entry> = fc.constantFrom(...askable).chain((item) =>
  fc.tuple(valueFor(item), fc.constantFrom<Side>('right', 'left'), fc.integer({ min: 0, max: 1000 })).map(([finding, side, tick]) => ({
    id: newId(),
    item: item.id,
    side: item.sided ? side : 'none',
    state: 'examined' as const,
    ...finding,
    by: 'test',
    at: new Date(Date.parse(AS_OF) + tick * 1000).toISOString(),
  })),
)
const someEntries = fc.array(anEntry, { minLength: 0, maxLength: 25 })
const shape = (entries: Iterable<Entry>): string[] => [...fold(entries).values()].map((entry) => entry.id).sort()

describe('the fold', () => {
  it('is idempotent', () => fc.assert(fc.property(someEntries, (entries) => void expect(shape([...entries, ...entries])).toEqual(shape(entries)))))
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
    expect(fold([later, first]).get(slotKey(first.item, first.side))?.id).toBe(later.id)
  })
})

describe('the verdict', () => {
  it('never raises the ceiling through more knowledge, and lowers the floor only through a guard', () => {
    fc.assert(
      fc.property(someEntries, anEntry, (entries, more) => {
        const known = entries.filter((entry) => slotKey(entry.item, entry.side) !== slotKey(more.item, more.side))
        const before = judge(pack, exam(known))
        const at = pack.items.findIndex((item) => item.id === more.item)
        if (before.asked.level[at] === 0) return
        const after = judge(pack, exam([...known, more]))
        expect(tierRank(after.ceiling)).toBeGreaterThanOrEqual(tierRank(before.ceiling))
        if (!guarded.has(more.item)) expect(tierRank(after.floor)).toBeLessThanOrEqual(tierRank(before.floor))
      }),
      { numRuns: 150 },
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
