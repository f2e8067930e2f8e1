/**
 * A residual current device against what it feeds: its type against currents that are not plainly alternating, and
 * whether it may carry current both ways where something feeds back through it. From the plant alone. Sources: BS
 * 7671:2018+A2 531.3.3 and 712.531.3, +A3:2024 530.3.201 (from memory).
 */
import type { PartOf } from '../../plant/plantIndex'
import { decide, type Ruling } from '../../verdict/judgement'
import type { Decided } from '../../verdict/verdict'
import { notYet, ruled } from '../holding'
import type { ComputedStep, StepContext } from '../step'
import { exampleCircuit, exampleRcd } from '../worked'

type Context = StepContext<'rcd'>

/** Circuits through which an inverter feeds. */
const feedsBack = ({ plant }: Context, circuit: PartOf<'circuit'>): boolean =>
  plant.ofKind('inverter').some(({ data }) => data.circuitId === circuit.id)

function typeRuling(context: Context, circuit: PartOf<'circuit'>): Ruling {
  const { type } = context.part.data
  const isInverter = feedsBack(context, circuit)
  const figures = { type, circuit: circuit.data.tag, feeds: circuit.data.feeds }
  const say = (verdict: Decided, what: string): Ruling =>
    ruled(
      context,
      verdict,
      `rcd-kind.${what}`,
      {
        code: `rcd-kind.${isInverter ? 'inverter' : 'type'}`,
        figures,
        source: isInverter ? 'bs7671-rcd-pv' : 'bs7671-rcd-type',
      },
      figures,
    )
  if (isInverter) {
    if (type === 'B') return say('within', 'inverter-b')
    return type === 'AC' ? say('outside', 'inverter-ac') : say('close', 'inverter-a')
  }
  if (type !== 'AC') return say('within', 'type-suits')
  return circuit.data.sockets ? say('outside', 'ac-sockets') : say('close', 'ac-fixed')
}

/** What is fed from both sides must be made for it; nobody guesses which it is. */
function directionRuling(context: Context, circuits: readonly PartOf<'circuit'>[]): Ruling[] {
  const back = circuits.find((circuit) => feedsBack(context, circuit))
  if (!back) return []
  const { direction } = context.part.data
  const figures = { circuit: back.data.tag }
  const line = { code: 'rcd-kind.direction', figures, source: 'bs7671-direction' } as const
  const verdict = direction === 'both-ways' ? 'within' : direction === 'one-way' ? 'outside' : 'not-yet'
  return [ruled(context, verdict, `rcd-kind.direction-${direction ?? 'unknown'}`, line, figures)]
}

export const rcdKind: ComputedStep<'rcd'> = {
  kind: 'computed',
  id: 'rcd-kind',
  order: 'A14',
  appliesTo: 'rcd',
  station: 'rcd',
  tag: 'dead',
  gates: [],
  cautions: [{ id: 'purpose-is-local', hard: false }],
  hookup: {
    drawing: 'rcd-kind',
    leads: [
      { balloon: 1, code: 'device-ahead' },
      { balloon: 2, code: 'what-it-feeds' },
    ],
  },
  minutes: 0,
  sources: ['bs7671-rcd-type', 'bs7671-rcd-pv', 'bs7671-direction'],
  judge(context) {
    const circuits = context.plant.circuitsOf(context.part)
    if (circuits.length === 0) return notYet(context, 'rcd-kind.nothing')
    return decide([...circuits.map((circuit) => typeRuling(context, circuit)), ...directionRuling(context, circuits)])
  },
  example: {
    source: 'BS 7671:2018+A2 531.3.3 (from memory): type AC only for fixed equipment without direct current',
    part: { ...exampleRcd, type: 'AC' },
    others: (rcdId) => [{ ...exampleCircuit, rcdId, sockets: true }],
    reading: null,
    verdict: 'outside',
  },
}
