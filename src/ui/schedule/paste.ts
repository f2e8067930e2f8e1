/** A block of cells from a spreadsheet, taken whole or not at all. */
import Papa from 'papaparse'

export type Block =
  | { cells: string[][] }
  | { refused: 'schedule-empty' | 'schedule-columns' | 'schedule-rows'; figures: Record<string, number> }

/**
 * Reads what was pasted: rows by lines, cells by tabs. More columns or rows than there is room for are refused whole,
 * for a block that slipped by one would put every figure in the wrong place.
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
