import { describe, expect, it } from 'vitest'
import { electrodeLimit_ohm, judgeElectrode, meanAndSpread } from './electrode'
import { probePlaces, readOverTrue, TRUE_SHARE } from './fallOfPotential'
import {
  planOfRods,
  rodResistance_ohm,
  rodsInLine_ohm,
  rodsNeeded,
  soilFrom,
  tooGood,
  wennerResistivity_ohm_m,
} from './rods'

const rod = { resistivity_ohm_m: 100, length_m: 3, diameter_m: 0.016 }

describe('mean and spread', () => {
  it('takes the range or the greatest deviation', () => {
    expect(meanAndSpread([16.1, 15.5, 16.1], 0, 'range').spread_pct).toBeCloseTo(3.774, 3)
    // Greatest deviation from 15.9 is 0.4; 1.2 * 0.4 / 15.9.
    expect(meanAndSpread([16.1, 15.5, 16.1], 0, 'deviation').spread_pct).toBeCloseTo(3.0189, 3)
  })

  it('has none for one reading, and for readings that the lead eats', () => {
    expect(meanAndSpread([40], 1, 'range')).toEqual({ mean_ohm: 39, spread_pct: null })
    expect(meanAndSpread([1, 1.2], 2, 'range').spread_pct).toBeNull()
    expect(() => meanAndSpread([], 0, 'range')).toThrow('expected readings')
  })
})

describe('the limit of an electrode', () => {
  it('is as printed at 50 V only', () => {
    expect(electrodeLimit_ohm(30, 50)).toBe(1667)
    expect(electrodeLimit_ohm(30, 25)).toBeCloseTo(833.33, 2)
    expect(electrodeLimit_ohm(10, 50)).toBe(5000)
  })

  it('is set by the device that asks most', () => {
    const ask = { leads_ohm: 0, method: 'three-lead', spreadSchool: 'range', touch_V: 50, spread_pct: 5 } as const
    const judged = judgeElectrode({
      ...ask,
      readings_ohm: [180, 181, 182],
      ratedResidualCurrents_mA: [30, 300],
      unstable_ohm: 200,
    })
    expect(judged.limits.map((one) => one.verdict)).toEqual(['within', 'outside'])
    expect(judged.verdict).toBe('outside')
  })

  it('asks for the lead again where it is more than was read', () => {
    const judged = judgeElectrode({
      readings_ohm: [0.8],
      leads_ohm: 1,
      method: 'loop',
      ratedResidualCurrents_mA: [30],
      spreadSchool: 'range',
      touch_V: 50,
      spread_pct: 5,
      unstable_ohm: 200,
    })
    expect(judged).toMatchObject({ verdict: 'not-yet', findings: ['no-reading'] })
  })
})

describe('rods', () => {
  it('two rods never quite halve one, and far apart they nearly do', () => {
    const single = rodResistance_ohm(rod)
    expect(rodsInLine_ohm(rod, 2, 3)).toBeGreaterThan(single / 2)
    expect(rodsInLine_ohm(rod, 2, 3000) / (single / 2)).toBeCloseTo(1, 3)
    expect(rodsInLine_ohm(rod, 1, 3)).toBe(single)
  })

  it('shows what each further rod brings, and how many reach a target', () => {
    const plan = planOfRods(rod, 3)
    expect(plan).toHaveLength(10)
    for (let k = 1; k < plan.length; k++) expect(plan[k]!.combined_ohm).toBeLessThan(plan[k - 1]!.combined_ohm)
    const needed = rodsNeeded(rod, 3, 10)!
    expect(plan[needed - 1]!.combined_ohm).toBeLessThanOrEqual(10)
    expect(plan[needed - 2]!.combined_ohm).toBeGreaterThan(10)
  })

  it('says when several read less than they could', () => {
    expect(tooGood(6.4, 20, 3)).toBe(true)
    expect(tooGood(12.1, 20, 2)).toBe(false)
    expect(tooGood(5, 20, 1)).toBe(false)
  })

  it('refuses what is no rod or beyond the table', () => {
    expect(() => rodResistance_ohm({ ...rod, diameter_m: 30 })).toThrow('longer than thick')
    expect(() => rodsInLine_ohm(rod, 11, 3)).toThrow('1 to 10')
  })

  it('tells the soil from what rods in it read', () => {
    const size = { length_m: 3, diameter_m: 0.016 }
    for (const count of [1, 2, 5]) expect(soilFrom(size, count, 3, rodsInLine_ohm(rod, count, 3))).toBeCloseTo(100, 9)
  })

  it('reads resistivity from four spikes', () => {
    expect(wennerResistivity_ohm_m(3, 5.3052)).toBeCloseTo(100, 2)
  })
})

describe('fall of potential in even soil', () => {
  it('reads true at 61.8 % of the way, whatever the electrode', () => {
    for (const radius of [0.1, 0.5, 2]) expect(readOverTrue(radius, 40, TRUE_SHARE)).toBeCloseTo(1, 12)
  })

  it('reads low before and high beyond', () => {
    expect(readOverTrue(1, 40, 0.5)).toBeLessThan(1)
    expect(readOverTrue(1, 40, 0.75)).toBeGreaterThan(1)
    expect(() => readOverTrue(1, 40, 0.01)).toThrow('between electrode')
    expect(() => readOverTrue(1, 40, 1)).toThrow('between electrode')
  })

  it('puts the spike by school', () => {
    expect(probePlaces('sixty-two', 40)).toEqual([24.8, 20.8, 28.8])
    expect(probePlaces('halfway', 40)).toEqual([20, 14, 26])
    expect(probePlaces('halfway', 12)).toEqual([6, 3, 9])
  })
})
