import type { ItemSource } from './source.js'

const NOTHING_SAID: { readonly [K in keyof ItemSource]-?: undefined } = {
  id: undefined,
  label: undefined,
  hint: undefined,
  kind: undefined,
  scope: undefined,
  scale: undefined,
  options: undefined,
  calm: undefined,
  ordered: undefined,
  unit: undefined,
  min: undefined,
  max: undefined,
  step: undefined,
  readings: undefined,
  qualifiers: undefined,
  normal: undefined,
  normalSpan: undefined,
  needs: undefined,
  gaps: undefined,
  askedAlone: undefined,
  group: undefined,
  mustBeTold: undefined,
  position: undefined,
  burden: undefined,
  adverseIfPain: undefined,
  positive: undefined,
  trap: undefined,
  technique: undefined,
  lost: undefined,
  carried: undefined,
  opens: undefined,
  alongside: undefined,
  alternatives: undefined,
  holdSeconds: undefined,
  also: undefined,
  structure: undefined,
  accuracy: undefined,
  source: undefined,
  derive: undefined,
  sets: undefined,
  norm: undefined,
  normText: undefined,
  norms: undefined,
}

/**
 * An item as its file writes it, with every key that it may have, undefined where the file says nothing. Reviewers write what an item
 * needs and no more, so a thousand items come in some six hundred shapes; asking each for thirty-five keys, the check and the build spent
 * half of their time looking for keys that are not there.
 */
export const uniformItem = <S extends object>(written: S): S => ({ ...NOTHING_SAID, ...written })

/** What two files say of one item: `own` wins wherever it says something. */
export const overlaid = (shared: ItemSource, own: ItemSource): ItemSource => ({
  ...shared,
  ...Object.fromEntries(Object.entries(own).filter(([, said]) => said !== undefined)),
})
