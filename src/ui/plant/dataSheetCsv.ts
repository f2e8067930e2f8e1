/** Data sheets as a table: columns in any order, by our names, the usual ones or as somebody says, commas, semicolons or tabs. */
import '@/words/office'
import Papa from 'papaparse'
import { v7 as uuid } from 'uuid'
import { type ModuleType, moduleTypeSchema } from '@/core/plant/part'
import { type ModuleDoubt, moduleDoubts } from '@/core/pv/moduleData'
import { say, type WordKey } from '@/words/say'
import { plateFields, type PlateKey, type PlateTexts, readPlate } from './dataPlate'

export const MOST_ROWS = 2000
export const MOST_BYTES = 2_000_000

export type Column = 'make' | 'name' | PlateKey
/** Which place of a row holds what. */
export type Columns = Partial<Record<Column, number>>

/** The usual names of a column, without units and spaces; our own names and the words of our forms are taken as well. */
const usual: Record<Column, readonly string[]> = {
  make: ['manufacturer', 'brand', 'maker'],
  name: ['name', 'type', 'model', 'module', 'moduletype'],
  pmax_W: ['pmax', 'pmpp', 'power', 'pnom', 'ratedpower', 'maximumpower', 'nominalpower'],
  voc_V: ['voc', 'uoc', 'opencircuitvoltage'],
  isc_A: ['isc', 'shortcircuitcurrent'],
  vmp_V: ['vmp', 'vmpp', 'umpp', 'voltageatmaximumpower', 'maximumpowervoltage'],
  imp_A: ['imp', 'impp', 'currentatmaximumpower', 'maximumpowercurrent'],
  cellsInSeries: ['cells', 'cellsinseries', 'numberofcells'],
  alpha_pctPerK: [
    'alpha',
    'tcisc',
    'tcofisc',
    'tempcoeffisc',
    'temperaturecoefficientofisc',
    'temperaturecoefficientisc',
  ],
  beta_pctPerK: [
    'beta',
    'tcvoc',
    'tcofvoc',
    'tempcoeffvoc',
    'temperaturecoefficientofvoc',
    'temperaturecoefficientvoc',
  ],
  gamma_pctPerK: [
    'gamma',
    'tcpmax',
    'tcofpmax',
    'tempcoeffpmax',
    'temperaturecoefficientofpmax',
    'temperaturecoefficientpmax',
  ],
  noct_C: ['noct', 'nmot'],
  maxSystemVoltage_V: ['maxsystemvoltage', 'systemvoltage', 'maximumsystemvoltage'],
  maxSeriesFuse_A: ['maxseriesfuse', 'seriesfuse', 'maxfuse', 'maximumseriesfuse'],
  tolerance_pct: ['tolerance', 'powertolerance', 'pmaxtolerance'],
  vocIscTolerance_pct: ['vocisctolerance', 'toleranceofvocandisc', 'voctolerance', 'isctolerance'],
  bifacialGain_pct: ['bifacialgain', 'bifacialgainisc', 'rearsidegain'],
}
export const columnNames = Object.keys(usual) as Column[]
const needed: readonly Column[] = ['make', 'name', ...plateFields.filter((one) => one.needed).map((one) => one.key)]
export const isNeeded = (column: Column): boolean => needed.includes(column)

export type Doubtful = { row: number; type: ModuleType; doubts: ModuleDoubt[] }
export type SheetRead =
  | { types: ModuleType[]; doubtful: Doubtful[]; problems: { row: number; why: string }[] }
  | { refused: string }
  /** What some columns hold is to be said by somebody. */
  | { heads: string[]; columns: Columns; missing: Column[] }

const plainHead = (head: string): string => head.toLowerCase().replace(/[^a-z]/g, '')
export const columnLabel = (column: Column): string => say(`plate.${column}` as WordKey)

/** The name and the unit of a head: the unit stands in brackets or behind a comma. */
function partsOf(head: string): { name: string; unit: string } {
  const [, name = '', unit = ''] = /^([^([,]*)(?:[([,]\s*([^)\]]*)[)\]]?)?$/.exec(head.trim()) ?? []
  return { name, unit: unit.trim() }
}

/** Which column a head names. */
function columnOf(head: string): Column | null {
  const plain = plainHead(partsOf(head).name)
  const isNamed = (column: Column): boolean =>
    head.trim().toLowerCase() === column.toLowerCase() ||
    plainHead(partsOf(columnLabel(column)).name) === plain ||
    usual[column].includes(plain)
  return plain === '' ? null : (columnNames.find(isNamed) ?? null)
}

function guessed(heads: readonly string[]): Columns {
  const columns: Columns = {}
  heads.forEach((head, k) => {
    const column = columnOf(head)
    if (column && columns[column] === undefined) columns[column] = k
  })
  return columns
}

