import { howDone } from './howDone.js'
import { isSiteOfPain } from '../model/siteOfPain.js'
import { uniformItem, overlaid } from './uniformItem.js'
import { gapsOf, normalMeaning } from './normalMeaning.js'
import type { Problem } from './problem.js'
import { inRegion, standsIn, type Sources } from './sources.js'
import type { ItemSource } from './source.js'
import type { Finding, Item, Qualifier, Scalar } from '../model/item.js'
import type { Scale } from './pack.js'

type PlacedItem = Sources['items'][number]

/** Every item of the pack. A shared item of scope `joint` becomes one for each region: `screen.wound` becomes `knee.screen.wound`; what the region itself says of it wins. */
export function buildItems(sources: Sources, scales: readonly Scale[], unverified: readonly string[], problems: Problem[]): Item[] {
  const regions = sources.regions.map((region) => region.source.id)
  const byId = new Map<string, PlacedItem>()
  for (const item of sources.items.flatMap((one) => expandShared(one, regions))) {
    const first = byId.get(item.source.id)
    if (first && !(first.region === item.region && first.isShared !== item.isShared)) {
      problems.push({ file: item.path, id: item.source.id, reason: `the id is already used in ${first.path}`, cure: 'give one of the two another id' })
      continue
    }
    byId.set(item.source.id, first ? mergedItem(first, item) : item)
  }
  const all = [...byId.values()]
  const sites = new Map(all.flatMap(({ region, source }) => (isSiteOfPain(source.id) ? [[region, (source.options ?? []).map(String)] as const] : [])))
  return all.map((item) => buildItem(item, scales, unverified, sites.get(item.region) ?? [], problems))
}

function expandShared(item: PlacedItem, regions: readonly string[]): PlacedItem[] {
  if (item.source.scope !== 'joint' || item.region !== 'shared') return [item]
  return regions
    .filter((region) => standsIn(item, region))
    .map((region) => ({ ...item, region, isShared: true, source: uniformItem({ ...inRegion(item.source, region), id: `${region}.${item.source.id}` }) }))
}

/** Shared files are read after the regions' in order of path, so either may come first: what the region says, and the stage in which it asks, stands over the shared text. */
function mergedItem(a: PlacedItem, b: PlacedItem): PlacedItem {
  const [shared, own] = a.isShared ? [a, b] : [b, a]
  return { ...own, position: own.position ?? shared.position, seconds: own.seconds ?? shared.seconds, source: overlaid(shared.source, own.source) }
}

const END_POINT: Qualifier = { label: 'end point', kind: 'choice', options: ['firm', 'soft', 'none'], inRow: true }
const EQUAL: Qualifier = { label: 'equal to the other side', kind: 'sign' }
const METHOD: Qualifier = { label: 'method', kind: 'choice', options: ['goniometer', 'visual estimate', 'inclinometer', 'smartphone'] }
const PRECISION: Qualifier = { label: 'precision', kind: 'choice', options: ['exact', 'hour', 'day', 'week', 'month'] }
const UNITS: Partial<Record<Item['kind'], string>> = { angle: '°', length: 'mm', time: 's', pressure: 'mmHg', laxity: 'mm' }
const SHARED_SCOPES = ['patient', 'episode', 'body']
const SECONDS = 5
/** A film or a blood test is never the quickest way: whatever a hand can settle comes first. */
const RESULT_SECONDS = 600

