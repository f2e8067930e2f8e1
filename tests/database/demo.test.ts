import { describe, expect, it } from 'vitest'
import { evaluate } from '@/core/evaluate'
import { allCauses } from '@/core/evaluation/allCauses'
import type { Evaluation } from '@/core/evaluation/types'
import type { Facts } from '@/core/record/facts'
import { steps } from '@/core/steps'
import { isAskedOf, isRead } from '@/core/steps/step'
import { demo, knock } from '../support/server'

async function jobOf(jobId: string): Promise<{ facts: Facts; evaluation: Evaluation }> {
  const { body } = await knock<{ facts: Facts }>('supervisor', `/api/jobs/${jobId}/facts`)
  return { facts: body.facts, evaluation: evaluate(body.facts, Date.now()) }
}
const of = (evaluation: Evaluation, step: string) => evaluation.steps.filter((one) => one.step.id === step)

/** The demo is what an apprentice meets first: each job must be in the state that it shows something of. */
describe('the demo company', () => {
  it('has a roof half way through, with a module left out to be found', async () => {
    const { evaluation } = await jobOf(demo.job.open)
    expect(of(evaluation, 'pv-voc').map((one) => one.verdict)).toEqual(['within', 'not-yet', 'outside'])
    expect(of(evaluation, 'safe-isolation')[0]!.verdict).toBe('within')
    expect(evaluation.snags).toMatchObject([{ state: 'open', step: 'pv-voc' }])
  })

  it('has a 40-string roof with a soiled string, named by its sisters or its expectation', async () => {
    const { evaluation } = await jobOf(demo.job.mill)
    expect(evaluation.plant.ofKind('string').length).toBe(40)
    const outside = evaluation.steps.filter((one) => one.verdict === 'outside')
    expect(outside.map((one) => `${one.step.id} ${one.part.data.tag}`)).toEqual(['pv-isc 17'])
  })

  it('has a sealed one with every step that its plant asks for', async () => {
    const { facts, evaluation } = await jobOf(demo.job.sealed)
    expect(evaluation.progress.done).toBe(evaluation.progress.total)
    expect(facts.seals.map((one) => one.issue)).toEqual(['A'])
    const { plant } = evaluation
    const asked = steps
      // A hunt is asked only where something is low.
      .filter((step) => !(isRead(step) && step.onNeedOf))
      .filter((step) => plant.ofKind(step.appliesTo).some((part) => isAskedOf(step, part, plant, facts.regime)))
      .map((step) => step.id)
    expect([...new Set(evaluation.steps.map((one) => one.step.id))]).toEqual(asked)
  })

  it('has eight curves, four of them with a fault that the curve itself names', async () => {
    const { evaluation } = await jobOf(demo.job.glasshouse)
    const curves = of(evaluation, 'pv-curve')
    expect(curves.map((one) => [one.part.data.tag, one.verdict === 'outside'])).toEqual(
      ['1', '2', '3', '4', '5', '6', '7', '8'].map((tag) => [tag, ['2', '4', '6', '7'].includes(tag)]),
    )
    const named = curves.flatMap((one) => allCauses(evaluation, one)[0]?.code ?? [])
    expect(named).toEqual(['curve-shade', 'curve-series-resistance', 'curve-shunt', 'curve-module-reversed'])
  })

  it('has a roof of two faces that nobody has begun, its design sound and nothing held back but by order', async () => {
    const { facts, evaluation } = await jobOf(demo.job.barn)
    expect(facts.entries.every((entry) => entry.body.kind === 'plant-change')).toBe(true)
    expect(evaluation.plant.ofKind('array').map((one) => one.data.tag)).toEqual(['East', 'West'])
    for (const one of evaluation.steps.filter((step) => step.computed)) expect(one.verdict).toBe('within')
    expect(of(evaluation, 'pv-polarity').every((one) => one.verdict === 'held-back')).toBe(true)
  })

  it('flags every simulated reading, and none that a person answered', async () => {
    const { evaluation } = await jobOf(demo.job.sealed)
    for (const one of evaluation.steps) {
      for (const reading of one.readings) {
        const { slots, conditions } = reading.entry.body
        const isSimulated = [...Object.values(slots), conditions].some((value) => value?.how === 'stand-in')
        expect(reading.flags.includes('stand-in'), one.key).toBe(isSimulated)
      }
    }
    expect(of(evaluation, 'inspection')[0]!.flags).toEqual([])
  })

  it('has a cottage whose electrode rose in a frozen winter, was mended, and is read every year', async () => {
    const { facts, evaluation } = await jobOf(demo.job.cottage)
    const [electrode] = of(evaluation, 'electrode')
    expect(facts.visits).toHaveLength(5)
    expect(electrode!.readings.map((one) => one.judgement.verdict)).toEqual(Array(5).fill('within'))
    expect(electrode).toMatchObject({ verdict: 'within', done: true })
    expect(evaluation.snags).toMatchObject([{ step: 'electrode', state: 'closed' }])
  })

  it('nulled its leads before it read with them', async () => {
    const { evaluation } = await jobOf(demo.job.sealed)
    expect(of(evaluation, 'earth-continuity')[0]!.flags).not.toContain('leads-not-nulled')
  })
})
