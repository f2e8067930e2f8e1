/** Slots of an electrode's resistance, and what a reading of them comes to. */
import { type ElectrodeJudged, judgeElectrode, meanAndSpread } from '../earth/electrode'
import { type CurvePoint, readAt, TRUE_SHARE } from '../earth/fallOfPotential'
import type { PartData } from '../plant/part'
import type { Body } from '../record/entry'
import { choiceSlot, numberSlot, ratedOf, readingsIn } from './acShared'
import type { NumberSlot, Slot, StepContext } from './step'
import { choiceIn, numberIn } from './stringReading'

export type Reading = Pick<Body<'reading'>, 'slots'>
export type ElectrodeContext = StepContext<'electrode'>

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
const curveSlots: readonly { slot: NumberSlot; share: number }[] = [20, 30, 40, 50, 60, 70, 80].map((share_pct) => ({
  slot: resistance(`re-at-${share_pct}`, {
    when: byCurve,
    ...([20, 30, 80].includes(share_pct) ? { optional: true } : {}),
  }),
  share: share_pct / 100,
}))
/** The flat part of a curve, in which readings are compared as if they had been three. */
const FLAT = { from: 0.5, to: 0.7 }

const severalRods = (part: PartData): boolean => part.kind === 'electrode' && part.rods !== null && part.rods > 1

export const electrodeSlots: readonly Slot[] = [
  choiceSlot({ id: 'electrode-method', options: ['three-lead', 'curve', 'loop-method'], sticky: true, balloon: 2 }),
  choiceSlot({
    id: 'electrode-lead',
    options: ['taken-off', 'still-connected'],
    sound: ['taken-off'],
    sticky: true,
    balloon: 1,
  }),
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
  ...curveSlots.map(({ slot }) => slot),
  numberSlot('re-loop', 'loop-impedance', 'ohm', 3, { when: byLoop }),
  numberSlot('re-lead', 'continuity', 'ohm', 3, { when: byLoop, optional: true }),
  resistance('re-single', { only: severalRods, optional: true }),
]

export const isLoop = (reading: Reading): boolean => choiceIn(reading, 'electrode-method') === 'loop-method'
export const isCurve = (reading: Reading): boolean => choiceIn(reading, 'electrode-method') === 'curve'

/** What was read at the places of the three-lead test, in the order of its slots; null where it was not. */
export const probesIn = (reading: Reading): (number | null)[] =>
  probeSlots.map(({ id }) => numberIn(reading, id)?.value ?? null)

/** The places of a curve, and what was read there. */
export const curveIn = (reading: Reading): { share: number; read_ohm: number | null }[] =>
  curveSlots.map(({ slot, share }) => ({ share, read_ohm: numberIn(reading, slot.id)?.value ?? null }))

export const pointsOf = (reading: Reading): CurvePoint[] =>
  curveIn(reading).flatMap(({ share, read_ohm }) => (read_ohm === null ? [] : [{ share, read_ohm }]))

/** Readings by the method chosen: those that are compared, and the one that stands where it is not their mean. */
function figuresOf(reading: Reading): { readings_ohm: number[]; value_ohm: number | null } {
  if (isLoop(reading)) {
    const read = numberIn(reading, 're-loop')
    return { readings_ohm: read ? [read.value] : [], value_ohm: null }
  }
  if (!isCurve(reading))
    return { readings_ohm: [...readingsIn(reading, probeSlots).values()].map((one) => one.value), value_ohm: null }
  const points = pointsOf(reading)
  const flat = points.filter(({ share }) => share >= FLAT.from && share <= FLAT.to)
  const value_ohm = readAt(points, TRUE_SHARE)
  return { readings_ohm: value_ohm === null ? [] : flat.map((one) => one.read_ohm), value_ohm }
}

const leadIn = (reading: Reading): number => (isLoop(reading) ? (numberIn(reading, 're-lead')?.value ?? 0) : 0)

/** The resistance that a reading tells, ohm, whatever it is held against; null where it holds no figure yet. */
export function resistanceRead(reading: Reading): number | null {
  const { readings_ohm, value_ohm } = figuresOf(reading)
  if (readings_ohm.length === 0) return null
  return value_ohm ?? meanAndSpread(readings_ohm, leadIn(reading), 'range').mean_ohm
}

/** What a reading comes to, null where it holds no figure yet. */
export function judgedElectrode(context: ElectrodeContext, reading: Reading): ElectrodeJudged | null {
  const { limits, schools } = context.regime
  const { readings_ohm, value_ohm } = figuresOf(reading)
  if (readings_ohm.length === 0) return null
  const single = numberIn(reading, 're-single')?.value ?? null
  return judgeElectrode({
    readings_ohm,
    value_ohm,
    single: single === null ? null : { read_ohm: single, count: context.part.data.rods ?? 1 },
    leads_ohm: leadIn(reading),
    method: isLoop(reading) ? 'loop' : 'three-lead',
    ratedResidualCurrents_mA: [...new Set(ratedOf(context.plant.ofKind('rcd')))],
    spreadSchool: schools['earth.spread-rule'],
    touch_V: limits['earth.touch-voltage'].value,
    spread_pct: limits['earth.spread'].value,
    unstable_ohm: limits['earth.unstable'].value,
  })
}
