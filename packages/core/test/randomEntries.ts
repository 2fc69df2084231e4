import fc from 'fast-check'
import type { FindingEntry, Item, AnyPack, Side } from '../src/index.js'
import { AS_OF, newId } from './support.js'

/** Items that the law "more knowledge never widens the range" speaks of: those that are asked at the couch. */
export const atTheCouch = (pack: AnyPack): Item[] =>
  pack.items.filter((item) => item.depth !== 'on-demand' && item.stage !== 'result' && item.kind !== 'moment' && item.derive === undefined)

/** Any value that an item can take, with the qualifiers of its row. */
function valueFor(item: Item): fc.Arbitrary<Pick<FindingEntry, 'value' | 'qualifiers'>> {
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
  const value: fc.Arbitrary<FindingEntry['value']> =
    item.kind === 'multi'
      ? fc.constantFrom(...item.options).map((word) => [word])
      : item.options.length > 0
        ? fc.constantFrom(...item.options)
        : fc.integer({ min: Math.ceil(item.min ?? 0), max: Math.floor(Math.min(item.max ?? 100, (item.min ?? 0) + 300)) })
  const found = fc
    .tuple(value, inRow)
    .map(([v, qualifiers]) => ({ ...(item.readings.length > 0 ? {} : { value: v }), qualifiers }) as Pick<FindingEntry, 'value' | 'qualifiers'>)
  // A range may be found full by eye instead of being measured.
  return item.normalSpan && item.normal ? fc.oneof(found, fc.constant(item.normal)) : found
}

/** An examined finding of any of the items, on either side. */
export const entryOf = (items: readonly Item[]): fc.Arbitrary<FindingEntry> =>
  fc.constantFrom(...items).chain((item) =>
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
