/**
 * Reads curves as instruments and spreadsheets write them: volts and amperes in two columns, with commas, semicolons or
 * tabs, decimal comma or point, units in their heads, whatever stands above them, and several curves one after another,
 * beside each other, or told apart by a column.
 */
import Papa from 'papaparse'
import type { CurvePoint } from './points'

/** Which columns hold what; counted from 0. Several curves beside each other have the same distance from pair to pair. */
export type CurveColumns = {
  voltage: number
  current: number
  /** Tells curves apart: a memory number, a string's tag. */
  name: number | null
  /** The next pair stands so many columns on; null where there is one pair. */
  everyPair: number | null
  voltageUnit: 'V' | 'mV' | 'kV'
  currentUnit: 'A' | 'mA'
  /** What a comma between digits is. */
  comma: 'decimal' | 'thousands'
}

export type FileCurve = {
  /** What the file calls it, empty where it has no name. */
  name: string
  points: CurvePoint[]
  /** Lines of it that held no figures. */
  skipped: number
  irradiance_Wm2: number | null
  temperature_C: number | null
}

export type CurveTable = {
  /** Head of the columns, as the file has it; made up where it has none. */
  heads: string[]
  /** The first lines under the heads, for somebody to look at. */
  sample: string[][]
  columns: CurveColumns
  /** Neither heads nor figures say for sure which column is which. */
  isGuessed: boolean
  /** Every comma stands before three digits: nobody can tell what it is. */
  asksComma: boolean
}

export type CurveFileRefusal =
  | 'curve-file-empty'
  | 'curve-file-no-figures'
  | 'curve-file-one-column'
  | 'curve-file-too-large'

export const MOST_LINES = 1_100_000
const SAMPLE = 8

type Rows = { cells: string[][]; headAt: number }

const heads = {
  voltage: /^(u|v|voltage|volts?|spannung|tension|voltaje|udc|vdc|upv|vpv|spg)$/,
  current: /^(i|current|amps?|amperes?|strom|courant|corriente|idc|ipv)$/,
  name: /^(curve|curvenumber|memory|mem|memo|no|nr|number|name|string|stringtag|tag|sweep|trace|id|kurve)$/,
  irradiance: /^(g|irradiance|irr|gpoa|poa|einstrahlung|light)$/,
  temperature: /^(t|tc|tmod|tcell|temperature|celltemperature|moduletemperature|tmodule|temperatur)$/,
} as const

