import { plainText } from '../model/plainText.js'
import { isDecision } from './decisions.js'
import type { Entry } from './entry.js'

const CODED = ['id', 'at', 'deviceAt', 'state', 'item', 'side', 'value', 'flag', 'hold', 'tier', 'from', 'ceiling', 'seniorAt', 'decision', 'of']

/** An entry with every text in it as text is kept. Words that the pack offers are left as they are. */
export function plainEntry<E extends Entry>(entry: E): E {
  const plain = (value: unknown): unknown => (typeof value === 'string' ? plainText(value) : value)
  const texts = Object.entries(entry).map(([key, value]) => [key, CODED.includes(key) ? value : plain(value)])
  const said = Object.fromEntries(texts) as E
  if (isDecision(entry)) return said
  const { override, qualifiers } = entry
  return {
    ...said,
    ...(override ? { override: { ...override, reason: plainText(override.reason) } } : {}),
    ...(qualifiers ? { qualifiers: Object.fromEntries(Object.entries(qualifiers).map(([name, value]) => [name, plain(value)])) } : {}),
  }
}
