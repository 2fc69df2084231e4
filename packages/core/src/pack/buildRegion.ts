import { parseRule, RuleError, type Names, type RuleSource } from '../rules/parseRule.js'
import { membersHere } from './membersHere.js'
import type { Problem } from './problem.js'
import { inRegion, standsIn, type Placed, type Sources } from './sources.js'
import type { CalcSource, FlagSource, RegionSource } from './source.js'
import type { Calc } from '../rules/calc.js'
import type { Condition, Flag, Hold, Modifier, Pack, Phrase, Prompt, Region, RegionalItem } from './pack.js'
import type { Item, Qualifier } from '../model/item.js'
import type { RuleNode } from '../rules/rule.js'
import { urgentItems } from './urgentItems.js'
import { buildCondition } from './buildCondition.js'
import { buildModifier } from './buildModifier.js'
export interface RegionParts extends Pick<Pack, 'calcs' | 'flags' | 'prompts' | 'holds' | 'modifiers' | 'conditions' | 'phrases'> {
  readonly region: Region
}

interface RegionSources {
  readonly sources: Sources
  readonly items: readonly Item[]
  readonly ids: ReadonlyMap<string, Item>
  readonly sets: Readonly<Record<string, readonly string[]>>
}

/** Everything of one region: its own files and what the shared files hold for it, with every name resolved as this region means it. */
export function buildRegion(placed: Placed<RegionSource>, from: RegionSources, problems: Problem[]): RegionParts {
  const builder = new RegionBuilder(placed, from, problems)
  const prompts = builder.prompts()
  const flags = builder.flags(prompts)
  const calcs = builder.calcs()
  const parts = { calcs, flags, prompts, holds: builder.holds(), modifiers: builder.modifiers(), conditions: builder.conditions(), phrases: builder.phrases() }
  for (const things of Object.values(parts)) builder.unique(things)
  return { region: builder.region(flags, prompts, calcs), ...parts }
}

class RegionBuilder {
  private readonly id: string
  private readonly ids: ReadonlyMap<string, Item>
  private readonly names: Names

  constructor(
    private readonly placed: Placed<RegionSource>,
    private readonly from: RegionSources,
    private readonly problems: Problem[],
  ) {
    this.id = placed.source.id
    this.ids = from.ids
    this.names = this.namesHere()
  }

  private here<S>(things: readonly Placed<S>[]): Placed<S>[] {
    return things.filter((thing) => standsIn(thing, this.id))
  }

  /** An id as written: whole, or without the region's name in front. */
  private resolve(id: string): string {
    return this.ids.has(id) ? id : `${this.id}.${id}`
  }

  private namesHere(): Names {
    const { sources, sets } = this.from
    const known = <S extends { readonly id: string }>(things: readonly Placed<S>[]): Set<string> => new Set(this.here(things).map((thing) => thing.source.id))
    const calcs = known(sources.calcs)
    const flags = new Set(sources.flags.filter((flag) => flag.region === this.id).map((flag) => flag.source.id))
    const holds = known(sources.holds)
    const calc = (path: string): string | undefined => [path, `${this.id}.${path}`].find((id) => calcs.has(id))
    return {
      resolve: (path) => {
        const found = calc(path)
        if (found !== undefined) return { kind: 'calc', calc: found }
        const full = this.resolve(path)
        if (this.ids.has(full)) return { kind: 'item', item: full }
        const cut = path.lastIndexOf('.')
        const owner = this.ids.get(this.resolve(path.slice(0, cut)))
        const qualifier = path.slice(cut + 1)
        return owner && qualifier in owner.qualifiers ? { kind: 'item', item: owner.id, qualifier } : undefined
      },
      unit: (id, qualifier) => this.recordedAs(id, qualifier)?.unit,
      words: (id, qualifier) => this.recordedAs(id, qualifier)?.options ?? [],
      set: (name) => sets[name],
      criterion: (id, self) => {
        const found = sources.criteria.get(id)
        found?.uses.add(self)
        return found && inRegion(found.source, this.id).when
      },
      flag: (id) => flags.has(id),
      hold: (id) => holds.has(id),
    }
  }

  private readonly recordedAs = (id: string, qualifier?: string): Item | Qualifier | undefined =>
    qualifier === undefined ? this.ids.get(id) : this.ids.get(id)?.qualifiers[qualifier]

  private rule(source: RuleSource, path: string, id: string): RuleNode {
    try {
      return parseRule(source, this.names, id)
    } catch (error) {
      if (!(error instanceof RuleError)) throw error
      this.problems.push({ file: path, id: `${this.id}: ${id}`, reason: error.message, cure: error.cure })
      return NEVER
    }
  }

