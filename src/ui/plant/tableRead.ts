/**
 * A strings table or a circuit list out of a spreadsheet as parts in pencil: which column holds what by its head, what is
 * doubtful asked about, what cannot be read said. Nothing is kept before somebody says so.
 */
import '@/words/plant'
import Papa from 'papaparse'
import { fieldsOf, kindOf, type RuledField } from '@/core/plant/kinds'
import type { ModuleType, PartData } from '@/core/plant/part'
import type { PlantIndex } from '@/core/plant/plantIndex'
import { parseReading } from '@/core/quantity/parseReading'
import { say } from '@/words/say'
import { labelOf, type Libraries, readPart, tagTaken, type Texts, textsOf } from './partForm'

export type TableKind = 'circuit' | 'string'
/** What a column holds: a field of the part, or two of them in one cell. */
export type TableColumn = string
export const NOT_USED = ''
/** B32; 2.5/1.5: columns of which each cell holds two figures. */
export const DEVICE_AND_RATING = 'device+rating_A'
export const BOTH_AREAS = 'line_mm2+protective_mm2'

export const MOST_TABLE_ROWS = 400

type Heads = Record<TableColumn, readonly string[]>
/** The usual heads of a column, without signs and units; our own labels are taken as well. */
const heads: Record<TableKind, Heads> = {
  circuit: {
    tag: ['way', 'circuit', 'no', 'number', 'circuitno', 'circuitnumber', 'wayno', 'ref', 'tag'],
    feeds: ['feeds', 'description', 'designation', 'circuitdescription', 'name', 'load', 'whatitfeeds'],
    [DEVICE_AND_RATING]: ['device', 'protection', 'breaker', 'mcb', 'ocpd', 'fuse', 'protectivedevice'],
    rating_A: ['rating', 'rated', 'in', 'amps', 'current', 'deviceA'],
    breaking_kA: ['breaks', 'breaking', 'breakingcapacity', 'icn', 'ka'],
    [BOTH_AREAS]: ['mm', 'cable', 'csa', 'size', 'conductors', 'crosssection', 'cablesize', 'lineearth'],
    line_mm2: ['line', 'live', 'liveconductor', 'lineconductor', 'linemm'],
    protective_mm2: ['pe', 'cpc', 'earth', 'protective', 'protectiveconductor', 'pemm'],
    length_m: ['length', 'm', 'len', 'metres', 'meters', 'cablelength', 'run'],
    phases: ['phases', 'poles', 'ph'],
    layout: ['wired', 'wiredas', 'layout', 'type', 'circuittype'],
    rcdId: ['rcd', 'rcbo', 'residualcurrentdevice'],
  },
  string: {
    tag: ['string', 'no', 'number', 'stringno', 'tag', 'ref', 'stringnumber'],
    modulesInSeries: [
      'modules',
      'inseries',
      'modulesinseries',
      'count',
      'panels',
      'moduleperstring',
      'modulesperstring',
    ],
    moduleType: ['type', 'module', 'moduletype', 'model', 'panel'],
    arrayId: ['array', 'roof', 'plane', 'field'],
    inverterId: ['inverter', 'inv'],
    input: ['input', 'tracker', 'mppt', 'trackerinput'],
    combinerId: ['combiner', 'combinerbox', 'cb'],
    switchId: ['switch', 'dcswitch', 'isolator'],
  },
}

export const columnsOf = (kind: TableKind): readonly TableColumn[] => Object.keys(heads[kind])

const plain = (text: string): string => text.toLowerCase().replace(/[^a-z]/g, '')
const fieldOf = (kind: TableKind, id: string): RuledField =>
  fieldsOf(kindOf(kind)).find((one) => one.id === id) ?? fieldsOf(kindOf(kind))[0]!

/** What a column is called where it is chosen. */
export function columnName(kind: TableKind, column: TableColumn): string {
  if (column === NOT_USED) return say('table.not-used')
  if (column === 'tag') return say(kind === 'circuit' ? 'table.way' : 'table.string')
  if (column === DEVICE_AND_RATING) return say('table.device')
  if (column === BOTH_AREAS) return say('table.areas')
  return labelOf(fieldOf(kind, column))
}

