import * as accounts from './accounts.js'
import * as examinations from './examinations.js'
import * as live from './live.js'
import * as packs from './packs.js'
import * as patients from './patients.js'
import * as people from './people.js'
import * as referrals from './referrals.js'
import type { Route } from './route.js'

export { accounts, examinations, live, packs, patients, people, referrals }
export { ROLES, type Account, type OwnSession, type Role } from './accounts.js'
export { DECIDED, EntryForm, type DecisionForm, type FindingForm } from './entry.js'
export { ExaminationFileForm, MOST_ENTRIES } from './examinationFile.js'
export type { AddedJoint, AlteredRow, DeskPage, ExaminationDetail, Outcome, SentEntries, Told } from './examinations.js'
export type { ExaminationSummary } from './examinationSummary.js'
export type { Corrected, Correction, Merge, Merged, NewPatient, PatientFile, PatientDetail, PatientSummary } from './patients.js'
export type { Described, Frozen } from './frozen.js'
export type { Change } from './live.js'
export type { AuditRow, Invited, Person } from './people.js'
export { ProblemForm, type FaultForm } from './problem.js'
export type { Referral } from './referrals.js'
export { SEXES, SIDES, TIERS, type Sex } from './shapes.js'
export { ACTIONS, type Action, type AnswerOf, type BodyOf, type ParamsOf, type QueryOf, type Route } from './route.js'

const isRoute = (thing: unknown): thing is Route => typeof thing === 'object' && thing !== null && 'url' in thing && 'method' in thing

/** Every route of the server. */
export const ROUTES: readonly Route[] = [accounts, people, patients, examinations, referrals, packs, live].flatMap((capability) =>
  Object.values<unknown>(capability).filter(isRoute),
)
