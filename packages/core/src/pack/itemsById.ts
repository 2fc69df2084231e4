import type { Item } from '../model/item.js'
import { oncePer } from '../model/oncePer.js'
import type { AnyPack } from './pack.js'

export const itemsById = oncePer((pack: AnyPack): ReadonlyMap<string, Item> => new Map(pack.items.map((item) => [item.id, item])))
