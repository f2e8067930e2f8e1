import { describe, expect, it } from 'vitest'
import { conductor_mohmPerM, r1r2_ohm } from './conductors'
import { acInsulationTest, isLiveLive, judgeAcInsulation, pairsOf } from './insulation'

const exact = (value: number) => ({ value, bound: 'exact' as const })
const over = { value: 999, bound: 'more-than' as const }

describe('R1+R2', () => {
  it('adds both conductors over the length, and a fifth when warm', () => {
    const path = { line_mm2: 2.5, protective_mm2: 1.5, length_m: 10 }
    expect(r1r2_ohm(path)).toBeCloseTo(0.1951, 9)
    expect(r1r2_ohm(path, true)).toBeCloseTo(0.23412, 9)
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
    const judged = judgeAcInsulation({ 'L-N': over, 'L-PE': exact(1.2), 'N-PE': exact(300) }, 1, true)
    expect(judged).toMatchObject({ lowest: { value: 1.2 }, lowestLiveLive: { value: 999 }, verdict: 'close' })
  })

  it('proves nothing by a perfect reading while a device stood off, but a low one all the same', () => {
    expect(judgeAcInsulation({ 'L-PE': over }, 1, false)).toMatchObject({ verdict: 'not-yet', perfectOnOpenEnds: true })
    expect(judgeAcInsulation({ 'L-PE': exact(40) }, 1, false).verdict).toBe('within')
    expect(judgeAcInsulation({ 'L-PE': over, 'N-PE': exact(0.1) }, 1, false).verdict).toBe('outside')
    expect(judgeAcInsulation({}, 1, true).verdict).toBe('not-yet')
  })
})
