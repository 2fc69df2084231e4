import { NORMAL, type Item, type Qualifier, type Scalar, type Value } from '../model/item.js'
import { type AnyPack } from './pack.js'
import { checkDecision } from './checkDecision.js'
import { isDecision, isReason, LEAST_WORDS } from '../record/decisions.js'
import type { Entry, FindingEntry } from '../record/entry.js'
import { itemsById } from './itemsById.js'
import { firstFaults, type Fault } from '../model/fault.js'
/**
 * Checks entries against the pack: the item exists (or the flag that is lifted, or the priority that is set), the side suits it, words are among its options, numbers lie in its range.
 * @returns a fault for each thing that is wrong, the first twenty and how many more; empty when all can be stored
 */
export function checkEntries(pack: AnyPack, entries: readonly Entry[], path = '/entries'): Fault[] {
  const items = itemsById(pack)
  return firstFaults(
    entries.map((entry, at) =>
      isDecision(entry)
        ? [...checkDecision(pack, entry, `${path}/${at}`), ...timeFaults(entry, `${path}/${at}`)]
        : checkEntry(items.get(entry.item), entry, `${path}/${at}`),
    ),
    path,
  )
}

const timeFaults = ({ at }: Entry, path: string): Fault[] =>
  Number.isNaN(Date.parse(at)) ? [{ path: `${path}/at`, reason: `"${at}" is not a time`, expected: 'ISO 8601 with zone, as 2026-11-24T10:00:00Z' }] : []

function checkEntry(item: Item | undefined, entry: FindingEntry, path: string): Fault[] {
  if (!item) return [{ path: `${path}/item`, reason: `"${entry.item}" is not an item of this pack`, expected: 'an id that "npm run pack -- --json" lists' }]
  const faults: Fault[] = []
  if (item.sided !== (entry.side !== 'none'))
    faults.push({ path: `${path}/side`, reason: `${item.label} ${item.sided ? 'has a side' : 'has no side'}`, expected: item.sided ? 'right or left' : 'none' })
  faults.push(...timeFaults(entry, path))
  if (entry.override && !isReason(entry.override.reason))
    faults.push({ path: `${path}/override/reason`, reason: 'a hold is not passed without a reason', expected: LEAST_WORDS })
  if (entry.state !== 'examined') return faults
  if (entry.value === undefined && Object.keys(entry.qualifiers ?? {}).length === 0)
    faults.push({ path: `${path}/value`, reason: `${item.label} was examined but has no value`, expected: expectedOf(item) })
  if (entry.value !== undefined && !fits(item, entry.value))
    faults.push({ path: `${path}/value`, reason: `${JSON.stringify(entry.value)} is not a value of ${item.label}`, expected: expectedOf(item) })
  for (const [name, value] of Object.entries(entry.qualifiers ?? {})) {
    const qualifier = item.qualifiers[name]
    if (!qualifier)
      faults.push({
        path: `${path}/qualifiers/${name}`,
        reason: `${item.label} has no "${name}"`,
        expected: Object.keys(item.qualifiers).join(', ') || 'no qualifiers',
      })
    else if (!qualifierFits(qualifier, value))
      faults.push({ path: `${path}/qualifiers/${name}`, reason: `${JSON.stringify(value)} is not a value of ${name}`, expected: expectedOf(qualifier) })
  }
  return faults
}

function fits(item: Item, value: Value): boolean {
  if (item.kind === 'multi') return Array.isArray(value) && value.length > 0 && value.every((word) => item.options.includes(String(word)))
  if (item.kind === 'moment') return typeof value === 'string' && !Number.isNaN(Date.parse(value))
  if (item.options.length > 0) return typeof value === 'string' && item.options.includes(value)
  if (value === NORMAL) return item.normalSpan !== undefined
  return typeof value === 'number' && Number.isFinite(value) && inRange(value, item)
}

function qualifierFits(qualifier: Qualifier, value: Scalar | readonly string[]): boolean {
  switch (qualifier.kind) {
    case 'choice':
      return typeof value === 'string' && (qualifier.options ?? []).includes(value)
    case 'multi':
      return Array.isArray(value) ? value.every((word) => (qualifier.options ?? []).includes(String(word))) : (qualifier.options ?? []).includes(String(value))
    case 'number':
      return typeof value === 'number' && Number.isFinite(value) && inRange(value, qualifier)
    case 'sign':
      return typeof value === 'boolean'
    case 'text':
      return typeof value === 'string' && value.length <= 500
  }
}

const inRange = (value: number, { min, max }: { readonly min?: number | undefined; readonly max?: number | undefined }): boolean =>
  value >= (min ?? -Infinity) && value <= (max ?? Infinity)

/** What may be entered, in words: options, or a range with its unit. */
function expectedOf(of: {
  readonly options?: readonly string[]
  readonly unit?: string | undefined
  readonly min?: number | undefined
  readonly max?: number | undefined
}): string {
  if (of.options && of.options.length > 0) return `one of: ${of.options.join(', ')}`
  const unit = of.unit ? ` ${of.unit}` : ''
  if (of.min !== undefined && of.max !== undefined) return `a number from ${of.min} to ${of.max}${unit}`
  return `a number${unit}`
}
