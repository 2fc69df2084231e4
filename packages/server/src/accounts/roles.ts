import type { Action, Role } from '@kneecap-awl/contract'

/** Who may do what. The one place where it is said. */
const MAY: Readonly<Record<Role, readonly Action[]>> = {
  clinician: ['read-patients', 'examine', 'sign', 'refer', 'judge'],
  lead: ['read-patients', 'examine', 'sign', 'refer', 'keep-records', 'judge', 'read-audit'],
  admin: ['judge', 'read-audit', 'manage-people'],
  learner: ['judge'],
}

export const may = (role: Role, action: Action): boolean => MAY[role].includes(action)
