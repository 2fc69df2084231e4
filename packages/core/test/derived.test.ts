import { describe, expect, it } from 'vitest'
import { judgement, viewOf, type Item, type Value } from '../src/index.js'
import { AS_OF, newId, thePack } from './support.js'

/** What may be recorded of an item: each of its words, or numbers across its range. */
function valuesOf(item: Item, qualifier: string | undefined): readonly (Value | { readonly [qualifier: string]: Value })[] {
  const { options, min = 0, max = 100 } = item
  if (qualifier !== undefined) return [0, 0.5, 1].map((part) => ({ [qualifier]: Math.round(min + part * (max - min)) }))
  if (item.kind === 'moment') return ['2026-03-09T09:00:00.000Z', '2026-02-10T09:00:00.000Z']
  return options.length > 0 ? options : [0.2, 0.5, 0.8].map((part) => Math.round(min + part * (max - min)))
}

describe('what is worked out from other findings', () => {
  const views = thePack().regions.map(({ id }) => viewOf(thePack(), id))
  const derived = views.flatMap((view) => view.items.flatMap((item) => (item.derive ? [[view.regions[0].id, item.id, view, item] as const] : [])))
  it.each(derived)('%s: %s comes out of what may be recorded, and otherwise for other findings', (region, _, view, item) => {
    const byId = new Map(view.items.map((one) => [one.id, one]))
    const sources = Object.values(item.derive?.from ?? {}).flatMap((path) => {
      const plain = path.replace(/^other\((.*)\)$/, '$1')
      const [id, qualifier]: readonly [string, string?] = byId.has(plain)
        ? [plain]
        : [plain.slice(0, plain.lastIndexOf('.')), plain.slice(plain.lastIndexOf('.') + 1)]
      const source = byId.get(id)
      const isOwnPart = qualifier !== undefined && source?.readings.includes(qualifier) !== true
      return source === undefined || isOwnPart ? [] : [{ source, qualifier, isOther: path !== plain }]
    })
    const worth = (pick: number): unknown => {
      const told = sources.map(({ source, qualifier, isOther }, at) => {
        const values = valuesOf(source, qualifier)
        const value = values[(pick + at * 7 * pick) % values.length]
        const side = !source.sided ? ('none' as const) : isOther ? ('left' as const) : ('right' as const)
        const said: { value?: Value; qualifiers?: Record<string, string | number> } =
          qualifier === undefined ? { value: value as Value } : { qualifiers: value as Record<string, number> }
        const precision = source.kind === 'moment' ? { qualifiers: { precision: 'exact' } } : {}
        return { id: newId(), item: source.id, side, by: 'test', at: AS_OF, state: 'examined' as const, ...said, ...precision }
      })
      // Two readings of one item are told in one entry.
      const entries = told.reduce<typeof told>((all, one) => {
        const same = all.find(({ item: id, side }) => id === one.item && side === one.side)
        const both = { ...same?.qualifiers, ...one.qualifiers }
        return same ? [...all.filter((other) => other !== same), { ...same, ...one, qualifiers: both }] : [...all, one]
      }, [])
      const { compiled, context } = judgement(thePack(), { complaint: { region, sides: ['right'] }, asOf: AS_OF, entries })
      return compiled.reader(item.id, item)(context, item.sided ? 0 : 2)
    }
    const found = new Set(
      Array.from({ length: 24 }, (_one, pick) => worth(pick))
        .filter((one) => one !== null)
        .map((one) => JSON.stringify(one)),
    )
    expect(found.size).toBeGreaterThan(1)
  })
})
