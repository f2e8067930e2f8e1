import { describe, expect, it } from 'vitest'
import {
  askedFor,
  causes,
  evaluate,
  evaluateDraft,
  heldAgainst,
  linesOf,
  panelOf,
  picturesOf,
  soundOf,
} from '../evaluate'
import { defaultRegime } from '../regime/shipped'
import { slotsShown } from '../steps/slot'
import { isRead } from '../steps/step'
import {
  exampleBoard,
  exampleCircuit,
  exampleElectrode,
  exampleChargePoint,
  exampleRcd,
  exampleSupply,
} from '../steps/worked'
import { FactsBuilder, readingBody } from '../testing/factsBuilder'
import { withSoundAnswers } from '../testing/installation'
import { scaleOfSlot } from './cells'
import type { Evaluation, StepEvaluation } from './types'

/** A house with modules and a charge point, on a supply of its own arrangement, under a regime without one limit. */
function jobWithout(limit: string, arrangement: 'TN-S' | 'TT'): Evaluation {
  const build = new FactsBuilder()
  const supply = build.part({ ...exampleSupply, arrangement })
  const board = build.part({ ...exampleBoard, supplyId: supply })
  const rcd = build.part({ ...exampleRcd, boardId: board })
  const circuit = build.part({ ...exampleCircuit, boardId: board, rcdId: rcd })
  build.part({ ...exampleChargePoint, circuitId: circuit })
  build.part(exampleElectrode)
  build.string('1')
  const parts = evaluate(build.facts(), 0).steps.flatMap(({ step, part }) => (isRead(step) ? [{ step, part }] : []))
  for (const { step, part } of parts) if (step.example.reading) build.reading(step.id, part.id, step.example.reading)
  const facts = build.facts()
  const limits = Object.fromEntries(Object.entries(defaultRegime.limits).filter(([id]) => id !== limit))
  return evaluate({ ...facts, regime: { ...facts.regime, limits: limits as typeof facts.regime.limits } }, 0)
}

/** Everything that a bench says of a draft: its sum, its scale, what it is held against, its pictures. */
function shown(evaluation: Evaluation, one: StepEvaluation, slots: Parameters<typeof withSoundAnswers>[2]): void {
  const { step } = one
  if (!isRead(step)) return
  const body = readingBody({ slots, conditions: step.example.reading?.conditions ?? null })
  const { judgement, finding, trap } = evaluateDraft(evaluation, one, body)
  const said = [judgement.lines, judgement.rule, judgement.limits, finding, trap]
  expect(said).toHaveLength(5)
  heldAgainst(evaluation, one, body.conditions)
  picturesOf(evaluation, one, body)
  panelOf(evaluation, one, body)
  askedFor(evaluation, one, slots)
  const asked = { part: one.part, plant: evaluation.plant, regime: evaluation.facts.regime }
  for (const slot of slotsShown(step, {}, asked)) scaleOfSlot(evaluation, one, judgement, slot)
}

describe('a regime that lacks a limit', () => {
  // How earth comes says nothing of the modules' own limits.
  const cases = Object.keys(defaultRegime.limits).flatMap((limit) =>
    (limit.startsWith('pv.') ? (['TN-S'] as const) : (['TN-S', 'TT'] as const)).map((arrangement) => ({
      limit,
      arrangement,
    })),
  )

  it.each(cases)('$limit, on $arrangement, has every bench shown, empty and answered', ({ limit, arrangement }) => {
    const evaluation = jobWithout(limit, arrangement)
    expect(evaluation.steps.length).toBeGreaterThan(40)
    for (const one of evaluation.steps) {
      const asked = { part: one.part, plant: evaluation.plant, regime: evaluation.facts.regime }
      const own = isRead(one.step) ? (one.step.example.reading?.slots ?? {}) : {}
      for (const slots of [{}, own, isRead(one.step) ? withSoundAnswers(one.step, asked, own) : {}])
        expect(() => shown(evaluation, one, slots), one.key).not.toThrow()
      expect(() => [linesOf(evaluation, one), causes(evaluation, one), soundOf(evaluation, one)], one.key).not.toThrow()
    }
  })

  it('says so in the sum where a line of it wants that limit', () => {
    const evaluation = jobWithout('ac.cold-share', 'TN-S')
    const one = evaluation.steps.find(({ step }) => step.id === 'zs')!
    const { judgement } = evaluateDraft(evaluation, one, readingBody({ slots: {} }))
    expect(judgement.verdict).toBe('not-yet')
    expect(judgement.lines.map(({ code }) => code)).toContain('regime-lacks')
  })
})
