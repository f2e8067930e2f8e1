import { describe, expect, it } from 'vitest'
import type { Watched } from '../quantity/watched'
import { courseOf, risePictures } from './rise'
import { numberSlot } from './slot'

const watched = (...values: number[]): Watched => values.map((value, s): [number, number] => [s, value])
const slots = [
  numberSlot('negative-to-earth', 'insulation', 'Mohm', 1),
  numberSlot('positive-to-earth', 'insulation', 'Mohm', 2),
]
const readingOf = (points: Watched) => ({
  slots: {
    'positive-to-earth': { text: '38.0', value: 38, bound: 'exact' as const, unit: 'Mohm' as const, watched: points },
  },
  conditions: null,
  instrument: null,
  how: 'feed' as const,
})

describe('a figure that was watched', () => {
  it('rises where next to nothing of its way goes back', () => {
    expect(courseOf(watched(10, 18, 25, 30, 29.5, 33))).toBe('rises')
    expect(courseOf(watched(33, 30, 25, 18))).toBe('falls')
  })

  it('stands within a twentieth, and wanders where it goes up and down', () => {
    expect(courseOf(watched(100, 104, 101, 103))).toBe('stands')
    expect(courseOf(watched(10, 30, 12, 28, 11))).toBe('wanders')
  })

  it('is a picture of the slots that were watched, with lowest, highest and last', () => {
    expect(risePictures(readingOf(watched(12, 40, 38)), slots, 1)).toMatchObject([
      {
        kind: 'rise',
        unit: 'Mohm',
        least: 1,
        lines: [{ slot: 'positive-to-earth', lowest: 12, highest: 40, last: 38 }],
      },
    ])
    expect(risePictures({ ...readingOf(watched(1, 2)), slots: {} }, slots, 1)).toEqual([])
  })
})
