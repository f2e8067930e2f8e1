/**
 * Trips of the residual current device at a plug, by the sequence and waveform of the regime's school. Sources:
 * IEC 61008-1 table 1 (from memory); sequences: common practice, no source.
 */
import { readValueOf } from '../../quantity/readValue'
import { standingFor } from '../../quantity/span'
import { recordedMultiple } from '../../rcd/judgeRcd'
import { DC_DETECTOR_mA, type Multiple, type RcdType, rampShares, type Waveform } from '../../rcd/limits'
import type { Regime } from '../../regime/regime'
import { causeOf } from '../../verdict/cause'
import { decide, type Ruling } from '../../verdict/judgement'
import type { WorkingLine } from '../../verdict/working'
import { notYet, ruled } from '../holding'
import type { TimesPicture } from '../picture'
import { choiceIn, figuresIn } from '../reading'
import { halfWaitOf } from '../rcd/rcdSlots'
import { type TimedDevice, timedMarks, timesPicture } from '../rcd/timesPicture'
import { type ReadTrip, type Tripped, tripCauses, tripRuling } from '../rcd/tripRuling'
import { choiceSlot, type NumberSlot, numberSlot, type Slot, slotsAsked } from '../slot'
import type { Reading, ReadStep } from '../step'
import { examplePoint, exampleServed } from './example'
import { atPoint, deviceAt, modelOf, modelRulings, type PointContext } from './point'

type Asks = NonNullable<NumberSlot['only']>
const bySequence =
  (...sequences: readonly string[]): Asks =>
  (_, regime) =>
    sequences.includes(regime.schools['point.sequence'])
const timed = bySequence('six-and-two', 'twelve')
const twelve = bySequence('twelve')

/** A device inside that sees smooth direct current itself: there is no other detector to be proved. */
const isTypeB: Asks = (part) => part.kind === 'charge-point' && part.model?.data.rcdType === 'B'
/** Which device stands before it, the point itself does not say. */
const isBefore: Asks = (part) => part.kind === 'charge-point' && !part.model?.data.rcdType

const waves: Readonly<Record<string, Waveform>> = { 'wave-ac': 'ac', 'wave-pulsating': 'pulsating' }
/** What flows in the trips: alternating, or as the device's type has it, by school; it is said and never assumed. */
const waveform = choiceSlot({ id: 'plug-waveform', options: Object.keys(waves), sticky: true, balloon: 1 })

const ANGLES = [0, 180] as const
const at = (id: string, multiple: Multiple): NumberSlot[] =>
  ANGLES.map((angle_deg) =>
    numberSlot(`${id}-${angle_deg}`, 'rcd-time', 'ms', 1, { of: { multiple, angle_deg }, only: timed }),
  )
const rampAt = (angle_deg: 0 | 180, only: Asks): NumberSlot =>
  numberSlot(`plug-ramp-${angle_deg}`, 'rcd-current', 'mA', 2, { of: { angle_deg }, only })
const either = bySequence('twelve', 'ramps')
const times: readonly NumberSlot[] = [...at('half', 0.5), ...at('once', 1), ...at('five', 5)]
const ramps: readonly NumberSlot[] = [rampAt(0, either), rampAt(180, twelve)]
/** Smooth ramps of each polarity: asked of a type B inside, and kept where one before the point is of that type. */
const smoothAt = (id: string, angle_deg: 0 | 180, rest: Partial<NumberSlot>): NumberSlot =>
  numberSlot(id, 'rcd-current', 'mA', 2, { of: { waveform: 'dc', angle_deg }, ...rest })
const smooth: readonly NumberSlot[] = [
  smoothAt('plug-smooth-plus', 0, { only: isTypeB }),
  smoothAt('plug-smooth-minus', 180, { only: isTypeB }),
  smoothAt('plug-smooth-plus-besides', 0, { only: isBefore, optional: true }),
  smoothAt('plug-smooth-minus-besides', 180, { only: isBefore, optional: true }),
]
/** How long the ramp ran until then: kept beside it, judged by nobody. */
const rampTime = numberSlot('plug-ramp-time', 'rcd-time', 'ms', 2, { optional: true, only: either, of: {} })
const slots: readonly Slot[] = [waveform, ...times, ...ramps, ...smooth, rampTime]

