import { CORE_SCHEMA, load } from 'js-yaml'
import type { Item } from '../model/item.js'
import type { Tier } from '../model/tier.js'
import type { Problem } from '../pack/problem.js'
import type { RegionPack } from '../pack/pack.js'
import type { SourceFile } from '../pack/source.js'
import { problem } from './lintProblem.js'

type Deserved = Tier | 'none'

/** What a recorded value deserves by itself, whatever else is recorded or not. */
export interface LeastTier {
  readonly tier: Deserved
  readonly because: string
  /** Contexts (`CONTEXTS`) in which something proven takes it away. */
  readonly unless: readonly string[]
  /** The only contexts in which it deserves it; all when empty. */
  readonly in: readonly string[]
  /** Where it is said: an item, or the stage or kind that the item is one of. */
  readonly saidOf: 'item' | 'set' | 'stage'
}

/** One tier for every abnormal word, or the words of each tier. */
type Words = Deserved | Partial<Readonly<Record<Deserved, readonly (string | number)[]>>>

interface Statement {
  readonly because: string
  readonly unless?: readonly string[]
  readonly in?: readonly string[]
  /** The only joints in which it is said; all when left out. */
  readonly for?: readonly string[]
  /** By item; `neuro.strength.*` names a set. An item that a joint has for itself is named without the joint. */
  readonly of?: Readonly<Record<string, Words>>
  /** By stage of the examination. */
  readonly stages?: Readonly<Record<string, Deserved>>
}

/** By the item's id, then by the value; what is said last stands first. */
export type LeastTiers = ReadonlyMap<string, ReadonlyMap<string, readonly LeastTier[]>>

/**
 * What the `least` files say of the items of a region. They are written apart from the rules, which are held against them.
 * A statement about an item stands over one about a set of items, and that over one about a stage; of equals the later.
 * @param files the whole content
 * @example leastTiers(files, viewOf(pack, 'knee')).get('vascular.pulse-dorsalis-pedis')?.get('absent')?.[0]?.tier // 'today'
 */
export function leastTiers(files: readonly SourceFile[], view: RegionPack): LeastTiers {
  const { id } = view.regions[0]
  const statements = files
    .filter(({ path }) => path.startsWith('least'))
    .flatMap(({ text }) => (load(text, { schema: CORE_SCHEMA }) as { readonly least: readonly Statement[] }).least)
  const valuesOf = (item: Item): string[] => (item.options.length > 0 ? deservingValues(item) : numbersOf(statements, item, id))
  return new Map(view.items.map((item) => [item.id, new Map(valuesOf(item).map((word) => [word, saidOf(statements, item, word, id)]))]))
}

/** Numbers of an item that some statement names: readings at which it deserves something by itself. */
function numbersOf(statements: readonly Statement[], item: Item, region: string): string[] {
  const names = namesOf(item, region)
  const words = statements.flatMap(({ of = {} }) =>
    Object.entries(of).flatMap(([name, said]) => (names.includes(name) && typeof said !== 'string' ? [said] : [])),
  )
  return [...new Set(words.flatMap((tiers) => Object.values(tiers).flat()).map(String))]
}

const namesOf = ({ id }: Item, region: string): string[] => (id.startsWith(`${region}.`) ? [id, id.slice(region.length + 1)] : [id])

function saidOf(statements: readonly Statement[], item: Item, word: string, region: string): LeastTier[] {
  const names = namesOf(item, region)
  const said = statements
    .filter((one) => one.for?.includes(region) ?? true)
    .flatMap(({ because, unless = [], in: only = [], of = {}, stages = {} }): LeastTier[] => {
      const about = { because, unless, in: only }
      const here = Object.entries(of).flatMap(([name, words]): LeastTier[] => {
        const set = name.endsWith('*')
        const meant = set ? names.some((one) => one.startsWith(name.slice(0, -1))) : names.includes(name)
        const tier = meant ? tierOf(words, word) : undefined
        return tier === undefined ? [] : [{ ...about, tier, saidOf: set ? 'set' : 'item' }]
      })
      const tier = stages[item.stage]
      return tier === undefined ? here : [...here, { ...about, tier, saidOf: 'stage' }]
    })
  const rank = { item: 0, set: 1, stage: 2 }
  return said.reverse().sort((a, b) => rank[a.saidOf] - rank[b.saidOf])
}

const tierOf = (words: Words, word: string): Deserved | undefined =>
  typeof words === 'string'
    ? words
    : (Object.entries(words) as [Deserved, readonly (string | number)[]][]).find(([, list]) => list.map(String).includes(word))?.[0]

/** What a value deserves in a context: the first statement that holds there. */
export const deservedIn = (said: readonly LeastTier[] | undefined, context: string): LeastTier | undefined =>
  said?.find(({ unless, in: only }) => !unless.includes(context) && (only.length === 0 || only.includes(context)))

/** The words of an item that are neither calm nor say that nothing was found out. */
const deservingValues = ({ options, calm, gaps }: Pick<Item, 'options' | 'calm' | 'gaps'>): string[] =>
  options.filter((word) => !calm.includes(word) && !gaps.includes(word))

/** Values of which no statement says what they deserve: silence is no answer. */
export const unstated = (least: LeastTiers): Problem[] =>
  [...least].flatMap(([item, words]) =>
    [...words]
      .filter(([, said]) => said.length === 0)
      .map(([word]) => problem(item, `"${word}" is said to deserve neither a tier nor none`, 'state it in content/least.yaml')),
  )
