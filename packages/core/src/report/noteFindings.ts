import type { Judgement } from '../judge/judgement.js'
import type { Item, Stage } from '../model/item.js'
import type { Side } from '../model/side.js'
import { SIDE_INDEX, SIDES } from '../model/side.js'
import { itemsById } from '../pack/itemsById.js'
import type { RegionPack } from '../pack/pack.js'
import { hasSides } from '../pack/view.js'
import type { FindingEntry } from '../record/entry.js'
import { isPlainNormal } from '../record/examinedNormal.js'
import { type Compiled } from '../rules/runtime.js'
import { YES } from '../rules/truth.js'
import { byItem, itemLine, type ItemFindings } from './itemLines.js'
import { serialStatements } from './readingStatements.js'
import { isAbnormalEntry, normalWords } from './words.js'

/** The items that were examined and are normal, each with the sides on which. */
type Normal = ReadonlyMap<string, ReadonlySet<Side>>

/**
 * What was found, stage by stage, as lines of a note. An item that says something on either side has one line with both, so that the sides
 * can be compared; what is normal is said in the phrases of the joint, and what no phrase covers by name and side.
 */
export class NoteFindings {
  private readonly findings: readonly ItemFindings[]
  private readonly normal: Normal

  private readonly pack: RegionPack

  constructor(
    private readonly judged: Judgement,
    private readonly zone: string | undefined,
  ) {
    this.pack = judged.pack
    this.findings = byItem(this.pack, judged.record.findings, judged.examination.complaint.sides)
    this.normal = new Map(
      this.findings.map(({ item, entries: own }) => [item.id, new Set(own.filter((entry) => !saysMore(item, entry)).map((entry) => entry.side))]),
    )
  }

  /** Lines of one stage, none when nothing of it was recorded. */
  linesOf(stage: Stage): readonly string[] {
    const own = this.findings.filter(({ item }) => item.stage === stage)
    const isTelling = ({ item, entries }: ItemFindings): boolean => entries.some(({ side }) => !this.normal.get(item.id)?.has(side))
    const telling = own.filter(isTelling)
    const calm = own.filter((one) => !isTelling(one))
    const phrases = this.judged.compiled.phrases.filter(({ phrase }) => itemsById(this.pack).get(phrase.covers[0] ?? '')?.stage === stage)
    const said = phrases.flatMap(({ phrase, rule }) => {
      const sides = this.sidesOf(phrase.covers).filter((side) => !rule || this.isMet(rule, side))
      return sides.length > 0 ? [{ phrase, sides }] : []
    })
    const isSaid = (item: string, side: Side): boolean =>
      said.some(({ phrase, sides }) => phrase.covers.includes(item) && (sides.includes(side) || side === 'none'))
    const left = calm.map(({ item, entries }) => ({ item, sides: entries.map((entry) => entry.side).filter((side) => !isSaid(item.id, side)) }))
    return [...this.told(telling), ...inOneBreath(said.map(({ phrase, sides }) => [spoken(sides), phrase.says])), ...named(left, stage)]
  }

  /** What was examined and is normal on every side that is judged, in the words of the joint. */
  negatives(): readonly string[] {
    const { compiled, sides } = this.judged
    return compiled.phrases.flatMap(({ phrase, rule }) => {
      const covered = phrase.covers.length === 0 ? [] : this.sidesOf(phrase.covers).filter((side) => !rule || this.isMet(rule, side))
      const isHere = covered.includes('none') || (covered.length > 0 && sides.every((side) => covered.includes(SIDES[side])))
      return isHere && !isCheck(itemsById(this.pack).get(phrase.covers[0] ?? '')?.stage) ? [phrase.says] : []
    })
  }