export const waveOf = (choice: string | null): Waveform => waves[choice ?? ''] ?? 'ac'
const waveformIn = (reading: Reading): Waveform => waveOf(choiceIn(reading, waveform.id))

/** The trips that were read, in the order of the slots. */
export function plugTrips(reading: Reading): ReadTrip[] {
  const wave = waveformIn(reading)
  return figuresIn(reading, [...times, ...ramps, ...smooth]).map((figure): ReadTrip => {
    const { multiple, angle_deg = null, waveform: own } = figure.slot.of!
    return multiple === undefined
      ? { figure, trip: { kind: 'ramp', angle_deg, waveform: own ?? wave, current: figure.span } }
      : { figure, trip: { kind: 'time', multiple, angle_deg, waveform: wave, time: figure.span } }
  })
}

const trippedAt = (
  { regime, reading }: PointContext,
  { rcd, tag }: NonNullable<ReturnType<typeof deviceAt>>,
): Tripped => ({
  rcd,
  tag,
  rules: { halfWait_ms: halfWaitOf(regime, reading), place: 'charge-point' },
  five: regime.schools['rcd.five'],
})

/** The waveform that the school asks for: alternating on whatever type, or as the type has it. */
export const askedWave = ({ regime }: Pick<PointContext, 'regime'>, type: RcdType): string =>
  asksPulsating(regime, type) ? 'wave-pulsating' : 'wave-ac'
const asksPulsating = ({ schools }: Regime, type: RcdType): boolean =>
  schools['point.waveform'] !== 'alternating' && type !== 'AC'

/** What is read with another waveform is kept; it is not what was asked for. */
function waveformRuling(context: PointContext, type: RcdType): Ruling[] {
  const chosen = choiceIn(context.reading, waveform.id)
  const asked = askedWave(context, type)
  if (chosen === null) return []
  const line = { code: 'point-trips.waveform', figures: { asked }, source: 'point-practice' } as const
  return [
    chosen === asked
      ? ruled(context, 'within', 'point-trips.asked-waveform', line, { asked })
      : ruled(context, 'not-yet', 'point-trips.other-waveform', line, { asked }),
  ]
}

/** Where nothing else sees smooth direct current, the device must be seen to: with both polarities. */
function smoothRulings(context: PointContext, type: RcdType): Ruling[] {
  if (type !== 'B' || modelOf(context)?.dcDetector !== false) return []
  const read = new Set(figuresIn(context.reading, smooth).map(({ slot }) => slot.of!.angle_deg))
  if (read.has(0) && read.has(180)) return []
  return [
    ruled(context, 'not-yet', 'point-trips.smooth-unread', { code: 'point-trips.smooth', source: 'point-practice' }),
  ]
}

/** A half-wave has a mean: 2/pi of its peak, which the detector of direct current takes for smooth. */
const MEAN_OF_HALF_WAVE = 2 / Math.PI

/** What a pulsating ramp looks like to the detector. */
function meanLines(context: PointContext): WorkingLine[] {
  return plugTrips(context.reading).flatMap(({ trip }) =>
    trip.kind === 'ramp' && trip.waveform === 'pulsating'
      ? [
          {
            code: 'point-trips.mean',
            figures: { least_mA: DC_DETECTOR_mA.least, most_mA: DC_DETECTOR_mA.most },
            result: { value: standingFor(trip.current) * MEAN_OF_HALF_WAVE, unit: 'mA' as const, decimals: 1 },
            source: 'iec-62955' as const,
          },
        ]
      : [],
  )
}

/** An alternating current on a device made for more: it looks like the wrong test and is the usual one. */
function waveformLine(context: PointContext): WorkingLine[] {
  const device = deviceAt(context)
  if (!device || device.rcd.type === 'AC' || waveformIn(context.reading) !== 'ac') return []
  return [
    { code: 'point-trips.ac-on-type', figures: { type: device.rcd.type }, result: null, source: 'point-practice' },
  ]
}

