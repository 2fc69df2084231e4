import type { Role } from '@kneecap-awl/contract'

/** Roles as they are called in the building. */
export const ROLE_NAMES: Readonly<Record<Role, string>> = { clinician: 'clinician', lead: 'lead clinician', admin: 'administrator', learner: 'learner' }
