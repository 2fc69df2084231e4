import { STAGE_CEILINGS } from './ceilings.js'
import type { Problem } from '../pack/problem.js'
import { itemsOfLeaf, leavesOf } from '../rules/leaves.js'
import { itemsOfRule } from '../rules/calc.js'
import { rulesOf } from '../pack/rulesOf.js'
import type { Pack, Region, RegionPack } from '../pack/pack.js'
import type { Item } from '../model/item.js'
import type { Leaf, RuleNode } from '../rules/rule.js'
import { viewOf } from '../pack/view.js'
import { isWanted } from '../pack/wantedItem.js'
import { MEASURES } from '../measure/registry.js'
import { itemsById } from '../pack/itemsById.js'
import { hasPlainNormal } from '../record/examinedNormal.js'
import { isMoving } from '../judge/sayings.js'
import { isWorkedOutFromCore, searchFlags } from './proveFlags.js'
import { lintDanger } from './lintDanger.js'
import { lintNames } from './lintNames.js'
import { problem } from './lintProblem.js'
/**
 * Reviews a compiled pack: words and kinds of every comparison, sources of figures, ceilings of the core, keys, cycles, what `inPlay`
 * may read; and by search that every flag can be met and be excluded, and that nothing meets a flag without bringing it into play.
 * The search runs only once everything else is sound.
 * @param only ids of the flags to search for; all when left out
 * @returns one problem for each fault, none when the pack is sound
 */
export function lintPack(pack: Pack, only?: readonly string[]): Problem[] {
  const views = pack.regions.map((region) => viewOf(pack, region.id))
  const plain = [
    ...lintItems(pack),
    ...lintNames(pack),
    ...lintConcepts(pack),
    ...lintLetters(pack),
    ...lintPracticeVariants(pack),
    ...views.flatMap(lintRegion),
  ]
  return plain.length > 0 ? plain : views.flatMap((view) => searchFlags(view, only))
}

/** What can be said of a region without searching. */
export const lintRegion = (view: RegionPack): Problem[] =>
  [
    ...lintCore(view),
    ...lintHere(view),
    ...lintLeaves(view),
    ...lintReferences(view),
    ...lintCycles(view),
    ...lintInPlay(view),
    ...lintPhrases(view),
    ...lintDanger(view),
  ].map((fault) => ({ ...fault, file: view.regions[0].id }))

/** What names flags by their concept names one that some flag has; a pack of one region has not all of them. */
function lintConcepts(pack: Pack): Problem[] {
  if (pack.regions.length < 2) return []
  const known = new Set(pack.flags.map((flag) => flag.concept))
  const unknown = (id: string, concepts: readonly string[]): Problem[] =>
    concepts.filter((one) => !known.has(one)).map((one) => problem(id, `names the concept "${one}", which no flag has`, 'correct it'))
  const modifiers = [...new Map(pack.modifiers.map((modifier) => [modifier.id, modifier])).values()]
  return [
    ...modifiers.flatMap(({ id, classes, concepts, effect }) => [
      ...(classes.length + concepts.length === 0 && isMoving(effect) ? [problem(id, 'moves nothing: it names neither classes nor concepts', 'name one')] : []),
      ...unknown(id, concepts),
    ]),
    ...pack.pathways.flatMap(({ id, concepts }) => unknown(id, concepts)),
  ]
}

