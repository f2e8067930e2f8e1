/**
 * The trips of a residual current device, at the multiples and half-waves that the regime's school asks for.
 * Sources: IEC 61008-1 table 1, BS 7671:2018 643.7 and 643.8 (from memory).
 */
import { readValueOf } from '../quantity/readValue'
import { askedTrips, judgeRcd, judgeTrip, type RcdJudged, recordedMultiple, type Trip } from '../rcd/judgeRcd'
import { halfSchools, type Multiple, multiples, rampShares, tripBand, tripCurrent_mA } from '../rcd/limits'
import type { Figures, Verdict } from '../verdict/verdict'
import type { WorkingLine } from '../verdict/working'
import { judgeMeasured, liveGates, notYet, saying } from './acShared'
import { plain } from './checks'
import { resistanceRead } from './electrodeSlots'
import { arrangeTrips, deviceOf, rcdSlots, rulesOf, tripsIn, waveformIn } from './rcdSlots'
import type { TimesPicture } from './picture'
import type { Step, StepContext } from './step'
import { numberIn } from './stringReading'
import { exampleRcd } from './worked'

type Context = StepContext<'rcd'>

/** The trip that the sentence is about: the worst, and of those alike the first. */
function worstTrip(judged: RcdJudged, verdict: Verdict) {
  return judged.findings.find((one) => one.trip !== null && one.verdict === verdict) ?? null
}

/** The line of the working that a trip is told in: a ramp, a wait, a band, or a longest time. */
function lineOf(trip: Trip, figures: Figures): string {
  if ('waveform' in figures) return 'rcd.not-for-type'
  if (trip.kind === 'ramp') return 'rcd.ramp'
  if (trip.multiple === 0.5) return 'rcd.half'
  return 'least_ms' in figures ? 'rcd.time' : 'rcd.time-most'
}

/** RA times the rated current, V: null where no electrode was read. */
function touchVoltage(context: Context): number | null {
  const values = context.plant.ofKind('electrode').flatMap((part) => {
    const body = context.counted('electrode', part.id)
    const found = body && resistanceRead(body)
    return found ? [found] : []
  })
  return values.length === 0 ? null : (Math.max(...values) * context.part.data.rated_mA) / 1000
}

/** A waveform that the device's type need not see proves nothing, whatever it does. */
const trapOf: NonNullable<Step<'rcd'>['trap']> = ({ part }, reading) => {
  const waveform = waveformIn(reading)
  return rampShares(part.data.type, waveform)
    ? null
    : { code: 'rcd.waveform-not-for-type', figures: { tag: part.data.tag, waveform } }
}

