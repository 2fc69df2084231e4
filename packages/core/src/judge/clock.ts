import { moreUrgent, tierRank, type Tier } from '../model/tier.js'
import { type RegionPack } from '../pack/pack.js'

/** Hours that each tier may wait, `null` for one that has no window. */
export type Windows = Readonly<Partial<Record<Tier, number | null>>>

/** The windows of a pack, as the local profile has set them. */
export const windowsOf = ({ tiers }: Pick<RegionPack, 'tiers'>): Windows => Object.fromEntries(tiers.map((tier) => [tier.id, tier.hours]))

export interface ClockReading {
  readonly hoursLeft: number
  /** The slowest tier that still fits, never Now by the clock alone. */
  readonly tier: Tier
  readonly passed: boolean
}

/**
 * How urgent a repair window makes a flag: what is left of the window, less the time the team needs and the journey.
 * @param elapsedHours since the event @param windowHours for a good result @param leadHours that the team needs
 * @param travelHours to get there @param windows how long each tier may wait
 * @example repairClock(9 * 24, 14 * 24, 2 * 24, 0, windowsOf(pack)) // { hoursLeft: 72, tier: 'today', passed: false }
 */
export function repairClock(elapsedHours: number, windowHours: number, leadHours: number, travelHours: number, windows: Windows): ClockReading {
  const hoursLeft = windowHours - elapsedHours - leadHours - travelHours
  if (windowHours - elapsedHours <= 0) return { hoursLeft, tier: 'days', passed: true }
  const slowest = (['routine', 'weeks', 'days', 'today'] as const).find((tier) => (windows[tier] ?? Infinity) <= hoursLeft)
  return { hoursLeft, tier: slowest ?? 'today', passed: false }
}

/** The clock never makes a flag slower. A window that has passed leaves it at Days or faster. */
export const tierByClock = (flagTier: Tier, clock: ClockReading): Tier => moreUrgent(flagTier, clock.tier)

/**
 * When a referral is due.
 * @param flaggedAt ISO 8601
 * @returns ISO 8601, or undefined for Here, which has a review date instead
 * @example dueAt('2026-11-20T16:00:00Z', 'days', windowsOf(pack)) // '2026-11-27T16:00:00.000Z'
 */
export const dueAt = (flaggedAt: string, tier: Tier, windows: Windows): string | undefined => {
  const hours = windows[tier]
  return hours === null || hours === undefined ? undefined : new Date(Date.parse(flaggedAt) + hours * 3_600_000).toISOString()
}

/**
 * When the team that takes a patient over has to have been told, at this site: a long journey is taken off the window of what spoils on
 * the way (vessel, infection, nerve), since it is the limb that has to be in time.
 * @param flags what is met: those at least as urgent as the tier that is due count, so also when a clinician lowered it
 * @returns as `dueAt`; never before `flaggedAt`
 * @example dueHere(farPack, '2026-11-20T16:00:00Z', 'today', [coldFoot]) // '2026-11-21T14:00:00.000Z' where the journey takes two hours
 */
export function dueHere(
  pack: Pick<RegionPack, 'tiers' | 'journeyHours' | 'spoilsOnTheWay'>,
  flaggedAt: string,
  tier: Tier,
  flags: readonly { readonly classes: readonly string[]; readonly tier?: Tier }[],
): string | undefined {
  const due = dueAt(flaggedAt, tier, windowsOf(pack))
  const { classes, beyondHours } = pack.spoilsOnTheWay
  const spoils = flags.some((flag) => flag.tier !== undefined && tierRank(flag.tier) <= tierRank(tier) && flag.classes.some((one) => classes.includes(one)))
  if (due === undefined || !spoils || pack.journeyHours <= beyondHours) return due
  return new Date(Math.max(Date.parse(flaggedAt), Date.parse(due) - pack.journeyHours * 3_600_000)).toISOString()
}

/**
 * Whether a team that was to be told is to be called (again): nobody has answered for so many minutes.
 * @param lastEvent of the referral: only `made` and `told` wait for an answer
 * @example isCallDue('told', '2026-11-20T16:00:00Z', 15, '2026-11-20T16:15:00Z') // true
 */
export const isCallDue = (lastEvent: string, lastEventAt: string, callAgain: number | undefined, now: string): boolean =>
  lastEvent === 'changed' ||
  (callAgain !== undefined &&
    (lastEvent === 'made' || lastEvent === 'told' || lastEvent === 'reopened') &&
    Date.parse(now) - Date.parse(lastEventAt) >= callAgain * 60_000)

export type DueState = 'in time' | 'half gone' | 'breached'

/** Amber from half of the window, breached once the due time has passed with nobody having accepted. */
export function dueState(flaggedAt: string, due: string, now: string): DueState {
  const start = Date.parse(flaggedAt)
  const end = Date.parse(due)
  const at = Date.parse(now)
  return at >= end ? 'breached' : at >= start + (end - start) / 2 ? 'half gone' : 'in time'
}
