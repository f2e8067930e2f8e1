/** Slots of an electrode's resistance by spikes, and what a reading of them comes to. */
import { type ElectrodeJudged, judgeElectrode, meanAndSpread } from '../../earth/electrode'
import { type CurvePoint, readAt, TRUE_SHARE } from '../../earth/fallOfPotential'
import type { PartData } from '../../plant/part'
import { exactly, type Span, standingFor } from '../../quantity/span'
import { ratedOn, supplyOf } from '../ac/shared'
import { choiceIn, figureOf, figuresIn, numberIn } from '../reading'
import { choiceSlot, type NumberSlot, numberSlot, type Slot } from '../slot'
import type { Reading, StepContext } from '../step'

export type ElectrodeContext = StepContext<'electrode'>
type Slots = Pick<Reading, 'slots'>

const byThree = { slot: 'electrode-method', is: ['three-lead'] }
const byCurve = { slot: 'electrode-method', is: ['curve'] }
const bySpikes = { slot: 'electrode-method', is: ['three-lead', 'curve'] }
const byLoop = { slot: 'electrode-method', is: ['loop-method'] }
const resistance = (id: string, rest: Partial<NumberSlot>): NumberSlot =>
  numberSlot(id, 'earth-resistance', 'ohm', 3, rest)

const probeSlots: readonly NumberSlot[] = [
  resistance('re-1', { when: byThree }),
  resistance('re-2', { when: byThree, optional: true }),
  resistance('re-3', { when: byThree, optional: true }),
]
/** The curve: the potential spike at shares of the way. Four are asked for around the flat part, three may be added. */
const curveSlots: readonly NumberSlot[] = [20, 30, 40, 50, 60, 70, 80].map((share_pct) =>
  resistance(`re-at-${share_pct}`, {
    when: byCurve,
    of: { share: share_pct / 100 },
    ...([20, 30, 80].includes(share_pct) ? { optional: true } : {}),
  }),
)
/** The flat part of a curve, in which readings are compared as if they had been three. */
const FLAT = { from: 0.5, to: 0.7 }

const severalRods = (part: PartData): boolean => part.kind === 'electrode' && part.rods !== null && part.rods > 1

export const leadOffSlot = choiceSlot({
  id: 'electrode-lead',
  options: ['taken-off', 'still-connected'],
  sound: ['taken-off'],
  sticky: true,
  balloon: 1,
})
export const loopSlot = numberSlot('re-loop', 'loop-impedance', 'ohm', 3)
export const longLeadSlot = numberSlot('re-lead', 'continuity', 'ohm', 3, { optional: true })
const singleSlot = resistance('re-single', { only: severalRods, optional: true })

/** How many were driven by then: read before and after each rod, the trend says what each of them brought. */
export const rodsInSlot = numberSlot('rods-in', null, 'one', 1, { optional: true })

export const electrodeSlots: readonly Slot[] = [
  choiceSlot({
    id: 'electrode-method',
    options: ['three-lead', 'curve', 'loop-method'],
    // The loop is live: it has a test of its own, with Ze.
    retired: ['loop-method'],
    sticky: true,
    balloon: 2,
  }),
  leadOffSlot,
  choiceSlot({
    id: 'soil',
    options: ['soil-dry', 'soil-damp', 'soil-frozen'],
    sticky: true,
    optional: true,
    balloon: 2,
  }),
  numberSlot('spike-distance', 'distance', 'm', 2, { when: bySpikes, optional: true, again: true }),
  numberSlot('spike-bearing', 'azimuth', 'deg', 2, { when: bySpikes, optional: true, again: true }),
  ...probeSlots,
  ...curveSlots,
  { ...loopSlot, when: byLoop },
  { ...longLeadSlot, when: byLoop },
  singleSlot,
  rodsInSlot,
]

/** Read by the loop: in a test of its own, or as one of the methods in readings of before there was one. */
export const isLoop = (reading: Slots): boolean =>
  choiceIn(reading, 'electrode-method') === 'loop-method' ||
  (choiceIn(reading, 'electrode-method') === null && numberIn(reading, loopSlot.id) !== null)
