/** Which trips a school asks for at one plug, in which order, and what each must come to. Sequences: common practice. */
import { detectorTimes, rampBand } from '../../pilot/detector'
import type { Unit } from '../../quantity/unit'
import { DC_DETECTOR_mA, rampShares, tripBand, tripCurrent_mA } from '../../rcd/limits'
import type { Regime } from '../../regime/regime'
import { type NumberSlot, type Slot, slotsAsked } from '../slot'
import type { AnyReadStep } from '../step'
import { halfWaitOf } from '../rcd/rcdSlots'
import { deviceAt, type PointContext } from './point'
import { askedWave, pointTrips, waveOf } from './pointTrips'
import { pointDetector } from './pointDetector'

export type PlannedTrip = {
  step: 'point-trips' | 'point-detector'
  slot: NumberSlot
  /** What flows; null on a ramp, whose end is what is read. */
  current_mA: number | null
  isDirect: boolean
  /** Nothing may trip: the display runs to its end. */
  holds: boolean
  angle_deg: 0 | 180
  /** Between which figures it lies, in the unit of the slot. */
  low: number | null
  high: number | null
  unit: Unit
  /** Where a ramp keeps how long it ran, beside what it reached; null where nothing is kept. */
  timeSlot: string | null
}
export type TripPlan = { trips: readonly PlannedTrip[]; waveform: string }

/** A ramp and the slot of its time. */
const times: Readonly<Record<string, string>> = {
  'dc-ramp-plus': 'dc-ramp-plus-time',
  'dc-ramp-minus': 'dc-ramp-minus-time',
  'plug-ramp-0': 'plug-ramp-time',
}

const isNumber = (slot: Slot): slot is NumberSlot => slot.kind === 'number'

/** Slots that a person is led to, in the order of the school; what may stay empty is left for the bench. */
function askedOf(step: AnyReadStep, context: Pick<PointContext, 'part' | 'regime' | 'plant'>): NumberSlot[] {
  return slotsAsked(step, context).filter((slot): slot is NumberSlot => isNumber(slot) && !slot.optional)
}

/** Half first or after the other times, by school; of the twelve it comes after them. */
function inOrder(slots: readonly NumberSlot[], { schools }: Regime): NumberSlot[] {
  const isHalf = (slot: NumberSlot): boolean => slot.of?.multiple === 0.5
  const isLast = schools['point.sequence'] === 'twelve' || schools['rcd.half-when'] === 'half-last'
  if (!isLast) return [...slots]
  const times = slots.filter((slot) => slot.of?.multiple !== undefined)
  const rest = slots.filter((slot) => slot.of?.multiple === undefined)
  return [...times.filter((slot) => !isHalf(slot)), ...times.filter(isHalf), ...rest]
}

/** The plan of one plug; without a device that is known nothing of it can be planned but the detector. */
export function tripPlanOf(context: PointContext): TripPlan {
  const device = deviceAt(context)
  const waveform = askedWave(context, device?.rcd.type ?? 'AC')
  const trips = device
    ? inOrder(askedOf(pointTrips, context), context.regime).map((slot) => ofDevice(context, device, slot, waveform))
    : []
  const isDetected = pointDetector.of?.(context.part, context.plant, context.regime) ?? true
  const direct = isDetected ? askedOf(pointDetector, context).map(ofDetector) : []
  // Of the twelve the steady 6 mA come first, before anything was tripped; ramps of direct current are always last.
  const steady = direct.filter((one) => one.current_mA !== null)
  return { trips: [...steady, ...trips, ...direct.filter((one) => one.current_mA === null)], waveform }
}

function ofDevice(
  context: PointContext,
  device: NonNullable<ReturnType<typeof deviceAt>>,
  slot: NumberSlot,
  wave: string,
): PlannedTrip {
  const { rcd } = device
  const { multiple, angle_deg, waveform = waveOf(wave) } = slot.of!
  const isDirect = waveform === 'dc'
  const shared = {
    step: 'point-trips',
    slot,
    isDirect,
    angle_deg: angle_deg ?? 0,
    unit: slot.unit,
    timeSlot: times[slot.id] ?? null,
  } as const
  if (multiple === undefined) {
    const shares = rampShares(rcd.type, waveform)
    const bound = (share: number | undefined): number | null => (share === undefined ? null : share * rcd.rated_mA)
    return { ...shared, current_mA: null, holds: false, low: bound(shares?.least), high: bound(shares?.most) }
  }
  const current_mA = tripCurrent_mA(rcd, multiple, context.regime.schools['rcd.five'], waveform)
  if (multiple === 0.5)
    return { ...shared, current_mA, holds: true, low: halfWaitOf(context.regime, context.reading), high: null }
  const { least_ms, most_ms } = tripBand(rcd, multiple)
  return { ...shared, current_mA, holds: false, low: least_ms, high: most_ms }
}

function ofDetector(slot: NumberSlot): PlannedTrip {
  const isRamp = slot.measures === 'dc-residual-current'
  const shared = {
    step: 'point-detector',
    slot,
    isDirect: true,
    holds: false,
    angle_deg: slot.of?.angle_deg ?? 0,
    unit: slot.unit,
    timeSlot: times[slot.id] ?? null,
  } as const
  if (isRamp) return { ...shared, current_mA: null, low: rampBand.low, high: rampBand.high }
  const at_mA = DC_DETECTOR_mA.most
  return { ...shared, current_mA: at_mA, low: null, high: detectorTimes.find((one) => one.from_mA <= at_mA)!.most_ms }
}
