import { describe, expect, it } from 'vitest'
import { exactly, spanOf } from '../quantity/span'
import { electrodeLimit_ohm, judgeElectrode, meanAndSpread } from './electrode'
import { evenSoilAt, fitEvenSoil, probePlaces, readAt, readOverTrue, TRUE_SHARE } from './fallOfPotential'
import { angleTo, awayFrom, bestBearing, endsWithin, placeAt, runsAlong } from './garden'
import { planFor } from './planner'
import {
  discResistance_ohm,
  planOf,
  rodResistance_ohm,
  rodsInLine_ohm,
  rodsNeeded,
  soilOf,
  tooGood,
  wennerResistivity_ohm_m,
} from './rods'

const rod = { resistivity_ohm_m: 100, length_m: 3, diameter_m: 0.016 }
const shape = { form: 'rods', length_m: 3, diameter_m: 0.016, depth_m: null } as const

describe('mean and spread', () => {
  it('takes the range or the greatest deviation', () => {
    expect(
      meanAndSpread(
        [18.3, 17.7, 18.3].map((one) => exactly(one)),
        exactly(0),
        'range',
      ).spread_pct,
    ).toBeCloseTo(3.3149, 3)
    // Greatest deviation from 18.1 is 0.4; 1.2 * 0.4 / 18.1.
    expect(
      meanAndSpread(
        [18.3, 17.7, 18.3].map((one) => exactly(one)),
        exactly(0),
        'deviation',
      ).spread_pct,
    ).toBeCloseTo(2.6519, 3)
  })

  it('has none for one reading, and for readings that the lead eats', () => {
    expect(meanAndSpread([exactly(40)], exactly(1), 'range')).toMatchObject({ mean: exactly(39), spread_pct: null })
    expect(meanAndSpread([exactly(1), exactly(1.2)], exactly(2), 'range').spread_pct).toBeNull()
    const over = spanOf({ value: 1999, bound: 'more-than' }, 0)
    expect(meanAndSpread([over, over], exactly(0), 'range')).toMatchObject({
      mean: { bound: 'more-than' },
      spread_pct: null,
    })
    expect(() => meanAndSpread([], exactly(0), 'range')).toThrow('expected readings')
  })
})

