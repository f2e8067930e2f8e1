import { describe, expect, it } from 'vitest'
import { calibrationVerdict, daysLeft } from './calibration'

const noon = Date.parse('2026-05-14T12:00:00Z')

describe('days left of a calibration', () => {
  it('count to the end of its last day', () => {
    expect(daysLeft('2026-05-14', noon)).toBe(0)
    expect(daysLeft('2026-05-15', noon)).toBe(1)
    expect(daysLeft('2026-05-13', noon)).toBe(-1)
  })

  it('are judged like everything else', () => {
    expect([-1, 0, 9, 30, 31].map(calibrationVerdict)).toEqual(['outside', 'close', 'close', 'close', 'within'])
  })
})
