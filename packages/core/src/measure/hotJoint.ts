import type { TermValue } from '../model/interval.js'

/** Ranks as the pack's scales give them: warmth cooler, same, warmer, hot; effusion none, small, moderate, large, tense. */
const WARMER = 2
const SMALL = 1

/**
 * Hot or swollen joint, worked out from warmth and effusion when it was not judged at a glance.
 * @returns the rank of: neither, swollen, hot, hot and swollen
 * @example hotJoint({ warmth: 3, effusion: 2 }) // 3
 */
const hotJoint = (ranks: { readonly warmth: number; readonly effusion: number }): number => (ranks.warmth >= WARMER ? 2 : 0) + (ranks.effusion >= SMALL ? 1 : 0)

export const hotJointMeasure = (inputs: Readonly<Record<string, TermValue>>): TermValue =>
  typeof inputs.warmth === 'number' && typeof inputs.effusion === 'number' ? hotJoint({ warmth: inputs.warmth, effusion: inputs.effusion }) : null
