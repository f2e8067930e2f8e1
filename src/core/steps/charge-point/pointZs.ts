/**
 * The loop at the plug, through the adapter with the outlet live. It is judged as the loop of its circuit is, by the same
 * rule; a detector of direct current trips on an ordinary loop test, so the mode has to be safe for it. Sources as `zs`.
 */
import { readValueOf } from '../../quantity/readValue'
import { decide } from '../../verdict/judgement'
import { notYet } from '../holding'
import { choiceIn, figuresOf } from '../reading'
import { choiceSlot, LINES, type NumberSlot, numberSlot } from '../slot'
import type { Reading, ReadStep } from '../step'
import { currentsBesides, loopsBesides } from '../ac/pressBesides'
import { zs } from '../ac/zs'
import { examplePoint, exampleServed } from './example'
import {
  atPoint,
  circuitOf,
  contextOn,
  isPointSinglePhase,
  isPointThreePhase,
  modelOf,
  modelRulings,
  type PointContext,
} from './point'

const SAFE = 'dc-safe'
const loop = (id: string, rest: Partial<NumberSlot>): NumberSlot => numberSlot(id, 'loop-impedance', 'ohm', 2, rest)
/** The same names as the loop of a circuit has: it is the same figure, read at the plug. */
const figures: readonly NumberSlot[] = [
  loop('zs', { only: isPointSinglePhase }),
  ...LINES.map((line) => loop(`zs-${line}`, { only: isPointThreePhase, of: { line } })),
]

/** What the rule of a circuit's loop is given: a measured one, whatever its mode was called. */
const asLoop = (reading: Reading): Reading => ({
  ...reading,
  slots: { ...reading.slots, 'loop-method': { choice: 'non-trip' } },
})

/** One reading of a three-phase point on a circuit of one phase, or the other way round, is none of that circuit. */
function isUnlike(context: PointContext): boolean {
  const model = modelOf(context)
  const circuit = circuitOf(context)
  return model !== null && circuit !== null && model.phases > circuit.data.phases
}

export const pointZs: ReadStep<'charge-point'> = {
  ...atPoint,
  id: 'point-zs',
  order: 'F10',
  protects: true,
  slots: [
    choiceSlot({ id: 'plug-loop-mode', options: [SAFE, 'non-trip', 'high-current'], sticky: true, balloon: 2 }),
    ...figures,
    ...[...loopsBesides, ...currentsBesides].map((slot) => ({ ...slot, only: isPointSinglePhase })),
    choiceSlot({ id: 'stayed-on', options: ['stays-on', 'point-tripped'], sound: ['stays-on'], balloon: 1 }),
  ],
  stands: 'highest',
  kit: (part) => (part.data.model?.data.dcDetector === true ? ['loop-impedance', 'dc-safe-loop'] : ['loop-impedance']),
  readsOthers: true,
  cautions: [
    { id: 'fault-current-flows', hard: true },
    { id: 'outlet-becomes-live', hard: false },
  ],
  hookup: {
    drawing: 'point-zs',
    leads: [
      { balloon: 1, code: 'adapter-at-c' },
      { balloon: 2, code: 'line-earth' },
    ],
  },
  minutes: 2,
  sources: ['bs7671-zs', 'bs7671-disconnection', 'loop-practice', 'point-practice'],
  trap({ part, reading }) {
    const { tag } = part.data
    if (choiceIn(reading, 'stayed-on') === 'point-tripped') return { code: 'point-zs.wrong-mode', figures: { tag } }
    const mode = choiceIn(reading, 'plug-loop-mode')
    const isUnsafe = mode !== null && mode !== SAFE && part.data.model?.data.dcDetector === true
    return isUnsafe ? { code: 'point-zs.not-dc-safe', figures: { tag } } : null
  },
  judge(context) {
    const circuit = circuitOf(context)
    if (!circuit) return notYet(context, 'point-zs.no-circuit')
    if (figuresOf(context, figures).length === 0) return notYet(context, 'point-zs.no-reading')
    if (!modelOf(context)) return decide(modelRulings(context))
    if (isUnlike(context)) return notYet(context, 'point-zs.phases-differ', { circuit: circuit.data.tag })
    return zs.judge(contextOn(context, circuit, asLoop(context.reading), zs.slots))
  },
  causes(context, judgement) {
    const circuit = circuitOf(context)
    return circuit && zs.causes
      ? zs.causes(contextOn(context, circuit, asLoop(context.reading), zs.slots), judgement)
      : []
  },
  example: {
    source: 'BS 7671:2018 411.4.4 (from memory): without a supply entered a loop is a reading and no verdict',
    part: examplePoint,
    named: exampleServed,
    reading: {
      slots: {
        'plug-loop-mode': { choice: SAFE },
        zs: readValueOf(0.61, 'ohm', 2),
        'stayed-on': { choice: 'stays-on' },
      },
      conditions: null,
    },
    verdict: 'not-yet',
  },
}
