import { SIDE_INDEX } from '../model/side.js'
import { isFinding } from '../record/decisions.js'
import type { Entry } from '../record/entry.js'
import { isLater } from '../record/record.js'
import { slotOf } from '../rules/runtime.js'
import { askedItems } from './asked.js'
import { type Judgement } from './judgement.js'
import { earlierAt, readingAt } from './standingEntries.js'
import { verdictOf } from './verdictOf.js'

/**
 * The judgement after one more entry that lifts no flag and is held against no other device: the same as judging the longer record anew, but only what hangs on
 * that item is worked out again. An entry that a later one already stands over changes nothing.
 */
export function rejudge(before: Judgement, entry: Entry): Judgement {
  const { compiled, sides } = before
  const record = before.record.with(entry)
  const examination = { ...before.examination, entries: record.entries }
  const item = isFinding(entry) ? compiled.indexOf.get(entry.item) : undefined
  if (!isFinding(entry) || item === undefined) return { ...before, examination, record }
  const at = slotOf(item, SIDE_INDEX[entry.side])
  const stood = before.standing[at]
  const isCompared = compiled.compared.has(item)
  const isOlder = stood !== undefined && !isLater(entry, stood)
  if (isOlder && !isCompared) return { ...before, examination, record }
  const [stands, other] = isOlder ? [stood, entry] : [entry, stood]
  const standing = [...before.standing]
  standing[at] = stands
  const others = isCompared && other ? new Map([...before.others, [at, [...(before.others.get(at) ?? []), other]]]) : before.others
  const slots = [...before.context.slots]
  slots[at] = readingAt(compiled.pack, at, stands)
  const earlier = isCompared ? earlierAt(compiled.pack, at, stands, others.get(at)) : undefined
  const previous = isCompared ? Object.assign([...before.context.previous], { [at]: earlier }) : before.context.previous
  const context = compiled.contextAfter(before.context, slots, previous, item)
  compiled.resumePhase(context, { deciding: true, indicated: null })
  const asked = askedItems(compiled, context, sides)
  compiled.resumePhase(context, { deciding: false, indicated: asked.level })
  return { ...before, examination, record, verdict: verdictOf(compiled, context, sides, asked), context, standing, others }
}