function columnFor(kind: TableKind, head: string): TableColumn {
  const name = plain(head.replace(/[([,].*$/, ''))
  if (name === '') return /mm/.test(head) ? BOTH_AREAS : NOT_USED
  const isIt = (column: TableColumn): boolean =>
    heads[kind][column]!.includes(name) || plain(columnName(kind, column).replace(/,.*$/, '')) === name
  return columnsOf(kind).find(isIt) ?? NOT_USED
}

export type Table = {
  kind: TableKind
  heads: readonly string[]
  columns: readonly TableColumn[]
  rows: readonly (readonly string[])[]
}

/** Reads what was pasted or opened. @returns a sentence where it is no table. */
export function readTable(text: string): Table | { refused: string } {
  const { data } = Papa.parse<string[]>(text.replace(/^\uFEFF/, ''), {
    skipEmptyLines: 'greedy',
    delimitersToGuess: ['\t', ';', ','],
    preview: MOST_TABLE_ROWS + 2,
  })
  const [first, ...rest] = data.map((row) => row.map((cell) => cell.trim()))
  if (!first) return { refused: say('table.empty') }
  const byKind = (['circuit', 'string'] as const).map((kind) => {
    const columns = onlyOnce(first.map((head) => columnFor(kind, head)))
    return { kind, columns, known: columns.filter((one) => one !== NOT_USED).length }
  })
  byKind.sort((a, b) => b.known - a.known)
  const { kind, columns, known } = byKind[0]!
  // Two heads that are known make a head row; a table without one is asked about column by column.
  const hasHeads = known >= 2
  const rows = hasHeads ? rest : [first, ...rest]
  if (rows.length === 0) return { refused: say('table.empty') }
  if (rows.length > MOST_TABLE_ROWS) return { refused: say('table.too-many', { most: MOST_TABLE_ROWS }) }
  if (first.length < 2) return { refused: say('table.one-column') }
  return {
    kind,
    heads: hasHeads ? first : first.map((_, k) => String(k + 1)),
    columns: hasHeads ? columns : first.map(() => NOT_USED),
    rows,
  }
}

/** The second column of a name stands for nothing. */
const onlyOnce = (columns: readonly TableColumn[]): TableColumn[] =>
  columns.map((one, k) => (columns.indexOf(one) === k ? one : NOT_USED))

/** Heads read as parts of the other kind. */
export const readAs = (table: Table, kind: TableKind): Table => ({
  ...table,
  kind,
  columns: onlyOnce(table.heads.map((head) => columnFor(kind, head))),
})

export type Doubt = { key: string; tag: string; what: string; typed: string; choices: readonly string[] }
export type TableRow = {
  /** Null where it cannot be taken. */
  data: PartData | null
  /** Why not. */
  why: string | null
  /** Figures that are left open because they could not be read. */
  open: readonly string[]
}
export type TableParts = { rows: TableRow[]; doubts: Doubt[] }

/** Where the parts go: a board or an array, and the module type of strings whose table names none. */
export type Place = { boardId: string | null; arrayId: string | null; moduleType: ModuleType | null }

/**
 * @param answers what somebody said of a doubtful figure, by its key.
 */
export function partsOfTable(
  table: Table,
  plant: PlantIndex,
  libraries: Libraries,
  place: Place,
  answers: Readonly<Record<string, string>>,
): TableParts {
  const doubts: Doubt[] = []
  const taken = new Set<string>()
  const rows = table.rows.map((cells, k): TableRow => {
    const open: string[] = []
    const texts: Texts = {}
    for (const [n, column] of table.columns.entries()) {
      const cell = cells[n] ?? ''
      if (column === NOT_USED || cell === '') continue
      for (const [id, text] of pairsIn(column, cell)) {
        const key = `${k}.${id}`
        const read = cellText(table.kind, id, text, plant, libraries)
        if ('text' in read) texts[id] = read.text
        else if (answers[key] !== undefined) texts[id] = answers[key]
        else if ('choices' in read)
          doubts.push({
            key,
            tag: tagOf(table, cells),
            what: columnName(table.kind, id),
            typed: text,
            choices: read.choices,
          })
        else open.push(columnName(table.kind, id))
      }
    }
    return { ...asPart(table.kind, texts, plant, libraries, place, taken, k), open }
  })
  return { rows, doubts }
}

const tagOf = ({ columns }: Table, cells: readonly string[]): string => cells[columns.indexOf('tag')] ?? '–'

/** Both figures of a cell that holds two. */
function pairsIn(column: TableColumn, cell: string): [string, string][] {
  if (column === DEVICE_AND_RATING) {
    const [, device = '', rating = ''] = /^(.*?[A-Za-z])?\s*-?\s*(\d[\d.,]*)?\s*A?$/.exec(cell) ?? []
    return [
      ...(device ? ([['device', device.trim()]] as [string, string][]) : []),
      ...(rating ? ([['rating_A', rating]] as [string, string][]) : []),
    ]
  }
  if (column !== BOTH_AREAS) return [[column, cell]]
  const [line = '', protective = ''] = cell.replace(/mm²?2?/gi, '').split(/[/+x×]|\s+and\s+/)
  return [
    ['line_mm2', line.trim()],
    ...(protective.trim() ? ([['protective_mm2', protective.trim()]] as [string, string][]) : []),
  ]
}

type Cell = { text: string } | { choices: readonly string[] } | { open: true }

const lookUp = (text: string, known: readonly { id: string; names: readonly string[] }[]): Cell => {
  const found = known.find(({ names }) => names.some((name) => name.toLowerCase() === text.toLowerCase()))
  return found ? { text: found.id } : { open: true }
}

/** What a cell holds as the text of its field; a figure that can be read in two ways is asked about. */
function cellText(kind: TableKind, id: string, text: string, plant: PlantIndex, libraries: Libraries): Cell {
  const field = fieldOf(kind, id)
  switch (field.rule.takes) {
    case 'part':
      return lookUp(
        text,
        plant.ofKind(field.names!.kind as 'board').map((one) => ({
          id: one.id,
          names: [one.data.tag, `${one.data.tag} ${'name' in one.data ? one.data.name : ''}`],
        })),
      )
    case 'library':
      return lookUp(
        text,
        libraries.module.map((one) => ({ id: one.id, names: [one.name, `${one.make} ${one.name}`] })),
      )
    case 'choice':
      return choiceText(field, text)
    case 'number':
      return figureText(field, text)
    default:
      return { text }
  }
}

function choiceText({ rule, id }: RuledField, text: string): Cell {
  const wanted = id === 'phases' ? text.replace(/\D/g, '') : text
  const found = rule.options.find((one) => String(one).toLowerCase() === wanted.toLowerCase())
  if (found !== undefined) return { text: String(found) }
  const within = rule.options.find(
    (one) => wanted.toLowerCase().includes(String(one).toLowerCase()) && String(one).length > 2,
  )
  return within === undefined ? { open: true } : { text: String(within) }
}

function figureText({ rule }: RuledField, text: string): Cell {
  const bare = text.replace(/\s*(m|mm²|mm2|A|kA|V)\s*$/, '')
  const read = parseReading(bare, 'one')
  const fits = (value: number): boolean =>
    (rule.least === null || value >= rule.least) && (rule.most === null || value <= rule.most)
  if (read.state === 'read') return { text: String(read.reading.value) }
  if (read.state !== 'ask') return { open: true }
  const choices = read.choices.map((one) => one.value).filter(fits)
  return choices.length === 1 ? { text: String(choices[0]) } : { choices: choices.map(String) }
}

function asPart(
  kind: TableKind,
  texts: Texts,
  plant: PlantIndex,
  libraries: Libraries,
  place: Place,
  taken: Set<string>,
  k: number,
): Omit<TableRow, 'open'> {
  const blank = blankOf(kind, place, libraries, texts)
  if (!blank) return { data: null, why: say('table.no-type') }
  const read = readPart(blank, { ...textsOf(blank), ...texts, tag: texts.tag ?? String(k + 1) }, libraries)
  if ('message' in read) return { data: null, why: read.message }
  const tag = read.data.tag.toLowerCase()
  if (taken.has(tag) || tagTaken(plant.parts.values(), kind, tag, null))
    return { data: null, why: say('table.tag-twice', { tag: read.data.tag }) }
  taken.add(tag)
  return { data: read.data, why: null }
}

function blankOf(kind: TableKind, place: Place, libraries: Libraries, texts: Texts): PartData | null {
  if (kind === 'circuit')
    return { ...kindOf('circuit').blank('1', { arrayId: null, boardId: null }), boardId: place.boardId } as PartData
  const named = libraries.module.find((one) => one.id === texts.moduleType) ?? place.moduleType
  return named && { kind: 'string', tag: '1', arrayId: place.arrayId, modulesInSeries: 1, moduleType: named }
}