  /** The abnormal first, each by itself; then what was compared between the sides; what has no side and is only told, in one line. */
  private told(telling: readonly ItemFindings[]): string[] {
    const line = (one: ItemFindings): string => {
      const since = serialStatements(one.item, this.judged.record)
      return `${itemLine(this.pack, one, this.zone)}${since.length > 0 ? ` [${since.join('; ')}]` : ''}`
    }
    const isOdd = ({ entries }: ItemFindings): boolean => entries.some((entry) => entry.state !== 'examined' || isAbnormalEntry(this.pack, entry))
    const rest = telling.filter((one) => !isOdd(one))
    const plain = rest.filter(({ item }) => !item.sided).map(line)
    return [...telling.filter(isOdd).map(line), ...rest.filter(({ item }) => item.sided).map(line), ...(plain.length > 0 ? [plain.join('; ')] : [])]
  }

  /** What the note tells of rules by their outcome: of each side for which it is settled. */
  outcomes(): readonly string[] {
    const { compiled, sides } = this.judged
    return compiled.phrases.flatMap(({ phrase, rule }) => {
      if (phrase.covers.length > 0 || !rule) return []
      const met = sides.map((side) => SIDES[side]).filter((side) => this.isMet(rule, side))
      return met.length === 0 ? [] : [`${hasSides(compiled.pack) ? spoken(met) : ''}${phrase.says}`]
    })
  }

  private isMet(rule: Compiled, side: Side): boolean {
    const sides = side === 'none' ? this.judged.sides : [SIDE_INDEX[side]]
    return sides.every((one) => rule.run(this.judged.context, one) === YES)
  }

  /** The sides on which everything that is covered was examined and is normal; `none` for what has no side. */
  private sidesOf(covers: readonly string[]): readonly Side[] {
    const items = itemsById(this.pack)
    const isNormal = (id: string, side: Side): boolean => this.normal.get(id)?.has(items.get(id)?.sided ? side : 'none') ?? false
    const candidates: readonly Side[] = covers.some((id) => items.get(id)?.sided) ? ['right', 'left'] : ['none']
    return candidates.filter((side) => covers.every((id) => isNormal(id, side)))
  }
}

/** Pulse and nerve are told apart, with the time of each check. */
const isCheck = (stage: Stage | undefined): boolean => stage === 'neuro' || stage === 'vascular'

/** Whether an entry says more than that it was examined and is normal. */
const saysMore = (item: Item, entry: FindingEntry): boolean => entry.state !== 'examined' || entry.override !== undefined || !isPlainNormal(item, entry)

/** @example spoken(['right', 'left']) // "Both sides: " */
const spoken = (sides: readonly Side[]): string => {
  const [side] = sides
  return sides.length > 1 ? 'Both sides: ' : side === undefined || side === 'none' ? '' : `${side === 'right' ? 'Right' : 'Left'}: `
}

/** All that is said of the same sides as one line. */
function inOneBreath(said: readonly (readonly [of: string, says: string])[]): string[] {
  const lines = new Map<string, string[]>()
  for (const [of, says] of said) lines.set(of, [...(lines.get(of) ?? []), says])
  return [...lines].map(([of, says]) => `${of}${says.join(' ')}`)
}

/** What is normal and in no phrase, by name, a line for each way in which sides were examined; ranges that were full stand together. */
function named(left: readonly { readonly item: Item; readonly sides: readonly Side[] }[], stage: Stage): string[] {
  const heading = stage === 'story' || stage === 'patient' ? 'Asked, nothing relevant' : 'Examined and normal'
  const groups = new Map<string, string[]>()
  for (const { item, sides } of left) {
    if (sides.length === 0) continue
    const isFull = item.kind === 'angle' && item.normalSpan?.says === 'full'
    const on = sides.length > 1 ? ', both sides' : sides[0] === 'none' ? '' : `, ${sides[0] ?? ''} only`
    const head = isFull ? (sides.length > 1 ? 'Full and equal, visual estimate' : `Full, visual estimate${on}`) : `${heading}${on}`
    groups.set(head, [...(groups.get(head) ?? []), isFull ? item.label : labelled(item)])
  }
  return [...groups].map(([head, labels]) => `${head}: ${labels.join('; ')}`)
}

/** @example labelled(extensorLag) // 'Extensor lag (none, visual estimate)' */
const labelled = (item: Item): string => (item.normalSpan ? `${item.label} (${normalWords(item, item.normalSpan.says)})` : item.label)
