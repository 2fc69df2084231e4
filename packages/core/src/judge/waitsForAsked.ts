import type { CompiledPack } from './compiledPack.js'
import { itemOfSlot, slotOf, type Compiled, type Context } from '../rules/runtime.js'
import { settlingSet } from '../rules/settle.js'
import { UNKNOWN, YES } from '../rules/truth.js'
import type { SideIndex } from '../model/side.js'

/**
 * Whether a rule that the core left out of play waits for a finding that something else asks for anyway. Then it is open until that is
 * examined: what is asked for may be found, and found it counts. A result that was ordered for something else holds nothing open.
 * @param level of every item: over 0 when it is asked for or may yet be (see `Asked`)
 * @example a rash is looked for because of lupus: purpura is open until the skin was seen, fever or not
 */
export function waitsForAsked(rule: Compiled, context: Context, side: SideIndex, compiled: CompiledPack, level: Uint8Array): boolean {
  if (rule.run(context, side) !== UNKNOWN) return false
  if (rule.kids.length > 0) return rule.kids.some((kid) => waitsForAsked(kid, context, side, compiled, level))
  const isAwaited = (slot: number): boolean => {
    const at = itemOfSlot(slot)
    const { depth, stage } = compiled.item(at)
    return depth === 'prompted' && stage !== 'result' && (level[at] ?? 0) > 0 && context.slots[slot] === undefined
  }
  const isCalc = rule.node.op === 'leaf' && rule.node.leaf.type === 'calc'
  const slots = isCalc
    ? (settlingSet(rule, YES, context, side, compiled, (slot) => (isAwaited(slot) ? 1 : 1000)) ?? [])
    : rule.reads(side).map(({ item, side: at }) => slotOf(item, at))
  return [...slots].some(isAwaited)
}
