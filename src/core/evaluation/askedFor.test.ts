import { describe, expect, it } from 'vitest'
import { askedFor, evaluate, stepKey } from '../evaluate'
import type { PartData } from '../plant/part'
import { exampleCircuit, exampleString, exampleSupply } from '../steps/worked'
import { FactsBuilder, START_ms } from '../testing/factsBuilder'

function asked(step: string, data: PartData, answers: Record<string, string>, others: readonly PartData[] = []) {
  const build = new FactsBuilder()
  for (const other of others) build.part(other)
  const evaluation = evaluate(build.facts(), START_ms)
  const id = build.part(data)
  const whole = evaluate(build.facts(), START_ms)
  expect(evaluation.steps.length).toBeLessThan(whole.steps.length)
  const slots = Object.fromEntries(Object.entries(answers).map(([slot, choice]) => [slot, { choice }]))
  return askedFor(whole, whole.byKey.get(stepKey(step, id))!, slots)['set-voltage']
}
const surge: PartData = { kind: 'surge-protection', tag: 'SPD1', ratedVoltage_V: 600 }

describe('the test voltage that is asked, marked among the answers (IEC 62446-1 table 2 and BS 7671 643.3, from memory)', () => {
  // The example's modules give 37.4 V each: 8 make a system of 374 V, 12 one of 561 V.
  it.each([
    [8, 'v500'],
    [12, 'v1000'],
  ])('of a string of %d modules is %s', (modules, volts) => {
    expect(asked('pv-insulation', exampleString(modules), {})).toBe(volts)
  })

  it('is 250 V where surge protection is left in, on the DC side where there is some', () => {
    expect(asked('pv-insulation', exampleString(12), { surge: 'left-in' }, [surge])).toBe('v250')
    expect(asked('pv-insulation', exampleString(12), { surge: 'left-in' })).toBe('v1000')
  })

  it('of a circuit goes by its supply', () => {
    expect(asked('ac-insulation', exampleCircuit, {}, [exampleSupply])).toBe('v500')
    expect(asked('ac-insulation', exampleCircuit, { surge: 'left-in' }, [exampleSupply])).toBe('v250')
  })

  it('of a test that is set to nothing is none', () => {
    expect(asked('pv-voc', exampleString(8), {})).toBeUndefined()
  })
})
