/**
 * Voltages at the plug with the outlet live: each line to neutral and to earth, neutral to earth, and the rotation where
 * there are three. Sources: IEC 60038, EN 50160 (from memory); 50 V: IEC 60364-4-41 (from memory).
 */
import { readValueOf } from '../../quantity/readValue'
import { causeOf } from '../../verdict/cause'
import { decide, type Ruling } from '../../verdict/judgement'
import { notYet, ruled } from '../holding'
import { supplyVolts, touchVolts } from '../ac/supplyVolts'
import { choiceIn, figuresOf } from '../reading'
import { choiceSlot, LINES, type NumberSlot, numberSlot, type Slot } from '../slot'
import type { ReadStep } from '../step'
import { examplePoint, exampleServed } from './example'
import { atPoint, isPointSinglePhase, isPointThreePhase, modelRulings, type PointContext } from './point'

const volts = (id: string, pair: string, only?: NumberSlot['only']): NumberSlot =>
  numberSlot(id, 'ac-voltage', 'V', 1, { of: { pair }, ...(only ? { only } : {}) })
const toNeutral: readonly NumberSlot[] = [
  volts('v-l-n', 'L-N', isPointSinglePhase),
  ...LINES.map((line) => volts(`v-${line}-n`, `${line.toUpperCase()}-N`, isPointThreePhase)),
]
const toEarth: readonly NumberSlot[] = [
  volts('v-l-pe', 'L-PE', isPointSinglePhase),
  ...LINES.map((line) => volts(`v-${line}-pe`, `${line.toUpperCase()}-PE`, isPointThreePhase)),
]
const neutralEarth = volts('v-n-pe', 'N-PE')
const rotation = choiceSlot({
  id: 'plug-rotation',
  options: ['rotation-right', 'rotation-left'],
  sound: ['rotation-right'],
  balloon: 2,
  only: isPointThreePhase,
})
const slots: readonly Slot[] = [...toNeutral, ...toEarth, neutralEarth, rotation]

function rotationRuling(context: PointContext): Ruling[] {
  const seen = choiceIn(context.reading, rotation.id)
  if (seen === null) return []
  const line = { code: 'point-voltages.rotation', source: 'point-practice' } as const
  const verdict = seen === 'rotation-right' ? 'within' : 'outside'
  return [ruled(context, verdict, `point-voltages.${seen}`, line)]
}

export const pointVoltages: ReadStep<'charge-point'> = {
  ...atPoint,
  id: 'point-voltages',
  order: 'F9',
  slots,
  cautions: [
    { id: 'outlet-becomes-live', hard: true },
    { id: 'finger-guarded', hard: false },
  ],
  hookup: {
    drawing: 'point-voltages',
    leads: [
      { balloon: 1, code: 'adapter-sockets' },
      { balloon: 2, code: 'phase-rotation' },
    ],
  },
  minutes: 2,
  sources: ['supply-voltage', 'iec-60364-4-electrode', 'point-practice'],
  // Whoever reads at an outlet that is off has read nothing of the supply.
  trap(context) {
    const lines = figuresOf(context, [...toNeutral, ...toEarth])
    const isOff = lines.length > 0 && lines.every(({ span }) => span.most < context.limit('earth.touch-voltage').value)
    return isOff ? { code: 'point-voltages.outlet-off', figures: { tag: context.part.data.tag } } : null
  },
  judge(context) {
    const lines = figuresOf(context, [...toNeutral, ...toEarth])
    const neutral = figuresOf(context, [neutralEarth])
    const rulings = [
      ...lines.map((one) => supplyVolts(context, one, 'point-voltages')),
      ...neutral.map((one) => touchVolts(context, one, 'point-neutral', 'point-voltages.neutral')),
      ...rotationRuling(context),
    ]
    return rulings.length > 0
      ? decide([...rulings, ...modelRulings(context)])
      : notYet(context, 'point-voltages.no-reading')
  },
  causes(context, judgement) {
    if (judgement.verdict !== 'outside') return []
    const figures = { tag: context.part.data.tag }
    const [neutral] = figuresOf(context, [neutralEarth])
    const isSwapped = neutral !== undefined && neutral.span.least > context.limit('earth.touch-voltage').value
    return [
      ...(isSwapped ? [causeOf('line-and-neutral-swapped', 'fits', 'look-at-terminals', figures)] : []),
      causeOf('point-earth-open', 'may-fit', 'earth-to-plug', figures),
      causeOf('supply-voltage-off', 'may-fit', 'ask-the-network', figures),
    ]
  },
  example: {
    source: 'IEC 60038 (from memory): 230 V; common practice: neutral lies near earth',
    part: examplePoint,
    named: exampleServed,
    reading: { slots: { 'v-n-pe': readValueOf(231, 'V', 0) }, conditions: null },
    verdict: 'outside',
  },
}
