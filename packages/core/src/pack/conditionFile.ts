import type { Pathway, Reviewed } from './pack.js'
import type { Problem } from './problem.js'
import { inRegion, type Sources } from './sources.js'
import type { ConditionSource, FlagSource } from './source.js'

type FlagPart = Partial<Omit<FlagSource, 'id'>>
type LikelihoodPart = Partial<ConditionSource>

/**
 * Everything about one condition in one file: when it is suspected and how urgent it is (what is common to every joint, then what a joint
 * adds or narrows), how likely it is and what speaks for it, and the way that follows.
 */
export interface ConditionFile {
  /** As the file is called. */
  readonly condition: string
  /** Id of its flag; left out for a condition that raises none. */
  readonly flag?: string
  readonly common?: FlagPart
  /** What several joints, but not all, have in common. */
  readonly some?: readonly (FlagPart & { readonly for: readonly string[] })[]
  readonly regions?: Readonly<Record<string, FlagPart>>
  readonly likelihood?: {
    readonly common?: LikelihoodPart
    /** Alike in several joints under one id. */
    readonly some?: readonly (ConditionSource & { readonly for: readonly string[] })[]
    readonly regions?: Readonly<Record<string, LikelihoodPart & { readonly id: string }>>
  }
  readonly pathways?: readonly Pathway[]
  /** Who read it against the literature, when, and what of it. */
  readonly reviewed?: Reviewed
}

/** Puts what a condition file says where the compiler looks for it. Its shape has been checked. */
export function placeCondition(file: ConditionFile, path: string, sources: Sources, problems: Problem[]): void {
  const { flag, common, some = [], regions = {}, likelihood, pathways = [] } = file
  const reviewed = file.reviewed ? { reviewed: file.reviewed } : {}
  const raises = flag === undefined ? {} : { flag }
  const put = (id: string, region: string, only: readonly string[] | undefined, part: FlagPart): void =>
    void sources.flags.push({ path, region, only, source: { id, ...part, ...reviewed } as FlagSource })
  if (flag !== undefined) {
    if (common) put(flag, 'shared', undefined, common)
    for (const { for: only, ...part } of some) put(flag, 'shared', only, part)
    for (const [region, part] of Object.entries(regions)) {
      if (common && Object.keys(part).length > 0 && part.because === undefined)
        problems.push({ file: path, id: `${region}: ${flag}`, reason: 'says more than all joints do, and not why', cure: 'add because' })
      put(flag, region, undefined, part)
    }
  }
  for (const { for: only, ...source } of likelihood?.some ?? [])
    sources.conditions.push({ path, region: 'shared', only, source: { ...raises, ...source, ...reviewed } })
  for (const [region, part] of Object.entries(likelihood?.regions ?? {}))
    sources.conditions.push({ path, region, only: undefined, source: { ...raises, ...likelihoodIn(region, likelihood?.common ?? {}, part), ...reviewed } })
  for (const source of pathways) sources.pathways.push({ path, region: 'shared', only: undefined, source })
}

/** What speaks for it in every joint, then in this one. */
function likelihoodIn(region: string, common: LikelihoodPart, part: LikelihoodPart): ConditionSource {
  const shared = inRegion(common, region)
  const evidence = [...(shared.evidence ?? []), ...(part.evidence ?? [])]
  return { ...shared, ...part, ...(evidence.length > 0 ? { evidence } : {}) } as ConditionSource
}
