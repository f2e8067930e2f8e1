/**
 * What whoever signs should have looked at: everything that is not plainly within, test by test, and how it came to be.
 * What is grave wants a few words, which stand in the record under the signature; the rest wants to have been seen.
 */
import type { Part } from '../plant/part'
import { isPeriodicWork } from '../plant/work'
import type { AnyStep } from '../steps/step'
import type { Finding, Flag } from '../verdict/verdict'
import { foundIn } from './found'
import { isOnlyOffered } from './hunts'
import { lackingParticulars, strangeDays } from './particulars'
import type { Evaluation, StepEvaluation } from './types'

export const reviewKinds = [
  'danger',
  'unclassed',
  'outside',
  'snag',
  'question',
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
  'danger',
  'unclassed',
  'outside',
  'snag',
  'question',
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

/** What is dangerous now, matter by matter: whom it was told to; and in one what nobody said the class of. */
function foundOf(kind: 'danger' | 'unclassed', evaluation: Evaluation): ReviewItem[] {
  const own = foundIn(evaluation).filter(({ as }) => as === (kind === 'danger' ? 'danger' : null))
  const at = own.map(({ step, partId }) => evaluation.byKey.get(`${step}:${partId}`) ?? null)
  if (kind === 'unclassed') {
    const parts = at.flatMap((one) => one?.part ?? [])
    return own.length > 0 ? [ofWhole(kind, { step: at[0]?.step ?? null, parts })] : []
  }
  return own.map(({ id, text, finding }, k) => {
    const { step = null, part } = at[k] ?? {}
    const reasons = text ? [text] : []
    return ofWhole(kind, { id: `danger:${id}`, step, parts: part ? [part] : [], finding, reasons })
  })
}

/** Questions that nobody answered yet; an answered one is seen with its answer. */
function askedBackOf({ questions, byKey }: Evaluation): ReviewItem[] {
  return questions.map(({ entryId, step, partId, text, answer }) => {
    const one = byKey.get(`${step}:${partId}`)
    return ofWhole('question', {
      id: `question:${entryId}${answer ? ':answered' : ''}`,
      step: one?.step ?? null,
      parts: one ? [one.part] : [],
      reasons: answer ? [text, answer.text] : [text],
      wantsWords: answer === null,
    })
  })
}

/** In a periodic inspection its class says what is to be said of what was found; what has none is a matter of its own. */
const saidByClass = ({ plant }: Evaluation, { kind }: ReviewItem): boolean =>
  (kind === 'outside' || kind === 'snag') && isPeriodicWork(plant)

/** Everything to look at before signing, the grave first. @param dayOf the day of an instant at the site */
export function reviewOf(evaluation: Evaluation, dayOf: (at_ms: number) => string): ReviewItem[] {
  return itemsOf(evaluation, dayOf).map((item) =>
    saidByClass(evaluation, item) ? { ...item, wantsWords: false } : item,
  )
}

function itemsOf(evaluation: Evaluation, dayOf: (at_ms: number) => string): ReviewItem[] {
  const asked = evaluation.steps.filter((one) => !isOnlyOffered(one))
  return reviewKinds.flatMap((kind): ReviewItem[] => {
    if (kind === 'danger' || kind === 'unclassed') return foundOf(kind, evaluation)
    if (kind === 'snag') return snagsOf(evaluation)
    if (kind === 'question') return askedBackOf(evaluation)
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
