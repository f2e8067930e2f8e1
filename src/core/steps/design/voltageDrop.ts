/**
 * What a circuit loses along its length under the current that it is made for, against what the rules allow. From the
 * plant alone, where somebody entered that current. Sources: BS 7671 525 and table 4Ab, IEC 60364-5-52 annex G (from
 * memory). The limit counts from the origin: of a board that hangs on another nobody knows what is lost before it.
 */
import { dropAlong_V } from '../../circuit/voltageDrop'
import { exactly } from '../../quantity/span'
import { atMost } from '../../verdict/compare'
import { decide, type Judgement, type Ruling } from '../../verdict/judgement'
import { supplyOf } from '../ac/shared'
import { hold, notYet, ruled } from '../holding'
import type { ComputedStep, StepContext } from '../step'
import { exampleCircuit, exampleSupply } from '../worked'

type Context = StepContext<'circuit'>

/** The board hangs on another: what is lost up to it is not in the figure. */
function beforeTheBoard(context: Context, figures: Ruling['finding']['figures']): Ruling[] {
  const board = context.plant.boardOf(context.part)
  if (!board?.data.boardId) return []
  const own = { ...figures, board: board.data.tag }
  const line = { code: 'voltage-drop.before', figures: own, source: null }
  return [ruled(context, 'close', 'voltage-drop.before', line, own)]
}

function judgeDrop(context: Context): Judgement {
  const { line_mm2, length_m, phases, layout = 'radial', design_A, lighting, metal } = context.part.data
  const nominal_V = supplyOf(context)?.data.nominal_V
  if (line_mm2 === null || length_m === null || design_A == null) return notYet(context, 'voltage-drop.no-cable')
  if (!nominal_V) return notYet(context, 'voltage-drop.no-supply')
  const drop_V = dropAlong_V({ line_mm2, length_m, phases, layout, metal }, design_A)
  if (drop_V === null) return notYet(context, 'voltage-drop.no-table')
  const limit = context.limit(lighting ? 'ac.drop-lighting' : 'ac.drop-other')
  const most_V = (nominal_V * limit.value) / 100
  const figures = { drop_V, drop_pct: (drop_V / nominal_V) * 100, most_pct: limit.value, design_A }
  const held = hold(context, {
    step: 'voltage-drop',
    span: exactly(drop_V),
    text: drop_V.toFixed(1),
    unit: 'V',
    band: atMost(most_V),
    source: limit.source,
    limit: { id: lighting ? 'ac.drop-lighting' : 'ac.drop-other', value: most_V },
    line: { code: 'voltage-drop.rule', figures: { most_pct: limit.value, nominal_V }, decimals: 1 },
    figures,
  })
  return decide([held, ...beforeTheBoard(context, figures)], {
    rule: held.rule ?? null,
    before: () => [
      {
        code: `voltage-drop.${layout}-${phases}`,
        figures: { area_mm2: line_mm2, length_m, design_A },
        result: { value: drop_V, unit: 'V', decimals: 1 },
        source: 'bs7671-drop',
      },
    ],
  })
}

export const voltageDrop: ComputedStep<'circuit'> = {
  kind: 'computed',
  id: 'voltage-drop',
  order: 'A11',
  appliesTo: 'circuit',
  of: (part) => part.data.design_A != null,
  station: 'board',
  tag: 'dead',
  gates: [],
  cautions: [{ id: 'drop-is-worked-out', hard: false }],
  hookup: {
    drawing: 'voltage-drop',
    leads: [
      { balloon: 1, code: 'at-the-board' },
      { balloon: 2, code: 'farthest-point' },
    ],
  },
  minutes: 0,
  sources: ['bs7671-drop'],
  judge: judgeDrop,
  example: {
    source:
      'BS 7671 table 4D2B, from memory: 18 mV/A/m for 2.5 mm2: 20 m under 16 A lose 5.8 V of 230 V, at most 11.5 V',
    part: { ...exampleCircuit, design_A: 16 },
    others: () => [exampleSupply],
    reading: null,
    verdict: 'within',
  },
}
