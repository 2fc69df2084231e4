import { load } from 'js-yaml'
import { checkShape } from './schema.js'
import { fingerprint } from './fingerprint.js'
import { buildItem, expandShared } from './buildItem.js'
import { parseRule, RuleError, type Names, type RuleSource } from './parseRule.js'
import { PackError, type Problem } from './problem.js'
import type { CalcSource, ConditionSource, FlagSource, ItemsFile, ItemSource, ModifierSource, PackSource, RegionSource, SourceFile } from './source.js'
import type { Calc, Condition, Flag, Hold, Item, Modifier, Pack, PromptGroup, RuleNode, Stage } from './types.js'

interface Placed<S> {
  readonly path: string
  readonly region: string
  readonly source: S
}

interface Sources {
  pack?: Placed<PackSource>
  regions: Placed<RegionSource>[]
  items: (Placed<ItemSource> & { readonly stage: Stage; readonly position: Item['position'] | undefined })[]
  calcs: Placed<CalcSource>[]
  flags: Placed<FlagSource>[]
  groups: Placed<{ id: string; title: string; when: RuleSource; ask: string[]; because: string }>[]
  holds: Placed<{ id: string; title: string; when: RuleSource; stops: string[]; allowed: string; reason: string; source?: string }>[]
  modifiers: Placed<ModifierSource>[]
  conditions: Placed<ConditionSource>[]
}

/**
 * Compiles the YAML of a content pack into one plain object that the engine judges with.
 * @throws PackError with one problem for each fault: file, id, what is wrong and how to mend it
 */
export function compilePack(files: readonly SourceFile[]): Pack {
  const problems: Problem[] = []
  const sources = readFiles(files, problems)
  if (!sources.pack) throw new PackError([...problems, { file: 'pack.yaml', id: 'pack', reason: 'the pack has no pack.yaml', cure: 'add one with id, version, tiers and destinations' }])
  if (problems.length > 0) throw new PackError(problems)
  const pack = build(sources, sources.pack.source, fingerprint(files), problems)
  if (problems.length > 0) throw new PackError(problems)
  return pack
}

function readFiles(files: readonly SourceFile[], problems: Problem[]): Sources {
  const sources: Sources = { regions: [], items: [], calcs: [], flags: [], groups: [], holds: [], modifiers: [], conditions: [] }
  for (const file of files) {
    const region = /regions\/([a-z-]+)\//.exec(file.path)?.[1] ?? 'shared'
    const document = parseYaml(file, problems)
    if (document === undefined) continue
    const faults = checkShape(file.path, document)
    problems.push(...faults)
    if (faults.length === 0) place(document as Record<string, unknown>, file.path, region, sources)
  }
  return sources
}

function parseYaml(file: SourceFile, problems: Problem[]): unknown {
  try {
    return load(file.text)
  } catch (error) {
    problems.push({ file: file.path, id: '-', reason: `not valid YAML: ${(error as Error).message.split('\n')[0] ?? ''}`, cure: 'correct the line named' })
    return undefined
  }
}

function place(document: Record<string, unknown>, path: string, region: string, sources: Sources): void {
  const all = <S>(key: string): Placed<S>[] => ((document[key] as S[] | undefined) ?? []).map((source) => ({ path, region, source }))
  if ('tiers' in document) sources.pack = { path, region, source: document as unknown as PackSource }
  if ('region' in document) sources.regions.push({ path, region, source: document.region as RegionSource })
  if ('items' in document) {
    const file = document as unknown as ItemsFile
    sources.items.push(...file.items.map((source) => ({ path, region, source, stage: file.stage, position: file.position })))
  }
  sources.calcs.push(...all<CalcSource>('calcs'))
  sources.flags.push(...all<FlagSource>('flags'))
  sources.groups.push(...all<Sources['groups'][number]['source']>('groups'))
  sources.holds.push(...all<Sources['holds'][number]['source']>('holds'))
  sources.modifiers.push(...all<ModifierSource>('modifiers'))
  sources.conditions.push(...all<ConditionSource>('conditions'))
}

