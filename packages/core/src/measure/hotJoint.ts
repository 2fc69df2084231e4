import type { TermValue } from '../model/interval.js'

/** Ranks as the pack's scales give them: warmth cooler, same, warmer, hot; effusion none, small, moderate, large, tense. */
const WARMER = 2
const SMALL = 1

/**
 * Hot or swollen joint, worked out from warmth and effusion when it was not judged at a glance.
 * @example hotJoint({ warmth: 3, effusion: 2 }) // 'hot and swollen'
 */
function hotJoint(ranks: { readonly warmth: number; readonly effusion: number }): 'neither' | 'swollen' | 'hot' | 'hot and swollen' {
  const hot = ranks.warmth >= WARMER
  const swollen = ranks.effusion >= SMALL
  return hot && swollen ? 'hot and swollen' : hot ? 'hot' : swollen ? 'swollen' : 'neither'
}

export const hotJointMeasure = (inputs: Readonly<Record<string, TermValue>>): TermValue =>
  typeof inputs.warmth === 'number' && typeof inputs.effusion === 'number' ? hotJoint({ warmth: inputs.warmth, effusion: inputs.effusion }) : null
