/**
 * Earth continuity: main earthing terminal to the frame or rail of each row. Rails which are not bonded by design are
 * left out with that reason. Source: IEC 62446-1:2016 6.1 (from memory).
 */
import { COPPER_ohm_mm2_per_m, continuityExpected } from '../../pv/continuity'
import { readValueOf } from '../../quantity/readValue'
import { causeOf } from '../../verdict/cause'
import { atMost } from '../../verdict/compare'
import { decide } from '../../verdict/judgement'
import type { WorkingLine } from '../../verdict/working'
import { nulledGate } from '../gates'
import { hold, notYet } from '../holding'
import { figureOf } from '../reading'
import { leadSetSlot, numberSlot } from '../slot'
import type { ReadStep, StepContext } from '../step'

const resistance = numberSlot('resistance', 'continuity', 'ohm', 2)

type Allowed = { value: number; expected_ohm: number | null; school: 'set-limit' | 'by-conductor' }

/** The most that is allowed, and what the conductor and its joints come to where they are known. */
function allowed(context: StepContext<'row'>): Allowed {
  const { conductor } = context.part.data
  const expected_ohm = conductor ? continuityExpected(conductor, context.limit('pv.continuity-joint').value) : null
  const school = context.regime.schools['pv.continuity-judged']
  if (school === 'by-conductor' && expected_ohm !== null) return { value: expected_ohm, expected_ohm, school }
  return { value: context.limit('pv.continuity').value, expected_ohm, school: 'set-limit' }
}

/** The sum of conductor and joints, where it is not itself what decides. */
function conductorLine(context: StepContext<'row'>, { expected_ohm, school }: Allowed): WorkingLine[] {
  const { conductor } = context.part.data
  if (!conductor || expected_ohm === null || school === 'by-conductor') return []
  return [
    {
      code: 'earth-continuity.conductor',
      figures: conductorFigures(context),
      result: { value: expected_ohm, unit: 'ohm', decimals: 3 },
      source: 'house-joint',
    },
  ]
}

const conductorFigures = (context: StepContext<'row'>) => ({
  rho: COPPER_ohm_mm2_per_m,
  ...context.part.data.conductor,
  joint_ohm: context.limit('pv.continuity-joint').value,
})

export const earthContinuity: ReadStep<'row'> = {
  kind: 'read',
  id: 'earth-continuity',
  order: 'B3',
  appliesTo: 'row',
  station: 'modules',
  protects: true,
  tag: 'live-in-daylight',
  slots: [resistance, leadSetSlot],
  nulled: true,
  counts: 'latest',
  leftOutAs: ['not-bonded-by-design'],
  gates: [nulledGate],
  cautions: [
    { id: 'earth-stays-connected', hard: false },
    { id: 'work-at-height', hard: false },
  ],
  hookup: {
    drawing: 'earth-to-row',
    leads: [
      { balloon: 1, code: 'main-earth-terminal' },
      { balloon: 2, code: 'rail-bare-metal' },
    ],
  },
  minutes: 2,
  sources: ['iec-62446-continuity', 'continuity-practice', 'house-joint'],
  expect(context) {
    const { expected_ohm } = allowed(context)
    return expected_ohm === null ? null : { value: expected_ohm, uncertainty: 0 }
  },
  judge(context) {
    const read = figureOf(context, resistance)
    const most = allowed(context)
    const before = () => conductorLine(context, most)
    if (!read) return notYet(context, 'earth-continuity.no-reading', {}, before)
    const bySet = most.school === 'set-limit'
    const id = bySet ? 'pv.continuity' : 'pv.continuity-joint'
    const ruling = hold(context, {
      step: 'earth-continuity',
      span: read.span,
      text: read.read.text,
      unit: 'ohm',
      band: atMost(most.value),
      source: context.limit(id).source,
      expected: most.expected_ohm === null ? null : { value: most.expected_ohm, uncertainty: 0 },
      limit: { id, value: most.value },
      line: bySet
        ? { code: 'earth-continuity.limit', decimals: 2 }
        : { code: 'earth-continuity.conductor', figures: conductorFigures(context), decimals: 3 },
    })
    return decide([ruling], { before })
  },
  causes(context, judgement) {
    if (judgement.verdict !== 'outside') return []
    const figures = { tag: context.part.data.tag }
    const nulled = context.reading.slots['lead-set'] !== undefined
    return [
      causeOf('poor-joint', 'fits', 'work-along-the-bonding', figures),
      causeOf('paint-or-anodising', 'may-fit', 'bare-metal', figures),
      causeOf('leads-not-nulled', nulled ? 'does-not-fit' : 'may-fit', 'null-again', figures),
    ]
  },
  example: {
    source: 'computed: 20 m of 6 mm2 copper is 0.057 ohm; two joints of 0.05 ohm make 0.157; a set limit of 1 ohm',
    part: {
      kind: 'row',
      tag: 'R1',
      arrayId: null,
      conductor: { length_m: 20, area_mm2: 6, joints: 2 },
    },
    reading: {
      slots: { resistance: readValueOf(0.16, 'ohm', 2), 'lead-set': { choice: 'set-a' } },
      conditions: null,
    },
    verdict: 'within',
  },
}
