import type { Effect } from '../pack/modifier.js'
import type { CarePlan, DaySpan, Modifier, RegionPack, Rival } from '../pack/pack.js'
import type { RuleNode } from '../rules/rule.js'
import type { Compiled } from '../rules/runtime.js'

interface Saying {
  readonly id: string
  readonly title: string
  readonly source: string
  readonly rule: Compiled
}

/** Modifiers that move no tier and have something to say, by what they say. */
export interface Sayings {
  readonly advice: readonly (Saying & { readonly says: string })[]
  /** Findings that cannot both be so. */
  readonly contradictions: readonly (Saying & { readonly says: string })[]
  /** What several findings together mean. */
  readonly conclusions: readonly (Saying & { readonly says: string; readonly rivals: readonly Rival[]; readonly again?: DaySpan })[]
  readonly plans: readonly (Saying & { readonly plan: CarePlan })[]
  /** What the patient is told, in plain words. */
  readonly told: readonly (Saying & { readonly tells: string })[]
}

type Moving = Extract<Effect, { readonly step: true } | { readonly atLeast: string }>

/** Whether a modifier moves a tier; else it only says something. */
export const isMoving = (effect: Effect): effect is Moving => 'step' in effect || 'atLeast' in effect

/** @param ready compiles a rule of the region */
export function sayingsOf({ modifiers }: Pick<RegionPack, 'modifiers'>, ready: (rule: RuleNode) => Compiled): Sayings {
  const each = <S>(of: (effect: Effect) => S | undefined): readonly (Saying & S)[] =>
    modifiers.flatMap(({ id, title, source, effect, when }: Modifier) => {
      const said = of(effect)
      return said === undefined ? [] : [{ id, title, source, ...said, rule: ready(when) }]
    })
  return {
    advice: each((effect) => ('says' in effect ? { says: effect.says } : undefined)),
    contradictions: each((effect) => ('contradicts' in effect ? { says: effect.contradicts } : undefined)),
    conclusions: each((effect) =>
      'concludes' in effect
        ? { says: effect.concludes, rivals: effect.rivals ?? [], ...(effect.again === undefined ? {} : { again: effect.again }) }
        : undefined,
    ),
    plans: each((effect) => ('plans' in effect ? { plan: effect } : undefined)),
    told: each((effect) => ('tells' in effect ? { tells: effect.tells } : undefined)),
  }
}
