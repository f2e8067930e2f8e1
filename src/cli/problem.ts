/** What is wrong with an input: where, and one sentence on what to do. */
export type Problem = { path: (string | number)[]; message: string }
export class CalcProblem extends Error {
  constructor(readonly errors: Problem[]) {
    super(errors[0]?.message)
  }
}
