/**
 * The detector of smooth direct current inside a charge point: at which current it opens, and how soon.
 * Source: IEC 62955:2018, table of operating values (from memory).
 */
import { type Span, standingFor } from '../quantity/span'
import { DC_DETECTOR_mA } from '../rcd/limits'
import { type Band, type Compared, compare } from '../verdict/compare'
import { type Decided, type Figures, gravest } from '../verdict/verdict'

export const polarities = ['positive', 'negative'] as const
export type Polarity = (typeof polarities)[number]

/** A slow ramp, which ends at the current at which it opened; or a steady current and how long it took. */
export type DetectorReading = { polarity: Polarity } & (
  | { kind: 'ramp'; current: Span }
  | { kind: 'timed'; at_mA: number; time: Span }
)

/** Longest times from each current on, ms. */
export const detectorTimes: readonly { from_mA: number; most_ms: number }[] = [
  { from_mA: 200, most_ms: 100 },
  { from_mA: 60, most_ms: 300 },
  { from_mA: 6, most_ms: 10_000 },
]

/** A detector that opens at 3 mA opens where it must not; at exactly 6 mA it lies on the limit. */
export const rampBand: Band = {
  low: DC_DETECTOR_mA.least,
  high: DC_DETECTOR_mA.most,
  closeLow: null,
  closeHigh: null,
  lowIsOutside: true,
}

export type DetectorJudged = {
  verdict: Decided
  code: string
  figures: Figures
  band: Band | null
  closeBy: Compared['closeBy']
}

/**
 * One reading by itself.
 * @example judgeDetector({ polarity: 'positive', kind: 'ramp', current: exactly(4.4) }).verdict // within
 */
export function judgeDetector(reading: DetectorReading): DetectorJudged {
  return reading.kind === 'ramp' ? judgeRamp(reading.current) : judgeTimed(reading.at_mA, reading.time)
}

function judgeRamp(current: Span): DetectorJudged {
  const { verdict, where, closeBy } = compare(current, rampBand)
  const code = where === 'below' ? 'ramp-too-sensitive' : where === 'above' ? 'ramp-too-high' : `ramp-${verdict}`
  const figures = {
    current_mA: standingFor(current),
    least_mA: DC_DETECTOR_mA.least,
    most_mA: DC_DETECTOR_mA.most,
  }
  return { verdict, code, figures, band: rampBand, closeBy }
}

/** Between 3 and 6 mA it may open or not: a time there proves nothing. */
function judgeTimed(at_mA: number, time: Span): DetectorJudged {
  const figures = { at_mA, time_ms: standingFor(time) }
  const opened = time.bound !== 'more-than'
  if (at_mA <= DC_DETECTOR_mA.least) {
    const verdict = opened ? 'outside' : 'within'
    return { verdict, code: opened ? 'opened-below' : 'held-below', figures, band: null, closeBy: null }
  }
  const limit = detectorTimes.find(({ from_mA }) => at_mA >= from_mA)
  if (!limit) return { verdict: 'not-yet', code: 'proves-nothing', figures, band: null, closeBy: null }
  const band: Band = { low: null, high: limit.most_ms, closeLow: null, closeHigh: null }
  const { verdict, where, closeBy } = compare(time, band)
  const code = where === 'above' ? 'time-too-slow' : `time-${verdict}`
  return { verdict, code, figures: { ...figures, most_ms: limit.most_ms }, band, closeBy }
}

export type DetectorFinding = { code: string; figures: Figures; verdict: Decided; reading: number | null }

/** Several together: both polarities are asked, for a detector may be blind to one of them. */
export function judgeDetectorReadings(readings: readonly DetectorReading[]): {
  verdict: Decided
  findings: DetectorFinding[]
} {
  const findings: DetectorFinding[] = readings.map((one, reading) => {
    const { verdict, code, figures } = judgeDetector(one)
    return { verdict, code, figures: { polarity: one.polarity, ...figures }, reading }
  })
  for (const polarity of polarities)
    if (!readings.some((one) => one.polarity === polarity && provesOpening(one)))
      findings.push({ code: 'polarity-wanting', figures: { polarity }, verdict: 'not-yet', reading: null })
  return { verdict: gravest(findings.map((one) => one.verdict)), findings }
}

/** Whether a reading could show that it opens where it must. */
const provesOpening = (reading: DetectorReading): boolean =>
  reading.kind === 'ramp' || reading.at_mA >= DC_DETECTOR_mA.most
