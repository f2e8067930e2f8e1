/**
 * The trips of a residual current device, at the multiples and half-waves that the regime's school asks for.
 * Sources: IEC 61008-1 table 1, BS 7671:2018 643.7 and 643.8 (from memory).
 */
import { readValueOf } from '../../quantity/readValue'
import { askedTrips, recordedMultiple } from '../../rcd/judgeRcd'
import { rampShares, tripBand } from '../../rcd/limits'
import { decide } from '../../verdict/judgement'
import type { WorkingLine } from '../../verdict/working'
import { besidesRulings, touchBesides, voltsBesides } from '../ac/pressBesides'
import { electrodeSpanOf } from '../earth/electrodeRead'
import { liveGates } from '../gates'
import { notYet } from '../holding'
import { numberIn } from '../reading'
import type { ReadStep, StepContext, Variant } from '../step'
import { exampleRcd } from '../worked'
import { arrangeTrips, deviceOf, rcdSlots, rulesOf, tripsIn, waveformIn } from './rcdSlots'
import { timesPicture } from './timesPicture'
import { type ReadTrip, type Tripped, tripCauses, tripRuling } from './tripRuling'

type Context = StepContext<'rcd'>

const trippedIn = ({ part, regime, reading }: Context): Tripped => ({
  rcd: deviceOf(part.data),
  tag: part.data.tag,
  rules: rulesOf(regime, reading),
  five: regime.schools['rcd.five'],
})

/** RA times the rated current, V: nothing where no electrode was read. */
function touchLine(context: Context): WorkingLine[] {
  const electrode = electrodeSpanOf(context)
  if (electrode?.span.bound !== 'exact') return []
  const { rated_mA } = context.part.data
  return [
    {
      code: 'rcd.touch-voltage',
      figures: { rated_mA, most_V: context.limit('earth.touch-voltage').value },
      result: { value: (electrode.span.least * rated_mA) / 1000, unit: 'V', decimals: 1 },
      source: 'bs7671-electrode',
    },
  ]
}

/** Above other devices a socket would trip those: it is read at its own terminals, which are live. */
const atTerminals: Variant = {
  where: ({ id }, plant) => plant.ofKind('rcd').some(({ data }) => data.upstreamId === id),
  hookup: {
    drawing: 'rcd-at-terminals',
    leads: [
      { balloon: 1, code: 'own-terminals' },
      { balloon: 2, code: 'ramp-current' },
    ],
  },
  cautions: [
    { id: 'finger-guarded', hard: true },
    { id: 'fault-current-flows', hard: true },
    { id: 'medical-and-it-off', hard: false },
    { id: 'loads-off-reset-between', hard: false },
    { id: 'inverter-off-for-trips', hard: false },
  ],
}

export const rcdTrips: ReadStep<'rcd'> = {
  kind: 'read',
  id: 'rcd-trips',
  order: 'E9',
  appliesTo: 'rcd',
  station: 'rcd',
  protects: true,
  tag: 'live',
  slots: [...rcdSlots, touchBesides, ...voltsBesides],
  arrange: arrangeTrips,
  stands: 'highest',
  // A slow first trip counts: a device is not exercised until it passes.
  readsOthers: true,
  counts: 'worst',
  effects: [{ state: 'dead', on: 'supply', does: 'end' }],
  gates: liveGates,
  cautions: [
    { id: 'fault-current-flows', hard: true },
    { id: 'medical-and-it-off', hard: false },
    { id: 'loads-off-reset-between', hard: false },
    { id: 'inverter-off-for-trips', hard: false },
  ],
  hookup: {
    drawing: 'rcd-at-socket',
    leads: [
      { balloon: 1, code: 'downstream-socket' },
      { balloon: 2, code: 'ramp-current' },
    ],
  },
  variants: [atTerminals],
  minutes: 4,
  sources: ['iec-61008', 'bs7671-rcd', 'rcd-practice'],
  mendingTouches: ['rcd-button'],
  // A waveform that the device's type need not see proves nothing, whatever it does.
  trap({ part, reading }) {
    const waveform = waveformIn(reading)
    return rampShares(part.data.type, waveform)
      ? null
      : { code: 'rcd.waveform-not-for-type', figures: { tag: part.data.tag, waveform } }
  },
  scaleBefore(context, { of }) {
    const multiple = of?.multiple
    if (!multiple || multiple === 0.5) return null
    const { least_ms, most_ms } = tripBand(deviceOf(context.part.data), multiple)
    const band = { low: least_ms, high: most_ms, closeLow: null, closeHigh: null }
    return { unit: 'ms', scale: 'linear', measured: null, expected: null, band, source: 'iec-61008' }
  },
  judge(context) {
    const rulings = tripsIn(context.reading).map((one) => ({ one, ruling: tripRuling(trippedIn(context), one) }))
    if (rulings.length === 0) return notYet(context, 'rcd.no-reading')
    const recorded = recordedMultiple(deviceOf(context.part.data), context.regime.schools['rcd.sequence'])
    const rank = ({ trip }: ReadTrip): number => (trip.kind === 'time' && trip.multiple === recorded ? 0 : 1)
    // What goes on the schedule is told first, where nothing else has to be said.
    const ordered = [...rulings].sort((a, b) => rank(a.one) - rank(b.one))
    const besides = besidesRulings(context, { lineEarth: null })
    return decide([...ordered.map(({ ruling }) => ruling), ...besides], { after: () => touchLine(context) })
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
  pictures(context) {
    const rcd = deviceOf(context.part.data)
    const rules = rulesOf(context.regime, context.reading)
    const asked = askedTrips(rcd, rules.sequence).map((one) => one.multiple)
    const device = {
      rcd,
      rules,
      five: context.regime.schools['rcd.five'],
      waveform: waveformIn(context.reading),
      asked,
    }
    return [timesPicture(device, tripsIn(context.reading))]
  },
  sound(context) {
    const { type } = context.part.data
    if (type === 'AC' || waveformIn(context.reading) !== 'ac') return []
    return [{ code: 'sound.alternating', figures: { type } }]
  },
  causes(context, judgement) {
    if (judgement.verdict !== 'outside') return []
    return tripCauses(judgement, { tag: context.part.data.tag })
  },
  example: {
    source: 'IEC 61008-1 table 1 (from memory): a general device opens within 300 ms at its rated current',
    part: exampleRcd,
    reading: { slots: { 'once-0': readValueOf(48.3, 'ms', 1) }, conditions: null },
    verdict: 'within',
  },
}
