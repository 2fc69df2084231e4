import type { PackSummary } from '../api/queries'
import { ageHere } from './times'

/** An infant's hip is offered for an infant only; with no birth date yet, what is for everybody. */
export function regionsFor(regions: PackSummary['regions'], birthDate: string): PackSummary['regions'] {
  const born = Date.parse(birthDate)
  const years = Number.isNaN(born) ? undefined : ageHere(birthDate).yearsExactly
  return regions.filter(({ ages }) => (years === undefined ? ages?.under === undefined : years >= (ages?.from ?? 0) && years < (ages?.under ?? Infinity)))
}