  private listed(id: string, path: string, owner: string): string {
    const full = this.resolve(id)
    if (!this.ids.has(full)) this.problems.push({ file: path, id: owner, reason: `names the item "${id}", which does not exist`, cure: 'correct the id' })
    return full
  }

  prompts(): Prompt[] {
    return this.here(this.from.sources.prompts).map(({ source, path }) => ({
      ...source,
      region: this.id,
      when: this.rule(source.when, path, source.id),
      ask: source.ask.map((id) => this.listed(id, path, source.id)),
    }))
  }

  /** A region's flag, over what the shared files say of it; clauses of both stand side by side. */
  flags(prompts: readonly Prompt[]): Flag[] {
    const shared = this.here(this.from.sources.flags).filter((flag) => flag.region === 'shared')
    const own = this.from.sources.flags.filter((flag) => flag.region === this.id)
    return own.flatMap(({ source, path }) => {
      const templates = shared.filter((one) => one.source.id === source.id).map((one) => inRegion(one.source, this.id))
      const clauses = [...(source.clauses ?? []), ...templates.flatMap((one) => one.clauses ?? [])]
      const merged: FlagSource = Object.assign({}, ...templates, source, { clauses }) as FlagSource
      const missing = [...REQUIRED.filter((key) => !(key in merged)), ...(clauses.length === 0 ? ['clauses'] : [])]
      if (missing.length > 0) {
        this.problems.push({
          file: path,
          id: source.id,
          reason: `does not say ${missing.join(', ')}`,
          cure: 'say it here or in the shared flag of that id',
        })
        return []
      }
      return [this.flag(merged as Required<FlagSource>, path, prompts)]
    })
  }

  private flag(source: FlagSource & Required<Pick<FlagSource, (typeof REQUIRED)[number] | 'clauses'>>, path: string, prompts: readonly Prompt[]): Flag {
    const asks = (source.asks ?? []).map((text) => {
      const conditional = text.endsWith('?')
      const name = conditional ? text.slice(0, -1) : text
      if (name.includes('.')) return { item: this.listed(name, path, source.id), conditional }
      const group = prompts.find((g) => g.id === `${this.id}.ask.${name}` || g.id === `ask.${name}`)
      if (!group)
        this.problems.push({
          file: path,
          id: source.id,
          reason: `asks the group "${name}", which does not exist`,
          cure: `define ${this.id}.ask.${name} in prompts.yaml`,
        })
      return { group: group?.id ?? name, conditional }
    })
    return {
      id: source.id,
      region: this.id,
      concept: source.concept,
      title: source.title,
      classes: source.classes ?? [],
      to: source.to,
      inPlay: this.rule(source.inPlay, path, source.id),
      clauses: source.clauses.map((clause) => ({ ...clause, when: this.rule(clause.when, path, source.id) })),
      asks,
      why: source.why,
      doNow: source.doNow,
      avoid: source.avoid,
      excludedBy: source.excludedBy,
      ...(source.clock ? { clock: source.clock } : {}),
      ...(source.because === undefined ? {} : { because: source.because }),
      ...(source.reviewed ? { reviewed: source.reviewed } : {}),
      source: source.source,
      also: [],
    }
  }

  calcs(): Calc[] {
    return this.here(this.from.sources.calcs).map((calc) => this.calc(calc))
  }

  private calc({ source, path }: Placed<CalcSource>): Calc {
    const read = (rule: RuleSource): RuleNode => this.rule(rule, path, source.id)
    return {
      id: source.id,
      region: this.id,
      label: source.label,
      also: source.also ?? [],
      kind: source.ladder ? 'ladder' : source.points ? 'score' : 'truth',
      ...(source.when === undefined ? {} : { when: read(source.when) }),
      ...(source.validWhen === undefined ? {} : { validWhen: read(source.validWhen) }),
      ladder: (source.ladder ?? []).map((rung) => ({ value: String(rung.value), when: read(rung.when) })),
      points: (source.points ?? []).flatMap((part, at) =>
        'oneOf' in part
          ? part.oneOf.map((level) => ({ points: level.points, when: read(level.when), oneOf: at }))
          : [{ points: part.points, when: read(part.when) }],
      ),
      source: source.source,
      ...(source.note === undefined ? {} : { note: source.note }),
      ...(source.because === undefined ? {} : { because: source.because }),
    }
  }

