import { describe, expect, it } from 'vitest'
import { evaluate } from '../evaluate'
import type { PartData } from '../plant/part'
import { exampleModule } from '../steps/worked'
import { FactsBuilder, START_ms, testId } from '../testing/factsBuilder'
import { Installation } from '../testing/installation'
import { consequencesOf } from './consequences'
import { checkOf, troublesOf } from './troubles'

const moduleType = {
  id: testId(1),
  make: 'Example',
  name: 'Sixty',
  data: { ...exampleModule, isc_A: 13.2, imp_A: 12.6, maxSystemVoltage_V: 1000 },
}

/** Two strings that are unlike on one 16 A switch and a 500 V inverter; 1.25 * 13.2 A is 16.5 A. */
function roof(rating_A = 16) {
  const builder = new FactsBuilder(false)
  builder.part({ kind: 'site', tag: 'Site', lowestTemperature_C: -10, highestCellTemperature_C: 70 })
  const arrayId = builder.part({ kind: 'array', tag: 'Barn', tilt_deg: 20, azimuth_deg: 160, mounting: 'open-rack' })
  const string = (tag: string, modulesInSeries: number, input: string) =>
    builder.part({ kind: 'string', tag, arrayId, modulesInSeries, moduleType, input })
  const short = string('1', 8, 'A')
  const long = string('2', 14, 'B')
  const dc = builder.part({ kind: 'dc-switch', tag: 'DC1', ratedVoltage_V: 1000, rating_A })
  builder.part({
    kind: 'inverter',
    tag: 'INV',
    maxInput_V: 500,
    trackerMin_V: 100,
    trackerMax_V: 480,
    maxShortCircuit_A: 30,
  })
  return { evaluation: evaluate(builder.facts(), START_ms), short, long, dc }
}

describe('what follows from a part', () => {
  it('is that string’s own, not its longer neighbour’s', () => {
    const { evaluation, short, long } = roof(25)
    const voltage = (id: string) =>
      consequencesOf(evaluation, evaluation.parts.get(id)!).find((one) => one.step === 'design-voltage')!
    expect(voltage(short).verdict).toBe('within')
    expect(voltage(long).verdict).toBe('outside')
    expect(voltage(long).finding?.figures).toMatchObject({ what: 'voc-cold-inverter', tag: '2' })
  })

  it('is there while it is typed, the worst first, and changes nothing', () => {
    const { evaluation, short } = roof()
    const part = evaluation.parts.get(short)!
    const typed = { ...part.data, modulesInSeries: 20 } as PartData
    const list = consequencesOf(evaluation, part, typed)
    expect(list[0]!.verdict).toBe('outside')
    expect(list.map((one) => one.step)).toContain('design-voltage')
    expect(consequencesOf(evaluation, part)[0]!.step).toBe('design-current')
    expect(evaluation.parts.get(short)!.data).toMatchObject({ modulesInSeries: 8 })
  })

  it('is told of a switch by what goes through it', () => {
    const { evaluation, dc } = roof()
    const part = evaluation.parts.get(dc)!
    const carried = (data = part.data) =>
      consequencesOf(evaluation, part, data).find((one) => one.step === 'design-current')!
    expect(carried().verdict).toBe('outside')
    expect(carried({ ...part.data, rating_A: 25 } as PartData).verdict).toBe('within')
  })

  it('tells a circuit what it should read and how much it may be', () => {
    const evaluation = evaluate(new Installation().facts, 0)
    const list = consequencesOf(evaluation, evaluation.plant.ofKind('circuit')[0]!)
    const told = (step: string) => list.find((one) => one.step === step)?.line?.result
    expect(told('r1r2')).toMatchObject({ unit: 'ohm' })
    // BS 7671:2018 table 41.3 (from memory): 230 V * 0.95 / (5 * 32 A) is 1.366 ohm for a B32.
    expect(told('zs')!.value).toBeCloseTo(1.366, 3)
    expect(list.map((one) => one.verdict)).toEqual(list.map(() => null))
  })
})

describe('what the check of the plant finds', () => {
  it('is blamed on the device whose plate is passed', () => {
    const { evaluation } = roof()
    const blamed = troublesOf(evaluation).map(({ part, one }) => [one.step.id, part.data.tag, one.verdict])
    expect(blamed).toContainEqual(['design-current', 'DC1', 'outside'])
    expect(blamed).toContainEqual(['design-voltage', 'INV', 'outside'])
    expect(checkOf(evaluation)?.verdict).toBe('outside')
  })

  it('is nothing where nothing is checked', () => {
    expect(checkOf(evaluate(new FactsBuilder(false).facts(), START_ms))).toBeNull()
  })
})
