/**
 * The trips of a residual current device, at the multiples and half-waves that the regime's school asks for.
 * Sources: IEC 61008-1 table 1, BS 7671:2018 643.7 and 643.8 (from memory).
 */
import { readValueOf } from '../quantity/readValue'
import { discriminateByRule, discriminationByBands } from '../rcd/discrimination'
import { askedTrips, judgeRcd, judgeTrip, type RcdJudged, type Trip } from '../rcd/judgeRcd'
import { ADDITIONAL_PROTECTION_mA, halfSchools, type Multiple, type Rcd, tripBand } from '../rcd/limits'
import type { PartData, RcdData } from '../plant/part'
import type { Body } from '../record/entry'
import type { Regime } from '../regime/regime'
import type { Figures, Verdict } from '../verdict/verdict'
import type { WorkingLine } from '../verdict/working'
import { judgeMeasured, liveGates, notYet, numberSlot, saying } from './acShared'
import { plain } from './checks'
import { electrodeResistance } from './electrode'
import type { NumberSlot, Slot, Step, StepContext } from './step'
import { numberIn } from './stringReading'
import { exampleRcd } from './worked'

type Context = StepContext<'rcd'>

const threeMultiples = (_: PartData, regime: Regime): boolean => regime.schools['rcd.sequence'] === 'three-multiples'
const additional = (part: PartData, regime: Regime): boolean =>
  threeMultiples(part, regime) && part.kind === 'rcd' && part.rated_mA <= ADDITIONAL_PROTECTION_mA

const timed = (id: string, only?: NumberSlot['only']): NumberSlot =>
  numberSlot(id, 'rcd-time', 'ms', 1, only ? { only } : {})
/** Slots of timed trips with their multiple and half-wave. */
const timeSlots: readonly { slot: NumberSlot; multiple: Multiple; angle_deg: 0 | 180 }[] = [
  { slot: timed('half-0', threeMultiples), multiple: 0.5, angle_deg: 0 },
  { slot: timed('half-180', threeMultiples), multiple: 0.5, angle_deg: 180 },
  { slot: timed('once-0'), multiple: 1, angle_deg: 0 },
  { slot: timed('once-180', threeMultiples), multiple: 1, angle_deg: 180 },
  { slot: timed('five-0', additional), multiple: 5, angle_deg: 0 },
  { slot: timed('five-180', additional), multiple: 5, angle_deg: 180 },
]
const rampSlot = numberSlot('ramp', 'rcd-current', 'mA', 2, { optional: true })
const slots: readonly Slot[] = [...timeSlots.map(({ slot }) => slot), rampSlot]

const deviceOf = ({ type, delay, rated_mA, standard }: RcdData): Rcd => ({ type, kind: delay, rated_mA, standard })

function tripsIn(reading: Pick<Body<'reading'>, 'slots'>): { trip: Trip; slot: string }[] {
  const trips: { trip: Trip; slot: string }[] = []
  for (const { slot, multiple, angle_deg } of timeSlots) {
    const read = numberIn(reading, slot.id)
    if (!read) continue
    const time = { value_ms: read.value, bound: read.bound }
    trips.push({ trip: { kind: 'time', multiple, angle_deg, waveform: 'ac', time }, slot: slot.id })
  }
  const ramp = numberIn(reading, rampSlot.id)
  if (ramp)
    trips.push({ trip: { kind: 'ramp', angle_deg: null, waveform: 'ac', current_mA: ramp.value }, slot: rampSlot.id })
  return trips
}

const rulesOf = ({ regime }: Context) => ({
  sequence: regime.schools['rcd.sequence'],
  half: regime.schools['rcd.half'],
  place: 'circuit' as const,
})

/** The trip that the sentence is about: the worst, and of those alike the first. */
function worstTrip(judged: RcdJudged, verdict: Verdict) {
  return judged.findings.find((one) => one.trip !== null && one.verdict === verdict) ?? null
}

/** The line of the working that a trip is told in: a ramp, a wait, a band, or a longest time. */
function lineOf(trip: Trip, figures: Figures): string {
  if (trip.kind === 'ramp') return 'rcd.ramp'
  if (trip.multiple === 0.5) return 'rcd.half'
  return 'least_ms' in figures ? 'rcd.time' : 'rcd.time-most'
}

/** RA times the rated current, V: null where no electrode was read. */
function touchVoltage(context: Context): number | null {
  const values = context.plant.ofKind('electrode').flatMap((part) => {
    const body = context.counted('electrode', part.id)
    const found = body && electrodeResistance({ ...context, part }, body)
    return found ? [found] : []
  })
  return values.length === 0 ? null : (Math.max(...values) * context.part.data.rated_mA) / 1000
}

function discriminationLines(context: Context): WorkingLine[] {
  const upper = context.plant.upstreamOf(context.part)
  if (!upper) return []
  const [above, own] = [deviceOf(upper.data), deviceOf(context.part.data)]
  const five = discriminationByBands(above, own).at(-1)!
  return [
    {
      code: discriminateByRule(above, own) ? 'rcd.discriminates' : 'rcd.does-not-discriminate',
      figures: {
        upper: upper.data.tag,
        current_mA: five.current_mA,
        upper_ms: five.upperLeast_ms ?? '–',
        own_ms: five.lowerMost_ms,
      },
      result: null,
      source: 'iec-61008',
    },
  ]
}

export const rcdTrips: Step<'rcd'> = {
  id: 'rcd-trips',
  order: 'E5',
  appliesTo: 'rcd',
  station: 'rcd',
  tag: 'live',
  slots,
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
      rulesOf(context),
    )
    const worst = worstTrip(found, found.verdict) ?? found.findings[0]
    if (!worst) return notYet('rcd.no-reading', context)
    const at = worst.trip === null ? 'once-0' : trips[worst.trip]!.slot
    const said = { code: `rcd.${worst.code}`, figures: { tag: context.part.data.tag, ...worst.figures, at } }
    const { recorded } = found
    if (!recorded) return plain(found.verdict, said)
    const multiple = rulesOf(context).sequence === 'three-multiples' && rcd.rated_mA <= ADDITIONAL_PROTECTION_mA ? 5 : 1
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
      const one = judgeTrip(rcd, trip, rulesOf(context))
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
    return [...lines, ...discriminationLines(context)]
  },
  picture(context, reading) {
    const rcd = deviceOf(context.part.data)
    const rules = rulesOf(context)
    const asked = [...new Set(askedTrips(rcd, rules.sequence).map((one) => one.multiple))]
    const trips = tripsIn(reading).flatMap(({ trip }) => (trip.kind === 'time' ? [trip] : []))
    return {
      kind: 'times',
      limits: asked.map((multiple) =>
        multiple === 0.5
          ? { multiple, least_ms: halfSchools[rules.half], most_ms: null }
          : { multiple, ...tripBand(rcd, multiple) },
      ),
      trips: trips.map((trip) => ({
        multiple: trip.multiple,
        angle_deg: trip.angle_deg ?? 0,
        time_ms: trip.time.value_ms,
        isBound: trip.time.bound !== 'exact',
        verdict: judgeTrip(rcd, trip, rules).verdict,
      })),
    }
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
