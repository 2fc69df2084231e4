import { CORE_SCHEMA, load } from 'js-yaml'
import { tierRank, type Tier } from '../model/tier.js'
import type { Problem } from '../pack/problem.js'
import type { RegionPack } from '../pack/pack.js'
import type { SourceFile } from '../pack/source.js'
import { problem } from './lintProblem.js'

/** A danger that every region looks for. */
interface Threat {
  readonly concept: string
  /** How urgent a flag of it must be able to get. */
  readonly least: Tier
  /** Why a region has none, by region. */
  readonly except?: Readonly<Record<string, string>>
}

/**
 * The same danger has a flag in every region where it can show, as urgent as in the others; a region without one says why in a `threats` file.
 * @param files the whole content
 * @example lintThreats(files, views) // [{ id: 'jaw', reason: 'has no flag of "acute-ischaemia" that reaches now', … }]
 */
export function lintThreats(files: readonly SourceFile[], views: readonly RegionPack[]): Problem[] {
  const threats = files
    .filter(({ path }) => path.startsWith('threats'))
    .flatMap(({ text }) => (load(text, { schema: CORE_SCHEMA }) as { readonly threats: readonly Threat[] }).threats)
  return threats.flatMap(({ concept, least, except = {} }) =>
    views.flatMap((view) => {
      const { id } = view.regions[0]
      const isThere = view.flags.some((flag) => flag.concept === concept && flag.clauses.some(({ tier }) => tierRank(tier) <= tierRank(least)))
      if (isThere && id in except) return [problem(id, `is said to have no "${concept}", and has it`, 'take it out of content/threats.yaml')]
      return isThere || id in except
        ? []
        : [problem(id, `has no flag of "${concept}" that reaches ${least}`, 'let one reach it, or say in content/threats.yaml why it cannot show here')]
    }),
  )
}
