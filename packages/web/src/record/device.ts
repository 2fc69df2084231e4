import { v7 as newId } from 'uuid'

const DEVICE = 'awl-device'
const SITTING = 'awl-sitting'
const SITTING_HOURS = 12

/** A name for this browser, the same for as long as its storage lasts: what two devices found is told apart by it. */
export function thisDevice(): string {
  const kept = localStorage.getItem(DEVICE)
  if (kept) return kept
  const made = newId()
  localStorage.setItem(DEVICE, made)
  return made
}

/** Since when this sitting lasts, ISO 8601: from the first page of it, kept over reloads. Beyond a shift it begins anew. */
export function sittingSince(now: number): string {
  const kept = sessionStorage.getItem(SITTING)
  if (kept && now - Date.parse(kept) < SITTING_HOURS * 3_600_000) return kept
  const since = new Date(now).toISOString()
  sessionStorage.setItem(SITTING, since)
  return since
}
