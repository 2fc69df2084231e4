import { KINDS, NEEDS, POSITIONS } from '../model/item.js'
import { TIERS } from '../model/tier.js'

export const id = { type: 'string', pattern: '^[a-z0-9]+([.-][a-z0-9]+)*$' }

export const text = { type: 'string', pattern: '\\S' }

export const texts = { type: 'array', items: text }

export const numberOrText = { type: ['string', 'number'] }

export const map = (values: object): object => ({ type: 'object', additionalProperties: values })

export const object = (required: string[], properties: Record<string, object>): object => ({
  type: 'object',
  required,
  properties,
  additionalProperties: false,
})

export const list = (items: object): object => ({ type: 'array', items })

export const rule = { $ref: '#/definitions/rule' }

export const tier = { enum: TIERS }

const days = { type: 'integer', minimum: 0 }

export const daySpan = object(['from', 'to'], { from: days, to: days, what: text })

/** A leaf in words, or one structure key. One form that fits either: trying a form after another made an error for each rule that was sound. */
export const definitions = {
  rule: {
    type: ['string', 'object'],
    pattern: '\\S',
    minProperties: 1,
    maxProperties: 1,
    additionalProperties: false,
    properties: {
      all: list(rule),
      any: list(rule),
      not: rule,
      proven: rule,
      atLeast: object(['n', 'of'], { n: { type: 'integer', minimum: 1 }, of: list(rule) }),
    },
  },
}

const qualifier = object(['label', 'kind'], {
  label: text,
  kind: { enum: ['choice', 'multi', 'number', 'sign', 'text'] },
  options: texts,
  unit: text,
  min: { type: 'number' },
  max: { type: 'number' },
  inRow: { type: 'boolean' },
  with: texts,
  optionsIn: map(texts),
  meansIn: map(text),
})

const accuracy = object(['finding', 'source', 'certainty'], {
  finding: text,
  sens: { type: 'number', minimum: 0, maximum: 100 },
  spec: { type: 'number', minimum: 0, maximum: 100 },
  lrPositive: { type: 'number' },
  lrNegative: { type: 'number' },
  source: text,
  certainty: { enum: ['review', 'study', 'expert'] },
  checked: { type: 'boolean' },
})

export const item = object(['id', 'label', 'kind'], {
  id,
  label: text,
  hint: text,
  kind: { enum: KINDS },
  scope: { enum: ['patient', 'episode', 'body', 'joint', 'limb-end', 'sided'] },
  scale: text,
  options: list(numberOrText),
  calm: list(numberOrText),
  ordered: { type: 'boolean' },
  unit: text,
  min: { type: 'number' },
  max: { type: 'number' },
  step: { type: 'number' },
  readings: texts,
  qualifiers: map(qualifier),
  normal: { anyOf: [numberOrText, map({ type: ['string', 'number', 'boolean'] })] },
  normalSpan: object([], { says: text, low: { type: 'number' }, high: { type: 'number' } }),
  needs: { enum: NEEDS },
  gaps: texts,
  askedAlone: { type: 'boolean' },
  group: text,
  mustBeTold: { type: 'boolean' },
  position: { enum: POSITIONS },
  burden: { enum: [1, 2, 3] },
  adverseIfPain: text,
  positive: text,
  trap: text,
  technique: texts,
  lost: texts,
  carried: { type: 'boolean' },
  opens: id,
  alongside: id,
  alternatives: list(object(['name', 'for'], { name: text, for: text, how: text, item: id })),
  holdSeconds: { type: 'integer', minimum: 1 },
  also: texts,
  structure: text,
  accuracy: list(accuracy),
  source: text,
  derive: object(['measure', 'from'], { measure: text, from: map(text) }),
  sets: texts,
  norm: { type: 'number' },
  normText: text,
  norms: map(text),
})

const pointsPart = object(['points', 'when'], { points: { type: 'number' }, when: rule })

