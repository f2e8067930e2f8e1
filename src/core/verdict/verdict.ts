export const verdicts = ['within', 'close', 'outside', 'not-yet', 'held-back', 'left-out'] as const
export type Verdict = (typeof verdicts)[number]
/** What a judgement comes to; the two others are a matter of gates and of people. */
export type Decided = Exclude<Verdict, 'held-back' | 'left-out'>

/** Which verdict a group of steps shows: its worst child; left out never wins (design 5). */
const weight: Record<Verdict, number> = {
  outside: 5,
  close: 4,
  'held-back': 3,
  'not-yet': 2,
  within: 1,
  'left-out': 0,
}

/** The worst of several verdicts of a group; not yet where there are none. */
export function worst(list: Iterable<Verdict>): Verdict {
  let found: Verdict | null = null
  for (const one of list) if (!found || weight[one] > weight[found]) found = one
  return found ?? 'not-yet'
}

/** Sorts members of a group, the worst first; what has no verdict comes last. */
export const worstFirst = (a: Verdict | null, b: Verdict | null): number =>
  (b === null ? -1 : weight[b]) - (a === null ? -1 : weight[a])

/** Within one judgement what is not decided outweighs what is only close: nothing undecided passes. */
const gravity: Record<Verdict, number> = {
  outside: 5,
  'held-back': 4,
  'not-yet': 3,
  close: 2,
  within: 1,
  'left-out': 0,
}

/** The gravest of what one judgement is made of; not yet where there is nothing. */
export function gravest<V extends Verdict>(list: Iterable<V>): V | 'not-yet' {
  let found: V | null = null
  for (const one of list) if (!found || gravity[one] > gravity[found]) found = one
  return found ?? 'not-yet'
}
export const isGraver = (a: Verdict, b: Verdict): boolean => gravity[a] > gravity[b]

/** Whether nothing is left to do at a verdict. */
export const isDone = (verdict: Verdict): boolean =>
  verdict === 'within' || verdict === 'close' || verdict === 'left-out'

/** Whether nobody knows yet: nothing was read, or nothing that decides. */
export const isOpen = (verdict: Verdict | null): boolean => verdict === 'not-yet' || verdict === 'held-back'

/** Whether it is told beside the tables: whatever is not plainly within, and what the plant has overtaken. */
export const isRemarkable = ({ verdict, flags }: { verdict: Verdict; flags: readonly Flag[] }): boolean =>
  verdict === 'outside' || verdict === 'close' || flags.includes('plant-changed')

/** Things said of a reading that do not change its number; shown wherever it is shown, and on the certificate. */
export const flags = [
  'stand-in',
  'weak-conditions',
  'weak-light',
  'weak-translation',
  'fast-sweep',
  'light-moved',
  'conditions-apart',
  'conditions-from-file',
  'clock-moved',
  'instrument-out-of-date',
  'over-instrument-range',
  'while-held-back',
  'plant-changed',
  'two-people',
  'unlikely-confirmed',
  'fallback-model',
  'estimated-temperature',
  'sisters-only',
  'light-worked-back',
  'leads-not-nulled',
  'meter-elsewhere',
  'test-voltage-lowered',
  'departs-from-table',
  'surge-left-in',
  'surge-not-entered',
  'damp-surface',
  'earlier-questions',
] as const
export type Flag = (typeof flags)[number]

/** A finding is data; its sentence stands in the table of words under its code. */
export type Figures = Readonly<Record<string, number | string>>
export type Finding = {
  code: string
  figures: Figures
  /** Sentences that follow it: what makes it close, what else is to be said. */
  also?: readonly { code: string; figures: Figures }[]
}
