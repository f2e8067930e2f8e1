/** The current that a duty as it was read codes, with its uncertainty. Source: IEC 61851-1:2017 annex A (from memory). */
import { codedBy } from '../../pilot/duty'
import type { Span } from '../../quantity/span'
import type { Band } from '../../verdict/compare'
import type { Decided } from '../../verdict/verdict'
import type { Figure } from '../reading'

/** What a duty says: a current, an agreement in data, none, or nothing that a duty can say. */
export type Told = { what: 'current'; current: Span } | { what: 'digital' | 'nothing' | 'no-duty' }

/** @example toldBy of a duty of 40 % // 24 A, with the whisker of the instrument */
export function toldBy({ span, read }: Figure): Told {
  if (read.value < 0 || read.value > 100 || span.bound !== 'exact') return { what: 'no-duty' }
  const coded = codedBy(read.value)
  if (coded.class === 'digital') return { what: 'digital' }
  const middle = coded.current_A
  if (middle === null) return { what: 'nothing' }
  const ends = [read.value - span.whisker, read.value + span.whisker].map((one) =>
    one < 0 || one > 100 ? null : codedBy(one).current_A,
  )
  const whisker = Math.max(0, ...ends.map((one) => (one === null ? 0 : Math.abs(one - middle))))
  return { what: 'current', current: { least: middle, most: middle, bound: 'exact', whisker } }
}

/** From here on a pilot does not swing: it is the one of A, or of a point that lets its car wait, %. */
export const STEADY_pct = 99.5

/** Amperes a point of duty, where a current lies on the two lines of the code. */
export function slopeAt(current_A: number): number {
  const at = codedBy(85).current_A!
  return current_A <= at
    ? codedBy(11).current_A! - codedBy(10).current_A!
    : codedBy(91).current_A! - codedBy(90).current_A!
}

/** What a display can show of a current: anything above a limit by so much is said. */
const SHOWN_A = 0.005
/** Up to a limit, and up to what pilots may be off by above it: that is close. */
export const bandUpTo = (limit_A: number, slack_A: number): Band => ({
  low: null,
  high: limit_A + slack_A,
  closeLow: null,
  closeHigh: limit_A + SHOWN_A,
})

/** What a duty that says no current comes to. */
export const withoutCurrent = (what: Exclude<Told['what'], 'current'>): { verdict: Decided; code: string } =>
  what === 'nothing'
    ? { verdict: 'outside', code: 'point-current.codes-nothing' }
    : { verdict: 'not-yet', code: `point-current.${what}` }