/** What a letter looks for in the record can be recorded; a pack of one region does not hold what the others record. */
function lintLetters(pack: Pack): Problem[] {
  if (pack.regions.length < 2) return []
  const isItem = (wish: string): boolean => pack.items.some(({ id }) => isWanted(id, wish))
  return [
    ...pack.destinations.flatMap(({ id, letter }) =>
      letter
        .flatMap(({ items }) => items)
        .filter((wish) => !isItem(wish))
        .map((wish) => problem(id, `looks for ${wish}, which is no item`, 'correct the id')),
    ),
    ...(pack.mayBePregnant && !isItem(pack.mayBePregnant.item)
      ? [problem('mayBePregnant', `names ${pack.mayBePregnant.item}, which is no item`, 'correct the id')]
      : []),
    ...[...pack.nerveLesions.patterns, ...pack.nerveLesions.cordSigns]
      .filter((id) => !pack.calcs.some((calc) => calc.id === id))
      .map((id) => problem('nerveLesions', `names ${id}, which is no calculated value`, 'correct the id')),
    ...pack.everyLetter.filter((wish) => !isItem(wish)).map((wish) => problem('everyLetter', `names ${wish}, which is no item`, 'correct the id')),
  ]
}

/** What the pack goes by is one of the ways that it names. */
const lintPracticeVariants = (pack: Pack): Problem[] =>
  pack.practiceVariants
    .filter((variant) => !variant.choices.includes(variant.default))
    .map((variant) => problem(`${variant.region}: ${variant.topic}`, `goes by "${variant.default}", which is none of its choices`, 'name it among the choices'))

function lintItems(pack: Pack): Problem[] {
  const regions = pack.regions.map((region) => region.id)
  const references = new Set(pack.referenceRanges.map((reference) => reference.id))
  // A pack of one region (a region tried by itself) has no neighbours to open.
  const known = itemsById(pack)
  const isUnknown = (opens: string | undefined): boolean => opens !== undefined && regions.length > 1 && !regions.includes(opens)
  return pack.items.flatMap((item) => [
    ...(item.alongside !== undefined && !known.has(item.alongside)
      ? [problem(item.id, `goes with "${item.alongside}", which is no item`, 'name an item of the pack')]
      : []),
    ...(isUnknown(item.opens) ? [problem(item.id, `opens "${item.opens ?? ''}", which is not a region`, `name one of: ${regions.join(', ')}`)] : []),
    ...(item.stage === 'test' && item.technique.length === 0
      ? [problem(item.id, 'is a test that does not say how it is done', 'give its technique in steps')]
      : []),
    ...(item.stage === 'test' && !item.derive && item.lost.length === 0
      ? [problem(item.id, 'is a test that does not say how its technique is lost', 'name under lost what makes the result worth nothing')]
      : []),
    ...(item.stage === 'patient' && item.group === undefined ? [problem(item.id, 'stands on the patient card under no heading', 'give it a group')] : []),
    ...(item.seconds > 0 || item.stage === 'patient' ? [] : [problem(item.id, 'takes no time', 'give seconds')]),
    ...item.accuracy
      .filter((figure) => figure.source.trim() === '')
      .map(() => problem(item.id, 'has an accuracy figure without a source', 'name author and year, or remove the figure')),
    ...Object.keys(item.norms ?? {})
      .filter((id) => !references.has(id))
      .map((id) => problem(item.id, `has a usual range by "${id}", which is none of the reference ranges`, `use one of ${[...references].join(', ')}`)),
    ...(item.derive && !(item.derive.measure in MEASURES)
      ? [problem(item.id, `is derived by "${item.derive.measure}", which is no measure`, `use one of ${Object.keys(MEASURES).join(', ')}`)]
      : []),
  ])
}

/** A rule of a region, also of a condition, reads only what that region has: another joint's own item is never recorded here. */
function lintHere(view: RegionPack): Problem[] {
  const here = itemsById(view)
  return rulesOf(view).flatMap(([id, rule]) =>
    [...new Set(leavesOf(rule).flatMap(itemsOfLeaf))]
      .filter((item) => !here.has(item))
      .map((item) => problem(id, `reads ${item}, which this region does not have`, 'read an item of its own, or a shared one that is meant for it')),
  )
}

