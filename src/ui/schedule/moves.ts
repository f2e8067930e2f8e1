/** Where keys lead in the grid: along rows, down columns, and through the figures of one cell. */
export type Place = { row: number; column: number; slot: number }
/** How many figures a cell asks; none where it asks nothing. */
export type Asks = { rows: number; columns: number; slotsAt(row: number, column: number): number }
export type Move = 'up' | 'down' | 'left' | 'right' | 'on' | 'before' | 'next' | 'back'

/** The place that a move leads to; null where there is none further. */
export function moved(asks: Asks, from: Place, move: Move): Place | null {
  const last = asks.slotsAt(from.row, from.column) - 1
  switch (move) {
    case 'up':
      return along(asks, from, { row: -1 }, from.slot)
    case 'down':
      return along(asks, from, { row: 1 }, from.slot)
    case 'on':
      return from.slot < last ? { ...from, slot: from.slot + 1 } : along(asks, from, { row: 1 }, 0)
    case 'before':
      return from.slot > 0 ? { ...from, slot: from.slot - 1 } : along(asks, from, { row: -1 }, Number.MAX_SAFE_INTEGER)
    case 'left':
      return from.slot > 0
        ? { ...from, slot: from.slot - 1 }
        : along(asks, from, { column: -1 }, Number.MAX_SAFE_INTEGER)
    case 'right':
      return from.slot < last ? { ...from, slot: from.slot + 1 } : along(asks, from, { column: 1 }, 0)
    case 'next':
      return along(asks, from, { column: 1 }, 0) ?? inRows(asks, from.row, 1)
    case 'back':
      return along(asks, from, { column: -1 }, 0) ?? inRows(asks, from.row, -1)
  }
}

/** The first place of all, null where nothing is asked. */
export const firstPlace = (asks: Asks): Place | null => inRows(asks, -1, 1)

/** The first cell of a row that asks anything. */
export const firstInRow = (asks: Asks, row: number): Place | null =>
  along(asks, { row, column: -1, slot: 0 }, { column: 1 }, 0)

/** The next cell that asks something in one direction, at a figure of it or the last that it has. */
function along(asks: Asks, from: Place, by: { row?: number; column?: number }, slot: number): Place | null {
  let { row, column } = from
  for (;;) {
    row += by.row ?? 0
    column += by.column ?? 0
    if (row < 0 || column < 0 || row >= asks.rows || column >= asks.columns) return null
    const count = asks.slotsAt(row, column)
    if (count > 0) return { row, column, slot: Math.min(slot, count - 1) }
  }
}

/** The first cell of the next row that asks anything, or the last one of the row before. */
function inRows(asks: Asks, from: number, by: 1 | -1): Place | null {
  for (let row = from + by; row >= 0 && row < asks.rows; row += by) {
    const outside = { row, column: by > 0 ? -1 : asks.columns, slot: 0 }
    const found = along(asks, outside, { column: by }, 0)
    if (found) return found
  }
  return null
}
