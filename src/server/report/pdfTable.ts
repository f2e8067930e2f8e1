/** Tables and marks of the printed certificate. */
import type { CanvasElement, Content, TableCell } from 'pdfmake/interfaces'
import type { Verdict } from '@/core/verdict/verdict'
import { printed } from '@/look/tokens'
import type { Table } from '@/report/certificate'

export const { ink: INK, ink2: GREY, hair: HAIR, sheet: PAPER } = printed

type Stroke = {
  type: 'polyline'
  points: { x: number; y: number }[]
  lineWidth: number
  lineColor: string
  closePath?: boolean
  color?: string
}
const line = (lineWidth: number, lineColor: string, ...points: [number, number][]): Stroke => ({
  type: 'polyline',
  points: points.map(([x, y]) => ({ x, y })),
  lineWidth,
  lineColor,
})

/** The marks of verdicts, drawn in a box of 9 points: word and shape survive any printer. */
const shapes: Record<Verdict, CanvasElement[]> = {
  within: [
    { type: 'ellipse', x: 4.5, y: 4.5, r1: 4, r2: 4, color: printed.within },
    line(1, PAPER, [2.5, 4.7], [3.9, 6.1], [6.6, 3]),
  ],
  close: [
    {
      ...line(0.7, INK, [4.5, 0.2], [8.8, 4.5], [4.5, 8.8], [0.2, 4.5]),
      closePath: true,
      color: printed['close-fill'],
    },
    line(1, INK, [5.2, 2.4], [5.2, 6.6]),
    { type: 'ellipse', x: 3.1, y: 4.5, r1: 0.75, r2: 0.75, color: INK },
  ],
  outside: [
    { type: 'rect', x: 0.7, y: 0.7, w: 7.6, h: 7.6, color: printed.outside, lineWidth: 0 },
    line(1.1, PAPER, [2.6, 2.6], [6.4, 6.4]),
    line(1.1, PAPER, [6.4, 2.6], [2.6, 6.4]),
  ],
  'not-yet': [
    {
      type: 'ellipse',
      x: 4.5,
      y: 4.5,
      r1: 3.5,
      r2: 3.5,
      lineWidth: 0.8,
      lineColor: printed.pencil,
      dash: { length: 1.4, space: 1.35 },
    },
  ],
  'held-back': [
    line(1.1, GREY, [1, 0.7], [1, 8.3]),
    line(1.1, GREY, [8, 0.7], [8, 8.3]),
    line(0.7, GREY, [1, 2.8], [8, 2.8]),
    line(0.7, GREY, [1, 6.2], [8, 6.2]),
    line(0.7, GREY, [1.4, 6.2], [7.6, 2.8]),
  ],
  'left-out': [
    { type: 'ellipse', x: 4.5, y: 4.5, r1: 3.5, r2: 3.5, lineWidth: 0.8, lineColor: GREY },
    line(1, GREY, [2.8, 4.5], [6.2, 4.5]),
  ],
}
/** A fresh copy each time: the library writes positions into what it is given. */
export const mark = (verdict: Verdict): Content => ({
  canvas: structuredClone(shapes[verdict]),
  margin: [0, 1.5, 0, 0],
})

type Node = { table: { body: unknown[]; headerRows?: number } }
/** Lines above and below the head of columns and under the last row; a title row over it has none of its own. */
const isMain = (row: number, { table }: Node): boolean =>
  row === (table.headerRows ?? 1) || row === (table.headerRows ?? 1) - 1 || row === table.body.length
const isOverTitle = (row: number, { table }: Node): boolean => row === 0 && (table.headerRows ?? 1) > 1

export const ruled = {
  hLineWidth: (row: number, node: Node) => (isOverTitle(row, node) ? 0 : isMain(row, node) ? 1 : 0.4),
  vLineWidth: () => 0,
  hLineColor: (row: number, node: Node) => (isMain(row, node) ? INK : HAIR),
  paddingTop: () => 2.5,
  paddingBottom: () => 2.5,
  paddingLeft: () => 0,
  paddingRight: () => 7,
}

const SHORT_TABLE = 12
const WHOLE = 20
/** A mark with the word of its verdict, and one with a figure. */
const MARKED_WORD_WIDE = 78
const MARKED_FIGURE_WIDE = 48

/** A table of the certificate; a schedule in small print, each row in one line as far as it goes. */
export function tableOf(table: Table): Content[] {
  const head: TableCell[] = table.columns.map((column) => ({
    text: column.label,
    alignment: column.align,
    color: GREY,
    fontSize: table.schedule ? 6.5 : 8,
  }))
  const body: TableCell[][] = table.rows.map((row) =>
    row.map((cell, k): TableCell => {
      // A figure stays on one line with its sign and its limits; so do short words where one column has room for sentences.
      const isFigure = cell.align === 'right' || (table.stretch !== undefined && k !== table.stretch)
      const noWrap = isFigure && cell.text.length <= WHOLE
      if (!cell.verdict) return { text: cell.text, alignment: cell.align, noWrap }
      if (cell.text === '') return mark(cell.verdict) as TableCell
      return {
        columns: [{ ...(mark(cell.verdict) as object), width: 12 } as Content, { text: cell.text, width: '*' }],
        columnGap: 2,
      }
    }),
  )
  const widths = table.columns.map((column, k) => {
    if (k === (table.stretch ?? table.columns.length - 1)) return '*'
    const marked = table.rows.flatMap((row) => (row[k]?.verdict ? [row[k].text] : []))
    if (marked.length === 0 || marked.every((text) => text === '')) return 'auto'
    return column.align === 'right' ? MARKED_FIGURE_WIDE : MARKED_WORD_WIDE
  })
  const titled: Content[] = [
    { text: table.title, style: 'section' },
    ...(table.note ? [{ text: table.note, fontSize: 8, color: GREY, margin: [0, 0, 0, 2] } as Content] : []),
  ]
  const drawn = (heads: TableCell[][]): Content => ({
    table: {
      headerRows: heads.length,
      keepWithHeaderRows: 3,
      dontBreakRows: true,
      widths,
      body: [...heads, ...body],
    },
    layout: (table.schedule ? { ...ruled, paddingRight: () => 4 } : ruled) as never,
    fontSize: table.wide || table.schedule ? 7.5 : table.fine ? 8 : 9,
  })
  // A short table stays on one page with its title; a long one breaks, and repeats its title and its head.
  if (table.rows.length <= SHORT_TABLE) return [{ stack: [...titled, drawn([head])], unbreakable: true }]
  const over: TableCell = { stack: titled, colSpan: table.columns.length }
  return [drawn([[over, ...head.slice(1).map((): TableCell => ({}))], head])]
}