  holds(): Hold[] {
    return this.here(this.from.sources.holds).map(({ source: written, path }) => {
      const source = inRegion(written, this.id)
      return {
        ...source,
        region: this.id,
        when: this.rule(source.when, path, source.id),
        stops: source.stops.flatMap((id) => (id.startsWith('$') ? membersHere(this.from.sets[id], this.id, this.ids) : [this.listed(id, path, source.id)])),
        source: source.source ?? 'expert',
      }
    })
  }

  modifiers(): Modifier[] {
    return this.here(this.from.sources.modifiers).map(({ source, path }) => {
      const own = inRegion(source, this.id)
      return buildModifier(own, this.id, this.rule(own.when, path, own.id), (item) => this.listed(item, path, own.id))
    })
  }

  phrases(): Phrase[] {
    return this.here(this.from.sources.phrases).map(({ source: written, path }) => {
      const { id, says, covers = [], when } = inRegion(written, this.id)
      if (covers.length === 0 && when === undefined)
        this.problems.push({ file: path, id, reason: 'is said of nothing', cure: 'name what it covers, or when it is said' })
      return {
        id,
        region: this.id,
        says,
        covers: covers.map((item) => this.listed(item, path, id)),
        ...(when === undefined ? {} : { when: this.rule(when, path, id) }),
      }
    })
  }

  conditions(): Condition[] {
    return this.here(this.from.sources.conditions).map((placed) =>
      buildCondition(
        placed,
        { region: this.id, pack: this.from.sources.pack?.source, read: (rule) => this.rule(rule, placed.path, placed.source.id) },
        this.problems,
      ),
    )
  }

  region(flags: readonly Flag[], prompts: readonly Prompt[], calcs: readonly Calc[]): Region {
    const { source, path } = this.placed
    return {
      id: source.id,
      name: source.name,
      side: source.side,
      figure: source.figure ?? [],
      ...(source.ages ? { ages: source.ages } : {}),
      ordinary: { 'patient.age-years': 40, ...source.ordinary },
      core: source.core.map((c) => this.listed(c.item, path, source.id)),
      minimum: source.minimum.map((id) => this.listed(id, path, source.id)),
      complaint: source.complaint.map((c) => ({ ...c, item: this.resolve(c.item) })),
      stops: source.stops.map((stop) => ({ ...stop, items: stop.items.map((id) => this.listed(id, path, stop.id)) })),
      items: this.regionalItems(flags, prompts, calcs),
    }
  }

  /** What an item is in this region: core with its key, prompted, answered by itself. */
  private regionalItems(flags: readonly Flag[], prompts: readonly Prompt[], calcs: readonly Calc[]): Record<string, RegionalItem> {
    const named = [...prompts.flatMap((g) => g.ask), ...flags.flatMap((f) => f.asks.flatMap((a) => a.item ?? []))]
    const alone = urgentItems(flags, calcs)
    const core = new Map(this.placed.source.core.map((c) => [this.resolve(c.item), c]))
    const asked = new Set([...named, ...[...named, ...core.keys()].flatMap((id) => this.ids.get(id)?.alongside ?? [])])
    const regional: Record<string, RegionalItem> = {}
    for (const id of new Set([...core.keys(), ...asked, ...alone])) {
      const item = this.ids.get(id)
      if (!item) continue
      const c = core.get(id)
      const depth = item.stage === 'patient' ? 'card' : c ? 'core' : asked.has(item.id) ? 'prompted' : 'on-demand'
      const answeredAlone = alone.has(item.id) && item.stage !== 'story' && item.stage !== 'patient'
      if (depth === item.depth && !answeredAlone) continue
      regional[item.id] = {
        depth,
        answeredAlone,
        ...(c ? { why: c.why, key: c.key, seconds: c.seconds, ...(c.label === undefined ? {} : { label: c.label }) } : {}),
      }
    }
    return regional
  }

  unique(things: readonly { readonly id: string }[]): void {
    const seen = new Set<string>()
    for (const { id } of things) {
      if (seen.has(id))
        this.problems.push({ file: `regions/${this.id}`, id, reason: 'the id is used twice in this region', cure: 'give one of the two another id' })
      seen.add(id)
    }
  }
}

const REQUIRED = ['concept', 'title', 'to', 'inPlay', 'why', 'doNow', 'avoid', 'excludedBy', 'source'] as const

const NEVER: RuleNode = { op: 'not', of: [{ op: 'leaf', leaf: { type: 'always', text: 'always' } }] }
