import { describe, expect, it } from 'vitest'
import { evaluate } from '../evaluate'
import { FactsBuilder } from '../testing/factsBuilder'
import { LEAD_CHANGE_min, walkOf } from './walk'

function roof(strings: number) {
  const build = new FactsBuilder()
  build.part({ kind: 'site', tag: 'Site', lowestTemperature_C: -10, highestCellTemperature_C: 70 })
  const ids = Array.from({ length: strings }, (_, k) => build.string(String(k + 1)))
  build.part({ kind: 'inverter', tag: 'INV', maxInput_V: 1000 })
  return { build, ids }
}
const names = (list: { step: { id: string }; part: { data: { tag: string } } }[]): string[] =>
  list.map((one) => `${one.step.id} ${one.part.data.tag}`)

describe('the order for the day', () => {
  const { build, ids } = roof(3)
  const evaluation = evaluate(build.facts(), 0)
  const byTest = walkOf(evaluation, 'by-test')
  const byPlace = walkOf(evaluation, 'by-place')

  it('by test is the working order', () => {
    expect(byTest.steps).toEqual(evaluation.steps)
    expect(names(byTest.steps).filter((one) => one.startsWith('pv-'))).toEqual([
      'pv-polarity 1',
      'pv-polarity 2',
      'pv-polarity 3',
      'pv-voc 1',
      'pv-voc 2',
      'pv-voc 3',
      'pv-isc 1',
      'pv-isc 2',
      'pv-isc 3',
      'pv-insulation 1',
      'pv-insulation 2',
      'pv-insulation 3',
    ])
  })

  it('by place takes all tests of one string before the leads move', () => {
    const walked = names(byPlace.steps)
    expect(walked.slice(walked.indexOf('pv-polarity 1'), walked.indexOf('pv-polarity 2'))).toEqual([
      'pv-polarity 1',
      'pv-voc 1',
      'pv-isc 1',
      'pv-insulation 1',
      'plugs-locked 1',
    ])
  })

  it('by place walks no step before one that it waits for', () => {
    const walked = names(byPlace.steps)
    expect(walked.indexOf('reconnect INV')).toBeGreaterThan(walked.indexOf('plugs-locked 3'))
    expect(walked.indexOf('operating 1')).toBeGreaterThan(walked.indexOf('reconnect INV'))
    expect(walked.at(-1)).toBe('close-out Site')
    for (const [k, one] of byPlace.steps.entries())
      for (const gate of one.gates)
        if (gate.waitsFor) expect(byPlace.steps.findIndex((other) => other.key === gate.waitsFor)).toBeLessThan(k)
  })

  it('holds the same steps either way, and moves the leads less often by place', () => {
    expect(new Set(byPlace.steps)).toEqual(new Set(byTest.steps))
    expect(byPlace.steps.length).toBe(byTest.steps.length)
    // By place each string saves one: its voltage is read with the leads as they lie after its polarity.
    expect(byTest.leadChanges - byPlace.leadChanges).toBe(3)
    expect(byTest.minutesLeft - byPlace.minutesLeft).toBe(3 * LEAD_CHANGE_min)
  })

  it('counts down as readings are kept', () => {
    for (const id of ids) build.polarity(id)
    const after = walkOf(evaluate(build.facts(), 0), 'by-test')
    expect(byTest.leadChanges - after.leadChanges).toBe(3)
    expect(byTest.minutesLeft - after.minutesLeft).toBe(3 * (1 + LEAD_CHANGE_min))
  })
})
