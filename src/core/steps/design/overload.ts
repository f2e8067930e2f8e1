/**
 * Whether a circuit's device protects its cable: it lets no more flow than the cable carries as it lies. From the plant
 * alone. Source: BS 7671 433.1.1, 433.1.204 for rings (from memory). Where nobody said what the cable carries, a
 * device above what the table gives for a cable clipped to a surface is asked about.
 */
import { carries_A, RING_LEG } from '../../circuit/carries'
import type { CircuitData } from '../../plant/part'
import { exactly } from '../../quantity/span'
import { atMost } from '../../verdict/compare'
import { decide, type Judgement } from '../../verdict/judgement'
import { hold, notYet, ruled } from '../holding'
import type { ComputedStep, StepContext } from '../step'
import { exampleCircuit } from '../worked'

/** Rings are protected by a rule of their own: the whole device is more than one leg carries. */
const isRing = ({ layout, rating_A }: CircuitData): boolean =>
  layout === 'ring' && (rating_A ?? 0) <= RING_LEG.mostRating_A

/** What a cable is taken to carry while nobody said; null where the table does not know it. */
const byTable_A = ({ line_mm2, method, metal }: CircuitData): number | null =>
  line_mm2 === null ? null : carries_A({ line_mm2, method, metal })

/** Asked where somebody said what the cable carries, or where the device is more than the table gives. */
function isQuestion(circuit: CircuitData): boolean {
  if (circuit.device === null || circuit.rating_A === null) return false
  if (circuit.cable_A != null) return true
  const table_A = byTable_A(circuit)
  return !isRing(circuit) && table_A !== null && circuit.rating_A > table_A
}

function judgeOverload(context: StepContext<'circuit'>): Judgement {
  const { rating_A, cable_A, line_mm2 } = context.part.data
  if (rating_A === null) return notYet(context, 'overload.no-rating')
  const source = 'bs7671-overload' as const
  if (cable_A == null) {
    const method = context.part.data.method ?? 'C'
    const figures = { rating_A, table_A: byTable_A(context.part.data) ?? 0, area_mm2: line_mm2 ?? 0, method }
    return decide([
      ruled(context, 'close', 'overload.above-table', { code: 'overload.table', figures, source }, figures),
    ])
  }
  const most_A = isRing(context.part.data) ? (cable_A >= RING_LEG.least_A ? RING_LEG.mostRating_A : cable_A) : cable_A
  const held = hold(context, {
    step: 'overload',
    span: exactly(rating_A),
    text: String(rating_A),
    unit: 'A',
    band: atMost(most_A),
    source,
    limit: { id: 'overload', value: most_A },
    line: { code: 'overload.rule', figures: { cable_A }, decimals: 1 },
    figures: { cable_A },
  })
  return decide([held], { rule: held.rule ?? null })
}

export const overload: ComputedStep<'circuit'> = {
  kind: 'computed',
  id: 'overload',
  order: 'A10',
  appliesTo: 'circuit',
  of: (part) => isQuestion(part.data),
  station: 'board',
  protects: true,
  tag: 'dead',
  gates: [],
  cautions: [{ id: 'cable-as-laid', hard: false }],
  hookup: {
    drawing: 'overload',
    leads: [
      { balloon: 1, code: 'rating-of-device' },
      { balloon: 2, code: 'cable-as-laid' },
    ],
  },
  minutes: 0,
  sources: ['bs7671-overload'],
  judge: judgeOverload,
  example: {
    source: 'BS 7671 433.1.1, from memory: 32 A before a cable that carries 36 A as it lies',
    part: { ...exampleCircuit, line_mm2: 4, cable_A: 36 },
    reading: null,
    verdict: 'within',
  },
}
