import type { Item } from '../model/item.js'

/** As much of a set as one joint can examine: its own items, and what joints share. */
export const membersHere = (members: readonly string[] = [], region: string, items: ReadonlyMap<string, Item>): readonly string[] =>
  members.filter((id) => [region, 'shared'].includes(items.get(id)?.owner ?? region))
