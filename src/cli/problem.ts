import type { z } from 'zod'

/** What is wrong with an input: where, and one sentence on what to do. */
export type Problem = { path: (string | number)[]; message: string; issue?: z.core.$ZodIssue }
export class CalcProblem extends Error {
  constructor(readonly errors: Problem[]) {
    super(errors[0]?.message)
  }
}
