import { Ajv, type ErrorObject, type ValidateFunction } from 'ajv'
import type { Problem } from './problem.js'
import { KINDS, NEEDS, POSITIONS, STAGES, TIERS } from './types.js'

const id = { type: 'string', pattern: '^[a-z0-9]+([.-][a-z0-9]+)*$' }
const text = { type: 'string', pattern: '\\S' }
const texts = { type: 'array', items: text }
const numberOrText = { type: ['string', 'number'] }
const map = (values: object): object => ({ type: 'object', additionalProperties: values })
const object = (required: string[], properties: Record<string, object>): object => ({ type: 'object', required, properties, additionalProperties: false })
const list = (items: object): object => ({ type: 'array', items })
const rule = { $ref: '#/definitions/rule' }
const tier = { enum: TIERS }

/** A leaf in words, or one structure key. One form that fits either: trying a form after another made an error for each rule that was sound. */
const definitions = {
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

const item = object(['id', 'label', 'kind'], {
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
  seconds: { type: 'number', minimum: 0 },
  burden: { enum: [1, 2, 3] },
  adverseIfPain: text,
  positive: text,
  trap: text,
  technique: texts,
  lost: texts,
  carried: { type: 'boolean' },
  opens: id,
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

const calc = object(['id', 'label', 'source'], {
  id,
  label: text,
  also: texts,
  when: rule,
  validWhen: rule,
  ladder: list(object(['value', 'when'], { value: numberOrText, when: rule })),
  points: list({ anyOf: [pointsPart, object(['oneOf'], { oneOf: { type: 'array', minItems: 2, items: pointsPart } })] }),
  source: text,
  note: text,
})

const flag = object(['id'], {
  id,
  concept: text,
  title: text,
  classes: list({ enum: ['I', 'B', 'F', 'T', 'N', 'V', 'S', 'C', 'P'] }),
  to: texts,
  inPlay: rule,
  clauses: { type: 'array', minItems: 1, items: object(['tier', 'when'], { tier, when: rule, note: text }) },
  asks: texts,
  why: text,
  doNow: texts,
  avoid: texts,
  excludedBy: text,
  clock: object(['from', 'windowDays', 'leadDays'], { from: id, windowDays: { type: 'number' }, leadDays: { type: 'number' } }),
  source: text,
})

const window = { type: 'number', exclusiveMinimum: 0 }

/** Its parts are checked when they are put in place. */
const change = { type: 'object', minProperties: 2, properties: { calc: id, flag: id, group: id, hold: id } }

const evidence = object(['when', 'structure', 'source', 'certainty'], {
  when: rule,
  structure: text,
  lrPositive: { type: 'array', items: { type: 'number' }, minItems: 2, maxItems: 2 },
  lrNegative: { type: 'array', items: { type: 'number' }, minItems: 2, maxItems: 2 },
  source: text,
  certainty: { enum: ['review', 'study', 'expert'] },
  whole: { const: true },
})

const BANDS = ['rare', 'uncommon', 'occasional', 'common']
const band = { enum: BANDS }
const shares = { type: 'array', items: { type: 'number', minimum: 0, maximum: 1 }, minItems: 2, maxItems: 2 }

/** The shape of each kind of file, known by its leading key. */
const FILES: Readonly<Record<string, object>> = {
  tiers: object(
    ['id', 'version', 'tiers', 'destinations', 'actions', 'scales', 'unverified', 'cautions', 'leadOrder', 'burdenCost', 'priorBands', 'mayBePregnant'],
    {
      id,
      version: { type: 'string', pattern: '^\\d+\\.\\d+\\.\\d+$' },
      cautions: texts,
      tiers: list(
        object(['id', 'name', 'hours', 'holes', 'tooLate', 'meaning', 'review', 'safetyNet'], {
          id: tier,
          name: text,
          hours: { type: ['number', 'null'] },
          holes: { type: 'integer' },
          tooLate: { type: 'number', minimum: 1 },
          meaning: text,
          review: text,
          safetyNet: text,
          safetyNetChild: text,
          to: id,
          callAgain: { type: 'number', exclusiveMinimum: 0 },
        }),
      ),
      destinations: list(
        object(['id', 'name', 'letter'], { id, name: text, letter: list({ anyOf: [text, object(['says', 'items'], { says: text, items: texts })] }) }),
      ),
      actions: list(object(['id', 'text', 'print'], { id, text, print: texts })),
      scales: list(object(['id', 'grades', 'words', 'calm'], { id, grades: list(numberOrText), words: texts, calm: list(numberOrText) })),
      sets: map(texts),
      unverified: texts,
      everyLetter: texts,
      leadOrder: texts,
      priorBands: object(BANDS, Object.fromEntries(BANDS.map((word) => [word, shares]))),
      burdenCost: { type: 'number', exclusiveMinimum: 0 },
      mayBePregnant: object(['item', 'values'], { item: id, values: texts }),
      stopRules: list(object(['when', 'then'], { when: text, then: text })),
      normSchools: list(object(['id', 'name', 'basis'], { id, name: text, basis: text, under: { type: 'number' } })),
    },
  ),
  region: object(['region'], {
    region: object(['id', 'name', 'side', 'core', 'stops', 'minimum', 'complaint'], {
      id,
      name: text,
      side: { type: 'boolean' },
      figure: list(object(['view', 'x', 'y'], { view: { enum: ['front', 'back'] }, x: { type: 'number' }, y: { type: 'number' } })),
      ages: object([], { from: { type: 'number' }, under: { type: 'number' } }),
      ordinary: map({ type: 'number' }),
      core: list(
        object(['item', 'seconds', 'why', 'key'], {
          item: id,
          seconds: { type: 'number' },
          why: { enum: ['threat', 'decides', 'common'] },
          key: text,
          label: text,
        }),
      ),
      stops: list(object(['id', 'title', 'position', 'advice', 'items'], { id, title: text, position: { enum: POSITIONS }, advice: text, items: texts })),
      minimum: texts,
      complaint: list(object(['label', 'item', 'value'], { label: text, item: id, value: text })),
      sets: map(texts),
    }),
  }),
  items: object(['stage', 'items'], { for: texts, stage: { enum: [...STAGES, 'patient'] }, position: { enum: POSITIONS }, items: list(item) }),
  names: object(['names'], { names: map(text) }),
  schools: object(['schools'], {
    schools: list(object(['topic', 'choices', 'default'], { topic: text, choices: { ...texts, minItems: 2 }, default: text, changes: map(list(change)) })),
  }),
  profile: object(['profile'], {
    profile: object(['choices'], {
      choices: list(object(['region', 'topic', 'choice'], { region: id, topic: text, choice: text })),
      windows: object([], { now: window, today: window, days: window, weeks: window, routine: window }),
      journeyHours: { type: 'number', minimum: 0, maximum: 48 },
    }),
  }),
  calcs: object(['calcs'], { for: texts, calcs: list(calc) }),
  flags: object(['flags'], { for: texts, flags: list(flag) }),
  groups: object(['groups'], {
    for: texts,
    groups: list(object(['id', 'title', 'when', 'ask', 'because'], { id, title: text, when: rule, ask: texts, because: text })),
  }),
  holds: object(['holds'], {
    for: texts,
    holds: list(
      object(['id', 'title', 'when', 'stops', 'allowed', 'reason'], { id, title: text, when: rule, stops: texts, allowed: text, reason: text, source: text }),
    ),
  }),
  modifiers: object(['modifiers'], {
    for: texts,
    modifiers: list(
      object(['id', 'title', 'when', 'effect', 'source'], {
        id,
        title: text,
        classes: texts,
        concepts: texts,
        when: rule,
        effect: {
          anyOf: [object(['step'], { step: { const: true }, onlyFrom: list(tier) }), object(['atLeast'], { atLeast: tier }), object(['says'], { says: text })],
        },
        source: text,
      }),
    ),
  }),
  pathways: object(['pathways'], {
    pathways: list(
      object(['id', 'title', 'concepts', 'first'], {
        id,
        title: text,
        concepts: texts,
        first: text,
        then: text,
        pregnant: text,
        review: text,
        clock: object(['title', 'hours', 'from'], { title: text, hours: { type: 'number', exclusiveMinimum: 0 }, from: { enum: ['onset', 'injury', 'seen'] } }),
        source: text,
      }),
    ),
  }),
  lesions: object(['lesions', 'neighbouringRoots', 'ties', 'pointers', 'quick', 'readAs', 'patterns', 'cordSigns', 'severalNerves'], {
    lesions: list(
      object(['id', 'name', 'kind', 'limb', 'expected', 'shared'], {
        id: text,
        name: text,
        kind: { enum: ['root', 'plexus', 'nerve'] },
        limb: { enum: ['arm', 'leg'] },
        expected: texts,
        shared: texts,
      }),
    ),
    neighbouringRoots: list({ ...texts, minItems: 2, maxItems: 2 }),
    ties: list(object(['between', 'next', 'reading'], { between: { ...texts, minItems: 2, maxItems: 2 }, next: texts, reading: text })),
    pointers: list(object(['add', 'to'], { item: text, value: text, calc: text, add: { type: 'number' }, to: texts })),
    quick: object(['arm', 'leg'], { arm: texts, leg: texts }),
    patterns: texts,
    cordSigns: texts,
    severalNerves: object(['name', 'meaning'], { name: text, meaning: text }),
    readAs: list(object(['item', 'as', 'lost', 'severe'], { item: text, as: text, lost: { type: 'number' }, severe: { type: 'number' } })),
  }),
  phrases: object(['phrases'], { for: texts, phrases: list(object(['id', 'says'], { id, says: text, covers: { ...texts, minItems: 1 }, when: rule })) }),
  conditions: object(['conditions'], {
    for: texts,
    conditions: list(
      object(['id', 'name', 'picture', 'prior', 'defaultTier'], {
        id,
        name: text,
        picture: text,
        prior: object(['primary-care', 'emergency'], { 'primary-care': band, emergency: band }),
        gate: rule,
        evidence: list(evidence),
        defaultTier: tier,
        tierNote: text,
      }),
    ),
  }),
}

/** The first says quickly whether a file is sound; only for one that is not, the second looks for all that is wrong. */
const validatorsOf = (allErrors: boolean): ReadonlyMap<string, ValidateFunction> => {
  const ajv = new Ajv({ allErrors, allowUnionTypes: true })
  return new Map(Object.entries(FILES).map(([key, schema]) => [key, ajv.compile({ ...schema, definitions })]))
}
const quick = validatorsOf(false)
let thorough: ReturnType<typeof validatorsOf> | undefined

/** Checks one file against the shape that its leading key calls for. */
export function checkShape(path: string, document: unknown): Problem[] {
  if (typeof document !== 'object' || document === null)
    return [{ file: path, id: '-', reason: 'the file is empty or not a mapping', cure: `start it with one of ${Object.keys(FILES).join(', ')}` }]
  const key = Object.keys(FILES).find((name) => name in document)
  const isSound = key === undefined ? undefined : quick.get(key)
  if (key === undefined || !isSound)
    return [{ file: path, id: '-', reason: 'the file has no key that the pack knows', cure: `start it with one of ${Object.keys(FILES).join(', ')}` }]
  if (isSound(document)) return []
  const examine = (thorough ??= validatorsOf(true)).get(key) ?? isSound
  examine(document)
  return worthTelling(examine.errors ?? []).map((error) => problemOf(path, document, error))
}

/** A rule that is wrong fails every form it might have had: the deepest complaint is the useful one. */
const worthTelling = (errors: readonly ErrorObject[]): ErrorObject[] => {
  const useful = errors.filter((error) => error.keyword !== 'anyOf')
  const deepest = Math.max(...useful.map((error) => error.instancePath.split('/').length))
  const kept = useful.filter((error) => error.instancePath.split('/').length === deepest)
  return kept.slice(0, 5)
}

function problemOf(path: string, document: object, error: ErrorObject): Problem {
  const steps = error.instancePath.split('/').slice(1)
  const detail =
    error.keyword === 'additionalProperties'
      ? `: "${String(error.params.additionalProperty)}"`
      : error.keyword === 'enum'
        ? `: ${(error.params.allowedValues as string[]).join(', ')}`
        : ''
  return {
    file: path,
    id: nearestId(document, steps),
    reason: `at ${error.instancePath || '/'}: ${error.message ?? 'wrong shape'}${detail}`,
    cure: 'see docs/content.md for the keys of each file',
  }
}

function nearestId(document: object, steps: readonly string[]): string {
  let at: unknown = document
  let nearest = '-'
  for (const step of steps) {
    at = (at as Record<string, unknown> | undefined)?.[step]
    const named = (at as { id?: unknown } | undefined)?.id
    if (typeof named === 'string') nearest = named
  }
  return nearest
}
