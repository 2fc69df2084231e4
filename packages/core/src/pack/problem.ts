/** One fault of a content pack: where it is, what is wrong, and what to do about it. */
export interface Problem {
  readonly file: string
  readonly id: string
  readonly reason: string
  readonly cure: string
}

export const problemLine = (problem: Problem): string => `${problem.file}: ${problem.id}: ${problem.reason} (cure: ${problem.cure})`

export class PackError extends Error {
  override readonly name = 'PackError'
  constructor(readonly problems: readonly Problem[]) {
    super(problems.map(problemLine).join('\n'))
  }
}