/** A head without its unit, spaces and capitals, and without a number behind it. */
const plain = (head: string): string =>
  head
    .toLowerCase()
    .replace(/[([{/].*$/, '')
    .replace(/[^a-z]/g, '')

const unitIn = (head: string): string => /[([{/]\s*([a-zA-Z²°µ]+)/.exec(head)?.[1] ?? ''

const DELIMITERS = ['\t', ';', '|', ',', ' '] as const
/** So many lines tell what stands between columns. */
const LINES_TO_TELL = 400

/** Lines as cells: between columns stands what makes most lines two figures; of those alike the first. */
function cellsOf(text: string): string[][] {
  const bare = text.replace(/^\uFEFF/, '')
  const parse = (delimiter: string, preview: number): string[][] =>
    Papa.parse<string[]>(delimiter === ' ' ? bare.replace(/[ \t]+/g, ' ') : bare, {
      skipEmptyLines: false,
      preview,
      delimiter,
    }).data.map((line) => line.map((cell) => cell.trim()))
  const tables = DELIMITERS.map((delimiter) => {
    const lines = parse(delimiter, LINES_TO_TELL)
    return { delimiter, figures: lines.filter((line) => line.filter(isFigure).length >= 2).length }
  })
  const best = tables.reduce((most, one) => (one.figures > most.figures ? one : most))
  return parse(best.delimiter, MOST_LINES + 1)
}

const isFigure = (cell: string | undefined): boolean =>
  cell !== undefined && /^[-+]?[\d.,]*\d([eE][-+]?\d+)?$/.test(cell)

/** Where the heads of the points stand: the line before the first of several lines with two figures each. */
function rowsOf(cells: string[][]): Rows | null {
  for (let k = 0; k < cells.length; k++) {
    const isTable = [k, k + 1, k + 2].every((at) => (cells[at] ?? []).filter(isFigure).length >= 2)
    if (!isTable) continue
    const above = k > 0 && (cells[k - 1] ?? []).some((cell) => /[a-z]/i.test(cell)) ? k - 1 : -1
    return { cells, headAt: above >= 0 ? above : k - 1 }
  }
  return null
}

/** The table of a file, with which column is what as far as it can be told. */
export function readCurveTable(text: string): CurveTable | CurveFileRefusal {
  if (text.trim() === '') return 'curve-file-empty'
  const cells = cellsOf(text)
  if (cells.length > MOST_LINES) return 'curve-file-too-large'
  const rows = rowsOf(cells)
  if (!rows)
    return cells.some((line) => line.filter(isFigure).length === 1) ? 'curve-file-one-column' : 'curve-file-no-figures'
  const first = rows.cells[rows.headAt + 1]!
  const named = (rows.cells[rows.headAt] ?? []).some((cell) => /[a-z]/i.test(cell)) ? rows.cells[rows.headAt]! : []
  const width = Math.max(first.length, named.length)
  const shown = Array.from({ length: width }, (_, k) => named[k] || `${k + 1}`)
  const sample = rows.cells.slice(rows.headAt + 1, rows.headAt + 1 + SAMPLE)
  const commas = commasOf(rows)
  const columns = {
    ...columnsOf(shown, rows),
    comma: commas === 'thousands' ? ('thousands' as const) : ('decimal' as const),
  }
  return {
    heads: shown,
    sample,
    columns,
    isGuessed:
      !shown.some((head) => heads.voltage.test(plain(head))) || !shown.some((head) => heads.current.test(plain(head))),
    asksComma: commas === 'unknown',
  }
}

/** What commas between digits are: a point beside them makes them thousands, other than three digits behind them decimals. */
function commasOf({ cells, headAt }: Rows): 'none' | 'decimal' | 'thousands' | 'unknown' {
  let seen = false
  for (const cell of cells.slice(headAt + 1, headAt + 2000).flat()) {
    if (!cell.includes(',') || !isFigure(cell)) continue
    if (cell.includes('.') && cell.indexOf(',') < cell.indexOf('.')) return 'thousands'
    if (!/,\d{3}$/.test(cell) || /^[-+]?0,/.test(cell)) return 'decimal'
    seen = true
  }
  return seen ? 'unknown' : 'none'
}

function columnsOf(shown: readonly string[], rows: Rows): Omit<CurveColumns, 'comma'> {
  const at = (of: keyof typeof heads, from = 0): number =>
    shown.findIndex((head, k) => k >= from && heads[of].test(plain(head)))
  const [voltage, current] = [at('voltage'), at('current')]
  const found = voltage >= 0 && current >= 0 ? { voltage, current } : byFigures(rows, voltage, current)
  const next = voltage >= 0 && current >= 0 ? at('voltage', Math.max(voltage, current) + 1) : -1
  const name = at('name')
  return {
    ...found,
    name: name >= 0 && name !== found.voltage && name !== found.current ? name : null,
    everyPair: next > found.voltage ? next - found.voltage : null,
    voltageUnit: voltageUnitOf(unitIn(shown[found.voltage] ?? '')),
    currentUnit: /^m/i.test(unitIn(shown[found.current] ?? '')) ? 'mA' : 'A',
  }
}

const voltageUnitOf = (unit: string): CurveColumns['voltageUnit'] => (unit === 'mV' ? 'mV' : unit === 'kV' ? 'kV' : 'V')

/** Without heads: of the first two columns of figures the one that reaches higher is the voltage. */
function byFigures({ cells, headAt }: Rows, voltage: number, current: number): { voltage: number; current: number } {
  const lines = cells.slice(headAt + 1, headAt + 400)
  const width = Math.max(...lines.map((line) => line.length))
  const figures = Array.from({ length: width }, (_, k) => k).filter(
    (k) => lines.filter((line) => isFigure(line[k])).length > lines.length / 2,
  )
  const most = (k: number): number =>
    Math.max(...lines.map((line) => Math.abs(Number((line[k] ?? '').replace(',', '.'))) || 0))
  const free = figures.filter((k) => k !== voltage && k !== current)
  if (voltage >= 0) return { voltage, current: free[0] ?? voltage + 1 }
  if (current >= 0) return { voltage: free[0] ?? 0, current }
  const [a = 0, b = 1] = free
  return most(a) >= most(b) ? { voltage: a, current: b } : { voltage: b, current: a }
}

/** In volts and amperes: divided where the unit is smaller, so that 11700 mA are 11.7 A and no digit more. */
const inBase = (value: number, unit: CurveColumns['voltageUnit'] | CurveColumns['currentUnit']): number =>
  unit === 'mV' || unit === 'mA' ? value / 1000 : unit === 'kV' ? value * 1000 : value

function figureIn(cell: string | undefined, comma: CurveColumns['comma']): number | null {
  if (!isFigure(cell)) return null
  const value = Number(
    comma === 'thousands'
      ? cell!.replaceAll(',', '')
      : cell!.replaceAll('.', cell!.includes(',') ? '' : '.').replace(',', '.'),
  )
  return Number.isFinite(value) ? value : null
}

/** The curves of a file by its columns: a name that changes, an empty line, or heads that come again begin the next one. */
export function curvesOf(text: string, columns: CurveColumns): FileCurve[] {
  const rows = rowsOf(cellsOf(text))
  if (!rows) return []
  const before = rows.cells.slice(0, Math.max(0, rows.headAt))
  const pairs = pairsOf(columns, rows)
  return pairs
    .flatMap((pair, k) => curvesOfPair(rows, { ...columns, ...pair }, k, before))
    .filter(({ points }) => points.length > 1)
}

function pairsOf(
  { voltage, current, everyPair }: CurveColumns,
  { cells, headAt }: Rows,
): { voltage: number; current: number }[] {
  if (everyPair === null) return [{ voltage, current }]
  const width = cells[headAt + 1]!.length
  const pairs: { voltage: number; current: number }[] = []
  for (let on = 0; Math.max(voltage, current) + on < width; on += everyPair)
    pairs.push({ voltage: voltage + on, current: current + on })
  return pairs
}

function curvesOfPair({ cells, headAt }: Rows, columns: CurveColumns, pair: number, before: string[][]): FileCurve[] {
  const curves: FileCurve[] = []
  const { voltage, current, name, comma } = columns
  let header: string[][] = before
  let open: FileCurve | null = null
  for (const line of cells.slice(headAt + 1)) {
    const [volts, amperes] = [figureIn(line[voltage], comma), figureIn(line[current], comma)]
    if (volts === null || amperes === null) {
      if (open && line.every((cell) => cell === '')) open = null
      else if (open && line.some((cell) => /[a-z]/i.test(cell)) && line.filter(isFigure).length < 2) {
        open = null
        header = [line]
        continue
      } else if (open) open.skipped++
      if (!open) header = [...header, line]
      continue
    }
    const called = name === null ? null : (line[name] ?? '')
    if (!open || (called !== null && called !== open.name)) {
      open = { name: called ?? nameFrom(header, pair), points: [], skipped: 0, ...conditionsFrom(header) }
      curves.push(open)
      header = []
    }
    open.points.push([inBase(volts, columns.voltageUnit), inBase(amperes, columns.currentUnit)])
  }
  return curves
}

/** A name that stands above the points: "String; 4". */
function nameFrom(header: readonly string[][], pair: number): string {
  const line = [...header].reverse().find(([key]) => key !== undefined && heads.name.test(plain(key)))
  return line?.[1 + pair] ?? line?.[1] ?? ''
}

/** Light and temperature that stand above the points: "Irradiance [W/m2]; 812". */
function conditionsFrom(header: readonly string[][]): Pick<FileCurve, 'irradiance_Wm2' | 'temperature_C'> {
  const valueAbove = (of: 'irradiance' | 'temperature'): number | null => {
    const line = header.find(([key]) => key !== undefined && heads[of].test(plain(key)))
    const text = line?.slice(1).find((cell) => /\d/.test(cell))
    const value = text ? Number(/[-+]?\d+([.,]\d+)?/.exec(text)?.[0].replace(',', '.')) : Number.NaN
    return Number.isFinite(value) ? value : null
  }
  return { irradiance_Wm2: valueAbove('irradiance'), temperature_C: valueAbove('temperature') }
}

/** Curves as JSON: one or several of `{name?, points: [[V, A], ...]}` or `{voltages_V, currents_A}`; null where it is none. */
export function curvesOfJson(text: string): FileCurve[] | null {
  let data: unknown
  try {
    data = JSON.parse(text)
  } catch {
    return null
  }
  const holder = data as { curves?: unknown }
  const list = Array.isArray(data) ? data : Array.isArray(holder?.curves) ? holder.curves : [data]
  const curves = list.map(jsonCurve)
  return curves.every((one) => one !== null) && curves.length > 0 ? curves : null
}

function jsonCurve(one: unknown): FileCurve | null {
  const held = one as Partial<{
    name: unknown
    tag: unknown
    points: unknown
    voltages_V: unknown
    currents_A: unknown
    irradiance_Wm2: unknown
    cellTemperature_C: unknown
  }> | null
  if (typeof held !== 'object' || held === null) return null
  const points = Array.isArray(held.points)
    ? held.points
    : Array.isArray(held.voltages_V) &&
        Array.isArray(held.currents_A) &&
        held.voltages_V.length === held.currents_A.length
      ? held.voltages_V.map((voltage, k) => [voltage, (held.currents_A as unknown[])[k]])
      : null
  const isPair = (point: unknown): point is [number, number] =>
    Array.isArray(point) && point.length === 2 && point.every(Number.isFinite)
  if (!points || points.length < 2 || !points.every(isPair)) return null
  const number = (value: unknown): number | null => (Number.isFinite(value) ? (value as number) : null)
  return {
    name: String(held.name ?? held.tag ?? ''),
    points,
    skipped: 0,
    irradiance_Wm2: number(held.irradiance_Wm2),
    temperature_C: number(held.cellTemperature_C),
  }
}

export type OutCurve = {
  tag: string
  points: readonly CurvePoint[]
  irradiance_Wm2: number | null
  cellTemperature_C: number | null
}

/** Curves as a table, the same figures as they were read: tag, volts, amperes, and the light and warmth of the sweep. */
export function curvesAsCsv(curves: readonly OutCurve[]): string {
  const rows = curves.flatMap(({ tag, points, irradiance_Wm2, cellTemperature_C }) =>
    points.map(([voltage, current]) => [tag, voltage, current, irradiance_Wm2 ?? '', cellTemperature_C ?? '']),
  )
  const fields = ['string', 'voltage (V)', 'current (A)', 'irradiance (W/m2)', 'cell temperature (degC)']
  return Papa.unparse({ fields, data: rows }, { newline: '\n' })
}
export const curvesAsJson = (curves: readonly OutCurve[]): string => JSON.stringify({ curves }, null, 1)
