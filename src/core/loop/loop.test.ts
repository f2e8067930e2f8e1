import { describe, expect, it } from 'vitest'
import { belowWhatZeGives, faultCurrents } from './faultCurrent'
import { maxZs_ohm, operatingCurrent_A } from './maxZs'

describe('the highest loop of a device', () => {
  it('follows the breaker’s curve and rating', () => {
    expect(maxZs_ohm('B', 32)).toBeCloseTo(1.365625, 9)
    expect(maxZs_ohm('C', 32)! * 2).toBeCloseTo(maxZs_ohm('B', 32)!, 9)
    expect(maxZs_ohm('D', 32)! * 4).toBeCloseTo(maxZs_ohm('B', 32)!, 9)
  })

  it('has no row for a fuse that the table lacks', () => {
    expect(maxZs_ohm('gG', 13)).toBeNull()
    expect(operatingCurrent_A('gG', 13)).toBeNull()
  })

  it('gives the current that opens it back', () => {
    expect(operatingCurrent_A('B', 32)).toBeCloseTo(160, 9)
    expect(operatingCurrent_A('gG', 16)).toBeCloseTo((0.95 * 230) / 2.43, 9)
  })
})

describe('currents of a point', () => {
  it('says that a PEFC below U0/Ze cannot be, beyond the readings’ own uncertainty', () => {
    expect(belowWhatZeGives(799, 0.23, 230, 10)).toBe(true)
    expect(belowWhatZeGives(950, 0.23, 230, 10)).toBe(false)
    expect(belowWhatZeGives(1400, 0.23, 230, 10)).toBe(false)
  })

  it('lets three phases count where they are more than the earth fault', () => {
    const loops = { lineEarth_ohm: 0.1, lineNeutral_ohm: 0.4, nominal_V: 230 } as const
    expect(faultCurrents({ ...loops, phases: 1 }).ipf_A).toBeCloseTo(2300, 6)
    expect(faultCurrents({ ...loops, phases: 3 }).ipf_A).toBeCloseTo(2300, 6)
    expect(faultCurrents({ ...loops, lineEarth_ohm: 0.5, phases: 3 }).ipf_A).toBeCloseTo(1150, 6)
  })
})
