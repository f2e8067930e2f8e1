import { describe, expect, it } from 'vitest'
import { readValueOf } from '../quantity/readValue'
import type { LiveSample } from './feed'
import { isOnePress, watchedUntil } from './watch'

const START = Date.parse('2026-06-21T10:00:00.000Z')
const at = (s: number): string => new Date(START + 1000 * s).toISOString()
const heard = (s: number, value: number, instrumentId = '07'): LiveSample => ({
  instrumentId,
  quantity: 'insulation',
  read: readValueOf(value, 'Mohm', 1),
  at: at(s),
})

describe('a figure that is watched', () => {
  it('is what one instrument showed without a gap', () => {
    const all = [heard(0, 3), heard(60, 10), heard(61, 16, '09'), heard(61.4, 20), heard(62.4, 24)]
    expect(watchedUntil(all, all.at(-1)!, null)).toEqual([
      [0, 10],
      [1.4, 20],
      [2.4, 24],
    ])
  })

  it('takes nothing that belonged to the figure before', () => {
    const all = [heard(0, 10), heard(1, 20), heard(2, 11), heard(3, 22)]
    expect(watchedUntil(all, all.at(-1)!, at(1))).toEqual([
      [0, 11],
      [1, 22],
    ])
  })

  it('is nothing where only the figure itself was heard', () => {
    expect(watchedUntil([heard(0, 10)], heard(0, 10), null)).toBeNull()
  })

  it('leaves out what was over range, for that is no figure', () => {
    const over = {
      ...heard(2, 999),
      read: { ...readValueOf(999, 'Mohm', 0), text: '>999', bound: 'more-than' as const },
    }
    expect(watchedUntil([heard(0, 700), heard(1, 900), over], over, null)).toEqual([
      [0, 700],
      [1, 900],
    ])
  })
})

describe('figures of one press', () => {
  it('follow each other about once a second, however many were not seen by themselves', () => {
    const all = [heard(0, 3), heard(1, 5), heard(2, 7)]
    expect(isOnePress(all, all[0]!, all[2]!)).toBe(true)
    expect(isOnePress([all[0]!, all[2]!], all[0]!, all[2]!)).toBe(false)
  })

  it('are not those of a probe that was moved and pressed again, nor of another instrument', () => {
    expect(isOnePress([heard(0, 300), heard(2.5, 400)], heard(0, 300), heard(2.5, 400))).toBe(false)
    expect(isOnePress([], heard(0, 300), heard(1, 400, '09'))).toBe(false)
    expect(isOnePress([], heard(1, 300), heard(0, 400))).toBe(false)
  })
})
