import type { PackSummary } from '../api/queries'
import { yearsSince } from './times'

/** An infant's hip is offered for an infant only; with no birth date yet, what is for everybody. */
export function regionsFor(regions: PackSummary['regions'], birthDate: string): PackSummary['regions'] {
  const born = Date.parse(birthDate)
  const years = Number.isNaN(born) ? undefined : yearsSince(birthDate)
  return regions.filter(({ ages }) => (years === undefined ? ages?.under === undefined : years >= (ages?.from ?? 0) && years < (ages?.under ?? Infinity)))
}
