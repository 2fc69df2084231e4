import type { Problem } from './problem.js'
import type { Sources } from './sources.js'
import type { Pack } from './pack.js'

/**
 * Gives everything of a pack the other names that the `names` files list for it: eponyms, abbreviations and variants to be found by (`also`),
 * and plain words for the patient (`lay`). What several regions share under one id has them in each.
 * @param problems gets one for each name of a thing that does not exist; a pack of one region has not all of them
 */
export function withNames(pack: Pack, { names }: Sources, problems: Problem[]): Pack {
  const regions = pack.regions.map((region) => region.id)
  const used = new Set<string>()
  const namesOf = (id: string): { readonly also: readonly string[]; readonly lay: string | undefined } => {
    const region = regions.find((one) => id.startsWith(`${one}.`))
    const found = [id, ...(region === undefined ? [] : [id.slice(region.length + 1)])].filter((one) => names.has(one))
    found.forEach((one) => used.add(one))
    const said = found.flatMap((one) => names.get(one) ?? [])
    return {
      also: said.flatMap(({ also = '' }) => also.split(';').flatMap((name) => name.trim() || [])),
      lay: said.find(({ lay }) => lay !== undefined)?.lay,
    }
  }
  const named = <T extends { readonly id: string; readonly also: readonly string[] }>(thing: T): T => {
    const { also, lay } = namesOf(thing.id)
    return { ...thing, also: also.length === 0 ? thing.also : [...new Set([...thing.also, ...also])], lay }
  }
  const whole = { ...pack, items: pack.items.map(named), flags: pack.flags.map(named), calcs: pack.calcs.map(named), conditions: pack.conditions.map(named) }
  if (regions.length > 1)
    for (const [id, { path }] of names)
      if (!used.has(id)) problems.push({ file: path, id, reason: 'has other names and does not exist', cure: 'correct the id, or take the line out' })
  return whole
}