describe('the limit of an electrode', () => {
  it('is as printed at 50 V only', () => {
    expect(electrodeLimit_ohm(30, 50)).toBe(1667)
    expect(electrodeLimit_ohm(30, 25)).toBeCloseTo(833.33, 2)
    expect(electrodeLimit_ohm(10, 50)).toBe(5000)
  })

  it('is set by the device that asks most', () => {
    const ask = { leads: exactly(0), method: 'three-lead', spreadSchool: 'range', touch_V: 50, spread_pct: 5 } as const
    const judged = judgeElectrode({
      ...ask,
      readings: [180, 181, 182].map((one) => exactly(one)),
      ratedResidualCurrents_mA: [30, 300],
      unstable_ohm: 200,
    })
    expect(judged.limits.map((one) => one.verdict)).toEqual(['within', 'outside'])
    expect(judged.verdict).toBe('outside')
  })

  it('asks for the lead again where it is more than was read', () => {
    const judged = judgeElectrode({
      readings: [exactly(0.8)],
      leads: exactly(1),
      method: 'loop',
      ratedResidualCurrents_mA: [30],
      spreadSchool: 'range',
      touch_V: 50,
      spread_pct: 5,
      unstable_ohm: 200,
    })
    expect(judged).toMatchObject({ verdict: 'not-yet', findings: ['no-reading'] })
  })

  it('goes by the highest of several loops, and what they differ by is its uncertainty', () => {
    const judged = judgeElectrode({
      readings: [exactly(150), exactly(170)],
      leads: exactly(0),
      method: 'loop',
      ratedResidualCurrents_mA: [300],
      spreadSchool: 'range',
      touch_V: 50,
      spread_pct: 5,
      unstable_ohm: 200,
    })
    expect(judged).toMatchObject({ verdict: 'outside', value: { least: 170, whisker: 10 } })
  })

  it('is never within for the mean of displays that ran over their range', () => {
    const over = spanOf({ value: 199, bound: 'more-than' }, 0)
    const judged = judgeElectrode({
      readings: [over, over, over],
      leads: exactly(0),
      method: 'three-lead',
      ratedResidualCurrents_mA: [30],
      spreadSchool: 'range',
      touch_V: 50,
      spread_pct: 5,
      unstable_ohm: 200,
    })
    expect(judged.verdict).toBe('not-yet')
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
    const plan = planOf(shape, 100, 3)!
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
    for (const count of [1, 2, 5]) expect(soilOf(shape, count, 3, rodsInLine_ohm(rod, count, 3))).toBeCloseTo(100, 9)
    expect(soilOf(shape, 11, 3, 10)).toBeNull()
    expect(soilOf({ ...shape, diameter_m: null }, 1, 3, 10)).toBeNull()
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

describe('discs', () => {
  // Dwight 1936 (from memory): rho/(8 a) + rho/(4 pi s) (1 - 7/12 (a/s)^2 + ...), s twice the depth.
  const dwight = (rho: number, a: number, depth: number): number => {
    const s = 2 * depth
    return rho / (8 * a) + (rho / (4 * Math.PI * s)) * (1 - (7 / 12) * (a / s) ** 2 + (33 / 40) * (a / s) ** 4)
  }
  it.each([
    [0.3, 1],
    [0.3, 0.6],
    [0.5, 2],
  ])('of radius %f m at %f m are within a half per cent of the published series', (radius, depth) => {
    expect(discResistance_ohm(100, 2 * radius, depth) / dwight(100, radius, depth)).toBeCloseTo(1, 2)
  })

  it('have half as much deep down as at the surface', () => {
    expect(discResistance_ohm(100, 0.6, 1e6)).toBeCloseTo(100 / 2.4, 3)
    expect(discResistance_ohm(100, 0.6, 1e-6)).toBeCloseTo(100 / 1.2, 2)
    expect(() => discResistance_ohm(100, 0, 1)).toThrow('a diameter and a depth')
  })
})

describe('a curve of places', () => {
  const shares = [0.2, 0.3, 0.4, 0.5, 0.6, 0.7, 0.8]
  const even = shares.map((share) => ({ share, read_ohm: 20 * readOverTrue(1, 30, share) }))

  it('is read off between its places', () => {
    const points = [
      { share: 0.7, read_ohm: 21 },
      { share: 0.6, read_ohm: 20 },
    ]
    expect(readAt(points, 0.618)).toBeCloseTo(20.18, 9)
    expect(readAt(points, 0.6)).toBe(20)
    expect(readAt(points, 0.5)).toBeNull()
  })

  it('in even soil gives resistance and reach back', () => {
    const soil = fitEvenSoil(even)
    expect(soil.resistance_ohm).toBeCloseTo(20, 9)
    expect(soil.reach).toBeCloseTo(1 / 30, 9)
    expect(soil.off_pct).toBeCloseTo(0, 9)
    expect(evenSoilAt(soil, TRUE_SHARE)).toBeCloseTo(20, 9)
  })

  it('says how far one place lies off', () => {
    const bent = even.map((one, k) => (k === 4 ? { ...one, read_ohm: one.read_ohm + 3 } : one))
    expect(fitEvenSoil(bent).off_pct).toBeGreaterThan(8)
    expect(() => fitEvenSoil(even.slice(0, 2))).toThrow('three places')
  })
})

describe('the ground from above', () => {
  it('has places by bearing and distance, clockwise from north', () => {
    expect(placeAt(90, 4).east_m).toBeCloseTo(4, 12)
    expect(placeAt(180, 4).north_m).toBeCloseTo(-4, 12)
  })

  it('knows how far a place is from a straight service', () => {
    const east = { bearing_deg: 90, away_m: 4 }
    expect(awayFrom(east, { east_m: 1, north_m: 7 })).toBeCloseTo(3, 12)
    expect(awayFrom(east, placeAt(90, 10))).toBeCloseTo(6, 12)
  })

  it('tells alongside from across', () => {
    const east = { bearing_deg: 90, away_m: 4 }
    expect(angleTo(east, 0)).toBeCloseTo(0, 9)
    expect(angleTo(east, 180)).toBeCloseTo(0, 9)
    expect(angleTo(east, 270)).toBeCloseTo(90, 9)
    expect(angleTo(east, 45)).toBeCloseTo(45, 9)
  })

  it.each([
    [0, 4, true],
    [0, 12, false],
    [90, 4, false],
    [20, 4, true],
  ])('a way at %f degrees past a pipe %f m east of it: alongside is %s', (bearing_deg, away_m, along) => {
    expect(runsAlong({ bearing_deg: 90, away_m }, { bearing_deg, distance_m: 40 })).toBe(along)
  })

  it('draws a service as far as the circle reaches', () => {
    const [a, b] = endsWithin({ bearing_deg: 90, away_m: 3 }, 5)!
    expect([a.east_m, b.east_m]).toEqual([expect.closeTo(3, 12), expect.closeTo(3, 12)])
    expect(Math.abs(a.north_m - b.north_m)).toBeCloseTo(8, 12)
    expect(endsWithin({ bearing_deg: 0, away_m: 6 }, 5)).toBeNull()
  })

  it('finds the way that crosses metal and keeps off everything', () => {
    const pipe = { bearing_deg: 90, away_m: 4, isMetal: true }
    expect(bestBearing([pipe], 40, [0.52, 0.62, 0.72, 1])).toBe(90)
    expect(bestBearing([], 40, [1])).toBe(0)
    // A cable right at the end of that way sends it a little aside.
    const across = { bearing_deg: 90, away_m: 40, isMetal: false }
    expect(bestBearing([pipe, across], 40, [0.62, 1])).not.toBe(90)
  })
})

describe('the planning sheet', () => {
  const ask = { shape, spacing_m: 3, target_ohm: 10, soil: { from: 'given', resistivity_ohm_m: 100 } } as const

  it('says how many meet the target, and what a rod as long as all of them would have', () => {
    const plan = planFor(ask)!
    expect(plan.needed).toBe(rodsNeeded(rod, 3, 10))
    expect(plan.rows[1]!.brings_ohm).toBeCloseTo(plan.rows[0]!.combined_ohm - plan.rows[1]!.combined_ohm, 9)
    expect(plan.rows[1]!.asOneDeep_ohm).toBeCloseTo(rodResistance_ohm({ ...rod, length_m: 6 }), 9)
    expect(planFor({ ...ask, target_ohm: 0.5 })).toMatchObject({ needed: null, deepNeeded: null })
  })

  it('takes the soil from four spikes', () => {
    const plan = planFor({ ...ask, soil: { from: 'wenner', apart_m: 3, read_ohm: 5.3052 } })!
    expect(plan.resistivity_ohm_m).toBeCloseTo(100, 2)
  })

  it('plans discs too, none of them deep, and nothing of an unknown shape', () => {
    const disc = { form: 'disc', length_m: null, diameter_m: 0.6, depth_m: 1 } as const
    const plan = planFor({ ...ask, shape: disc })!
    expect(plan.rows[0]!.combined_ohm).toBeCloseTo(discResistance_ohm(100, 0.6, 1), 9)
    expect(plan.rows.every((row) => row.asOneDeep_ohm === null)).toBe(true)
    expect(planFor({ ...ask, shape: { ...shape, length_m: null } })).toBeNull()
    expect(planFor({ ...ask, shape: { ...shape, diameter_m: 30 } })).toBeNull()
  })
})
