/**
 * Where along a string an earth fault sits: by two voltages to earth, or by halving. Asked only while its insulation is
 * low. Common practice, no source; the place follows from two resistances in a loop (handbook 5).
 */
import { CLEAN_SHARE, earthFault } from '../../pv/earthFault'
import { readValueOf } from '../../quantity/readValue'
import { type Span, standingFor, sumOf } from '../../quantity/span'
import { atLeast, atMost } from '../../verdict/compare'
import { decide, type Judgement, type Ruling } from '../../verdict/judgement'
import type { Figures } from '../../verdict/verdict'
import type { WorkingLine } from '../../verdict/working'
import { isolatedGate } from '../gates'
import { hold, notYet, ruled, saying } from '../holding'
import { choiceIn, figureOf, lowestOf } from '../reading'
import type { ReadStep, StepContext } from '../step'
import { exampleString } from '../worked'
import { leakSpan, openedAt, placeByVolts, stringPlace } from './faultPlace'
import { inputOf, isByHalves, minus, minusHalf, plus, plusHalf, slots, whole } from './faultSlots'
import { insulationAsked, settingOf } from './insulationAsked'

const SOURCE = 'house-earth-fault'
const OHM_PER_MOHM = 1e6

/** Above what the string gives by itself by more than the meter may be off: one of the three is of another moment. */
function isAbove(context: StepContext<'string'>): boolean {
  const [string, high, low] = [whole, plus, minus].map((slot) => figureOf(context, slot)?.span)
  if (!string || !high || !low) return false
  const sum = sumOf([high, low])
  return sum.least - sum.whisker > string.most + string.whisker
}

function judgeByVolts(context: StepContext<'string'>): Judgement {
  const { modulesInSeries: modules } = context.part.data
  const [string, high, low] = [whole, plus, minus].map((slot) => figureOf(context, slot))
  if (!string || !high || !low) return notYet(context, 'earth-fault.no-reading')
  const texts = { whole: string.read.text, plus: high.read.text, minus: low.read.text }
  if (isAbove(context)) return notYet(context, 'earth-fault.above-string', texts)
  const least = insulationAsked(context)?.test.minimum_Mohm ?? 0
  const place = placeByVolts(context.reading, modules, least)
  const sum_V = high.read.value + low.read.value
  const figures = {
    ...texts,
    sum_V,
    least,
    modules,
    after: Math.round(place?.at ?? 0),
    at: place?.at ?? 0,
    off: offOf(place),
    from: place?.from ?? 0,
    to: place?.to ?? modules,
  }
  const leak = leakSpan(context.reading)
  const ruling = leak && least > 0 ? heldByOhms(context, leak, least, figures) : heldByShare(context, figures)
  const told =
    ruling.verdict === 'outside' ? saying(ruling, `earth-fault.outside${endOf(place?.at ?? null, modules)}`) : ruling
  return decide([told], { after: () => placeLines(context) })
}

/** How far off a place may be, in modules: never told finer than a tenth. */
const offOf = (place: { from: number | null; to: number | null } | null): number =>
  Math.max(0.1, ((place?.to ?? 0) - (place?.from ?? 0)) / 2)

/** Where the voltmeter's own resistance is known: what leaks is held against the least insulation. */
function heldByOhms(context: StepContext<'string'>, span: Span, least: number, figures: Figures): Ruling {
  const read = standingFor(span)
  const text = Number.isFinite(read) ? read.toFixed(read < 10 ? 2 : 0) : `>${span.least.toFixed(0)}`
  return hold(context, {
    step: 'earth-fault.ohms',
    span,
    text,
    unit: 'Mohm',
    scale: 'log',
    band: atLeast(least, least * context.limit('close.insulation').value),
    source: SOURCE,
    limit: { id: 'pv.insulation', value: least },
    line: { code: 'earth-fault.ohms', figures: { read: text }, decimals: 1 },
    figures,
  })
}

/** Else by what a meter leaks itself: its two voltages to earth are next to nothing. */
function heldByShare(context: StepContext<'string'>, figures: Figures): Ruling {
  const [string, high, low] = [whole, plus, minus].map((slot) => figureOf(context, slot)!)
  const clean_V = CLEAN_SHARE * string!.read.value
  return hold(context, {
    step: 'earth-fault',
    span: sumOf([high!.span, low!.span]),
    text: (high!.read.value + low!.read.value).toFixed(1),
    unit: 'V',
    band: atMost(clean_V),
    source: SOURCE,
    limit: { id: 'pv.earth-fault', value: clean_V },
    line: { code: 'earth-fault.sum', figures: { ...figures, share_pct: 100 * CLEAN_SHARE }, decimals: 1 },
    figures,
  })
}

/** A place nearer to an end than half a module is that end: its plug, or the cable to it. */
function endOf(at: number | null, modules: number): '' | '-at-plus' | '-at-minus' | '-between' {
  if (at === null) return '-between'
  const after = Math.round(at)
  return after === 0 ? '-at-plus' : after === modules ? '-at-minus' : ''
}