export const isCurve = (reading: Slots): boolean => choiceIn(reading, 'electrode-method') === 'curve'

/** What was read at the places of the three-lead test, in the order of its slots; null where it was not. */
export const probesIn = (reading: Slots): (number | null)[] =>
  probeSlots.map(({ id }) => numberIn(reading, id)?.value ?? null)

/** The places of a curve, and what was read there. */
export const curveIn = (reading: Slots): { share: number; read_ohm: number | null }[] =>
  curveSlots.map(({ id, of }) => ({ share: of!.share!, read_ohm: numberIn(reading, id)?.value ?? null }))

export const pointsOf = (reading: Slots): CurvePoint[] =>
  curveIn(reading).flatMap(({ share, read_ohm }) => (read_ohm === null ? [] : [{ share, read_ohm }]))

/** Nothing is known of it: a place next to the true one was over the range. */
const ANYTHING: Span = { least: 0, most: Number.POSITIVE_INFINITY, bound: 'between', whisker: 0 }

/** Readings by the method chosen: those that are compared, and the one that stands where it is not their mean. */
function figuresBy(reading: Reading): { readings: Span[]; value: Span | null } {
  const read = (slots: readonly NumberSlot[]): Span[] => figuresIn(reading, slots).map((one) => one.span)
  if (isLoop(reading)) return { readings: read([loopSlot]), value: null }
  if (!isCurve(reading)) return { readings: read(probeSlots), value: null }
  const value_ohm = readAt(pointsOf(reading), TRUE_SHARE)
  if (value_ohm === null) return { readings: [], value: null }
  const all = figuresIn(reading, curveSlots)
  const flat = all.filter(({ slot }) => slot.of!.share! >= FLAT.from && slot.of!.share! <= FLAT.to)
  const value = all.some(({ span }) => span.bound !== 'exact')
    ? ANYTHING
    : exactly(value_ohm, Math.max(0, ...flat.map((one) => one.span.whisker)))
  return { readings: flat.map((one) => one.span), value }
}

/** The long lead's own; one that is only bounded is not taken off, which leaves the reading on the safe side. */
function leadIn(reading: Reading): Span {
  const lead = isLoop(reading) ? figuresIn(reading, [longLeadSlot])[0] : undefined
  return lead?.span.bound === 'exact' ? lead.span : exactly(0)
}

/** The resistance that a reading tells, whatever it is held against; null where it holds no figure yet. */
export function electrodeSpan(reading: Reading): Span | null {
  const { readings, value } = figuresBy(reading)
  if (readings.length === 0) return null
  return value ?? meanAndSpread(readings, leadIn(reading), 'range').mean
}

/** The same as one figure, ohm, for lists and pictures; null where it is none or only a bound. */
export function resistanceRead(reading: Slots): number | null {
  const span = electrodeSpan({ conditions: null, instrument: null, how: 'typed', ...reading })
  return span && span.bound !== 'between' ? standingFor(span) : null
}

/** What a reading comes to, null where it holds no figure yet. */
export function judgedElectrode(context: ElectrodeContext): ElectrodeJudged | null {
  const { reading, regime } = context
  const { readings, value } = figuresBy(reading)
  if (readings.length === 0) return null
  const single = figureOf(context, singleSlot)
  return judgeElectrode({
    readings,
    value,
    single: single && { read_ohm: single.read.value, count: context.part.data.rods ?? 1 },
    leads: leadIn(reading),
    method: isLoop(reading) ? 'loop' : 'three-lead',
    ratedResidualCurrents_mA: [...new Set(ratedOn(context.plant, supplyOf(context)))],
    spreadSchool: regime.schools['earth.spread-rule'],
    touch_V: context.limit('earth.touch-voltage').value,
    spread_pct: context.limit('earth.spread').value,
    unstable_ohm: context.limit('earth.unstable').value,
  })
}
