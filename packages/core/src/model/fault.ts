/** Why something that was sent cannot be taken: where, what is wrong, and what was expected. */
export interface Fault {
  readonly path: string
  readonly reason: string
  readonly expected: string
}
