import { describe, expect, it } from 'vitest'
import { belowWhatZeGives, faultCurrents } from './faultCurrent'
import { disconnection_s, maxZs_ohm } from './maxZs'

describe('the highest loop of a device', () => {
  it('follows the breaker’s curve and rating', () => {
    expect(maxZs_ohm('B', 32)).toBeCloseTo(1.365625, 9)
    expect(maxZs_ohm('C', 32)! * 2).toBeCloseTo(maxZs_ohm('B', 32)!, 9)
    expect(maxZs_ohm('D', 32)! * 4).toBeCloseTo(maxZs_ohm('B', 32)!, 9)
  })

  it('has no row for a fuse that the table lacks', () => {
    expect(maxZs_ohm('gG', 13)).toBeNull()
  })

  // BS 7671 tables 41.2 and 41.4 (from memory): a 32 A gG fuse has 0.99 ohm in 0.4 s and 1.7 ohm in 5 s.
  it('lets a fuse that feeds a board take its time, and no breaker', () => {
    const feeds = { nominal_V: 230, voltageFactor: 0.95, role: 'distribution' } as const
    expect(maxZs_ohm('gG', 32, feeds)).toBeCloseTo(1.7, 9)
    expect(maxZs_ohm('gG', 32)).toBeCloseTo(0.99, 9)
    expect(maxZs_ohm('gG', 63, feeds)).toBeCloseTo(0.78, 9)
    expect(maxZs_ohm('gG', 63)).toBeNull()
    expect(maxZs_ohm('B', 32, feeds)).toBe(maxZs_ohm('B', 32))
  })

  it('disconnects by table 41.1', () => {
    expect([disconnection_s('final', false), disconnection_s('final', true)]).toEqual([0.4, 0.2])
    expect([disconnection_s('distribution', false), disconnection_s('distribution', true)]).toEqual([5, 1])
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
