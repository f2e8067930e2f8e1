import { describe, expect, it } from 'vitest'
import { evaluate, evaluateDraft, stepKey } from '../evaluate'
import type { Instrument } from '../record/instrument'
import { exampleModule, exampleString } from '../steps/worked'
import { FactsBuilder, readingBody, START_ms, testId } from '../testing/factsBuilder'

const COLD_C = -10
/** Eight of the example's modules in the cold, V, and what a joining switch carries of one of them, A. */
const COLD_V = 8 * exampleModule.voc_V * (1 + (exampleModule.beta_pctPerK / 100) * (COLD_C - 25))
const CARRIES_A = 1.25 * exampleModule.isc_A

const tester = (joining?: Instrument['joining']): Instrument => ({
  id: testId(70),
  tag: '7',
  name: 'Tester',
  serial: '',
  calibrationDue: null,
  standIn: false,
  ranges: [{ measures: 'insulation', accuracy: { ofReading_pct: 3, digits: 2 }, most: 999, decimals: 0 }],
  ...(joining ? { joining } : {}),
})

function trap(joining: Instrument['joining'] | undefined, choices: Record<string, string>) {
  const build = new FactsBuilder()
  build.part({
    kind: 'site',
    tag: 'Site',
    lowestTemperature_C: COLD_C,
    highestCellTemperature_C: 70,
  })
  const arrayId = build.part({ kind: 'array', tag: 'A', tilt_deg: 20, azimuth_deg: 170, mounting: 'open-rack' })
  const [id] = ['1', '2'].map((tag) => build.part({ ...exampleString(8), tag, arrayId }))
  const facts = { ...build.facts(), instruments: [tester(joining)] }
  const evaluation = evaluate(facts, START_ms)
  const one = evaluation.byKey.get(stepKey('pv-insulation', id!))!
  const slots = Object.fromEntries(Object.entries(choices).map(([slot, choice]) => [slot, { choice }]))
  return evaluateDraft(evaluation, one, readingBody({ slots })).trap
}
const JOINED = { method: 'joined-to-earth' }

describe('joining plus and minus of a string', () => {
  it('waits for a switch that is made for its cold volts and 1.25 times its current', () => {
    expect(trap({ most_V: COLD_V + 1, most_A: CARRIES_A + 0.1 }, JOINED)).toBeNull()
    expect(trap({ most_V: COLD_V - 1, most_A: 40 }, JOINED)).toMatchObject({
      code: 'kit.joining-too-weak',
      figures: { needed_V: expect.closeTo(COLD_V, 6), needed_A: expect.closeTo(CARRIES_A, 6) },
    })
    expect(trap({ most_V: 1000, most_A: CARRIES_A - 0.1 }, JOINED)?.code).toBe('kit.joining-too-weak')
  })

  it('carries the current of a whole group where it is joined together', () => {
    const group = { ...JOINED, together: 'with-its-group' }
    expect(trap({ most_V: 1000, most_A: 2 * CARRIES_A - 0.1 }, group)?.code).toBe('kit.joining-too-weak')
    expect(trap({ most_V: 1000, most_A: 2 * CARRIES_A + 0.1 }, group)).toBeNull()
  })

  it('is nobody’s matter where each way is read in turn, or nobody entered a switch', () => {
    expect(trap({ most_V: 10, most_A: 1 }, { method: 'each-to-earth' })).toBeNull()
    expect(trap(undefined, JOINED)).toBeNull()
  })
})