/** Fills in what the reviewer left out, and says what may not be left out. */
function buildItem(placed: PlacedItem, scales: readonly Scale[], unverified: readonly string[], sites: readonly string[], problems: Problem[]): Item {
  const { source, path, stage } = placed
  const fault = (reason: string, cure: string): void => void problems.push({ file: path, id: source.id, reason, cure })
  const scope = source.scope ?? (stage === 'patient' ? 'patient' : stage === 'story' ? 'episode' : 'sided')
  const scale = source.scale === undefined ? undefined : scales.find((s) => s.id === source.scale)
  if (source.scale !== undefined && !scale) fault(`the scale "${source.scale}" is not defined`, 'define it under scales in pack.yaml')
  const options = source.kind === 'sign' ? ['absent', 'present'] : (scale?.grades ?? (source.options ?? []).map(String))
  if (['grade', 'choice', 'multi'].includes(source.kind) && options.length < 2)
    fault(`a ${source.kind} needs at least two options`, 'list options, or name a scale')
  const gaps = source.gaps ?? gapsOf(options)
  const answers = options.filter((word) => !gaps.includes(word))
  const calm = source.kind === 'sign' ? ['absent'] : (source.calm ?? scale?.calm ?? answers.slice(0, 1)).map(String).filter((word) => !gaps.includes(word))
  for (const word of calm) if (!options.includes(word)) fault(`"${word}" is called calm but is not an option`, 'list it under options')
  const qualifiers = { ...qualifiersOf(source), ...howDone(source, stage, sites) }
  for (const [name, { with: words = [] }] of Object.entries(qualifiers))
    for (const word of words) if (!options.includes(word)) fault(`"${name}" goes with "${word}", which is no option`, `write one of: ${options.join(', ')}`)
  const unit = source.unit ?? UNITS[source.kind]
  const meaning = normalMeaning({ ...source, stage, unit, options, readings: source.readings ?? [], normal: normalOf(source, options, calm) }, source)
  if (stage !== 'story' && stage !== 'patient' && !source.positive) fault('does not say in plain words what positive or abnormal means', 'add positive')
  return {
    id: source.id,
    owner: placed.region,
    scope,
    sided: !SHARED_SCOPES.includes(scope),
    stage,
    label: source.label,
    kind: source.kind,
    options,
    calm,
    ordered: source.kind === 'grade' || (source.ordered ?? false),
    readings: source.readings ?? [],
    qualifiers,
    mustBeTold: source.mustBeTold ?? false,
    position: source.position ?? placed.position ?? 'asking',
    seconds: placed.seconds ?? (stage === 'result' ? RESULT_SECONDS : SECONDS),
    burden: source.burden ?? 1,
    depth: stage === 'patient' ? 'card' : 'on-demand',
    positive: source.positive ?? '',
    technique: source.technique ?? [],
    lost: source.lost ?? [],
    carried: placed.region === 'shared' && (source.carried ?? scope !== 'episode'),
    also: source.also ?? [],
    accuracy: (source.accuracy ?? []).map((a) => ({
      ...a,
      checked: a.checked ?? false,
      ...(unverified.some((name) => a.source.includes(name)) ? { unverified: true } : {}),
    })),
    source: source.source ?? 'expert',
    sets: source.sets ?? [],
    answeredAlone: false,
    // Always there, if only as undefined: items that are alike are read much faster, here and by the engine.
    only: placed.region === 'shared' ? placed.only : undefined,
    hint: source.hint,
    scale: source.scale,
    empty: source.kind === 'multi' ? options[0] : undefined,
    unit,
    min: source.min,
    max: source.max,
    step: source.step,
    ...meaning,
    gaps,
    askedAlone: source.askedAlone ?? false,
    group: source.group,
    why: undefined,
    key: undefined,
    adverseIfPain: source.adverseIfPain,
    trap: source.trap,
    opens: source.opens,
    alongside: source.alongside,
    alternatives: source.alternatives,
    holdSeconds: source.holdSeconds,
    structure: source.structure,
    derive: source.derive,
    normText: source.normText,
    norms: source.norms,
    norm: source.norm,
  }
}

function qualifiersOf(source: ItemSource): Record<string, Qualifier> {
  const reading = (name: string): Qualifier => ({
    label: name,
    kind: 'number',
    unit: source.unit ?? '°',
    inRow: true,
    ...(source.min === undefined ? {} : { min: source.min }),
    ...(source.max === undefined ? {} : { max: source.max }),
  })
  return {
    ...Object.fromEntries((source.readings ?? []).map((name) => [name, reading(name)])),
    ...(source.kind === 'laxity' ? { 'end-point': END_POINT, equal: EQUAL } : {}),
    ...(source.kind === 'angle' ? { method: METHOD } : {}),
    ...(source.kind === 'moment' ? { precision: PRECISION } : {}),
    ...Object.fromEntries(Object.entries(source.qualifiers ?? {}).map(([name, one]) => [name, withGaps(one)])),
  }
}

const withGaps = (source: Qualifier): Qualifier => {
  const own = Object.values(source.optionsIn ?? {}).flat()
  const qualifier = own.length > 0 ? { ...source, options: [...new Set([...(source.options ?? []), ...own])] } : source
  const gaps = gapsOf(qualifier.options ?? [])
  return gaps.length > 0 ? { ...qualifier, gaps } : qualifier
}

/** What "examined and normal" records; undefined where nothing is normal by itself. */
function normalOf(source: ItemSource, options: readonly string[], calm: readonly string[]): Finding | undefined {
  const { normal, kind } = source
  if (typeof normal === 'object') {
    const { value, ...rest } = normal as Record<string, Scalar>
    const shown =
      value === undefined ? undefined : kind === 'multi' ? [String(value)] : kind === 'choice' || kind === 'grade' || kind === 'sign' ? String(value) : value
    return { ...(shown === undefined ? {} : { value: shown }), ...(Object.keys(rest).length > 0 ? { qualifiers: rest } : {}) }
  }
  if (normal !== undefined) return { value: kind === 'multi' ? [String(normal)] : options.length > 0 ? String(normal) : normal }
  if (kind === 'laxity') return { qualifiers: { 'end-point': 'firm', equal: true } }
  const first = calm[0]
  if (first === undefined || !options.includes(first)) return undefined
  return { value: kind === 'multi' ? [first] : first }
}