function lintCore(pack: RegionPack): Problem[] {
  return pack.regions.flatMap((region) => {
    const core = pack.items.filter((item) => region.core.includes(item.id))
    const keys = new Map<string, string>()
    const doubled = core.flatMap((item) => {
      const first = item.key === undefined ? undefined : keys.get(item.key)
      if (item.key !== undefined) keys.set(item.key, item.id)
      return first === undefined ? [] : [problem(item.id, `has the key "${item.key ?? ''}" of ${first}`, 'give it another key')]
    })
    const over = Object.entries(STAGE_CEILINGS).flatMap(([name, { stages, most }]) => {
      const count = core.filter((item) => (stages as readonly string[]).includes(item.stage)).length
      return count > most ? [problem(region.id, `asks ${count} core items of ${name}; the ceiling is ${most}`, 'make the least needed one prompted')] : []
    })
    const placed = new Set(region.stops.flatMap((stop) => stop.items))
    const lost = core
      .filter((item) => item.stage !== 'story' && !placed.has(item.id))
      .map((item) => problem(item.id, 'is core and stands in no stop, so nobody is told that it was not examined', 'list it under stops'))
    return [...doubled, ...over, ...lost, ...twiceIn(region)]
  })
}

/** Nobody is turned twice: the stops of one position follow each other. What is asked needs no position. */
function twiceIn({ id, stops }: Region): Problem[] {
  const positions = stops.map(({ position }) => position).filter((position, at, all) => position !== 'asking' && position !== all[at - 1])
  return positions
    .filter((position, at) => positions.indexOf(position) < at)
    .map((position) => problem(id, `takes the patient ${position} twice`, 'list the stops of one position after each other'))
}

/** Every leaf of every rule with the id of what owns it. */
const leaves = (pack: RegionPack): { readonly id: string; readonly leaf: Leaf }[] =>
  rulesOf(pack).flatMap(([id, rule]) => leavesOf(rule).map((leaf) => ({ id, leaf })))

function lintLeaves(pack: RegionPack): Problem[] {
  const items = itemsById(pack)
  const words = leaves(pack).flatMap(({ id, leaf }) =>
    leaf.type === 'compare' ? lintComparison(id, leaf, items) : leaf.type === 'calc' ? lintCalcLeaf(id, leaf, pack) : [],
  )
  const guards = rulesOf(pack).flatMap(([id, node]) =>
    loneProven(node, false).map(() => problem(id, 'uses proven outside a not', 'proven may only suppress: write not: { proven: … }')),
  )
  return [...words, ...guards]
}

const loneProven = (node: RuleNode, underNot: boolean): RuleNode[] =>
  node.op === 'leaf' ? [] : node.op === 'proven' ? (underNot ? [] : [node]) : node.of.flatMap((kid) => loneProven(kid, node.op === 'not'))

function lintComparison(id: string, leaf: Extract<Leaf, { type: 'compare' }>, items: ReadonlyMap<string, Item>): Problem[] {
  const item = items.get(leaf.term.item)
  if (!item) return []
  const { qualifier, fn } = leaf.term
  const about = qualifier === undefined ? item : item.qualifiers[qualifier]
  const options = about?.options ?? []
  if (leaf.cmp === 'is')
    return item.kind === 'sign' || item.qualifiers[qualifier ?? '']?.kind === 'sign'
      ? []
      : [problem(id, `"${leaf.text}" stands bare, but ${item.label} is no sign`, 'compare it with a value')]
  if (qualifier === undefined && item.readings.length > 0 && fn !== 'gap')
    return [problem(id, `"${leaf.text}" does not say which reading`, `write ${item.id}.${item.readings.join(` or ${item.id}.`)}`)]
  if (fn === 'diff' || fn === 'deficit' || fn === 'gap' || fn === 'change' || options.length === 0)
    return leaf.operand.every((word) => !Number.isNaN(Number(word)))
      ? []
      : [problem(id, `"${leaf.text}" compares a number with words`, 'compare with a number')]
  return leaf.operand
    .filter((word) => !options.includes(word))
    .map((word) => problem(id, `"${word}" in "${leaf.text}" is not a value of ${item.label}`, `use one of: ${options.join(', ')}`))
}

