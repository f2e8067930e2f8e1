import { describe, expect, it } from 'vitest'
import { carries_A } from './carries'
import { conductor_mohmPerM, crossSections_mm2, metals, r1r2_ohm } from './conductors'
import { acInsulationTest, isLiveLive, judgePairs, pairsOf, type Resistance, repeatsVerdict } from './insulation'

const exact = (value: number): Resistance => ({ value, bound: 'exact' })
const over: Resistance = { value: 999, bound: 'more-than' }

describe('R1+R2', () => {
  it('adds both conductors over the length, and a fifth when warm', () => {
    const path = { line_mm2: 2.5, protective_mm2: 1.5, length_m: 10 }
    expect(r1r2_ohm(path)).toBeCloseTo(0.1951, 9)
    expect(r1r2_ohm(path, true)).toBeCloseTo(0.23412, 9)
  })

  // Resistivity at 20 degC, nanoohm metre: IEC 60028 (copper) and IEC 60889 (aluminium), from memory.
  it.each([
    ['copper', 17.241],
    ['aluminium', 28.264],
  ] as const)('of %s is what its metal makes of it, and a little more for its twist', (metal, resistivity) => {
    const known = crossSections_mm2.filter((area) => conductor_mohmPerM(area, metal) !== null)
    expect(known.length).toBeGreaterThan(11)
    for (const area of known) {
      const share = conductor_mohmPerM(area, metal)! / (resistivity / area)
      expect(share, `${area} mm2`).toBeGreaterThan(1)
      expect(share, `${area} mm2`).toBeLessThan(1.15)
    }
  })

  it('is of copper where nobody said of what', () => {
    const path = { line_mm2: 25, protective_mm2: 16, length_m: 30 }
    expect(r1r2_ohm(path)).toBe(r1r2_ohm({ ...path, metal: 'copper' }))
    // (1.20 + 1.91) x 30 / 1000
    expect(r1r2_ohm({ ...path, metal: 'aluminium' })).toBeCloseTo(0.0933, 9)
    expect(r1r2_ohm({ ...path, protective_mm2: 6, metal: 'aluminium' })).toBeNull()
    for (const metal of metals) expect(carries_A({ line_mm2: 3, metal })).toBeNull()
    expect(carries_A({ line_mm2: 25, metal: 'aluminium' })).toBeLessThan(carries_A({ line_mm2: 25 })!)
  })

  it('says nothing of a conductor that the table lacks', () => {
    expect(conductor_mohmPerM(3)).toBeNull()
    expect(r1r2_ohm({ line_mm2: 2.5, protective_mm2: 3, length_m: 10 })).toBeNull()
  })
})

describe('AC insulation', () => {
  it('takes voltage and least from the nominal voltage', () => {
    expect(acInsulationTest(50, false)).toEqual({ testVoltage_V: 250, minimum_Mohm: 0.5 })
    expect(acInsulationTest(400, false)).toEqual({ testVoltage_V: 500, minimum_Mohm: 1 })
    expect(acInsulationTest(690, false)).toEqual({ testVoltage_V: 1000, minimum_Mohm: 1 })
    expect(acInsulationTest(230, true)).toEqual({ testVoltage_V: 250, minimum_Mohm: 1 })
  })

  it('reads every pair of a circuit: three of one phase, ten of three', () => {
    expect(pairsOf[1].filter(isLiveLive)).toEqual(['L-N'])
    expect(pairsOf[3].filter(isLiveLive)).toHaveLength(6)
    expect(pairsOf[3].filter((pair) => !isLiveLive(pair))).toHaveLength(4)
  })

  it('shows the lowest of each kind and judges by the lowest of all', () => {
    const judged = judgePairs({ 'L-N': over, 'L-PE': exact(1.2), 'N-PE': exact(300) }, 1, true)
    expect(judged).toMatchObject({ lowest: { value: 1.2 }, lowestLiveLive: { value: 999 }, verdict: 'close' })
  })

  it('proves nothing by a perfect reading while a device stood off, but a low one all the same', () => {
    const all = (read: Resistance) => ({ 'L-N': exact(60), 'L-PE': read, 'N-PE': exact(50) })
    expect(judgePairs({ ...all(exact(40)), 'L-PE': over }, 1, false)).toMatchObject({
      verdict: 'not-yet',
      perfectOnOpenEnds: true,
    })
    expect(judgePairs(all(exact(40)), 1, false).verdict).toBe('within')
    expect(judgePairs({ 'L-PE': over, 'N-PE': exact(0.1) }, 1, false).verdict).toBe('outside')
    expect(judgePairs({}, 1, true).verdict).toBe('not-yet')
  })

  it('is not decided by the pairs that were read where one of them was not', () => {
    expect(judgePairs({ 'L-PE': exact(40), 'N-PE': exact(40) }, 1, true)).toMatchObject({
      verdict: 'not-yet',
      wanting: ['L-N'],
    })
    expect(judgePairs({ 'L1-PE': exact(40), 'N-PE': exact(40) }, 1, true).wanting).toHaveLength(8)
    expect(judgePairs({ 'L+N-PE': exact(40), 'L-N': exact(40) }, 1, true).verdict).toBe('within')
  })

  it('never goes by the best of several tries, nor by what stands beside an undecided one', () => {
    expect(repeatsVerdict([exact(40), exact(0.3), exact(40)], 1)).toBe('outside')
    expect(repeatsVerdict([exact(40), { value: 5, bound: 'less-than' }], 1)).toBe('not-yet')
    expect(
      judgePairs({ 'L-N': exact(60), 'L-PE': { value: 5, bound: 'less-than' }, 'N-PE': exact(50) }, 1, true),
    ).toMatchObject({ verdict: 'not-yet', lowest: { value: 5 } })
  })
})
