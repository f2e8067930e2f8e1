/** Slots of the trips of a residual current device, and the trips that a reading holds. */
import type { PartData, RcdData } from '../../plant/part'
import type { RcdRules } from '../../rcd/judgeRcd'
import { ADDITIONAL_PROTECTION_mA, halfSchools, type Multiple, type Rcd, type Waveform } from '../../rcd/limits'
import type { Regime } from '../../regime/regime'
import { choiceIn, figuresIn } from '../reading'
import { choiceSlot, type Column, type NumberSlot, numberSlot, type Slot } from '../slot'
import type { Reading } from '../step'
import type { ReadTrip } from './tripRuling'

type Angle = 0 | 180
type Asks = NonNullable<NumberSlot['only']>

const severalMultiples = (_: PartData, regime: Regime): boolean => regime.schools['rcd.sequence'] !== 'single'
const isSingle: Asks = (part, regime) => !severalMultiples(part, regime)
const isFour = (_: PartData, regime: Regime): boolean => regime.schools['rcd.sequence'] === 'four-multiples'
const isSmall = (part: PartData): boolean => part.kind === 'rcd' && part.rated_mA <= ADDITIONAL_PROTECTION_mA
/** By what its circuits are for; a device of at most 30 mA of whose circuits nobody said it is additional protection. */
const additional: Asks = (part, regime, { part: { id }, plant }) =>
  severalMultiples(part, regime) && isSmall(part) && !plant.isForFaultsOnly(id)
/** Devices above others: read at five times too, they are compared with those below at one and the same current. */
const aboveOthers = (part: PartData): boolean => part.kind === 'rcd' && !isSmall(part)
const ofTypes =
  (...types: RcdData['type'][]): Asks =>
  (part) =>
    part.kind === 'rcd' && types.includes(part.type)

const waves: Readonly<Record<string, Waveform>> = { 'wave-ac': 'ac', 'wave-pulsating': 'pulsating', 'wave-dc': 'dc' }
/** What flows in the timed trips; alternating where nobody says otherwise. */
export const waveformSlot = choiceSlot({
  id: 'waveform',
  options: Object.keys(waves),
  sticky: true,
  optional: true,
  balloon: 1,
  only: ofTypes('A', 'F', 'B'),
})

/** Under which heading a time stands: at half the current the shortest is the worst, elsewhere the longest. */
const columnOf = (multiple: Multiple): Column => ({
  id: `times-${multiple}`,
  worst: multiple === 0.5 ? 'lowest' : 'highest',
})

export const timedSlots = (id: string, multiple: Multiple, only?: Asks, optional = false): NumberSlot[] =>
  ([0, 180] as const).map((angle_deg: Angle) =>
    numberSlot(`${id}-${angle_deg}`, 'rcd-time', 'ms', 1, {
      of: { multiple, angle_deg },
      column: columnOf(multiple),
      ...(only ? { only } : {}),
      ...(optional ? { optional } : {}),
    }),
  )

const [once, onceOther] = timedSlots('once', 1) as [NumberSlot, NumberSlot]
const halves = timedSlots('half', 0.5, severalMultiples)
/** The other half-wave is there under every school, and asked where it asks for both. */
const otherHalfWave: readonly NumberSlot[] = [
  { ...onceOther, only: severalMultiples },
  { ...onceOther, id: 'once-other-180', optional: true, only: isSingle },
]
const timeSlots: readonly NumberSlot[] = [
  ...halves,
  once,
  ...otherHalfWave,
  ...timedSlots('two', 2, isFour),
  ...timedSlots('five', 5, additional),
  ...timedSlots('five-cascade', 5, aboveOthers, true),
  // What the school does not ask for may be read all the same: a customer's form may want it.
  ...timedSlots('half-besides', 0.5, isSingle, true),
  ...timedSlots('two-besides', 2, (part, regime) => !isFour(part, regime), true),
  ...timedSlots('five-besides', 5, (part, regime, asked) => isSmall(part) && !additional(part, regime, asked), true),
]

const ramp = (id: string, waveform: Waveform, angle_deg: Angle | null, only?: Asks): NumberSlot =>
  numberSlot(id, 'rcd-current', 'mA', 2, { optional: true, of: { waveform, angle_deg }, ...(only ? { only } : {}) })
/** Ramps of each waveform that a type must see; of direct current one of each polarity. */
const rampSlots: readonly NumberSlot[] = [
  ramp('ramp', 'ac', null),
  ramp('ramp-pulsating-0', 'pulsating', 0, ofTypes('A', 'F', 'B')),
  ramp('ramp-pulsating-180', 'pulsating', 180, ofTypes('A', 'F', 'B')),
  ramp('ramp-dc-plus', 'dc', 0, ofTypes('B')),
  ramp('ramp-dc-minus', 'dc', 180, ofTypes('B')),
]

/** How long the ramp ran until the device tripped: kept with its current, and held against nothing. */
const rampTime = numberSlot('ramp-time', null, 'ms', 2, { optional: true })

export const rcdSlots: readonly Slot[] = [waveformSlot, ...timeSlots, ...rampSlots, rampTime]

const halfIds = new Set(halves.map(({ id }) => id))
const lastTimed = 'five-cascade-180'

/** Half the rated current first, or after all the other times, by school. */
export function arrangeTrips(slots: readonly Slot[], regime: Regime): readonly Slot[] {
  if (regime.schools['rcd.half-when'] === 'half-first') return slots
  const rest = slots.filter((slot) => !halfIds.has(slot.id))
  const at = rest.findIndex((slot) => slot.id === lastTimed) + 1
  return [...rest.slice(0, at), ...halves, ...rest.slice(at)]
}

export const deviceOf = ({ type, delay, rated_mA, standard }: RcdData): Rcd => ({
  type,
  kind: delay,
  rated_mA,
  standard,
})

/** How long half the rated current flows: as the instrument is known to do it, else by the regime's school, ms. */
export const halfWaitOf = ({ schools }: Regime, reading: Pick<Reading, 'instrument'> | null): number =>
  reading?.instrument?.halfWait_ms ?? halfSchools[schools['rcd.half']]

export const rulesOf = (regime: Regime, reading: Pick<Reading, 'instrument'> | null): RcdRules => ({
  sequence: regime.schools['rcd.sequence'],
  halfWait_ms: halfWaitOf(regime, reading),
  place: 'circuit',
})

/** The waveform of the timed trips of a reading. */
export const waveformIn = (reading: Pick<Reading, 'slots'>): Waveform =>
  waves[choiceIn(reading, waveformSlot.id) ?? ''] ?? 'ac'

/** The trips that were read, in the order of the slots. */
export function tripsIn(reading: Reading): ReadTrip[] {
  const waveform = waveformIn(reading)
  // The instrument's uncertainty is that of times or of currents: both are looked up among all that was read.
  return figuresIn(reading, [...timeSlots, ...rampSlots]).map((figure): ReadTrip => {
    const { multiple, angle_deg = null, waveform: shape } = figure.slot.of!
    return multiple === undefined
      ? { figure, trip: { kind: 'ramp', angle_deg, waveform: shape!, current: figure.span } }
      : { figure, trip: { kind: 'time', multiple, angle_deg, waveform, time: figure.span } }
  })
}