/** An empty table with the heads that are known, to be filled in. */
export const sheetTemplate = (): string => `\uFEFF${Papa.unparse([columnNames.map(columnLabel)])}\r\n`

/**
 * Reads a table of data sheets. A row that cannot be read is named with its reason, one whose figures do not go together
 * with its doubt; the others are taken.
 *
 * @param chosen what somebody said each column holds, where its head says nothing.
 */
export function readDataSheets(text: string, chosen: Columns | null = null): SheetRead {
  const parsed = Papa.parse<string[]>(text.replace(/^\uFEFF/, ''), {
    skipEmptyLines: 'greedy',
    preview: MOST_ROWS + 2,
    delimitersToGuess: [';', ',', '\t'],
  })
  const [heads, ...rows] = parsed.data
  if (!heads || rows.length === 0) return { refused: say('sheet.empty') }
  if (rows.length > MOST_ROWS) return { refused: say('sheet.too-many', { most: MOST_ROWS }) }
  const columns = chosen ?? guessed(heads)
  const missing = needed.filter((one) => columns[one] === undefined)
  if (missing.length > 0 && heads.length < needed.length)
    return { refused: say('sheet.missing', { what: missing.map(columnLabel).join(', ') }) }
  if (missing.length > 0) return { heads: [...heads], columns, missing }
  const types: ModuleType[] = []
  const doubtful: Doubtful[] = []
  const problems: { row: number; why: string }[] = []
  for (const [k, cells] of rows.entries()) {
    const row = k + 2
    const read = readRow(cells, heads, columns)
    if ('why' in read) {
      problems.push({ row, why: read.why })
      continue
    }
    const doubts = moduleDoubts(read.data)
    if (doubts.length > 0) doubtful.push({ row, type: read, doubts })
    else types.push(read)
  }
  return { types, doubtful, problems }
}

const sameName = (a: ModuleType, b: ModuleType): boolean =>
  `${a.make} ${a.name}`.toLowerCase() === `${b.make} ${b.name}`.toLowerCase()
const sameFigures = (a: ModuleType, b: ModuleType): boolean =>
  JSON.stringify(Object.entries(a.data).sort()) === JSON.stringify(Object.entries(b.data).sort())

/** What of a table is new to a library: the same type again is nothing, one of that name with other figures is told. */
export function newTo(library: readonly ModuleType[], types: readonly ModuleType[]) {
  const fresh: ModuleType[] = []
  const same: ModuleType[] = []
  const other: ModuleType[] = []
  for (const type of types) {
    const known = [...library, ...fresh].filter((one) => sameName(one, type))
    if (known.length === 0) fresh.push(type)
    else if (known.some((one) => sameFigures(one, type))) same.push(type)
    else other.push(type)
  }
  return { fresh, same, other }
}

/** A cell that a spreadsheet would compute is no data: its text is not what the sheet shows. */
const isFormula = (cell: string): boolean => /^[=@+]|^-(?![\d.,])/.test(cell.trim())

function readRow(cells: readonly string[], heads: readonly string[], columns: Columns): ModuleType | { why: string } {
  const texts: Partial<Record<Column, string>> = {}
  for (const [column, k] of Object.entries(columns) as [Column, number][]) {
    const cell = (cells[k] ?? '').trim()
    if (cell === '') continue
    if (isFormula(cell)) return { why: say('sheet.formula', { what: columnLabel(column), cell: cell.slice(0, 40) }) }
    texts[column] = withUnit(column, partsOf(heads[k] ?? '').unit, cell)
  }
  const { data, messages } = readPlate(texts as PlateTexts)
  const [bad] = Object.entries(messages) as [PlateKey, string][]
  if (!data) return { why: bad ? `${columnLabel(bad[0])}: ${bad[1]}` : say('sheet.row') }
  const type = moduleTypeSchema.safeParse({ id: uuid(), make: texts.make, name: texts.name, data })
  if (type.success) return type.data
  return { why: `${columnLabel(texts.make ? 'name' : 'make')}: ${say('plant.needed')}` }
}

/** A coefficient whose head says mA/K, mV/K or W/K carries that unit in every cell. */
function withUnit(column: Column, unit: string, cell: string): string {
  const isCoefficient = column === 'alpha_pctPerK' || column === 'beta_pctPerK' || column === 'gamma_pctPerK'
  const perKelvin = /^(m?A|m?V|W)\s*\/\s*(K|°C)$/i.test(unit)
  return isCoefficient && perKelvin && /^[-+\d.,\s]+$/.test(cell) ? `${cell} ${unit}` : cell
}