export const calc = object(['id', 'label', 'source'], {
  id,
  label: text,
  also: texts,
  when: rule,
  validWhen: rule,
  ladder: list(object(['value', 'when'], { value: numberOrText, when: rule })),
  points: list({ anyOf: [pointsPart, object(['oneOf'], { oneOf: { type: 'array', minItems: 2, items: pointsPart } })] }),
  source: text,
  note: text,
  because: text,
})

export const reviewed = object(['by', 'on', 'of'], { by: text, on: { type: 'string', pattern: '^\\d{4}-\\d{2}-\\d{2}$' }, of: text })

const flagFields = {
  because: text,
  reviewed,
  concept: text,
  title: text,
  classes: list({ enum: ['I', 'B', 'F', 'T', 'N', 'V', 'S', 'C', 'P'] }),
  to: texts,
  inPlay: rule,
  clauses: { type: 'array', minItems: 1, items: object(['tier', 'when'], { tier, when: rule, note: text, to: texts, because: text }) },
  asks: texts,
  why: text,
  doNow: texts,
  avoid: texts,
  excludedBy: text,
  clock: object(['from', 'windowDays', 'leadDays'], { from: id, windowDays: { type: 'number' }, leadDays: { type: 'number' } }),
  source: text,
}

/** A flag of a file that holds several, by its id. */
export const flag = object(['id'], { id, ...flagFields })

/** What one joint, several or all of them have of the flag of a condition. */
export const flagPart = object([], { for: texts, ...flagFields })

export const window = { type: 'number', exclusiveMinimum: 0 }

/** Its parts are checked when they are put in place. */
export const change = { type: 'object', minProperties: 2, properties: { calc: id, flag: id, group: id, hold: id, item: id } }

const evidence = object(['when', 'structure', 'source', 'certainty'], {
  when: rule,
  structure: text,
  lrPositive: { type: 'array', items: { type: 'number' }, minItems: 2, maxItems: 2 },
  lrNegative: { type: 'array', items: { type: 'number' }, minItems: 2, maxItems: 2 },
  source: text,
  certainty: { enum: ['review', 'study', 'expert'] },
  whole: { const: true },
})

export const BANDS = ['rare', 'uncommon', 'occasional', 'common']

const band = { enum: BANDS }

export const shares = { type: 'array', items: { type: 'number', minimum: 0, maximum: 1 }, minItems: 2, maxItems: 2 }

export const likelihood = {
  name: text,
  picture: text,
  prior: object(['primary-care', 'emergency'], { 'primary-care': band, emergency: band }),
  presentations: list(object(['when', 'prior', 'because', 'source'], { when: rule, prior: shares, because: text, source: text })),
  gate: rule,
  evidence: list(evidence),
  defaultTier: tier,
  tierNote: text,
}

const number = { type: 'number' }

const part = object(['x', 'y', 'width', 'height'], { x: number, y: number, width: number, height: number })

export const picture = object(['item', 'drawing', 'caption'], {
  item: id,
  drawing: id,
  view: part,
  caption: text,
  lines: list(object(['path', 'is'], { path: { type: 'string', pattern: '^(?:[MLC]-?[0-9. -]+)+$' }, is: { enum: ['sweep', 'press', 'tape'] } })),
  arc: object(['x', 'y', 'zero', 'turn', 'radius'], { x: number, y: number, zero: number, turn: { enum: ['clockwise', 'anticlockwise'] }, radius: number }),
})

export const plate = object(['id', 'drawing', 'title', 'landmarks'], {
  id,
  drawing: id,
  title: text,
  whole: { type: 'boolean' },
  view: part,
  landmarks: list(object(['item', 'x', 'y'], { item: id, x: number, y: number })),
  sites: list(object(['word', 'x', 'y'], { word: text, x: number, y: number })),
})

export const pathway = object(['id', 'title', 'concepts', 'first'], {
  id,
  title: text,
  concepts: texts,
  first: text,
  then: text,
  pregnant: text,
  review: text,
  clock: object(['title', 'hours', 'from'], { title: text, hours: { type: 'number', exclusiveMinimum: 0 }, from: { enum: ['onset', 'injury', 'seen'] } }),
  source: text,
})