function lintCalcLeaf(id: string, leaf: Extract<Leaf, { type: 'calc' }>, pack: RegionPack): Problem[] {
  const calc = pack.calcs.find((one) => one.id === leaf.calc)
  if (calc?.kind === 'truth' && leaf.cmp !== 'is') return [problem(id, `"${leaf.text}" compares a truth`, 'let it stand bare, or under not')]
  if (calc?.kind !== 'ladder' || leaf.cmp !== '=') return []
  return leaf.operand
    .filter((word) => !calc.ladder.some((rung) => rung.value === word))
    .map((word) => problem(id, `"${word}" is not a value of ${calc.label}`, `use one of: ${calc.ladder.map((r) => r.value).join(', ')}`))
}

function lintReferences(pack: RegionPack): Problem[] {
  const actions = new Set(pack.actions.map((action) => action.id))
  const destinations = new Set(pack.destinations.map((d) => d.id))
  return pack.flags.flatMap((flag) => [
    ...flag.doNow
      .filter((id) => !actions.has(id))
      .map((id) => problem(flag.id, `does "${id}" first, which is no action`, 'define it under actions in pack.yaml')),
    ...flag.to
      .filter((id) => !destinations.has(id))
      .map((id) => problem(flag.id, `sends to "${id}", which is no destination`, 'define it under destinations in pack.yaml')),
  ])
}

function lintCycles(pack: RegionPack): Problem[] {
  const refs = new Map<string, string[]>()
  for (const { id, leaf } of leaves(pack)) {
    const to = leaf.type === 'calc' ? leaf.calc : leaf.type === 'flag' || leaf.type === 'hold' ? leaf.ref : undefined
    if (to !== undefined) refs.set(id, [...(refs.get(id) ?? []), to])
  }
  const state = new Map<string, 'open' | 'done'>()
  const cyclic: string[] = []
  const visit = (id: string): void => {
    if (state.get(id) === 'done') return
    if (state.get(id) === 'open') return void cyclic.push(id)
    state.set(id, 'open')
    refs.get(id)?.forEach(visit)
    state.set(id, 'done')
  }
  for (const id of refs.keys()) visit(id)
  return [...new Set(cyclic)].map((id) => problem(id, 'depends on itself', 'break the circle'))
}

/** `inPlay` may read core items, story facts and the patient card only. */
function lintInPlay(pack: RegionPack): Problem[] {
  const items = itemsById(pack)
  const calcs = new Map(pack.calcs.map((calc) => [calc.id, calc]))
  const allowed = (id: string): boolean => {
    const item = items.get(id)
    return item !== undefined && (item.depth === 'core' || item.depth === 'card' || isWorkedOutFromCore(item, pack))
  }
  return pack.flags.flatMap((flag) =>
    itemsOfRule(flag.inPlay, calcs)
      .filter((id) => !allowed(id))
      .map((id) => problem(flag.id, `inPlay reads ${id}, which is not core`, 'use a core item, a story fact or the patient card')),
  )
}

/** A phrase speaks for items that have one plain word for normal, of one stage, so that it stands in their section of the note. */
function lintPhrases(view: RegionPack): Problem[] {
  const items = itemsById(view)
  return view.phrases.flatMap(({ id, covers }) => {
    const stages = new Set(covers.map((item) => items.get(item)?.stage))
    const unfit = covers.filter((one) => {
      const item = items.get(one)
      return !item || !hasPlainNormal(item)
    })
    return [
      ...unfit.map((item) => problem(id, `covers ${item}, which has no plain word for normal in this region`, 'leave it out: its value is always told')),
      ...(stages.size > 1 ? [problem(id, `covers items of ${[...stages].join(' and ')}`, 'say each stage by itself')] : []),
    ]
  })
}
