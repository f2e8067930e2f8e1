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
  const cells = data.map((row) => row.map((cell) => cell.trim()))
  if (cells.length === 0 || cells.every((row) => row.every((cell) => cell === '')))
    return { refused: 'schedule-empty', figures: {} }
  const columns = Math.max(...cells.map((row) => row.length))
  if (columns > room.columns) return { refused: 'schedule-columns', figures: { columns, room: room.columns } }
  if (cells.length > room.rows) return { refused: 'schedule-rows', figures: { rows: cells.length, room: room.rows } }
  return { cells }
}
