import { describe, expect, it } from 'vitest'
import type { RisePicture } from '@/core/steps/picture'
import { riseDrawing, riseText } from '@/report/drawing/rise'
import { colours } from '@/look/tokens'
import { riseFigures, riseMarks, riseOption } from './riseOption'

const space = '\u00a0'
const picture: RisePicture = {
  kind: 'rise',
  unit: 'Mohm',
  least: 1,
  lines: [
    {
      slot: 'negative-to-earth',
      points: [
        [0, 0.4],
        [1, 0.8],
        [2, 1.2],
      ],
      lowest: 0.4,
      highest: 1.2,
      last: 1.2,
      course: 'rises',
    },
    {
      slot: 'positive-to-earth',
      points: [
        [0, 0.5],
        [1, 0.5],
      ],
      lowest: 0.5,
      highest: 0.5,
      last: 0.5,
      course: 'stands',
    },
  ],
}
const series = riseOption(picture, colours.day as never).series as { data: unknown[]; lineStyle: { width: number } }[]

describe('insulation as it rose', () => {
  it('is told in a sentence a side', () => {
    expect(riseText(picture.lines[0]!, 'Mohm').replaceAll(space, ' ')).toBe(
      '− to earth: rises, 0.40 MΩ to 1.20 MΩ, last 1.20 MΩ, 2 s',
    )
  })

  it('is a line a side, and the least where it is near', () => {
    expect(series.map((one) => one.data.length)).toEqual([3, 2, 2])
    const far = { ...picture, lines: picture.lines.map((line) => ({ ...line, highest: 500 })) }
    expect(riseOption(far, colours.day as never).series).toHaveLength(2)
  })

  it('has a mark for each figure, and the same figures as a table', () => {
    expect(riseMarks(picture)).toHaveLength(5)
    expect(riseFigures(picture).rows.map((row) => row.map((cell) => cell.replaceAll(space, ' ')))).toEqual([
      ['0', '0.40 MΩ', '0.50 MΩ'],
      ['1', '0.80 MΩ', '0.50 MΩ'],
      ['2', '1.20 MΩ', ''],
    ])
  })

  it('is drawn for the print from the same figures', () => {
    const drawing = riseDrawing(picture)
    const paths = drawing.nodes.filter((node) => node.tag === 'path')
    expect(paths).toHaveLength(3)
    expect(drawing.nodes.flatMap((node) => node.text ?? [])).toContain('− to earth: rises')
  })
})
