/**
 * Polarity and phase sequence of the supply as it comes in, and as it arrives at each board: volts of every pair, and the
 * rotation where there are three lines. Sources: BS 7671:2018 643.6 and 643.9, IEC 60038, EN 50160 (from memory).
 */
import type { PartKind } from '../../plant/part'
import { readValueOf } from '../../quantity/readValue'
import { causeOf } from '../../verdict/cause'
import { decide, type Judgement, type Ruling } from '../../verdict/judgement'
import { liveGates } from '../gates'
import { notYet, ruled } from '../holding'
import { choiceIn, type Figure, figuresOf } from '../reading'
import { choiceSlot, isThreePhase, LINES, type NumberSlot, numberSlot, type Slot } from '../slot'
import type { AnyContext, ReadStep } from '../step'
import { exampleBoard, exampleCircuit, exampleSupply } from '../worked'
import { supplyVolts, touchVolts } from './supplyVolts'

const oneLine: NumberSlot['only'] = (part) => !isThreePhase(part)
const volts = (pair: string, only?: NumberSlot['only']): NumberSlot =>
  numberSlot(`in-${pair.toLowerCase()}`, 'ac-voltage', 'V', 1, { of: { pair }, ...(only ? { only } : {}) })
const lineSlots: readonly NumberSlot[] = ['N', 'PE'].flatMap((to) => [
  volts(`L-${to}`, oneLine),
  ...LINES.map((line) => volts(`${line.toUpperCase()}-${to}`, isThreePhase)),
])
const neutralEarth = volts('N-PE')
const rotation = choiceSlot({
  id: 'supply-rotation',
  options: ['rotation-right', 'rotation-left'],
  sound: ['rotation-right'],
  balloon: 2,
  only: isThreePhase,
})
const slots: readonly Slot[] = [...lineSlots, neutralEarth, rotation]

const touch_V = (context: AnyContext): number => context.limit('earth.touch-voltage').value
const linesOf = (context: AnyContext): Figure[] => figuresOf(context, lineSlots)

/** Neutral at the volts of a line: the two are changed over. */
function isReversed(context: AnyContext): boolean {
  const [neutral] = figuresOf(context, [neutralEarth])
  return neutral !== undefined && neutral.span.least > touch_V(context)
}

function rotationRuling(context: AnyContext): Ruling[] {
  const seen = choiceIn(context.reading, rotation.id)
  if (seen === null) return []
  const line = { code: 'supply-polarity.rotation', source: 'bs7671-sequence' } as const
  return [ruled(context, seen === 'rotation-right' ? 'within' : 'outside', `supply-polarity.${seen}`, line)]
}

function judge(context: AnyContext): Judgement {
  const neutral = figuresOf(context, [neutralEarth])
  const rulings = [
    ...neutral.map((one) => touchVolts(context, one, 'supply-neutral', 'supply-polarity.neutral')),
    ...linesOf(context).map((one) => supplyVolts(context, one, 'supply-polarity')),
    ...rotationRuling(context),
  ]
  return rulings.length > 0 ? decide(rulings) : notYet(context, 'supply-polarity.no-reading')
}

type Here<Kind extends PartKind> = Pick<
  ReadStep<Kind>,
  'id' | 'order' | 'appliesTo' | 'station' | 'gates' | 'cautions' | 'example'
> &
  Partial<ReadStep<Kind>>

const stepAt = <Kind extends PartKind>(here: Here<Kind>): ReadStep<Kind> => ({
  kind: 'read',
  tag: 'live',
  slots,
  stands: 'highest',
  counts: 'latest',
  hookup: {
    drawing: here.id,
    leads: [
      { balloon: 1, code: 'every-pair' },
      { balloon: 2, code: 'phase-rotation' },
    ],
  },
  minutes: 2,
  sources: ['bs7671-polarity', 'bs7671-sequence', 'supply-voltage', 'iec-60364-4-electrode'],
  // Whoever reads where nothing is on has read nothing of the supply.
  trap: (context) => {
    const lines = linesOf(context as unknown as AnyContext)
    const isOff = lines.length > 0 && lines.every(({ span }) => span.most < touch_V(context as unknown as AnyContext))
    return isOff ? { code: 'supply-polarity.off', figures: { tag: context.part.data.tag } } : null
  },
  judge: (context) => judge(context as unknown as AnyContext),
  causes(context, judgement) {
    if (judgement.verdict !== 'outside') return []
    const figures = { tag: context.part.data.tag }
    const isLeft = choiceIn(context.reading, rotation.id) === 'rotation-left'
    return [
      ...(isReversed(context as unknown as AnyContext)
        ? [causeOf('line-and-neutral-swapped', 'fits', 'supply-stays-off', figures)]
        : []),
      ...(isLeft ? [causeOf('lines-changed-over', 'fits', 'swap-two-lines', figures)] : []),
      causeOf('neutral-or-earth-open', 'may-fit', 'supply-stays-off', figures),
      causeOf('supply-voltage-off', 'may-fit', 'ask-the-network', figures),
    ]
  },
  ...here,
})

/** At the incoming terminals, main switch off: what the network delivers. */
export const supplyPolarity = stepAt<'supply'>({
  id: 'supply-polarity',
  order: 'E1',
  appliesTo: 'supply',
  station: 'supply',
  protects: true,
  gates: [],
  cautions: [
    { id: 'finger-guarded', hard: true },
    { id: 'incoming-stays-live', hard: true },
  ],
  example: {
    source:
      'common practice, no source: neutral at the volts of a line is a supply with its line and neutral changed over',
    part: exampleSupply,
    reading: {
      slots: {
        'in-l-n': readValueOf(231, 'V', 0),
        'in-l-pe': readValueOf(0, 'V', 0),
        'in-n-pe': readValueOf(231, 'V', 0),
      },
      conditions: null,
    },
    verdict: 'outside',
  },
})

/** At a board that is on: the run to it may have changed what came in. */
export const boardPolarity = stepAt<'board'>({
  id: 'board-polarity',
  order: 'E6',
  appliesTo: 'board',
  station: 'board',
  protects: true,
  effects: [{ state: 'dead', on: 'supply', does: 'end' }],
  gates: liveGates,
  cautions: [
    { id: 'finger-guarded', hard: true },
    { id: 'lid-off-and-live', hard: false },
  ],
  example: {
    source: 'IEC 60038 (from memory): 230 V; common practice: neutral lies near earth',
    part: exampleBoard,
    others: () => [exampleSupply, exampleCircuit],
    reading: {
      slots: {
        'in-l-n': readValueOf(232, 'V', 0),
        'in-l-pe': readValueOf(231, 'V', 0),
        'in-n-pe': readValueOf(1, 'V', 0),
      },
      conditions: null,
    },
    verdict: 'within',
  },
})