function build(sources: Sources, pack: PackSource, hash: string, problems: Problem[]): Pack {
  const scales = pack.scales.map((scale) => ({ ...scale, grades: scale.grades.map(String), calm: scale.calm.map(String) }))
  const regions = sources.regions.map((r) => r.source)
  const placed = sources.items.flatMap((item) => expandShared(item, regions.map((r) => r.id)))
  const core = new Map(regions.flatMap((region) => region.core.map((c) => [qualify(c.item, region.id, placed), c] as const)))
  const draft = placed.map((item) => buildItem(item, scales, core.get(item.source.id), pack.unverified, problems))
  unique(draft.map((item, at) => ({ id: item.id, path: placed[at]?.path ?? '' })), problems)
  const ids = new Set(draft.map((item) => item.id))
  const resolveId = (id: string, region: string): string => (ids.has(id) ? id : ids.has(`${region}.${id}`) ? `${region}.${id}` : id)
  const sets = setsOf(sources, pack, draft, resolveId)
  const byRegion = new Map(['shared', ...regions.map((r) => r.id)].map((region) => [region, namesFor(region, draft, sources, sets, resolveId)]))
  const names = (region: string): Names => byRegion.get(region) ?? namesFor(region, draft, sources, sets, resolveId)
  const rule = (source: RuleSource, at: { path: string; region: string }, id: string): RuleNode => safely(() => parseRule(source, names(at.region), id), at.path, id, problems)
  const listed = (id: string, at: { path: string; region: string }, owner: string): string => {
    const full = resolveId(id, at.region)
    if (!ids.has(full)) problems.push({ file: at.path, id: owner, reason: `names the item "${id}", which does not exist`, cure: 'correct the id' })
    return full
  }
  const regional = <S extends Placed<unknown>>(things: readonly S[]): S[] => things.flatMap((thing) => (thing.region === 'shared' ? regions.map((region) => ({ ...thing, region: region.id })) : [thing]))
  const groups: PromptGroup[] = sources.groups.map((g) => ({ ...g.source, when: rule(g.source.when, g, g.source.id), ask: g.source.ask.map((id) => listed(id, g, g.source.id)) }))
  const flags = regional(sources.flags).map((f) => buildFlag(f, rule, groups, listed, problems))
  const asked = new Set([...groups.flatMap((g) => g.ask), ...flags.flatMap((f) => f.asks.flatMap((a) => a.item ?? []))])
  const calcs = regional(sources.calcs).map((c) => buildCalc(c, rule))
  const items = draft.map((item) => ({ ...item, depth: item.depth === 'on-demand' && asked.has(item.id) ? ('prompted' as const) : item.depth }))
  const holds: Hold[] = regional(sources.holds).map((h) => ({
    ...h.source,
    region: h.region,
    when: rule(h.source.when, h, h.source.id),
    stops: h.source.stops.flatMap((id) => (id.startsWith('$') ? (sets[id] ?? []) : [listed(id, h, h.source.id)])),
    source: h.source.source ?? 'expert',
  }))
  const modifiers: Modifier[] = sources.modifiers.map((m) => ({ ...m.source, when: rule(m.source.when, { path: m.path, region: regions[0]?.id ?? 'shared' }, m.source.id) }))
  const conditions = sources.conditions.map((c) => buildCondition(c, rule))
  for (const things of [calcs, flags, groups, holds, modifiers, conditions]) uniqueIds(things, problems)
  return {
    id: pack.id,
    version: pack.version,
    hash,
    tiers: pack.tiers,
    destinations: pack.destinations.map((d) => ({ ...d, letter: d.letter.map((wish) => (typeof wish === 'string' ? { says: wish, items: [] } : wish)) })),
    actions: pack.actions,
    scales,
    regions: regions.map((region) => ({
      id: region.id,
      name: region.name,
      side: region.side,
      core: region.core.map((c) => listed(c.item, { path: `regions/${region.id}/region.yaml`, region: region.id }, region.id)),
      minimum: region.minimum.map((id) => listed(id, { path: `regions/${region.id}/region.yaml`, region: region.id }, region.id)),
      complaint: region.complaint.map((c) => ({ ...c, item: resolveId(c.item, region.id) })),
      stops: region.stops.map((stop) => ({ ...stop, items: stop.items.map((id) => listed(id, { path: `regions/${region.id}/region.yaml`, region: region.id }, stop.id)) })),
    })),
    items: withAnsweredAlone(items, flags, calcs),
    calcs,
    flags,
    groups,
    holds,
    modifiers,
    conditions,
    schools: pack.schools,
    sets,
    cautions: pack.cautions,
  }
}

