import { ApiProblem } from '../api/http'

/** What went wrong with a form, as it is shown beside it: what to put right where that is known. */
export function faultWords(error: unknown): string {
  if (error instanceof ApiProblem)
    return error.faults.length > 0 ? error.faults.map(({ reason, expected }) => `It ${reason}: ${expected}.`).join(' ') : error.message
  return error instanceof TypeError ? 'The server cannot be reached. Try again.' : (error as Error).message
}
