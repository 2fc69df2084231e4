import { CORE_SCHEMA, load } from 'js-yaml'
import type { Item } from '../model/item.js'
import type { Tier } from '../model/tier.js'
import type { RegionPack } from '../pack/pack.js'
import type { SourceFile } from '../pack/source.js'

/** What a recorded value deserves by itself, whatever else is recorded or not. */
export interface LeastTier {
  readonly tier: Tier | 'none'
  readonly because: string
}

interface Statement {
  readonly items: readonly string[]
  readonly values: Readonly<Record<string, Tier | 'none'>>
  readonly because: string
}

/** By the item's id, then by the value. */
export type LeastTiers = ReadonlyMap<string, ReadonlyMap<string, LeastTier>>

/**
 * What the `least` files say of the items of a region. They are written apart from the rules, which are held against them.
 * An item that a joint has for itself is named without the joint: `screen.wound` stands for `knee.screen.wound`; a later statement stands over an earlier.
 * @param files the whole content
 * @example leastTiers(files, viewOf(pack, 'knee')).get('vascular.pulse-dorsalis-pedis')?.get('absent')?.tier // 'today'
 */
export function leastTiers(files: readonly SourceFile[], view: RegionPack): LeastTiers {
  const { id } = view.regions[0]
  const statements = files
    .filter(({ path }) => path.startsWith('least'))
    .flatMap(({ text }) => (load(text, { schema: CORE_SCHEMA }) as { readonly least: readonly Statement[] }).least)
  const found = new Map<string, Map<string, LeastTier>>()
  for (const { items, values, because } of statements)
    for (const item of view.items.filter((one) => items.includes(one.id) || items.some((name) => `${id}.${name}` === one.id)))
      for (const value of Object.keys(values).filter((word) => deservingValues(item).includes(word)))
        found.set(item.id, new Map([...(found.get(item.id) ?? []), [value, { tier: values[value] ?? 'none', because }]]))
  return found
}

/** The words of an item that are neither calm nor say that nothing was found out. */
export const deservingValues = ({ options, calm, gaps }: Pick<Item, 'options' | 'calm' | 'gaps'>): string[] =>
  options.filter((word) => !calm.includes(word) && !gaps.includes(word))
