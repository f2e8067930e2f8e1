import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { type Asks, firstInRow, firstPlace, moved, type Place } from './moves'

/** Two rows of three columns: the middle column asks three figures in the first row and nothing in the second. */
const counts = [
  [1, 3, 1],
  [1, 0, 2],
  [0, 0, 1],
]
const asks: Asks = { rows: 3, columns: 3, slotsAt: (row, column) => counts[row]![column]! }
const at = (row: number, column: number, slot = 0): Place => ({ row, column, slot })

describe('keys in the grid', () => {
  it('go on through the figures of a cell, then down the column', () => {
    expect(moved(asks, at(0, 1), 'on')).toEqual(at(0, 1, 1))
    expect(moved(asks, at(0, 1, 2), 'on')).toBeNull()
    expect(moved(asks, at(0, 0), 'on')).toEqual(at(1, 0))
    expect(moved(asks, at(1, 0), 'on')).toBeNull()
    expect(moved(asks, at(1, 2), 'on')).toEqual(at(1, 2, 1))
    expect(moved(asks, at(1, 2, 1), 'on')).toEqual(at(2, 2))
  })

  it('go back the way they came', () => {
    expect(moved(asks, at(2, 2), 'before')).toEqual(at(1, 2, 1))
    expect(moved(asks, at(1, 2, 1), 'before')).toEqual(at(1, 2))
  })

  it('go along the row over what is not asked, and on to the next row', () => {
    expect(moved(asks, at(0, 1, 1), 'next')).toEqual(at(0, 2))
    expect(moved(asks, at(1, 0), 'next')).toEqual(at(1, 2))
    expect(moved(asks, at(1, 2), 'next')).toEqual(at(2, 2))
    expect(moved(asks, at(2, 2), 'next')).toBeNull()
    expect(moved(asks, at(2, 2), 'back')).toEqual(at(1, 2))
    expect(moved(asks, at(1, 2), 'back')).toEqual(at(1, 0))
  })

  it('by arrows keep to the figure, the row and the column', () => {
    expect(moved(asks, at(0, 1), 'right')).toEqual(at(0, 1, 1))
    expect(moved(asks, at(0, 1, 2), 'right')).toEqual(at(0, 2))
    expect(moved(asks, at(0, 2), 'left')).toEqual(at(0, 1, 2))
    expect(moved(asks, at(1, 2, 1), 'up')).toEqual(at(0, 2))
    expect(moved(asks, at(0, 2), 'down')).toEqual(at(1, 2))
  })

  it('begin at the first cell that asks anything, of the grid or of a row', () => {
    expect(firstPlace(asks)).toEqual(at(0, 0))
    expect(firstInRow(asks, 2)).toEqual(at(2, 2))
    expect(firstPlace({ rows: 2, columns: 2, slotsAt: () => 0 })).toBeNull()
  })

  it('by Tab visit every cell once, whatever is asked', () => {
    const grids = fc.array(fc.array(fc.nat(3), { minLength: 3, maxLength: 3 }), { minLength: 1, maxLength: 5 })
    fc.assert(
      fc.property(grids, (grid) => {
        const asks: Asks = { rows: grid.length, columns: 3, slotsAt: (row, column) => grid[row]![column]! }
        const seen: string[] = []
        for (let place = firstPlace(asks); place; place = moved(asks, place, 'next'))
          seen.push(`${place.row} ${place.column}`)
        const all = grid.flatMap((row, r) => row.flatMap((count, c) => (count > 0 ? [`${r} ${c}`] : [])))
        expect(seen).toEqual(all)
      }),
    )
  })
})
