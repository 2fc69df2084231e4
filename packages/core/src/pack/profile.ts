import type { Problem } from './problem.js'
import { standsIn, type Placed, type Sources } from './sources.js'
import { checkShape } from './checkShape.js'
import type { ChangeSource, FlagSource, LocalChoice, PracticeVariantSource } from './source.js'
import type { PracticeVariant, TierInfo } from './pack.js'
import type { Tier } from '../model/tier.js'

/** What a change may change, by the key that names it, and the key of the files in which such things stand. */
const CHANGEABLE = { calc: 'calcs', flag: 'flags', group: 'prompts', hold: 'holds', item: 'items' } as const
type Changeable = keyof typeof CHANGEABLE

/**
 * Goes by the local profile where good practitioners differ: each choice that says what it changes replaces those parts of the region's
 * calculated values, flags, prompts, holds and items. What the profile does not name goes by the default.
 * @returns the variants, each with the choice that this pack goes by
 */
export function goByProfile(sources: Sources, problems: Problem[]): PracticeVariant[] {
  const { path = 'profile.yaml', source } = sources.profile ?? {}
  const choices = source?.choices ?? []
  for (const choice of choices) problems.push(...faultsOf(choice, path, choices, sources.practiceVariants))
  return sources.practiceVariants.map(({ source: { changes = {}, ...variant }, region, path: file }) => {
    const named = choices.find((choice) => choice.region === region && choice.topic === variant.topic)?.choice
    const chosen = named !== undefined && variant.choices.includes(named) ? named : variant.default
    const at = { file, id: `${region}: ${variant.topic}` }
    for (const choice of Object.keys(changes)) {
      if (choice === variant.default || !variant.choices.includes(choice))
        problems.push({
          ...at,
          reason: `says what "${choice}" changes, which is ${choice === variant.default ? 'the default' : 'none of its choices'}`,
          cure: 'name one of the other choices',
        })
    }
    for (const change of changes[chosen] ?? []) applyChange(change, region, sources, (reason, cure) => problems.push({ ...at, reason, cure }))
    return { region, ...variant, chosen, switches: Object.keys(changes) }
  })
}

/** What a site goes by in a region that is not the pack's own choice. */
export const localChoices = (variants: readonly PracticeVariant[], region: string): readonly PracticeVariant[] =>
  variants.filter((variant) => variant.region === region && variant.chosen !== variant.default)

/**
 * How long each tier may wait, by the local profile where it says so.
 * @param tiers of the pack, the most urgent first
 */
export function localWindows(tiers: readonly TierInfo[], { profile }: Sources, problems: Problem[]): readonly TierInfo[] {
  const windows = profile?.source.windows ?? {}
  const local = tiers.map((tier) => ({ ...tier, hours: windows[tier.id] ?? tier.hours }))
  local.forEach(({ id, hours }, at) => {
    const before = local[at - 1]
    if (hours !== null && before?.hours != null && hours <= before.hours)
      problems.push({
        file: profile?.path ?? 'pack.yaml',
        id,
        reason: `may wait ${hours} h, no longer than ${before.id} with ${before.hours} h`,
        cure: 'give hours that rise from Now to Routine',
      })
  })
  return local
}

function faultsOf(choice: LocalChoice, file: string, choices: readonly LocalChoice[], variants: readonly Placed<PracticeVariantSource>[]): Problem[] {
  const { region, topic } = choice
  const at = { file, id: `${region}: ${topic}` }
  const variant = variants.find((one) => one.region === region && one.source.topic === topic)
  if (!variant) {
    const topics = variants.filter((one) => one.region === region).map((one) => one.source.topic)
    return [
      { ...at, reason: 'is no matter on which practice differs', cure: topics.length > 0 ? `use one of: ${topics.join('; ')}` : `"${region}" is no region` },
    ]
  }
  if (choices.filter((one) => one.region === region && one.topic === topic).length > 1) return [{ ...at, reason: 'is chosen twice', cure: 'leave one of them' }]
  if (variant.source.choices.includes(choice.choice)) return []
  return [{ ...at, reason: `has no choice "${choice.choice}"`, cure: `use one of: ${variant.source.choices.join('; ')}` }]
}

type Tiers = Readonly<Partial<Record<Tier, Tier>>>

const movedClauses = ({ clauses = [] }: Pick<FlagSource, 'clauses'>, tiers: Tiers): Pick<FlagSource, 'clauses'> => ({
  clauses: clauses.map((clause) => ({ ...clause, tier: tiers[clause.tier] ?? clause.tier })),
})

function applyChange(change: ChangeSource, region: string, sources: Sources, fault: (reason: string, cure: string) => void): void {
  const kind = (Object.keys(CHANGEABLE) as Changeable[]).find((key) => key in change)
  if (!kind) return fault('changes nothing that can be changed', `name one of ${Object.keys(CHANGEABLE).join(', ')}`)
  const { [kind]: id, tiers, ...parts } = change as Record<Changeable, string> & { readonly tiers?: Tiers }
  const things = sources[CHANGEABLE[kind]] as Placed<{ readonly id: string } & Pick<FlagSource, 'clauses'>>[]
  const at = things.findIndex((thing) => thing.source.id === id && thing.region === region)
  const found = at >= 0 ? at : things.findIndex((thing) => thing.source.id === id && kind !== 'flag' && standsIn(thing, region))
  const old = things[found]
  if (!old) return fault(`changes the ${kind} "${id}", which ${region} does not have`, 'correct the id')
  const source = { ...old.source, ...parts, ...(tiers ? movedClauses(old.source, tiers) : {}) }
  const faults = checkShape(old.path, { ...('stage' in old ? { stage: old.stage } : {}), [CHANGEABLE[kind]]: [source] }, [CHANGEABLE[kind]])
  for (const one of faults) fault(`its change of ${id} is wrong ${one.reason}`, one.cure)
  // A test that several joints share is one test, done one way wherever it is done.
  if (kind === 'item') return void things.splice(found, 1, { ...old, source })
  const changed = { ...old, region, only: undefined, source }
  // What is shared stays as it is for the other regions.
  const others = old.region === region ? [] : [{ ...old, only: (old.only ?? sources.regions.map((one) => one.source.id)).filter((one) => one !== region) }]
  things.splice(found, 1, changed, ...others)
}
