import {
  dueHere,
  judgement,
  priorityOf,
  publicVerdict,
  rangeToAccept,
  readExamination,
  referralLetter,
  shownVerdict,
  type Examination,
  type Fault,
  type Letter,
  type LetterAbout,
  type Pack,
  type ShownVerdict,
  type Tier,
} from '@kneecap-awl/core'

/** What the server keeps and compares of a judgement. */
export interface Judged {
  readonly shown: ShownVerdict
  /** As other programs read it: see `publicVerdict`. */
  readonly body: object
  /** How urgent it could still be, when somebody has to accept that before it is signed. */
  readonly toAccept: Tier | null
}

/** What a referral says of its examination: where to, how urgent, until when. */
export interface Referred {
  readonly tier: Tier
  readonly letter: Letter
  /** ISO 8601; null where the tier has no window. The clock runs from the examination, not from the signature. */
  readonly dueAt: string | null
}

export type JudgedDocument = { readonly faults: readonly Fault[] } | { readonly verdict: object }

/** Where a record stands. */
export type Standing = Pick<ShownVerdict, 'floor' | 'ceiling' | 'priority'>

/** Whoever judges for the server: in its own thread, or in threads of its own. */
export interface Judge {
  verdict(pack: Pack, examination: Examination): Promise<Judged>
  /** The range alone: a tenth of the work. */
  standing(pack: Pack, examination: Examination): Promise<Standing>
  referral(pack: Pack, examination: Examination, about: LetterAbout): Promise<Referred>
  /** An examination file of another program: its faults, or the verdict on it. */
  document(pack: Pack, document: unknown): Promise<JudgedDocument>
}

/** Judges in the thread that asks: for commands and for what is done before the server answers anybody. */
export const judgeHere: Judge = {
  verdict: async (pack, examination) => {
    const judged = judgement(pack, examination)
    return { shown: shownVerdict(judged), body: publicVerdict(judged), toAccept: rangeToAccept(judged) ?? null }
  },
  standing: async (pack, examination) => {
    const judged = judgement(pack, examination)
    const { floor, ceiling } = judged.verdict
    return { floor, ceiling, priority: priorityOf(judged).tier }
  },
  referral: async (pack, examination, about) => {
    const judged = judgement(pack, examination)
    const { tier } = priorityOf(judged)
    return { tier, letter: referralLetter(judged, about), dueAt: dueHere(pack, examination.asOf, tier, judged.verdict.flags) ?? null }
  },
  document: async (pack, document) => {
    const read = readExamination(document, pack)
    return 'faults' in read ? { faults: read.faults } : { verdict: publicVerdict(judgement(pack, read.examination)) }
  },
}
