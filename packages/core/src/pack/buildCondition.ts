import type { RuleSource } from '../rules/parseRule.js'
import type { RuleNode } from '../rules/rule.js'
import type { Condition } from './pack.js'
import type { Problem } from './problem.js'
import type { Placed } from './sources.js'
import type { PackSource, ConditionSource } from './source.js'

interface Reading {
  readonly region: string
  readonly pack: PackSource | undefined
  readonly read: (rule: RuleSource) => RuleNode
}

/** A condition as one region has it; figures that are not verified weigh nowhere. */
export function buildCondition({ source, path }: Placed<ConditionSource>, { region, pack, read }: Reading, problems: Problem[]): Condition {
  const { gate, evidence, prior, presentations = [], ...rest } = source
  for (const { source: paper } of evidence ?? []) {
    const unsure = pack?.unverified.find((name) => paper.includes(name))
    if (unsure !== undefined)
      problems.push({
        file: path,
        id: source.id,
        reason: `weighs with figures of ${unsure}, which are not verified`,
        cure: 'give it as expert, with a wide range',
      })
  }
  return {
    ...rest,
    region,
    prior: { 'primary-care': bandOf(prior['primary-care'], pack), emergency: bandOf(prior.emergency, pack) },
    presentations: presentations.map((one) => ({ ...one, when: read(one.when) })),
    ...(gate === undefined ? {} : { gate: read(gate) }),
    evidence: (evidence ?? []).map((e) => ({ ...e, when: read(e.when) })),
    source: 'expert',
    also: [],
  }
}

/** The starting band that the pack gives for a word. The shape of the files has seen that it does. */
function bandOf(word: string, pack: PackSource | undefined): readonly [number, number] {
  const band = pack?.priorBands[word]
  if (!band) throw new Error(`the pack gives no band for "${word}"`)
  return band
}
