import { describe, expect, it } from 'vitest'
import { belowWhatZeGives, faultCurrents } from './faultCurrent'
import { type Disconnection, disconnection_s, maxZs_ohm } from './maxZs'

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
    const feeds = { nominal_V: 230, voltageFactor: 0.95, within_s: 5 } as const
    expect(maxZs_ohm('gG', 32, feeds)).toBeCloseTo(1.7, 9)
    expect(maxZs_ohm('gG', 32)).toBeCloseTo(0.99, 9)
    expect(maxZs_ohm('gG', 63, feeds)).toBeCloseTo(0.78, 9)
    expect(maxZs_ohm('gG', 63)).toBeCloseTo(0.44, 9)
    expect(maxZs_ohm('gG', 32, { ...feeds, within_s: 0.2 })).toBeNull()
    expect(maxZs_ohm('B', 32, feeds)).toBe(maxZs_ohm('B', 32))
  })

  it('disconnects by table 41.1', () => {
    const of = (more: Partial<Disconnection>) =>
      disconnection_s({ role: 'final', sockets: null, rating_A: 32, isTt: false, nominal_V: 230, ...more })
    expect([of({}), of({ isTt: true })]).toEqual([0.4, 0.2])
    expect([of({ role: 'distribution' }), of({ role: 'distribution', isTt: true })]).toEqual([5, 1])
    // 411.3.2.2: up to 63 A with sockets, up to 32 A with fixed equipment only; others have the longer time.
    expect([of({ rating_A: 63 }), of({ rating_A: 80 })]).toEqual([0.4, 5])
    expect([of({ rating_A: 32, sockets: false }), of({ rating_A: 40, sockets: false })]).toEqual([0.4, 5])
    expect([of({ nominal_V: 110 }), of({ nominal_V: 400 })]).toEqual([0.8, 0.2])
  })
})

describe('currents of a point', () => {
  it('says that a PEFC below U0/Ze cannot be, beyond the readings’ own uncertainty', () => {
    expect(belowWhatZeGives(860, 0.21, 230, 10)).toBe(true)
    expect(belowWhatZeGives(1040, 0.21, 230, 10)).toBe(false)
    expect(belowWhatZeGives(1500, 0.21, 230, 10)).toBe(false)
  })

  it('lets three phases count where they are more than the earth fault', () => {
    const loops = { lineEarth_ohm: 0.1, lineNeutral_ohm: 0.4, nominal_V: 230 } as const
    expect(faultCurrents({ ...loops, phases: 1 }).ipf_A).toBeCloseTo(2300, 6)
    expect(faultCurrents({ ...loops, phases: 3 }).ipf_A).toBeCloseTo(2300, 6)
    expect(faultCurrents({ ...loops, lineEarth_ohm: 0.5, phases: 3 }).ipf_A).toBeCloseTo(1150, 6)
  })
})