const qualify = (id: string, region: string, placed: readonly { readonly source: { readonly id: string } }[]): string =>
  placed.some((item) => item.source.id === id) ? id : `${region}.${id}`

function setsOf(sources: Sources, pack: PackSource, items: readonly Item[], resolveId: (id: string, region: string) => string): Record<string, readonly string[]> {
  const sets: Record<string, string[]> = {}
  for (const item of items) for (const set of item.sets) (sets[set] ??= []).push(item.id)
  for (const [name, ids] of Object.entries(pack.sets ?? {})) sets[name] = ids.map((id) => resolveId(id, sources.regions[0]?.source.id ?? ''))
  for (const { source } of sources.regions) {
    for (const [name, ids] of Object.entries(source.sets ?? {})) sets[name] = ids.map((id) => resolveId(id, source.id))
    sets[`$${source.id}.minimum`] = source.minimum.map((id) => resolveId(id, source.id))
    sets[`$${source.id}.core`] = source.core.map((c) => resolveId(c.item, source.id))
  }
  return sets
}

function namesFor(region: string, items: readonly Item[], sources: Sources, sets: Readonly<Record<string, readonly string[]>>, resolveId: (id: string, region: string) => string): Names {
  const byId = new Map(items.map((item) => [item.id, item]))
  const calcs = new Set(sources.calcs.map((c) => c.source.id))
  const flags = new Set(sources.flags.map((f) => f.source.id))
  const holds = new Set(sources.holds.map((h) => h.source.id))
  return {
    resolve(path) {
      if (calcs.has(path)) return { kind: 'calc', calc: path }
      const full = resolveId(path, region)
      if (byId.has(full)) return { kind: 'item', item: full }
      const cut = path.lastIndexOf('.')
      const owner = byId.get(resolveId(path.slice(0, cut), region))
      const qualifier = path.slice(cut + 1)
      return owner && qualifier in owner.qualifiers ? { kind: 'item', item: owner.id, qualifier } : undefined
    },
    set: (name) => sets[name],
    flag: (id) => flags.has(id),
    hold: (id) => holds.has(id),
  }
}

type RuleReader = (source: RuleSource, at: { path: string; region: string }, id: string) => RuleNode

function buildFlag(placed: Placed<FlagSource>, rule: RuleReader, groups: readonly PromptGroup[], listed: (id: string, at: { path: string; region: string }, owner: string) => string, problems: Problem[]): Flag {
  const { source, region, path } = placed
  const asks = (source.asks ?? []).map((text) => {
    const conditional = text.endsWith('?')
    const name = conditional ? text.slice(0, -1) : text
    if (name.includes('.')) return { item: listed(name, placed, source.id), conditional }
    const group = groups.find((g) => g.id === `${region}.ask.${name}`)
    if (!group) problems.push({ file: path, id: source.id, reason: `asks the group "${name}", which does not exist`, cure: `define ${region}.ask.${name} in prompts.yaml` })
    return { group: group?.id ?? name, conditional }
  })
  return {
    id: source.id,
    region,
    concept: source.concept,
    title: source.title,
    classes: source.classes ?? [],
    to: source.to,
    inPlay: rule(source.inPlay, placed, source.id),
    clauses: source.clauses.map((clause) => ({ ...clause, when: rule(clause.when, placed, source.id) })),
    asks,
    why: source.why,
    doNow: source.doNow,
    avoid: source.avoid,
    excludedBy: source.excludedBy,
    ...(source.clock ? { clock: source.clock } : {}),
    source: source.source,
  }
}

