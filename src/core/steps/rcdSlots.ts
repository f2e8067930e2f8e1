/** Slots of the trips of a residual current device, and the trips that a reading holds. */
import type { PartData, RcdData } from '../plant/part'
import type { RcdRules, Trip } from '../rcd/judgeRcd'
import { ADDITIONAL_PROTECTION_mA, type Multiple, type Rcd, type Waveform } from '../rcd/limits'
import type { Body } from '../record/entry'
import type { Regime } from '../regime/regime'
import { choiceSlot, numberSlot } from './acShared'
import type { ChoiceSlot, NumberSlot, Slot } from './step'
import { choiceIn, numberIn } from './stringReading'

type Reading = Pick<Body<'reading'>, 'slots'>
type Angle = 0 | 180
type Asks = NonNullable<NumberSlot['only']>

const severalMultiples: Asks = (_, regime) => regime.schools['rcd.sequence'] !== 'single'
const fourMultiples: Asks = (_, regime) => regime.schools['rcd.sequence'] === 'four-multiples'
const isAdditional = (part: PartData): boolean => part.kind === 'rcd' && part.rated_mA <= ADDITIONAL_PROTECTION_mA
const additional: Asks = (part, regime) => severalMultiples(part, regime) && isAdditional(part)
/** Devices above others: read at five times too, they are compared with those below at one and the same current. */
const aboveOthers: Asks = (part) => part.kind === 'rcd' && !isAdditional(part)
const ofTypes =
  (...types: RcdData['type'][]): Asks =>
  (part) =>
    part.kind === 'rcd' && types.includes(part.type)

const waves: Readonly<Record<string, Waveform>> = { 'wave-ac': 'ac', 'wave-pulsating': 'pulsating', 'wave-dc': 'dc' }
/** What flows in the timed trips; alternating where nobody says otherwise. */
export const waveformSlot: ChoiceSlot = choiceSlot({
  id: 'waveform',
  options: Object.keys(waves),
  sticky: true,
  optional: true,
  balloon: 1,
  only: ofTypes('A', 'F', 'B'),
})

type TimeSlot = { slot: NumberSlot; multiple: Multiple; angle_deg: Angle }
const timed = (id: string, multiple: Multiple, only?: Asks, optional = false): TimeSlot[] =>
  ([0, 180] as const).map((angle_deg) => ({
    slot: numberSlot(`${id}-${angle_deg}`, 'rcd-time', 'ms', 1, {
      ...(only ? { only } : {}),
      ...(optional ? { optional } : {}),
    }),
    multiple,
    angle_deg,
  }))

const [once, onceOther] = timed('once', 1)
const halves = timed('half', 0.5, severalMultiples)
/** Slots of timed trips with their multiple and half-wave. */
const timeSlots: readonly TimeSlot[] = [
  ...halves,
  once!,
  { ...onceOther!, slot: { ...onceOther!.slot, only: severalMultiples } },
  ...timed('two', 2, fourMultiples),
  ...timed('five', 5, additional),
  ...timed('five-cascade', 5, aboveOthers, true),
]

type RampSlot = { slot: NumberSlot; waveform: Waveform; angle_deg: Angle | null }
const ramp = (id: string, waveform: Waveform, angle_deg: Angle | null, only?: Asks): RampSlot => ({
  slot: numberSlot(id, 'rcd-current', 'mA', 2, { optional: true, ...(only ? { only } : {}) }),
  waveform,
  angle_deg,
})
/** Ramps of each waveform that a type must see; of direct current one of each polarity. */
const rampSlots: readonly RampSlot[] = [
  ramp('ramp', 'ac', null),
  ramp('ramp-pulsating-0', 'pulsating', 0, ofTypes('A', 'F', 'B')),
  ramp('ramp-pulsating-180', 'pulsating', 180, ofTypes('A', 'F', 'B')),
  ramp('ramp-dc-plus', 'dc', 0, ofTypes('B')),
  ramp('ramp-dc-minus', 'dc', 180, ofTypes('B')),
]

export const rcdSlots: readonly Slot[] = [
  waveformSlot,
  ...timeSlots.map(({ slot }) => slot),
  ...rampSlots.map(({ slot }) => slot),
]

const halfIds = new Set(halves.map(({ slot }) => slot.id))
const lastTimed = timeSlots.at(-1)!.slot.id

/** Half the rated current first, or after all the other times, by school. */
export function arrangeTrips(slots: readonly Slot[], regime: Regime): readonly Slot[] {
  if (regime.schools['rcd.half-when'] === 'half-first') return slots
  const rest = slots.filter((slot) => !halfIds.has(slot.id))
  const at = rest.findIndex((slot) => slot.id === lastTimed) + 1
  return [...rest.slice(0, at), ...halves.map(({ slot }) => slot), ...rest.slice(at)]
}

export const deviceOf = ({ type, delay, rated_mA, standard }: RcdData): Rcd => ({
  type,
  kind: delay,
  rated_mA,
  standard,
})

export const rulesOf = ({ schools }: Regime): RcdRules => ({
  sequence: schools['rcd.sequence'],
  half: schools['rcd.half'],
  place: 'circuit',
})

/** The waveform of the timed trips of a reading. */
export const waveformIn = (reading: Reading): Waveform => waves[choiceIn(reading, waveformSlot.id) ?? ''] ?? 'ac'

export type SlotTrip = { trip: Trip; slot: string }

/** The trips that were read, in the order of the slots. */
export function tripsIn(reading: Reading): SlotTrip[] {
  const waveform = waveformIn(reading)
  const times = timeSlots.flatMap(({ slot, multiple, angle_deg }): SlotTrip[] => {
    const read = numberIn(reading, slot.id)
    if (!read) return []
    const time = { value_ms: read.value, bound: read.bound }
    return [{ trip: { kind: 'time', multiple, angle_deg, waveform, time }, slot: slot.id }]
  })
  const ramps = rampSlots.flatMap(({ slot, waveform: shape, angle_deg }): SlotTrip[] => {
    const read = numberIn(reading, slot.id)
    return read ? [{ trip: { kind: 'ramp', angle_deg, waveform: shape, current_mA: read.value }, slot: slot.id }] : []
  })
  return [...times, ...ramps]
}
