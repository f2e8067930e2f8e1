/**
 * What whoever signs should have looked at: everything that is not plainly within, test by test, and how it came to be.
 * What is grave wants a few words, which stand in the record under the signature; the rest wants to have been seen.
 */
import type { Part } from '../plant/part'
import type { AnyStep } from '../steps/step'
import type { Finding, Flag } from '../verdict/verdict'
import { isOnlyOffered } from './hunts'
import { lackingParticulars, strangeDays } from './particulars'
import type { Evaluation, StepEvaluation } from './types'

export const reviewKinds = [
  'outside',
  'snag',
  'open',
  'overridden',
  'out-of-calibration',
  'asked-and-kept',
  'close',
  'left-out',
  'simulated',
  'missing',
  'strange-day',
] as const
export type ReviewKind = (typeof reviewKinds)[number]

export type ReviewItem = {
  /** The same from one signature to the next, as long as it is the same matter: `close:pv-voc`. */
  id: string
  kind: ReviewKind
  /** The test that it is about; null where it is about the whole. */
  step: AnyStep | null
  /** Its parts, the first of which is shown. */
  parts: readonly Part[]
  /** What is said of the first; null where the kind says it all. */
  finding: Finding | null
  /** Reasons that were given when it was done. */
  reasons: readonly string[]
  /** It cannot be signed without a few words. */
  wantsWords: boolean
}

const WANT_WORDS: ReadonlySet<ReviewKind> = new Set([
  'outside',
  'snag',
  'open',
  'overridden',
  'out-of-calibration',
  'strange-day',
])

const has =
  (...flags: readonly Flag[]) =>
  (one: StepEvaluation): boolean =>
    one.counting !== null && flags.some((flag) => one.flags.includes(flag))

/** Which tests belong to which kind; one may belong to several. */
const belongs: Partial<Record<ReviewKind, (one: StepEvaluation) => boolean>> = {
  outside: ({ verdict }) => verdict === 'outside',
  open: ({ verdict }) => verdict === 'not-yet' || verdict === 'held-back',
  overridden: ({ counting, gates }) => counting !== null && gates.some(({ overridden }) => overridden !== null),
  'out-of-calibration': has('instrument-out-of-date'),
  'asked-and-kept': has('unlikely-confirmed'),
  close: ({ verdict }) => verdict === 'close',
  'left-out': ({ verdict }) => verdict === 'left-out',
  simulated: has('stand-in'),
}

function reasonsOf(kind: ReviewKind, { gates, leftOut }: StepEvaluation): string[] {
  if (kind === 'left-out') return leftOut ? [leftOut.reason] : []
  return kind === 'overridden' ? gates.flatMap(({ overridden }) => overridden?.reason ?? []) : []
}

function ofTests(kind: ReviewKind, own: readonly StepEvaluation[]): ReviewItem[] {
  const byStep = new Map<AnyStep, StepEvaluation[]>()
  for (const one of own) byStep.set(one.step, [...(byStep.get(one.step) ?? []), one])
  return [...byStep].map(([step, all]) => ({
    id: `${kind}:${step.id}`,
    kind,
    step,
    parts: all.map(({ part }) => part),
    finding: all[0]!.finding,
    reasons: [...new Set(all.flatMap((one) => reasonsOf(kind, one)))],
    wantsWords: WANT_WORDS.has(kind),
  }))
}

const ofWhole = (kind: ReviewKind, rest: Partial<ReviewItem> = {}): ReviewItem => ({
  id: kind,
  kind,
  step: null,
  parts: [],
  finding: null,
  reasons: [],
  wantsWords: WANT_WORDS.has(kind),
  ...rest,
})

/** Snags that nobody closed and that are not a test's own verdict: those stand under what is outside. */
function snagsOf({ snags, byKey }: Evaluation): ReviewItem[] {
  return snags
    .filter(({ state }) => state !== 'closed')
    .flatMap((snag) => {
      const one = byKey.get(`${snag.step}:${snag.partId}`)
      if (one?.verdict === 'outside') return []
      return [
        ofWhole('snag', {
          id: `snag:${snag.entryId}`,
          step: one?.step ?? null,
          parts: one ? [one.part] : [],
          finding: snag.finding,
          reasons: snag.text ? [snag.text] : [],
        }),
      ]
    })
}

/** Everything to look at before signing, the grave first. @param dayOf the day of an instant at the site */
export function reviewOf(evaluation: Evaluation, dayOf: (at_ms: number) => string): ReviewItem[] {
  const asked = evaluation.steps.filter((one) => !isOnlyOffered(one))
  return reviewKinds.flatMap((kind): ReviewItem[] => {
    if (kind === 'snag') return snagsOf(evaluation)
    if (kind === 'missing') {
      const lacking = lackingParticulars(evaluation)
      return lacking.length > 0 ? [ofWhole(kind, { parts: lacking.map(({ part }) => part) })] : []
    }
    if (kind === 'strange-day')
      return strangeDays(evaluation, dayOf).map((finding) => ofWhole(kind, { id: `${kind}:${finding.code}`, finding }))
    const own = asked.filter(belongs[kind]!)
    // That a whole job was read from simulated instruments is one matter.
    if (kind === 'simulated') return own.length > 0 ? [ofWhole(kind, { parts: own.map(({ part }) => part) })] : []
    return ofTests(kind, own)
  })
}
