import type { CompiledPack } from './compiledPack.js'
import { NO, YES, type T } from '../rules/truth.js'
import type { JudgeContext } from './judgeContext.js'
import type { Asked } from './verdict.js'
import type { SideIndex } from '../model/side.js'
/**
 * Works out, from core findings alone, which flags are in play and which further items that asks for.
 * An item that only something not yet known could ask for stays open: it is not "not indicated" until that is known.
 */
export function askedItems(compiled: CompiledPack, context: JudgeContext, sides: readonly SideIndex[]): Asked {
  const level = Uint8Array.from(compiled.alwaysAsked)
  const because = new Map<string, string>()
  const inPlay = compiled.flags.map(({ inPlay: rule }) => sides.map((side) => rule.run(context, side)))
  const strengths = groupStrengths(compiled, context, sides, inPlay, level)
  const prompts: { id: string; title: string; because: string; items: readonly string[] }[] = []
  compiled.prompts.forEach(({ group, ask }, at) => {
    const strength = strengths[at] ?? NO
    for (const item of ask) raise(level, item, strength)
    if (strength !== YES) return
    prompts.push({ id: group.id, title: group.title, because: group.because, items: group.ask })
    for (const id of group.ask) if (!because.has(id)) because.set(id, group.because)
  })
  // A value that is worked out is asked for when anything that it is worked out from is.
  for (const { item, source } of compiled.workedOut) raise(level, item, (level[source] ?? NO) as T)
  for (const { item, source, because: why } of compiled.alongside) {
    raise(level, item, (level[source] ?? NO) as T)
    const { id } = compiled.item(item)
    if (level[source] === YES && !because.has(id)) because.set(id, why)
  }
  return { level, because, prompts, inPlay }
}

/** A group is asked when its own rule is met, or when a flag in play names it without a condition. */
function groupStrengths(compiled: CompiledPack, context: JudgeContext, sides: readonly SideIndex[], inPlay: readonly (readonly T[])[], level: Uint8Array): T[] {
  const strengths = compiled.prompts.map(({ rule }) => worst(sides.map((side) => rule.run(context, side))))
  compiled.flagAsks.forEach((asks, at) => {
    const playing = worst(inPlay[at] ?? [])
    for (const { item, group } of asks) {
      if (item >= 0) raise(level, item, playing)
      if (group >= 0 && playing > (strengths[group] ?? NO)) strengths[group] = playing
    }
  })
  return strengths
}

function worst(truths: readonly T[]): T {
  let most: T = NO
  for (const truth of truths) if (truth > most) most = truth
  return most
}

function raise(level: Uint8Array, at: number, strength: T): void {
  if (strength > (level[at] ?? NO)) level[at] = strength
}
