import { describe, expect, it } from 'vitest'
import { moment } from './time'

describe('a moment', () => {
  const now = Date.parse('2026-07-06T21:30:00Z')

  it('of today is told by the clock, of any other day with its date, in the time of the site', () => {
    expect(moment('2026-07-06T09:05:00Z', 'Europe/London', now)).toBe('10:05')
    expect(moment('2026-03-06T09:05:00Z', 'Europe/London', now)).toBe('6 Mar 2026, 09:05')
    // Half past eleven of that evening in the east is the day after.
    expect(moment('2026-07-06T09:05:00Z', 'Asia/Tokyo', now)).toBe('6 Jul 2026, 18:05')
  })
})