export const rcdTrips: Step<'rcd'> = {
  id: 'rcd-trips',
  order: 'E5',
  appliesTo: 'rcd',
  station: 'rcd',
  tag: 'live',
  slots: rcdSlots,
  arrange: arrangeTrips,
  trap: trapOf,
  stands: 'highest',
  needsConditions: false,
  counts: 'latest',
  gates: [...liveGates],
  cautions: [
    { id: 'fault-current-flows', hard: true },
    { id: 'medical-and-it-off', hard: false },
    { id: 'loads-off-reset-between', hard: false },
  ],
  hookup: {
    drawing: 'rcd-at-socket',
    leads: [
      { balloon: 1, code: 'downstream-socket' },
      { balloon: 2, code: 'ramp-current' },
    ],
  },
  minutes: 4,
  sources: ['iec-61008', 'bs7671-rcd', 'rcd-practice'],
  inputs: ({ data }) => JSON.stringify([data.type, data.delay, data.rated_mA, data.standard]),
  judge(context, reading) {
    const rcd = deviceOf(context.part.data)
    const trips = tripsIn(reading)
    const found = judgeRcd(
      rcd,
      trips.map((one) => one.trip),
      rulesOf(context.regime),
    )
    const worst = worstTrip(found, found.verdict) ?? found.findings[0]
    if (!worst) return notYet('rcd.no-reading', context)
    const at = worst.trip === null ? 'once-0' : trips[worst.trip]!.slot
    const said = { code: `rcd.${worst.code}`, figures: { tag: context.part.data.tag, ...worst.figures, at } }
    const { recorded } = found
    if (!recorded) return plain(found.verdict, said)
    const multiple = recordedMultiple(rcd, rulesOf(context.regime).sequence)
    const { least_ms, most_ms } = tripBand(rcd, multiple)
    const judged = judgeMeasured(context, {
      step: 'rcd',
      read: { ...readValueOf(recorded.value_ms, 'ms', 1), bound: recorded.bound },
      reading,
      unit: 'ms',
      band: { low: least_ms, high: most_ms, closeLow: null, closeHigh: null },
      source: 'iec-61008',
      limit: { id: 'rcd.time', value: most_ms },
    })
    return saying({ ...judged, finding: said }, said.code, {}, found.verdict)
  },
  doubt(reading) {
    // Five times the current cannot take longer than once: the times stand in each other's places.
    const slower = (['0', '180'] as const).find((angle) => {
      const [once, five] = [numberIn(reading, `once-${angle}`), numberIn(reading, `five-${angle}`)]
      return once && five && once.bound === 'exact' && five.value > once.value
    })
    if (!slower) return null
    const figures = {
      once: numberIn(reading, `once-${slower}`)!.text,
      five: numberIn(reading, `five-${slower}`)!.text,
    }
    return { code: 'slower-at-five', slot: `five-${slower}`, figures }
  },
  working(context, reading) {
    const rcd = deviceOf(context.part.data)
    const lines: WorkingLine[] = tripsIn(reading).map(({ trip, slot }) => {
      const one = judgeTrip(rcd, trip, rulesOf(context.regime))
      const value = trip.kind === 'time' ? trip.time.value_ms : trip.current_mA
      return {
        code: lineOf(trip, one.figures),
        figures: { at: slot, ...one.figures },
        result: { value, unit: trip.kind === 'time' ? 'ms' : 'mA', decimals: 1 },
        source: 'iec-61008',
        decides: true,
      }
    })
    const touch = touchVoltage(context)
    if (touch !== null)
      lines.push({
        code: 'rcd.touch-voltage',
        figures: { rated_mA: rcd.rated_mA, most_V: context.regime.limits['earth.touch-voltage'].value },
        result: { value: touch, unit: 'V', decimals: 1 },
        source: 'bs7671-electrode',
      })
    return lines
  },
  pictures(context, reading) {
    const rcd = deviceOf(context.part.data)
    const rules = rulesOf(context.regime)
    const trips = tripsIn(reading).flatMap(({ trip }) => (trip.kind === 'time' ? [trip] : []))
    const told = [...askedTrips(rcd, rules.sequence), ...trips].map((one) => one.multiple)
    const asked = multiples.filter((one) => told.includes(one))
    const current = (multiple: Multiple): number => tripCurrent_mA(rcd, multiple, context.regime.schools['rcd.five'])
    const picture: TimesPicture = {
      kind: 'times',
      limits: asked.map((multiple) =>
        multiple === 0.5
          ? { multiple, current_mA: current(0.5), least_ms: halfSchools[rules.half], most_ms: null }
          : { multiple, current_mA: current(multiple), ...tripBand(rcd, multiple) },
      ),
      trips: trips.map((trip) => ({
        multiple: trip.multiple,
        angle_deg: trip.angle_deg ?? 0,
        time_ms: trip.time.value_ms,
        isBound: trip.time.bound !== 'exact',
        verdict: judgeTrip(rcd, trip, rules).verdict,
      })),
    }
    return [picture]
  },
  causes(context, _, judgement) {
    if (judgement.verdict !== 'outside') return []
    const figures = { tag: context.part.data.tag }
    const { code } = judgement.finding
    if (code === 'rcd.too-slow')
      return [
        { code: 'rcd-slow', figures, fit: 'fits', predicted: null, next: { code: 'exercise-and-repeat', figures } },
      ]
    return [
      {
        code: 'standing-leakage',
        figures,
        fit: 'may-fit',
        predicted: null,
        next: { code: 'loads-off-repeat', figures },
      },
      {
        code: 'other-device-tripped',
        figures,
        fit: 'may-fit',
        predicted: null,
        next: { code: 'see-which-tripped', figures },
      },
      { code: 'rcd-too-sensitive', figures, fit: 'may-fit', predicted: null, next: { code: 'replace-rcd', figures } },
    ]
  },
  example: {
    source: 'IEC 61008-1 table 1 (from memory): a general device opens within 300 ms at its rated current',
    part: exampleRcd,
    reading: { slots: { 'once-0': readValueOf(34.9, 'ms', 1) }, conditions: null },
    verdict: 'within',
  },
}
