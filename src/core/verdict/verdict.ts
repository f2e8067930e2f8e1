export const verdicts = ['within', 'close', 'outside', 'not-yet', 'held-back', 'left-out'] as const
export type Verdict = (typeof verdicts)[number]

/** Which verdict a group shows: its worst child; left out never wins. */
const weight: Record<Verdict, number> = {
  outside: 5,
  close: 4,
  'held-back': 3,
  'not-yet': 2,
  within: 1,
  'left-out': 0,
}

/** The worst of several verdicts; not yet where there are none. */
export function worst(list: Iterable<Verdict>): Verdict {
  let found: Verdict | null = null
  for (const one of list) if (!found || weight[one] > weight[found]) found = one
  return found ?? 'not-yet'
}

/** Things said of a reading that do not change its number; shown wherever it is shown, and on the certificate. */
export const flags = [
  'stand-in',
  'weak-conditions',
  'weak-light',
  'light-moved',
  'conditions-apart',
  'conditions-from-file',
  'instrument-out-of-date',
  'over-instrument-range',
  'while-held-back',
  'plant-changed',
  'two-people',
  'unlikely-confirmed',
  'fallback-model',
  'estimated-temperature',
  'leads-not-nulled',
  'test-voltage-lowered',
  'surge-left-in',
  'damp-surface',
] as const
export type Flag = (typeof flags)[number]

/** A finding is data; its sentence stands in the table of words under its code. */
export type Figures = Readonly<Record<string, number | string>>
export type Finding = { code: string; figures: Figures }