function buildCalc(placed: Placed<CalcSource>, rule: RuleReader): Calc {
  const { source } = placed
  const read = (r: RuleSource): RuleNode => rule(r, placed, source.id)
  return {
    id: source.id,
    label: source.label,
    kind: source.ladder ? 'ladder' : source.points ? 'score' : 'truth',
    ...(source.when === undefined ? {} : { when: read(source.when) }),
    ...(source.validWhen === undefined ? {} : { validWhen: read(source.validWhen) }),
    ladder: (source.ladder ?? []).map((rung) => ({ value: String(rung.value), when: read(rung.when) })),
    points: (source.points ?? []).map((part) => ({ points: part.points, when: read(part.when) })),
    source: source.source,
    ...(source.note === undefined ? {} : { note: source.note }),
  }
}

function buildCondition(placed: Placed<ConditionSource>, rule: RuleReader): Condition {
  const { source } = placed
  const read = (r: RuleSource): RuleNode => rule(r, placed, source.id)
  const { gate, evidence, prior, ...rest } = source
  return {
    ...rest,
    region: placed.region,
    prior: { 'primary-care': BANDS[prior['primary-care']] ?? [0.001, 0.01], emergency: BANDS[prior.emergency] ?? [0.001, 0.01] },
    ...(gate === undefined ? {} : { gate: read(gate) }),
    evidence: (evidence ?? []).map((e) => ({ ...e, when: read(e.when) })),
    source: 'expert',
  }
}

/** Rough starting bands, expert consensus: rare under 1 %, uncommon 1 to 5, occasional 5 to 15, common over 15. */
const BANDS: Readonly<Record<string, readonly [number, number]>> = { rare: [0.001, 0.01], uncommon: [0.01, 0.05], occasional: [0.05, 0.15], common: [0.15, 0.35] }

/** Marks the examined items that could exclude a flag of tier now or today: those are answered one by one. */
function withAnsweredAlone(items: readonly Item[], flags: readonly Flag[], calcs: readonly Calc[]): Item[] {
  const calcRules = new Map(calcs.map((calc) => [calc.id, [calc.when, ...calc.ladder.map((r) => r.when), ...calc.points.map((p) => p.when)].filter((r) => r !== undefined)]))
  const urgent = new Set<string>()
  const seen = new Set<string>()
  const walk = (node: RuleNode): void => {
    if (node.op !== 'leaf') return node.of.forEach(walk)
    const { leaf } = node
    if (leaf.type === 'compare') [leaf.term.item, ...(leaf.term.more ?? [])].forEach((id) => urgent.add(id))
    else if ('item' in leaf) urgent.add(leaf.item)
    else if (leaf.type === 'calc' && !seen.has(leaf.calc)) {
      seen.add(leaf.calc)
      calcRules.get(leaf.calc)?.forEach(walk)
    }
  }
  for (const flag of flags) for (const clause of flag.clauses) if (clause.tier === 'now' || clause.tier === 'today') walk(clause.when)
  return items.map((item) => ({ ...item, answeredAlone: urgent.has(item.id) && item.stage !== 'story' && item.stage !== 'patient' }))
}

const NEVER: RuleNode = { op: 'not', of: [{ op: 'leaf', leaf: { type: 'always', text: 'always' } }] }

function safely(work: () => RuleNode, file: string, id: string, problems: Problem[]): RuleNode {
  try {
    return work()
  } catch (error) {
    if (!(error instanceof RuleError)) throw error
    problems.push({ file, id, reason: error.message, cure: error.cure })
    return NEVER
  }
}

function unique(things: readonly { readonly id: string; readonly path: string }[], problems: Problem[]): void {
  const seen = new Map<string, string>()
  for (const { id, path } of things) {
    const first = seen.get(id)
    if (first !== undefined) problems.push({ file: path, id, reason: `the id is already used in ${first}`, cure: 'give one of the two another id' })
    seen.set(id, path)
  }
}

const uniqueIds = (things: readonly { readonly id: string }[], problems: Problem[]): void => unique(things.map(({ id }) => ({ id, path: 'the pack' })), problems)
