import type { Prepared } from './prepare.js'
import type { Context } from './runtime.js'
import { NO, UNKNOWN, YES, type T } from './truth.js'

/** What the core findings call for. */
export interface Asked {
  /** Per item: 2 asked for, 1 may still be asked for, 0 nothing calls for it. */
  readonly level: Uint8Array
  /** Why a prompted item is asked, by item id: the group's own words. */
  readonly because: ReadonlyMap<string, string>
  readonly groups: readonly { readonly id: string; readonly title: string; readonly because: string; readonly items: readonly string[] }[]
  /** inPlay of each flag, by complaint side. */
  readonly inPlay: readonly (readonly T[])[]
}

/**
 * Works out, from core findings alone, which flags are in play and which further items that asks for.
 * An item that only something not yet known could ask for stays open: it is not "not indicated" until that is known.
 */
export function askedItems(prepared: Prepared, context: Context, sides: readonly number[]): Asked {
  const level = new Uint8Array(prepared.pack.items.length)
  const because = new Map<string, string>()
  prepared.pack.items.forEach((item, at) => {
    if (item.depth === 'core' || item.depth === 'card') level[at] = 2
  })
  const inPlay = prepared.flags.map(({ inPlay: rule }) => sides.map((side) => rule.run(context, side)))
  const groupTruth = new Map(prepared.groups.map(({ group, rule }) => [group.id, worst(sides.map((side) => rule.run(context, side)))]))
  const asked = groupLevels(prepared, groupTruth, inPlay, level)
  const groups: { id: string; title: string; because: string; items: string[] }[] = []
  for (const { group } of prepared.groups) {
    const strength = asked.get(group.id) ?? NO
    for (const id of group.ask) raise(level, prepared.index(id), strength)
    if (strength !== YES) continue
    groups.push({ id: group.id, title: group.title, because: group.because, items: [...group.ask] })
    for (const id of group.ask) if (!because.has(id)) because.set(id, group.because)
  }
  inheritLevels(prepared, level)
  return { level, because, groups, inPlay }
}

const worst = (truths: readonly T[]): T => Math.max(NO, ...truths) as T

function raise(level: Uint8Array, at: number, strength: T): void {
  if (strength > (level[at] ?? 0)) level[at] = strength
}

/** A group is asked when its own rule is met, or when a flag in play names it without a condition. */
function groupLevels(prepared: Prepared, own: ReadonlyMap<string, T>, inPlay: readonly (readonly T[])[], level: Uint8Array): Map<string, T> {
  const asked = new Map(own)
  prepared.flags.forEach(({ flag }, at) => {
    const playing = worst(inPlay[at] ?? [])
    for (const ask of flag.asks) {
      if (ask.item !== undefined) raise(level, prepared.index(ask.item), playing)
      if (ask.group !== undefined && !ask.conditional) asked.set(ask.group, Math.max(asked.get(ask.group) ?? NO, playing) as T)
    }
  })
  return asked
}

/** A value that is worked out from others is asked for when it, or anything it is worked out from, is. */
function inheritLevels(prepared: Prepared, level: Uint8Array): void {
  prepared.pack.items.forEach((item, at) => {
    for (const path of Object.values(item.derive?.from ?? {})) {
      const source = prepared.indexOf.get(path.replace(/^other\((.*)\)$/, '$1')) ?? prepared.indexOf.get(path.slice(0, path.lastIndexOf('.')))
      if (source !== undefined) raise(level, at, (level[source] ?? 0) as T)
    }
  })
}

export { UNKNOWN }
