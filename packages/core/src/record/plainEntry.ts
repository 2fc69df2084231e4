import { plainText } from '../model/plainText.js'
import type { Entry } from './entry.js'

/** An entry with every text in it as text is kept. Words that the pack offers are left as they are. */
export function plainEntry(entry: Entry): Entry {
  const { reason, amends, override, qualifiers } = entry
  return {
    ...entry,
    by: plainText(entry.by),
    ...(reason === undefined ? {} : { reason: plainText(reason) }),
    ...(amends === undefined ? {} : { amends: plainText(amends) }),
    ...(override ? { override: { ...override, reason: plainText(override.reason) } } : {}),
    ...(qualifiers
      ? { qualifiers: Object.fromEntries(Object.entries(qualifiers).map(([name, value]) => [name, typeof value === 'string' ? plainText(value) : value])) }
      : {}),
  }
}
