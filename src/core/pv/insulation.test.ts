import { describe, expect, it } from 'vitest'
import { continuityExpected } from './continuity'
import { earthFault } from './earthFault'
import { lowestOf, repeatsVerdict } from '../circuit/insulation'
import { insulationTest } from './insulation'

const ask = { vocStc_V: 299.2, school: 'table' as const, workingVoltage_V: null, maxSystemVoltage_V: null }

describe('the insulation test', () => {
  // IEC 62446-1:2016 table 2 (from memory): the edges of its rows, given as string Voc at STC.
  it.each([
    [95.9, 250, 0.5],
    [96, 500, 1],
    [400, 500, 1],
    [400.1, 1000, 1],
    [800, 1000, 1],
    [800.1, 1500, 1],
  ])('of a string of %d V by the table is made at %d V, least %d MΩ', (vocStc_V, testVoltage_V, minimum_Mohm) => {
    expect(insulationTest({ ...ask, vocStc_V })).toEqual({ testVoltage_V, minimum_Mohm, loweredFrom_V: null })
  })

  it('is made at 500 V in the fixed school', () => {
    expect(insulationTest({ ...ask, vocStc_V: 60, school: 'fixed' })).toMatchObject({
      testVoltage_V: 500,
      minimum_Mohm: 1,
    })
  })

  it('the step is the next above twice the working voltage, or one reached within 5 % (common practice, no source)', () => {
    expect(insulationTest({ ...ask, school: 'twice', workingVoltage_V: 248 })!.testVoltage_V).toBe(500)
    expect(insulationTest({ ...ask, school: 'twice', workingVoltage_V: 252 })!.testVoltage_V).toBe(500)
    expect(insulationTest({ ...ask, school: 'twice', workingVoltage_V: 263 })!.testVoltage_V).toBe(1000)
    expect(insulationTest({ ...ask, school: 'twice', workingVoltage_V: 900 })!.testVoltage_V).toBe(1500)
  })

  it('goes no higher than the modules’ maximum system voltage, and says so', () => {
    expect(insulationTest({ ...ask, vocStc_V: 700, maxSystemVoltage_V: 800 })).toEqual({
      testVoltage_V: 500,
      minimum_Mohm: 1,
      loweredFrom_V: 1000,
    })
    expect(insulationTest({ ...ask, maxSystemVoltage_V: 200 })).toBeNull()
  })
})

describe('insulation readings', () => {
  const exact = (value: number) => ({ value, bound: 'exact' as const })
  const over = (value: number) => ({ value, bound: 'more-than' as const })

  it('900 MΩ, risen to it, is within (handbook 17, common practice, no source)', () => {
    expect(repeatsVerdict([exact(640), exact(810), exact(900)], 1)).toBe('within')
  })

  it('are judged by the lowest, never by the best try', () => {
    expect(repeatsVerdict([exact(200), exact(0.8), exact(300)], 1)).toBe('outside')
    expect(lowestOf([exact(5), over(999)], 1)).toEqual(exact(5))
  })

  it('of one to two times the least are close', () => {
    expect(repeatsVerdict([exact(1)], 1)).toBe('close')
    expect(repeatsVerdict([exact(2)], 1)).toBe('close')
    expect(repeatsVerdict([exact(2.01)], 1)).toBe('within')
  })

  it('over range clears the least, and too low a range decides nothing', () => {
    expect(repeatsVerdict([over(999)], 1)).toBe('within')
    expect(repeatsVerdict([over(0.5)], 1)).toBe('not-yet')
    expect(repeatsVerdict([{ value: 0.01, bound: 'less-than' }], 1)).toBe('outside')
    expect(repeatsVerdict([], 1)).toBe('not-yet')
  })
})

describe('an earth fault', () => {
  // Built the other way round: a fault of 200 kΩ after 4 of 12 modules, seen by a meter of 10 MΩ.
  const Rm = 1e7
  const Rf = 2e5
  const voc = 480
  const seen = (share: number) => (voc * share * Rm) / (Rm + Rf)

  it('is found where it was put', () => {
    const found = earthFault({
      voc_V: voc,
      positiveToEarth_V: seen(4 / 12),
      negativeToEarth_V: seen(8 / 12),
      meterResistance_ohm: Rm,
      modulesInSeries: 12,
    })!
    expect(found.fraction).toBeCloseTo(4 / 12, 12)
    expect(found.afterModule).toBe(4)
    expect(found.faultResistance_ohm / Rf).toBeCloseTo(1, 9)
  })

  it('is none where both voltages are near nothing, and impossible above Voc', () => {
    const clean = {
      voc_V: 480,
      positiveToEarth_V: 3,
      negativeToEarth_V: 4,
      meterResistance_ohm: Rm,
      modulesInSeries: 12,
    }
    expect(earthFault(clean)).toBeNull()
    expect(() => earthFault({ ...clean, positiveToEarth_V: 300, negativeToEarth_V: 200 })).toThrow(RangeError)
  })
})

describe('the path to earth', () => {
  it('of 20 m of 6 mm² and two joints reads 0.157 Ω', () => {
    expect(continuityExpected({ length_m: 20, area_mm2: 6, joints: 2 }, 0.05)).toBeCloseTo(0.05747 + 0.1, 4)
  })
})