function placeLines(context: StepContext<'string'>): WorkingLine[] {
  const { modulesInSeries: modules } = context.part.data
  const [string, high, low] = [whole, plus, minus].map((slot) => figureOf(context, slot))
  if (!string || !high || !low) return []
  const figures = { whole: string.read.text, plus: high.read.text, minus: low.read.text, modules }
  const input_Mohm = inputOf(context.reading)
  const sum_V = high.read.value + low.read.value
  if (sum_V > string.read.value) return []
  const fault = earthFault({
    voc_V: string.read.value,
    positiveToEarth_V: high.read.value,
    negativeToEarth_V: low.read.value,
    meterResistance_ohm: (input_Mohm ?? 0) * OHM_PER_MOHM,
    modulesInSeries: modules,
  })
  if (!fault) return []
  const place: WorkingLine = {
    code: 'earth-fault.place',
    figures,
    result: { value: fault.fraction * modules, unit: 'one', decimals: 1 },
    source: SOURCE,
  }
  if (input_Mohm === null) return [place]
  const value = fault.faultResistance_ohm / OHM_PER_MOHM
  const ohms = { value, unit: 'Mohm', decimals: 2 } as const
  return [
    place,
    { code: 'earth-fault.resistance', figures: { ...figures, input_Mohm, sum_V }, result: ohms, source: SOURCE },
  ]
}

function judgeByHalves(context: StepContext<'string'>): Judgement {
  const ask = insulationAsked(context)
  const [high, low] = [figureOf(context, plusHalf), figureOf(context, minusHalf)]
  if (!ask || !high || !low) return notYet(context, 'earth-fault.no-halves')
  const { minimum_Mohm: least, testVoltage_V: wanted_V } = ask.test
  const { modulesInSeries: modules } = context.part.data
  const after = openedAt(context.reading, modules)
  const band = atLeast(least, least * context.limit('close.insulation').value)
  const rulings: Ruling[] = [high, low].map(({ slot, read, span }) =>
    hold(context, {
      step: 'earth-fault',
      span,
      text: read.text,
      unit: 'Mohm',
      scale: 'log',
      band,
      source: SOURCE,
      limit: { id: 'pv.insulation', value: least },
      line: { code: 'earth-fault.half', figures: { read: read.text, what: slot.id }, decimals: 1 },
      figures: { least, modules, after: after ?? 0, next: (after ?? 0) + 1 },
    }),
  )
  const lowHalves = rulings.map(({ verdict }) => verdict === 'outside')
  const which = lowHalves[0] && lowHalves[1] ? 'both' : lowHalves[0] ? 'plus' : 'minus'
  const lowest = lowestOf([high, low])!
  const set_V = settingOf(choiceIn(context.reading, 'set-voltage'))
  const told = rulings.map((one) =>
    saying(one, `earth-fault.halves-${one.verdict}${one.verdict === 'outside' ? `-${which}` : ''}`, {
      ...(which === 'both' ? { read: lowest.read.text } : {}),
    }),
  )
  if (set_V !== null && set_V < wanted_V) {
    const figures = { set_V, wanted_V }
    const line = { code: 'earth-fault.too-low-voltage', figures, source: SOURCE } as const
    told.push(ruled(context, 'not-yet', 'pv-insulation.too-low-voltage', line, figures))
  }
  return decide(told)
}

export const earthFaultHunt: ReadStep<'string'> = {
  kind: 'read',
  id: 'earth-fault',
  order: 'B9',
  comesWith: 'fault',
  appliesTo: 'string',
  station: 'strings',
  tag: 'live-in-daylight',
  slots,
  counts: 'latest',
  stands: 'none',
  onNeedOf: ['pv-insulation'],
  effects: [{ state: 'plugs-locked', on: 'part', does: 'end' }],
  gates: [isolatedGate],
  cautions: [
    { id: 'frame-may-be-live', hard: true },
    { id: 'finger-guarded', hard: true },
    { id: 'both-ends-open', hard: true },
    { id: 'live-in-daylight', hard: false },
  ],
  hookup: {
    drawing: 'string-to-earth',
    leads: [
      { balloon: 1, code: 'string-volts' },
      { balloon: 2, code: 'plus-to-earth' },
      { balloon: 3, code: 'minus-to-earth' },
    ],
  },
  variants: [
    {
      slot: 'method',
      is: 'halves',
      hookup: {
        drawing: 'string-halved',
        leads: [
          { balloon: 1, code: 'plug-parted' },
          { balloon: 2, code: 'half-plus' },
          { balloon: 3, code: 'half-minus' },
        ],
      },
      cautions: [
        { id: 'frame-may-be-live', hard: true },
        { id: 'nobody-touches', hard: true },
        { id: 'warn-others', hard: true },
        { id: 'discharge-after', hard: false },
      ],
    },
  ],
  minutes: 6,
  sources: [SOURCE, 'insulation-practice'],
  trap(context) {
    const { tag, modulesInSeries: modules } = context.part.data
    const isWrong = isByHalves(context.reading) && 'opened-after' in context.reading.slots
    if (!isWrong || openedAt(context.reading, modules) !== null) return null
    return { code: 'earth-fault.no-such-place', figures: { tag, modules, last: modules - 1 } }
  },
  judge: (context) => (isByHalves(context.reading) ? judgeByHalves(context) : judgeByVolts(context)),
  pictureOfAll: stringPlace,
  mendingTouches: ['pv-polarity', 'pv-voc', 'pv-insulation', 'plugs-locked'],
  example: {
    source: 'computed: 10 modules of 370 V, 84 V and 196 V to earth: 84/280 of 10 is after module 3 from +',
    part: exampleString(10),
    reading: {
      slots: {
        method: { choice: 'two-voltages' },
        'plus-to-minus': readValueOf(370, 'V', 0),
        'plus-volts': readValueOf(84, 'V', 0),
        'minus-volts': readValueOf(196, 'V', 0),
        surface: { choice: 'wet' },
      },
      conditions: null,
    },
    verdict: 'outside',
  },
}
