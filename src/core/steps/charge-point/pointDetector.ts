/**
 * The detector of 6 mA direct current inside a charge point: ramps and timed trips, of each polarity, for it may be blind
 * to one. Source: IEC 62955:2018 (from memory); what is asked: by school, common practice.
 */
import { type DetectorReading, judgeDetector } from '../../pilot/detector'
import type { PartData } from '../../plant/part'
import { readValueOf } from '../../quantity/readValue'
import { standingFor } from '../../quantity/span'
import { DC_DETECTOR_mA } from '../../rcd/limits'
import type { Regime } from '../../regime/regime'
import { causeOf } from '../../verdict/cause'
import { decide, type Ruling } from '../../verdict/judgement'
import { closeness, notYet } from '../holding'
import { type Figure, figuresOf, measuredOf } from '../reading'
import { type NumberSlot, numberSlot, type Slot } from '../slot'
import type { ReadStep } from '../step'
import { examplePoint, exampleServed } from './example'
import { atPoint, modelRulings, type PointContext } from './point'

type Asks = (part: PartData, regime: Regime) => boolean
const isTwelve: Asks = (_, regime) => regime.schools['point.sequence'] === 'twelve'
const isNotTwelve: Asks = (part, regime) => !isTwelve(part, regime)
const isRampsOnly: Asks = (_, regime) => regime.schools['point.sequence'] === 'ramps'
const isNotRampsOnly: Asks = (part, regime) => !isRampsOnly(part, regime)

const ramp = (id: string, angle_deg: 0 | 180, rest: Partial<NumberSlot> = {}): NumberSlot =>
  numberSlot(id, 'dc-residual-current', 'mA', 1, { of: { waveform: 'dc', angle_deg }, ...rest })
const steady = (id: string, angle_deg: 0 | 180, rest: Partial<NumberSlot>): NumberSlot =>
  numberSlot(id, 'dc-residual-time', 'ms', 2, { of: { waveform: 'dc', angle_deg }, ...rest })

const ramps: readonly NumberSlot[] = [
  ramp('dc-ramp-plus', 0),
  ramp('dc-ramp-minus', 180, { only: isNotRampsOnly }),
  ramp('dc-ramp-minus-besides', 180, { only: isRampsOnly, optional: true }),
]
/** 6 mA, smooth, until it opens: asked by one school, kept under all. */
const timed: readonly NumberSlot[] = [
  steady('dc-six-plus', 0, { only: isTwelve }),
  steady('dc-six-minus', 180, { only: isTwelve }),
  steady('dc-six-plus-besides', 0, { only: isNotTwelve, optional: true }),
  steady('dc-six-minus-besides', 180, { only: isNotTwelve, optional: true }),
]
const rampTimes: readonly NumberSlot[] = [
  steady('dc-ramp-plus-time', 0, { optional: true }),
  steady('dc-ramp-minus-time', 180, { optional: true, only: isNotRampsOnly }),
]
const slots: readonly Slot[] = [...timed.slice(0, 2), ...ramps, ...rampTimes, ...timed.slice(2)]

function readingIn({ slot, span }: Figure): DetectorReading {
  const polarity = slot.of!.angle_deg === 0 ? 'positive' : 'negative'
  return slot.measures === 'dc-residual-current'
    ? { polarity, kind: 'ramp', current: span }
    : { polarity, kind: 'timed', at_mA: DC_DETECTOR_mA.most, time: span }
}

function rulingOf(context: PointContext, figure: Figure): Ruling {
  const { verdict, code, figures, band, closeBy } = judgeDetector(readingIn(figure))
  const { slot, span, read } = figure
  const also =
    verdict === 'close' && closeBy !== null
      ? closeness({ verdict, where: 'inside', closeBy }, span.whisker, slot.unit)
      : undefined
  const isRamp = slot.measures === 'dc-residual-current'
  return {
    verdict,
    isUndecided: verdict === 'not-yet' && band !== null,
    finding: {
      code: `detector.${code}`,
      figures: { tag: context.part.data.tag, at: slot.id, ...figures },
      ...(also ? { also } : {}),
    },
    line: {
      code: isRamp ? 'detector.ramp' : 'detector.timed',
      figures: { at: slot.id, ...figures },
      result: { value: standingFor(span), unit: slot.unit, decimals: isRamp ? 1 : 0, asRead: read.text },
      source: 'iec-62955',
    },
    rule: band && {
      unit: slot.unit,
      scale: 'linear',
      measured: measuredOf(span, read.text),
      expected: null,
      band,
      source: 'iec-62955',
    },
    limit: band?.high == null ? null : { id: 'point.detector', value: band.high, unit: slot.unit, source: 'iec-62955' },
  }
}

export const pointDetector: ReadStep<'charge-point'> = {
  ...atPoint,
  id: 'point-detector',
  order: 'F12',
  protects: true,
  // Of a model that nobody knows it is asked.
  of: (part) => part.data.model?.data.dcDetector !== false,
  slots,
  stands: 'highest',
  guide: 'trips',
  kit: () => [{ measures: 'dc-residual-current', upTo_mA: DC_DETECTOR_mA.most }],
  counts: 'worst',
  cautions: [
    { id: 'fault-current-flows', hard: true },
    { id: 'point-reset-between', hard: false },
  ],
  hookup: {
    drawing: 'point-detector',
    leads: [
      { balloon: 1, code: 'dc-ramp' },
      { balloon: 2, code: 'dc-steady' },
    ],
  },
  minutes: 4,
  sources: ['iec-62955', 'point-practice'],
  judge(context) {
    const rulings = figuresOf(context, [...ramps, ...timed]).map((one) => rulingOf(context, one))
    return rulings.length > 0 ? decide([...rulings, ...modelRulings(context)]) : notYet(context, 'detector.no-reading')
  },
  causes(context, judgement) {
    if (judgement.verdict !== 'outside') return []
    const figures = { tag: context.part.data.tag }
    if (judgement.finding.code === 'detector.ramp-too-sensitive')
      return [
        causeOf('standing-dc', 'may-fit', 'unplug-and-repeat', figures),
        causeOf('detector-too-sensitive', 'may-fit', 'change-the-point', figures),
      ]
    return [causeOf('detector-blind', 'fits', 'change-the-point', figures)]
  },
  example: {
    source: 'IEC 62955:2018 (from memory): it must not open at 3 mA or below',
    part: examplePoint,
    named: exampleServed,
    reading: { slots: { 'dc-ramp-plus': readValueOf(2.7, 'mA', 1) }, conditions: null },
    verdict: 'outside',
  },
}
