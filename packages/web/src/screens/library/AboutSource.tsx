import { sourceNames, type LibraryEntry, type RegionPack } from '@kneecap-awl/core'
import { Named, Part, type To } from './EntryParts'

/** A published source with all that stands on it in one joint. */
export function AboutSource({
  pack,
  name,
  to,
  entries,
}: {
  readonly pack: RegionPack
  readonly name: string
  readonly to: To
  readonly entries: readonly LibraryEntry[]
}) {
  const cites = (source: string): boolean => sourceNames(source).includes(name)
  const ids = [
    ...pack.items.filter((item) => cites(item.source) || item.accuracy.some((figure) => cites(figure.source))),
    ...pack.calcs.filter((calc) => cites(calc.source)),
    ...pack.flags.filter((flag) => cites(flag.source)),
    ...pack.conditions.filter(({ evidence }) => evidence.some((one) => cites(one.source))),
  ].map(({ id }) => id)
  return (
    <Part title={`Stands behind, in the ${pack.regions[0].name.toLowerCase()}`}>
      <ul>
        {[...new Set(ids)].map((id) => (
          <li key={id}>
            <Named to={to('any', id)}>{entries.find((entry) => entry.id === id)?.label ?? id}</Named>
          </li>
        ))}
      </ul>
    </Part>
  )
}
