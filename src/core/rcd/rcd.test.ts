import { describe, expect, it } from 'vitest'
import { exactly, spanOf } from '../quantity/span'
import { discriminateByRule, discriminationByBands, discriminationByReadings } from './discrimination'
import { askedTrips, judgeRcd, judgeTrip, type Trip } from './judgeRcd'
import type { Multiple, Rcd } from './limits'

const general: Rcd = { type: 'A', kind: 'general', rated_mA: 30, standard: 'iec-61008' }
const main: Rcd = { type: 'A', kind: 'selective', rated_mA: 100, standard: 'iec-61008' }
const rules = { sequence: 'three-multiples', halfWait_ms: 2000, place: 'circuit' } as const
const time = (multiple: Multiple, value_ms: number, angle_deg: 0 | 180 = 0): Trip => ({
  kind: 'time',
  multiple,
  angle_deg,
  waveform: 'ac',
  time: exactly(value_ms),
})
const ramp = (current_mA: number, waveform: Trip['waveform'] = 'ac'): Trip => ({
  kind: 'ramp',
  angle_deg: null,
  waveform,
  current: exactly(current_mA),
})

describe('one trip', () => {
  it.each([
    ['exactly 300 ms at IΔn is close', general, time(1, 300), 'close', 'time-close'],
    ['301 ms is too slow', general, time(1, 301), 'outside', 'too-slow'],
    ['a selective one that trips at once is too fast', main, time(1, 40), 'outside', 'too-fast'],
    ['a ramp under half is too sensitive', general, ramp(14.9), 'outside', 'ramp-too-sensitive'],
    ['a ramp above IΔn is too high', general, ramp(30.1), 'outside', 'ramp-too-high'],
    ['pulsating has bounds of its own', general, ramp(41, 'pulsating'), 'within', 'ramp-within'],
    ['smooth direct current is not for type A', general, ramp(20, 'dc'), 'not-yet', 'waveform-not-for-type'],
    ['but for type B', { ...general, type: 'B' as const }, ramp(50, 'dc'), 'within', 'ramp-within'],
    [
      'pulsating is not for type AC',
      { ...general, type: 'AC' as const },
      ramp(20, 'pulsating'),
      'not-yet',
      'waveform-not-for-type',
    ],
  ])('%s', (_, rcd, trip, verdict, code) => {
    expect(judgeTrip(rcd, trip, rules)).toMatchObject({ verdict, code })
  })

  it('waits as long as its school does at half the current', () => {
    const waited: Trip = { ...time(0.5, 300), time: spanOf({ value: 300, bound: 'more-than' }, 0) } as Trip
    expect(judgeTrip(general, waited, rules).verdict).toBe('not-yet')
    expect(judgeTrip(general, waited, { ...rules, halfWait_ms: 300 }).verdict).toBe('within')
  })
})

describe('a device', () => {
  it('is read six times in the older school, four where it is for fault protection only, once in the newer', () => {
    expect(askedTrips(general, 'three-multiples')).toHaveLength(6)
    expect(askedTrips(main, 'three-multiples')).toHaveLength(4)
    expect(askedTrips(general, 'four-multiples').map((one) => one.multiple)).toEqual([0.5, 0.5, 1, 1, 2, 2, 5, 5])
    expect(askedTrips(general, 'single')).toEqual([{ multiple: 1, angle_deg: null }])
  })

  it('puts the longest at five times on the schedule, or at once where there is none', () => {
    const trips = [time(1, 29.3), time(1, 37.2, 180), time(5, 14.1), time(5, 8.4, 180)]
    expect(judgeRcd(general, trips, rules).recorded).toEqual(exactly(14.1))
    expect(judgeRcd(general, trips.slice(0, 2), rules).recorded).toEqual(exactly(37.2))
    expect(judgeRcd(general, [ramp(22)], rules).recorded).toBeNull()
  })

  it('is as bad as its worst trip', () => {
    expect(judgeRcd(general, [time(1, 26), time(5, 41)], rules).verdict).toBe('outside')
    expect(judgeRcd(general, [], rules).verdict).toBe('not-yet')
  })
})

describe('two devices in series', () => {
  it('discriminate by the rule: selective above, and three times the current', () => {
    expect(discriminateByRule(main, general)).toBe(true)
    expect(discriminateByRule({ ...main, kind: 'general' }, general)).toBe(false)
    expect(discriminateByRule({ ...main, rated_mA: 60 }, general)).toBe(false)
  })

  it('are compared at one current: five times 30 mA is one and a half times 100 mA', () => {
    expect(discriminationByBands(main, general)).toEqual([
      { current_mA: 30, upperLeast_ms: null, lowerMost_ms: 300, holds: true },
      { current_mA: 60, upperLeast_ms: null, lowerMost_ms: 150, holds: true },
      // At 1.5 times its rated current the upper one may be faster than at once, never than at twice.
      { current_mA: 150, upperLeast_ms: 60, lowerMost_ms: 40, holds: true },
    ])
    // Two general ones of 30 mA: nothing keeps the upper one from going first.
    expect(discriminationByBands(general, general).every((one) => !one.holds)).toBe(true)
  })

  const at = (current_mA: number, value_ms: number, bound: 'exact' | 'more-than' = 'exact') => ({
    current_mA,
    time: spanOf({ value: value_ms, bound }, 0),
  })
  const lower = [at(30, 35), at(30, 31), at(150, 13)]

  it('are compared by their readings: what waits at a higher current waits at a lower one', () => {
    const found = discriminationByReadings([at(100, 180), at(500, 62), at(500, 70)], lower)
    expect(found).toEqual({ holds: true, at: { current_mA: 150, upperAt_mA: 500, upper_ms: 62, lower_ms: 13 } })
  })

  it('are undecided where the upper one was never read at that much current', () => {
    expect(discriminationByReadings([at(100, 180)], lower)).toEqual({ holds: null, at: null })
    expect(discriminationByReadings([], lower).holds).toBeNull()
    expect(discriminationByReadings([at(500, 62)], []).holds).toBeNull()
    expect(discriminationByReadings([at(500, 62)], [at(30, 300, 'more-than')]).holds).toBeNull()
  })

  it('do not where the upper one was as fast at no more current', () => {
    const found = discriminationByReadings([at(30, 28)], [at(30, 31), at(150, 13)])
    expect(found).toEqual({ holds: false, at: { current_mA: 30, upperAt_mA: 30, upper_ms: 28, lower_ms: 31 } })
  })
})
