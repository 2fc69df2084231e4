import { POSITIONS, STAGES } from '../model/item.js'
import {
  BANDS,
  calc,
  change,
  daySpan,
  flag,
  flagPart,
  id,
  item,
  likelihood,
  list,
  map,
  numberOrText,
  object,
  pathway,
  picture,
  plate,
  reviewed,
  rule,
  shares,
  text,
  texts,
  tier,
  window,
} from './forms.js'

const deserved = { enum: ['now', 'today', 'days', 'weeks', 'routine', 'none'] }

/** The shape of each kind of file, known by its leading key. */
export const FILES: Readonly<Record<string, object>> = {
  condition: object(['condition'], {
    condition: id,
    flag: id,
    common: flagPart,
    some: list({ ...flagPart, required: ['for'] }),
    regions: map(flagPart),
    likelihood: object([], {
      common: object([], likelihood),
      some: list(object(['for', 'id', 'name', 'picture', 'prior', 'defaultTier'], { for: texts, id, ...likelihood })),
      regions: map(object(['id'], { id, ...likelihood })),
    }),
    pathways: list(pathway),
    reviewed,
  }),
  criteria: object(['criteria'], {
    criteria: list(object(['id', 'says', 'when', 'source', 'reason'], { id, says: text, when: rule, source: text, reason: text })),
  }),
  tiers: object(
    [
      'id',
      'version',
      'tiers',
      'destinations',
      'actions',
      'scales',
      'unverified',
      'cautions',
      'leadOrder',
      'burdenCost',
      'priorBands',
      'mayBePregnant',
      'spoilsOnTheWay',
    ],
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
        object(['id', 'name', 'sees', 'letter'], {
          id,
          name: text,
          sees: tier,
          letter: list({ anyOf: [text, object(['says', 'items'], { says: text, items: texts })] }),
        }),
      ),
      actions: list(object(['id', 'name', 'text', 'print'], { id, name: text, text, print: texts })),
      scales: list(object(['id', 'grades', 'words', 'calm'], { id, grades: list(numberOrText), words: texts, calm: list(numberOrText) })),
      sets: map(texts),
      unverified: texts,
      everyLetter: texts,
      abbreviations: map(text),
      leadOrder: texts,
      priorBands: object(BANDS, Object.fromEntries(BANDS.map((word) => [word, shares]))),
      burdenCost: { type: 'number', exclusiveMinimum: 0 },
      mayBePregnant: object(['item', 'values'], { item: id, values: texts }),
      spoilsOnTheWay: object(['classes', 'beyondHours'], { classes: texts, beyondHours: { type: 'number', minimum: 0, maximum: 48 } }),
      stopRules: list(object(['when', 'then'], { when: text, then: text })),
      referenceRanges: list(object(['id', 'name', 'basis'], { id, name: text, basis: text, under: { type: 'number' } })),
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
  names: object(['names'], { names: map({ ...object([], { also: text, lay: text }), minProperties: 1 }) }),
  lexicon: object(['lexicon'], {
    lexicon: list(
      object(['words', 'write'], {
        words: texts,
        write: text,
        in: { enum: ['names', 'texts', 'lay'] },
        except: list(object(['text', 'reason'], { text, reason: text })),
      }),
    ),
  }),
  least: object(['least'], {
    least: list(
      object(['because'], {
        because: text,
        unless: texts,
        in: texts,
        for: texts,
        stages: map(deserved),
        of: map({ anyOf: [deserved, { ...map(list({ anyOf: [text, { type: 'number' }] })), propertyNames: deserved }] }),
      }),
    ),
  }),
  noted: object(['noted'], { noted: list(object(['because', 'items'], { because: text, items: texts })) }),
  threats: object(['threats'], { threats: list(object(['concept', 'least'], { concept: text, least: tier, except: map(text) })) }),
  formerly: object(['formerly'], {
    formerly: map({
      ...object([], { id: { anyOf: [id, list(id)] }, words: map(text), qualifiers: map({ ...object([], { id: text, words: map(text) }), minProperties: 1 }) }),
      minProperties: 1,
    }),
  }),
  plates: object(['plates'], {
    for: texts,
    plates: list(plate),
    pictures: list(picture),
  }),
  practiceVariants: object(['practiceVariants'], {
    practiceVariants: list(
      object(['topic', 'choices', 'default'], { topic: text, choices: { ...texts, minItems: 2 }, default: text, changes: map(list(change)) }),
    ),
  }),
  profile: object(['profile'], {
    profile: object(['choices'], {
      choices: list(object(['region', 'topic', 'choice'], { region: id, topic: text, choice: text })),
      windows: object([], { now: window, today: window, days: window, weeks: window, routine: window }),
      journeyHours: { type: 'number', minimum: 0, maximum: 48 },
    }),
  }),
  seconds: object(['seconds'], { seconds: map({ type: 'number', minimum: 0 }) }),
  calcs: object(['calcs'], { for: texts, calcs: list(calc) }),
  prompts: object(['prompts'], {
    for: texts,
    prompts: list(object(['id', 'title', 'when', 'ask', 'because'], { id, title: text, when: rule, ask: texts, because: text })),
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
          anyOf: [
            object(['step'], { step: { const: true }, onlyFrom: list(tier) }),
            object(['atLeast'], { atLeast: tier }),
            object(['says'], { says: text }),
            object(['contradicts'], { contradicts: text }),
            object(['concludes'], { concludes: text, rivals: list(object(['is', 'by', 'shows'], { is: text, by: text, shows: text })), again: daySpan }),
            object(['plans'], { plans: text, support: text, returns: texts, review: daySpan }),
            object(['tells'], { tells: text }),
          ],
        },
        source: text,
      }),
    ),
  }),
  pathways: object(['pathways'], {
    pathways: list(pathway),
  }),
  nerveLesions: object(['nerveLesions', 'neighbouringRoots', 'ties', 'pointers', 'quick', 'readAs', 'patterns', 'cordSigns', 'severalNerves'], {
    nerveLesions: list(
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
}

/** Parts of condition files as the compiler puts them side by side: a local choice changes one and is checked by it. No file begins with them. */
export const PARTS: Readonly<Record<string, object>> = { flags: object(['flags'], { flags: list(flag) }) }