/** The trips of the other points of the same model, by the same rules: twins ought to be alike. */
const besideIn = (context: PointContext, device: TimedDevice): TimesPicture['beside'] =>
  context.plant.twinsOf(context.part).flatMap((twin) => {
    const body = context.counted('point-trips', twin.id)
    return body ? [{ tag: twin.data.tag, trips: timedMarks(device, plugTrips(body)) }] : []
  })

export const pointTrips: ReadStep<'charge-point'> = {
  ...atPoint,
  id: 'point-trips',
  order: 'F11',
  protects: true,
  slots,
  stands: 'highest',
  guide: 'trips',
  kit({ data }, regime) {
    const model = data.model?.data
    if (!model?.rcdType || model.rcdRated_mA === null) return ['rcd-time']
    const { rcdType: type, rcdRated_mA: upTo_mA } = model
    return [
      { measures: 'rcd-time', upTo_mA },
      ...(regime.schools['point.sequence'] === 'six-and-two' ? [] : (['rcd-current'] as const)),
      ...(asksPulsating(regime, type) ? (['pulsating-trips'] as const) : []),
      ...(type === 'B' ? (['smooth-trips'] as const) : []),
    ]
  },
  // A slow first trip counts: a device is not exercised until it passes.
  counts: 'worst',
  cautions: [
    { id: 'fault-current-flows', hard: true },
    { id: 'point-reset-between', hard: false },
  ],
  hookup: {
    drawing: 'point-trips',
    leads: [
      { balloon: 1, code: 'adapter-at-c' },
      { balloon: 2, code: 'ramp-current' },
    ],
  },
  minutes: 8,
  sources: ['iec-61008', 'bs7671-point', 'point-practice', 'iec-62955'],
  mendingTouches: ['point-detector'],
  trap(context) {
    const device = deviceAt(context)
    const wave = waveformIn(context.reading)
    if (!device || rampShares(device.rcd.type, wave)) return null
    return { code: 'rcd.waveform-not-for-type', figures: { tag: device.tag, waveform: wave } }
  },
  judge(context) {
    const device = deviceAt(context)
    if (!device) return notYet(context, 'point-trips.no-device')
    // What goes on the schedule is told first, where nothing else has to be said.
    const recorded = recordedMultiple(device.rcd, 'three-multiples')
    const rank = ({ trip }: ReadTrip): number => (trip.kind === 'time' && trip.multiple === recorded ? 0 : 1)
    const read = plugTrips(context.reading).sort((a, b) => rank(a) - rank(b))
    const rulings = read.map((one) => tripRuling(trippedAt(context, device), one))
    if (rulings.length === 0) return notYet(context, 'point-trips.no-reading', { device: device.tag })
    return decide(
      [
        ...rulings,
        ...waveformRuling(context, device.rcd.type),
        ...smoothRulings(context, device.rcd.type),
        ...modelRulings(context),
      ],
      {
        after: () => [...meanLines(context), ...waveformLine(context)],
      },
    )
  },
  pictures(context) {
    const device = deviceAt(context)
    const asked = slotsAsked({ slots }, context).flatMap((slot) => (slot.kind === 'number' && slot.of?.multiple) || [])
    if (!device || asked.length === 0) return []
    const { rcd, rules, five } = trippedAt(context, device)
    const timed = { rcd, rules, five, waveform: waveformIn(context.reading), asked }
    return [timesPicture(timed, plugTrips(context.reading), besideIn(context, timed))]
  },
  causes(context, judgement) {
    const figures = { tag: context.part.data.tag }
    if (judgement.finding.code === 'rcd.detector-tripped-first')
      return [causeOf('detector-tripped', 'fits', 'repeat-with-ac', figures)]
    return judgement.verdict === 'outside' ? tripCauses(judgement, figures) : []
  },
  example: {
    source: 'IEC 61008-1 table 1 (from memory): a general device opens within 40 ms at five times its rated current',
    part: examplePoint,
    named: exampleServed,
    reading: {
      slots: { 'plug-waveform': { choice: 'wave-ac' }, 'five-0': readValueOf(46.2, 'ms', 1) },
      conditions: null,
    },
    verdict: 'outside',
  },
}
