/** Blocks of cells to and from a spreadsheet: rows by lines, cells by tabs, the figures of one cell by a stroke. */
import Papa from 'papaparse'

export type Block =
  | { cells: string[][] }
  | { refused: 'schedule-empty' | 'schedule-columns' | 'schedule-rows'; figures: Record<string, number> }

/**
 * Reads what was pasted. More columns or rows than there is room for are refused whole, for a block that slipped by one
 * would put every figure in the wrong place.
 */
export function readBlock(text: string, room: { columns: number; rows: number }): Block {
  const { data } = Papa.parse<string[]>(text.replace(/\r?\n$/, ''), { delimiter: '\t' })
  // Whole sheets are pasted by mistake: what has no room is not looked at any further.
  if (data.length > room.rows && data.some((row) => row.some((cell) => cell.trim() !== '')))
    return { refused: 'schedule-rows', figures: { rows: data.length, room: room.rows } }
  const cells = data.map((row) => row.map((cell) => cell.trim()))
  if (cells.length === 0 || cells.every((row) => row.every((cell) => cell === '')))
    return { refused: 'schedule-empty', figures: {} }
  const columns = cells.reduce((most, row) => Math.max(most, row.length), 0)
  if (columns > room.columns) return { refused: 'schedule-columns', figures: { columns, room: room.columns } }
  return { cells }
}

const BETWEEN = ' / '

/** The figures of one cell; null where it does not hold one for each of them. */
export function figuresOfCell(text: string, count: number): string[] | null {
  if (count === 1) return [text]
  const parts = text.split('/').map((part) => part.trim())
  return parts.length === count ? parts : null
}

/** Several figures as one cell; nothing where none of them was read. */
export const cellOfFigures = (figures: readonly string[]): string =>
  figures.every((one) => one === '') ? '' : figures.join(BETWEEN)

/** Rows and cells as a block; what a spreadsheet would take for a formula is text. */
export const writeBlock = (rows: readonly (readonly string[])[]): string =>
  Papa.unparse(rows as string[][], { delimiter: '\t', newline: '\n', escapeFormulae: true })
