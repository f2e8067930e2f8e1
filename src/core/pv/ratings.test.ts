import { describe, expect, it } from 'vitest'
import { exampleModule } from '../steps/worked'
import { type Circuit, coldVoltage, dimensioningIsc_A, nextRating, ratingChecks, usualFactors } from './ratings'
import { moduleModel } from './stringModel'

const circuit: Circuit = {
  module: { ...exampleModule, maxSystemVoltage_V: 1000, maxSeriesFuse_A: 15 },
  modulesInSeries: 20,
  stringsInParallel: 1,
  lowestTemperature_C: -10,
  highestCellTemperature_C: 70,
  inverter: { maxInput_V: 1000, trackerMin_V: 250, trackerMax_V: 850, maxShortCircuit_A: 15 },
  switch: { ratedVoltage_V: 1000, rating_A: 16 },
  fuse: null,
  school: 'beta',
}
const model = moduleModel(exampleModule)
const check = (change: Partial<Circuit>, id: string) =>
  ratingChecks({ ...circuit, ...change }, model).find((one) => one.id === id)!

describe('the highest voltage in the cold', () => {
  it('takes the data sheet’s own coefficient, the silicon table, or a flat factor', () => {
    expect(coldVoltage(circuit, usualFactors)).toBeCloseTo(20 * 37.4 * (1 + 0.0031 * 35), 9)
    expect(coldVoltage({ ...circuit, school: 'table' }, usualFactors)).toBeCloseTo(20 * 37.4 * 1.14, 9)
    expect(coldVoltage({ ...circuit, school: 'flat' }, usualFactors)).toBeCloseTo(20 * 37.4 * 1.15, 9)
  })

  it('has no answer without a beta, or colder than the table goes', () => {
    expect(coldVoltage({ ...circuit, module: { ...circuit.module, beta_pctPerK: undefined } }, usualFactors)).toBeNull()
    expect(coldVoltage({ ...circuit, school: 'table', lowestTemperature_C: -45 }, usualFactors)).toBeNull()
  })

  it('is held against inverter, switch and module', () => {
    expect(check({}, 'voc-cold-inverter').verdict).toBe('within')
    expect(check({ modulesInSeries: 25 }, 'voc-cold-module').verdict).toBe('outside')
    expect(check({ switch: { ratedVoltage_V: 800, rating_A: 16 } }, 'voc-cold-switch').verdict).toBe('outside')
    expect(check({ switch: null }, 'voc-cold-switch')).toMatchObject({ verdict: 'not-yet', limit: null })
  })

  it('is close exactly on the limit', () => {
    const exact_V = coldVoltage(circuit, usualFactors)!
    expect(check({ switch: { ratedVoltage_V: exact_V, rating_A: 16 } }, 'voc-cold-switch').verdict).toBe('close')
  })
})

describe('the tracker window', () => {
  it('holds the cold working voltage against its upper edge and the hot one against its lower', () => {
    const inverter = { maxInput_V: 1000, trackerMin_V: 550, trackerMax_V: 620, maxShortCircuit_A: 15 }
    const cold = check({ inverter }, 'vmp-cold-tracker')
    const hot = check({ inverter }, 'vmp-hot-tracker')
    expect(cold.value).toBeGreaterThan(620)
    expect(hot.value).toBeLessThan(550)
    expect([cold.verdict, hot.verdict]).toEqual(['outside', 'outside'])
  })
})

describe('currents', () => {
  it('13.2 A gives 16.5 A, so a 20 A switch and not 16 A (handbook 3, common practice, no source)', () => {
    const module = { ...circuit.module, isc_A: 13.2 }
    expect(check({ module }, 'isc-switch')).toMatchObject({ value: 16.5, limit: 16, verdict: 'outside' })
    expect(nextRating(16.5)).toBe(20)
    expect(check({ module, switch: { ratedVoltage_V: 1000, rating_A: 20 } }, 'isc-switch').verdict).toBe('within')
  })

  it('of strings in parallel add up', () => {
    expect(check({ stringsInParallel: 2 }, 'isc-inverter')).toMatchObject({ value: 24, verdict: 'outside' })
  })
})

describe('string fuses', () => {
  const fuse = { ratedVoltage_V: 1000, rating_A: 15 }

  it('are not needed for one string or two, and are for three', () => {
    expect(check({}, 'fuse-needed')).toMatchObject({ value: 0, verdict: 'within' })
    const unrated = { ...circuit.module, maxSeriesFuse_A: undefined }
    expect(check({ module: unrated }, 'fuse-needed')).toMatchObject({ value: 0, limit: null, verdict: 'within' })
    expect(check({ module: unrated, stringsInParallel: 3 }, 'fuse-needed').verdict).toBe('not-yet')
    expect(check({ stringsInParallel: 2 }, 'fuse-needed')).toMatchObject({ value: 12, verdict: 'within' })
    expect(check({ stringsInParallel: 3 }, 'fuse-needed')).toMatchObject({ value: 24, limit: 15, verdict: 'outside' })
    expect(check({ stringsInParallel: 3, fuse }, 'fuse-needed').verdict).toBe('within')
  })

  it('lie between 1.5 Isc and the least of 2.4 Isc and the module’s own maximum', () => {
    expect(check({ stringsInParallel: 3, fuse }, 'fuse-range')).toMatchObject({ high: 15, verdict: 'close' })
    expect(check({ fuse: { ...fuse, rating_A: 12 } }, 'fuse-range')).toMatchObject({
      limit: 1.5 * 9.6,
      verdict: 'outside',
    })
    expect(check({ fuse: { ...fuse, rating_A: 20 } }, 'fuse-range')).toMatchObject({ limit: 15, verdict: 'outside' })
    expect(check({}, 'fuse-range').verdict).toBe('left-out')
    expect(check({ stringsInParallel: 3 }, 'fuse-range').verdict).toBe('not-yet')
  })

  it('and everything in the circuit count the light on a module’s back', () => {
    const module = { ...circuit.module, bifacialGain_pct: 10 }
    expect(dimensioningIsc_A(module)).toBeCloseTo(1.1 * 9.6, 9)
    expect(check({ module }, 'isc-switch').value).toBeCloseTo(1.25 * 1.1 * 9.6, 9)
    expect(check({ module, stringsInParallel: 2 }, 'fuse-needed').value).toBeCloseTo(1.25 * 1.1 * 9.6, 9)
    expect(check({ module, fuse }, 'fuse-range').low).toBeCloseTo(1.5 * 1.1 * 9.6, 9)
  })

  it('carry the cold voltage too', () => {
    expect(check({ fuse: { ...fuse, ratedVoltage_V: 600 } }, 'voc-cold-fuse').verdict).toBe('outside')
  })
})
