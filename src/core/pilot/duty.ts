/**
 * What the duty cycle of the control pilot codes: the current that a vehicle may take.
 * Source: IEC 61851-1:2017 annex A, tables A.7 and A.8 (from memory).
 */

/** What a charge point may set. `not-allowed` codes no current: nothing charges. */
export type DutyClass = 'analogue' | 'digital' | 'not-allowed'
export type Coded = { class: DutyClass; current_A: number | null }

const DIGITAL_pct = { least: 3, most: 7 } as const
const LINEAR_pct = { least: 10, most: 85 } as const
const HIGH_MOST_pct = 96
/** Amperes a per cent up to 85 %, and beyond it from 64 % on. */
const LINEAR_AperPct = 0.6
const HIGH_AperPct = 2.5
const HIGH_FROM_pct = 64
/** Bands that a vehicle takes besides: just under the least and just over the most. */
const VEHICLE_LOW = { from_pct: 8, current_A: 6 } as const
const VEHICLE_HIGH = { most_pct: 97, current_A: 80 } as const

/** The least and most current that a duty can code, A. */
export const CODED_A = { least: 6, most: 80 } as const
/** Up to here a current is coded by the first line, A. */
const LINEAR_MOST_A = LINEAR_AperPct * LINEAR_pct.most

const NOT_ALLOWED: Coded = { class: 'not-allowed', current_A: null }

/**
 * The current that a duty cycle codes, as a charge point may set it.
 * @param duty_pct 0 to 100.
 * @throws RangeError outside that.
 * @example codedBy(40) // analogue, 24 A
 * @example codedBy(90) // analogue, 65 A
 */
export function codedBy(duty_pct: number): Coded {
  if (!(duty_pct >= 0 && duty_pct <= 100)) throw new RangeError(`codedBy: expected 0 to 100 %, got ${duty_pct}`)
  if (duty_pct >= DIGITAL_pct.least && duty_pct <= DIGITAL_pct.most) return { class: 'digital', current_A: null }
  if (duty_pct < LINEAR_pct.least || duty_pct > HIGH_MOST_pct) return NOT_ALLOWED
  const isLinear = duty_pct <= LINEAR_pct.most
  const current_A = isLinear ? LINEAR_AperPct * duty_pct : HIGH_AperPct * (duty_pct - HIGH_FROM_pct)
  return { class: 'analogue', current_A }
}

/**
 * The same as a vehicle takes it: two narrow bands more.
 * @throws RangeError outside 0 to 100 %.
 * @example takenBy(9) // analogue, 6 A
 */
export function takenBy(duty_pct: number): Coded {
  const coded = codedBy(duty_pct)
  if (coded.class !== 'not-allowed') return coded
  if (duty_pct >= VEHICLE_LOW.from_pct && duty_pct < LINEAR_pct.least)
    return { class: 'analogue', current_A: VEHICLE_LOW.current_A }
  if (duty_pct > HIGH_MOST_pct && duty_pct <= VEHICLE_HIGH.most_pct)
    return { class: 'analogue', current_A: VEHICLE_HIGH.current_A }
  return NOT_ALLOWED
}

/**
 * The duty cycle that codes a current, %. From 51 to 52.5 A it reads back as a little less: the two lines do not meet.
 * @throws RangeError outside 6 to 80 A.
 * @example dutyFor(24) // 40
 */
export function dutyFor(current_A: number): number {
  if (!(current_A >= CODED_A.least && current_A <= CODED_A.most))
    throw new RangeError(`dutyFor: expected ${CODED_A.least} to ${CODED_A.most} A, got ${current_A}`)
  return current_A <= LINEAR_MOST_A ? current_A / LINEAR_AperPct : current_A / HIGH_AperPct + HIGH_FROM_pct
}
