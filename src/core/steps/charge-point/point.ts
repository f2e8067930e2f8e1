/** What the tests of a charge point share: its model, its circuit, the device that protects it, gates and cautions. */
import type { ChargePointData } from '../../plant/chargePointModel'
import type { PartOf } from '../../plant/plantIndex'
import type { Rcd } from '../../rcd/limits'
import type { PartData } from '../../plant/part'
import type { Ruling } from '../../verdict/judgement'
import { liveGates } from '../gates'
import { ruled } from '../holding'
import type { NumberSlot } from '../slot'
import type { GateRule, Reading, ReadStep, StepContext } from '../step'

export type PointContext = StepContext<'charge-point'>

/** What its model is made for; null where nobody said which model it is. */
export const modelOf = ({ part }: Pick<PointContext, 'part'>): ChargePointData | null => part.data.model?.data ?? null

export const circuitOf = ({ part, plant }: Pick<PointContext, 'part' | 'plant'>): PartOf<'circuit'> | null =>
  plant.circuitOfPoint(part)

type Asks = NonNullable<NumberSlot['only']>
const whoseModel =
  (is: (model: ChargePointData) => boolean) =>
  (part: PartData): boolean =>
    part.kind === 'charge-point' && part.model !== null && is(part.model.data)
const hasCable = whoseModel(({ outlet }) => outlet === 'tethered')
/** Of a model that nobody knows everything is asked. */
export const hasSocket = (part: PartData): boolean => !hasCable(part)
export const isPointThreePhase = whoseModel(({ phases }) => phases === 3)
export const isPointSinglePhase = (part: PartData): boolean => !isPointThreePhase(part)
export const isVentilated: Asks = (part) => part.kind === 'charge-point' && part.ventilated
export const isNotVentilated: Asks = (part) => part.kind === 'charge-point' && !part.ventilated

/** The residual current device that the trips at a plug reach first: its own, or the nearest before it. */
export function deviceAt(context: PointContext): { rcd: Rcd; tag: string } | null {
  const model = modelOf(context)
  if (model?.rcdType && model.rcdRated_mA !== null) {
    const rcd: Rcd = { type: model.rcdType, kind: 'general', rated_mA: model.rcdRated_mA, standard: 'iec-61008' }
    return { rcd, tag: context.part.data.tag }
  }
  const circuit = circuitOf(context)
  const [nearest] = circuit ? context.plant.rcdsOf(circuit) : []
  if (!nearest) return null
  const { type, delay, rated_mA, standard, tag } = nearest.data
  return { rcd: { type, kind: delay, rated_mA, standard }, tag }
}

/** The protective earth at the plug was found without potential, at every position of the knob, and in this visit. */
const pretestGates: readonly GateRule[] = [
  { id: 'point-earth-safe', hard: true, waitsFor: 'point-pretest', until: 'done' },
  { id: 'point-earth-felt', hard: true, state: 'point-felt', on: 'part' },
]
/** Lock, PIN and tamper function are off: else it answers to nobody. */
const openGate: GateRule = { id: 'point-open', hard: false, state: 'point-open', on: 'part' }

/** Before anything is plugged in: its own circuit proved, earth on. */
export const plugGates: readonly GateRule[] = [...liveGates, openGate]
/** Before anything is asked of it: no potential on its earth either. */
export const pointGates: readonly GateRule[] = [...plugGates, ...pretestGates]

/** What every test of a charge point with the supply on has alike. */
export const atPoint = {
  kind: 'read',
  appliesTo: 'charge-point',
  station: 'charge-point',
  tag: 'live',
  counts: 'latest',
  gates: pointGates,
  effects: [{ state: 'dead', on: 'supply', does: 'end' }],
} as const satisfies Partial<ReadStep<'charge-point'>>

/** What a model decides cannot be sound while nobody said which it is. */
export const modelRulings = (context: PointContext): Ruling[] =>
  modelOf(context)
    ? []
    : [ruled(context, 'not-yet', 'point.no-model', { code: 'point.no-model', source: 'point-practice' })]

/** The same context with another part in it, and another reading. */
export const contextOn = <Kind extends 'circuit'>(
  context: PointContext,
  part: PartOf<Kind>,
  reading: Reading,
  slots: StepContext['slots'],
): StepContext<Kind> =>
  Object.create(context, {
    part: { value: part, enumerable: true },
    reading: { value: reading, enumerable: true },
    slots: { value: slots, enumerable: true },
  }) as StepContext<Kind>
