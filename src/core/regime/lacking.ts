/** A regime without a figure that a test needs: then there is a reading and no verdict, and what it would have said is left out. */

/** Thrown where the figure is asked for. */
export class Lacking extends Error {
  constructor(readonly limitId: string) {
    super(`limit: expected the regime to have ${limitId}`)
  }
}

/** What some work comes to, or what is said instead where the regime lacks a figure for it. */
export function orLacking<T, S>(work: () => T, instead: (limitId: string) => S): T | S {
  try {
    return work()
  } catch (error) {
    if (error instanceof Lacking) return instead(error.limitId)
    throw error
  }
}
