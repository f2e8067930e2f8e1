/** Data sheets as a table: columns in any order, by our names or the usual ones, commas, semicolons or tabs. */
import '@/words/office'
import Papa from 'papaparse'
import { v7 as uuid } from 'uuid'
import { type ModuleType, moduleTypeSchema } from '@/core/plant/part'
import { say, type WordKey } from '@/words/say'
import { plateFields, type PlateKey, type PlateTexts, readPlate } from './dataPlate'

export const MOST_ROWS = 2000
export const MOST_BYTES = 2_000_000

type Column = 'make' | 'name' | PlateKey

/** The usual names of a column, without units and spaces; our own names are taken as they are. */
const usual: Record<Column, readonly string[]> = {
  make: ['make', 'manufacturer', 'brand'],
  name: ['name', 'type', 'model', 'module'],
  pmax_W: ['pmax', 'pmpp', 'power', 'pnom'],
  voc_V: ['voc', 'uoc'],
  isc_A: ['isc'],
  vmp_V: ['vmp', 'vmpp', 'umpp'],
  imp_A: ['imp', 'impp'],
  cellsInSeries: ['cells', 'cellsinseries'],
  alpha_pctPerK: ['alpha', 'tcisc'],
  beta_pctPerK: ['beta', 'tcvoc'],
  gamma_pctPerK: ['gamma', 'tcpmax'],
  noct_C: ['noct', 'nmot'],
  maxSystemVoltage_V: ['maxsystemvoltage', 'systemvoltage'],
  maxSeriesFuse_A: ['maxseriesfuse', 'seriesfuse', 'maxfuse'],
}
const needed: readonly Column[] = ['make', 'name', ...plateFields.filter((one) => one.needed).map((one) => one.key)]

export type SheetRead = { types: ModuleType[]; problems: { row: number; why: string }[] } | { refused: string }

type Found = { column: Column; unit: string }

/** Which column a head names, and the unit that stands with it in brackets or behind a comma. */
function columnOf(head: string): Found | null {
  const [, name = '', unit = ''] = /^([^([,]*)(?:[([,]\s*([^)\]]*)[)\]]?)?$/.exec(head.trim()) ?? []
  const plain = name.toLowerCase().replace(/[^a-z]/g, '')
  for (const [column, names] of Object.entries(usual) as [Column, readonly string[]][]) {
    if (head.trim().toLowerCase() === column.toLowerCase() || names.includes(plain))
      return { column, unit: unit.trim() }
  }
  return null
}

const label = (column: Column): string => say(`plate.${column}` as WordKey)

/** Reads a table of data sheets. A row that cannot be read is named with its reason; the others are taken. */
export function readDataSheets(text: string): SheetRead {
  const parsed = Papa.parse<string[]>(text.replace(/^\uFEFF/, ''), {
    skipEmptyLines: 'greedy',
    preview: MOST_ROWS + 2,
    delimitersToGuess: [';', ',', '\t'],
  })
  const [heads, ...rows] = parsed.data
  if (!heads || rows.length === 0) return { refused: say('sheet.empty') }
  if (rows.length > MOST_ROWS) return { refused: say('sheet.too-many', { most: MOST_ROWS }) }
  const columns = heads.map(columnOf)
  const missing = needed.filter((one) => !columns.some((found) => found?.column === one))
  if (missing.length > 0) return { refused: say('sheet.missing', { what: missing.map(label).join(', ') }) }
  const types: ModuleType[] = []
  const problems: { row: number; why: string }[] = []
  rows.forEach((cells, k) => {
    const read = readRow(cells, columns)
    if ('why' in read) problems.push({ row: k + 2, why: read.why })
    else types.push(read)
  })
  return { types, problems }
}

/** A cell that a spreadsheet would compute is no data: its text is not what the sheet shows. */
const isFormula = (cell: string): boolean => /^[=@+]|^-(?![\d.,])/.test(cell.trim())

function readRow(cells: readonly string[], columns: readonly (Found | null)[]): ModuleType | { why: string } {
  const texts: Partial<Record<Column, string>> = {}
  for (const [k, found] of columns.entries()) {
    const cell = (cells[k] ?? '').trim()
    if (!found || cell === '' || texts[found.column] !== undefined) continue
    if (isFormula(cell)) return { why: say('sheet.formula', { what: label(found.column), cell: cell.slice(0, 40) }) }
    texts[found.column] = withUnit(found, cell)
  }
  const { data, messages } = readPlate(texts as PlateTexts)
  const [bad] = Object.entries(messages) as [PlateKey, string][]
  if (!data) return { why: bad ? `${label(bad[0])}: ${bad[1]}` : say('sheet.row') }
  const type = moduleTypeSchema.safeParse({ id: uuid(), make: texts.make, name: texts.name, data })
  if (type.success) return type.data
  return { why: `${label(texts.make ? 'name' : 'make')}: ${say('plant.needed')}` }
}

/** A coefficient whose head says mA/K, mV/K or W/K carries that unit in every cell. */
function withUnit({ column, unit }: Found, cell: string): string {
  const isCoefficient = column === 'alpha_pctPerK' || column === 'beta_pctPerK' || column === 'gamma_pctPerK'
  const perKelvin = /^(m?A|m?V|W)\s*\/\s*(K|°C)$/i.test(unit)
  return isCoefficient && perKelvin && /^[-+\d.,\s]+$/.test(cell) ? `${cell} ${unit}` : cell
}
