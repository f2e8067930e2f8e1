/** The certificate as PDF, made on the server without a browser, from the same sections as the preview. */
import { resolve } from 'node:path'
import pdfmake from 'pdfmake'
import type { CanvasElement, Content, TableCell, TDocumentDefinitions } from 'pdfmake/interfaces'
import type { SourceId } from '@/core/regime/sources'
import type { Verdict } from '@/core/verdict/verdict'
import type { WorkingLine } from '@/core/verdict/working'
import { printed } from '@/look/tokens'
import type { Certificate, Table } from '@/report/certificate'
import { sourceLine } from '@/report/sourceLine'
import { Printable } from './printable'
import { type Drawing, svgOf } from '@/report/drawing/node'
import { resultText, say, sayCode } from '@/words/say'

const FONTS = resolve(process.cwd(), 'assets/fonts')
const regular = resolve(FONTS, 'UpstandPrint-Regular.ttf')
const bold = resolve(FONTS, 'UpstandPrint-Bold.ttf')

let prepared = false
function prepare(): void {
  if (prepared) return
  pdfmake.setFonts({ Print: { normal: regular, bold, italics: regular, bolditalics: bold } })
  pdfmake.setUrlAccessPolicy(() => false)
  pdfmake.setLocalAccessPolicy((path) => path === regular || path === bold)
  prepared = true
}

export type SealLines = {
  hash: string
  /** Fingerprints of the company's keys, that which signed this last. */
  keys: readonly string[]
  attachment: { name: string; bytes: string }
}

const { ink: INK, ink2: GREY, hair: HAIR, sheet: PAPER } = printed

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
const mark = (verdict: Verdict): Content => ({ canvas: structuredClone(shapes[verdict]), margin: [0, 1.5, 0, 0] })

const ruled = {
  hLineWidth: (row: number, node: { table: { body: unknown[] } }) =>
    row <= 1 || row === node.table.body.length ? 1 : 0.4,
  vLineWidth: () => 0,
  hLineColor: (row: number, node: { table: { body: unknown[] } }) =>
    row <= 1 || row === node.table.body.length ? INK : HAIR,
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

const isSchedule = ({ id }: Table): boolean => id.startsWith('results-')

/** Schedules first, all on their side where one of them is too wide to stand; then everything but the annex. */
function mainTables({ tables }: Certificate): Content[] {
  const schedules = tables.filter(isSchedule)
  // Many figures in small print, and each row in one line as far as it goes.
  const rest = tables.filter((table) => !isSchedule(table) && !table.annex).flatMap(tableOf)
  if (!schedules.some(({ wide }) => wide)) return [...schedules.flatMap(tableOf), ...rest]
  return [
    turned(
      'landscape',
      schedules.flatMap((table) => tableOf({ ...table, wide: true })),
    ),
    turned('portrait', rest),
  ]
}

/** On a new page of its own, which lies or stands. */
const turned = (pageOrientation: 'landscape' | 'portrait', stack: Content[]): Content => ({
  stack,
  pageOrientation,
  pageBreak: 'before',
})

function annexOf(certificate: Certificate): Content[] {
  const tables = certificate.tables.filter(({ annex }) => annex)
  if (tables.length === 0) return []
  return [
    { text: say('certificate.annex'), fontSize: 14, bold: true, color: INK, pageBreak: 'before' },
    ...tables.flatMap(tableOf),
  ]
}

/** The result in one sentence with its mark, how many of each verdict, and what must be known besides. */
function resultOf({ result }: Certificate): Content {
  const counts = result.counts.flatMap(({ verdict, count }): Content[] => [
    { ...(mark(verdict) as object), width: 9 } as Content,
    { text: `${count} ${say(`verdict.${verdict}`).toLowerCase()}`, width: 'auto' } as Content,
  ])
  return {
    table: {
      widths: ['*'],
      body: [
        [
          {
            stack: [
              {
                columns: [
                  { ...(mark(result.verdict) as object), width: 14 } as Content,
                  { text: result.sentence, bold: true, fontSize: 11, color: INK, width: '*' },
                ],
              },
              { columns: counts, columnGap: 6, fontSize: 9, margin: [14, 3, 0, 0] },
              ...result.besides.map((text): Content => ({ text, fontSize: 9, margin: [14, 2, 0, 0] })),
            ],
            margin: [0, 3, 0, 3],
          },
        ],
      ],
    },
    layout: { ...ruled, paddingLeft: () => 6 } as never,
    margin: [0, 10, 0, 0],
  }
}

function ownerOf({ owner }: Certificate): Content[] {
  return [
    { text: owner.title, fontSize: 20, bold: true, color: INK, pageBreak: 'before' },
    ...owner.blocks.map(
      ({ title, lines, inOrder }): Content => ({
        stack: [{ text: title, style: 'section' }, inOrder ? { ol: lines } : lines.length > 1 ? { ul: lines } : lines],
        fontSize: 11,
        lineHeight: 1.2,
        unbreakable: true,
      }),
    ),
  ]
}

function tableOf(table: Table): Content[] {
  const head: TableCell[] = table.columns.map((column) => ({
    text: column.label,
    alignment: column.align,
    color: GREY,
    fontSize: isSchedule(table) ? 6.5 : 8,
  }))
  const body: TableCell[][] = table.rows.map((row) =>
    row.map((cell, k): TableCell => {
      // Where one column has room for sentences, short words of the others stay whole.
      const noWrap = table.stretch !== undefined && k !== table.stretch && cell.text.length <= WHOLE
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
  const drawn: Content[] = [
    { text: table.title, style: 'section' },
    ...(table.note ? [{ text: table.note, fontSize: 8, color: GREY, margin: [0, 0, 0, 2] } as Content] : []),
    {
      table: { headerRows: 1, keepWithHeaderRows: 3, dontBreakRows: true, widths, body: [head, ...body] },
      layout: (isSchedule(table) ? { ...ruled, paddingRight: () => 4 } : ruled) as never,
      fontSize: table.wide || isSchedule(table) ? 7.5 : 9,
    },
  ]
  // A short table stays on one page with its title; a long one breaks, and repeats its head.
  return table.rows.length <= SHORT_TABLE ? [{ stack: drawn, unbreakable: true }] : drawn
}

function workingOf(certificate: Certificate): Content[] {
  if (certificate.working.length === 0) return []
  const used = certificate.working.flatMap((section) => section.lines.map((line) => line.source))
  const numbered = [...new Set(used)].filter((one) => one !== null)
  return [
    { text: say('certificate.working'), style: 'section', pageBreak: 'before' },
    {
      stack: numbered.map((source, k) => `[${k + 1}] ${sourceLine(source, certificate.compared)}`),
      fontSize: 7,
      color: GREY,
    },
    // Short lines that never wrap, no tables: hundreds of sections are laid out several times as fast.
    ...certificate.working.map(
      (section): Content => ({
        stack: [
          { text: section.title, bold: true, fontSize: 9, margin: [0, 0, 0, 1] },
          ...section.lines.map((line) => workingLine(line, numbered)),
        ],
        fontSize: 8,
        margin: [0, 7, 0, 0],
        noWrap: true,
        unbreakable: true,
      }),
    ),
  ]
}

function workingLine(line: WorkingLine, numbered: readonly SourceId[]): Content {
  const { result, source } = line
  const value = result ? ` = ${resultText(result)}` : ''
  const mark = source ? `  [${numbered.indexOf(source) + 1}]` : ''
  return { text: `${sayCode('working', line.code, line.figures)}${value}${mark}`, bold: line.decides ?? false }
}

function signaturesOf(certificate: Certificate): Content[] {
  const rows: TableCell[][] = certificate.declarations.map((one) => [
    { text: one.role },
    { text: one.name, bold: true },
    { text: one.statement },
    one.at === null
      ? { text: `\n${say('certificate.on-paper')}`, fontSize: 7, color: GREY }
      : { text: one.fresh ? one.at : `${one.at} (${say('certificate.stale')})` },
  ])
  if (certificate.declarations.every(({ at }) => at === null))
    rows.push([{ text: say('certificate.unsigned'), colSpan: 4 }, '', '', ''])
  return [
    { text: say('certificate.signatures'), style: 'section' },
    {
      table: { widths: [74, 110, '*', 100], dontBreakRows: true, body: rows },
      layout: ruled as never,
      fontSize: 9,
    },
    ...(certificate.byOnePerson
      ? [{ text: say('certificate.same-person'), fontSize: 8, margin: [0, 4, 0, 0] } as Content]
      : []),
  ]
}

function sealOf(certificate: Certificate, seal: SealLines | null): Content[] {
  if (!seal || !certificate.issue) return []
  return [
    {
      stack: [
        say('certificate.seal', { issue: certificate.issue, hash: seal.hash }),
        say('certificate.key', { key: seal.keys.at(-1) ?? '' }),
        ...seal.keys.slice(0, -1).map((key) => say('certificate.other-key', { key })),
        say('certificate.verify', { file: seal.attachment.name }),
        say('certificate.verify-how'),
      ],
      fontSize: 7,
      color: GREY,
      margin: [0, 10, 0, 0],
    },
  ]
}

const PHOTOS_IN_A_ROW = 2
const PHOTO_WIDE = 245
const PHOTO_HIGH = 200

/** Pictures, two in a row, each with what it belongs to; one that has not reached the office yet says so. */
function photosOf(certificate: Certificate, pictures: ReadonlyMap<string, Buffer>): Content[] {
  if (certificate.photos.length === 0) return []
  const cells = certificate.photos.map(
    (one): Content => ({
      unbreakable: true,
      stack: [
        pictures.has(one.attachment)
          ? {
              image: `data:image/jpeg;base64,${pictures.get(one.attachment)!.toString('base64')}`,
              fit: [PHOTO_WIDE, PHOTO_HIGH],
            }
          : { text: say('photo.not-here'), color: GREY },
        { text: one.title, bold: true, fontSize: 8, margin: [0, 3, 0, 0] },
        { text: one.about, fontSize: 8, color: GREY },
      ],
    }),
  )
  const rows: Content[] = []
  for (let k = 0; k < cells.length; k += PHOTOS_IN_A_ROW)
    rows.push({ columns: cells.slice(k, k + PHOTOS_IN_A_ROW), columnGap: 18, margin: [0, 6, 0, 0], unbreakable: true })
  return [{ text: say('certificate.photos'), style: 'section' }, ...rows]
}

const DRAWINGS_IN_A_ROW = 2
const DRAWING_WIDE = 236

/** What was read as a picture, two in a row, under the name of its test and part; lone ones share a row. */
function drawingsOf(certificate: Certificate): Content[] {
  const content: Content[] = []
  let lone: { title: string; drawing: Drawing }[] = []
  const flush = (): void => {
    for (let k = 0; k < lone.length; k += DRAWINGS_IN_A_ROW) {
      const columns = lone.slice(k, k + DRAWINGS_IN_A_ROW).map(({ title, drawing }) => ({
        stack: [
          { text: title, style: 'section' },
          { svg: svgOf(drawing), width: DRAWING_WIDE },
        ],
        width: DRAWING_WIDE,
      }))
      content.push({ columns, columnGap: 24, unbreakable: true })
    }
    lone = []
  }
  for (const { title, drawings } of certificate.drawings) {
    const [only, second] = drawings
    if (only && !second) {
      lone.push({ title, drawing: only })
      continue
    }
    flush()
    const cells = drawings.map((one): Content => ({ svg: svgOf(one), width: DRAWING_WIDE }))
    const rows: Content[] = []
    for (let k = 0; k < cells.length; k += DRAWINGS_IN_A_ROW)
      rows.push({ columns: cells.slice(k, k + DRAWINGS_IN_A_ROW), columnGap: 24, margin: [0, 4, 0, 4] })
    content.push({ stack: [{ text: title, style: 'section' }, ...rows], unbreakable: true })
  }
  flush()
  return content
}

/** Who issues the certificate, above its first page; lines as the company wrote them. */
function letterheadOf({ company: { name, letterhead } }: Certificate): Content {
  const reach = [letterhead.phone, letterhead.email].filter(Boolean).join(' · ')
  return {
    table: {
      widths: ['*', 'auto'],
      body: [
        [
          { stack: [{ text: name, fontSize: 14, bold: true, color: INK }, ...linesOf(letterhead.registration)] },
          { stack: [...linesOf(letterhead.address), reach].filter(Boolean), alignment: 'right' },
        ],
      ],
    },
    layout: { ...ruled, hLineWidth: (row: number) => (row === 1 ? 1 : 0), hLineColor: () => INK } as never,
    fontSize: 8,
    color: GREY,
    margin: [0, 0, 0, 14],
  }
}
const linesOf = (text: string): string[] => text.split('\n').filter((one) => one.trim() !== '')

/** Draws a certificate with its pictures; the sealed data are attached inside the file. */
export async function certificatePdf(
  written: Certificate,
  seal: SealLines | null,
  pictures: ReadonlyMap<string, Buffer> = new Map(),
): Promise<Buffer> {
  prepare()
  const printable = new Printable(regular)
  const certificate = printable.all(written)
  if (printable.lost) certificate.cautions.push(say('certificate.unprinted'))
  const state = certificate.issue ? say('certificate.issue', { issue: certificate.issue }) : say('certificate.draft')
  const subject = certificate.particulars[0]?.[1] ?? ''
  const definition: TDocumentDefinitions = {
    pageSize: certificate.company.letterhead.paper,
    pageMargins: [42, 56, 42, 48],
    info: { title: `${certificate.title}, ${subject}`, creator: 'Upstand', subject: state },
    defaultStyle: { font: 'Print', fontSize: 10, color: certificate.issue ? INK : GREY },
    styles: { section: { fontSize: 12, bold: true, margin: [0, 14, 0, 4], color: INK } },
    header: {
      columns: [{ text: subject }, { text: state, alignment: 'right' }],
      margin: [42, 28, 42, 0],
      fontSize: 8,
      color: GREY,
    },
    footer: (page, pages) => ({
      columns: [{ text: certificate.title }, { text: say('certificate.page', { page, pages }), alignment: 'right' }],
      margin: [42, 16, 42, 0],
      fontSize: 8,
      color: GREY,
    }),
    content: [
      letterheadOf(certificate),
      {
        columns: [
          { text: certificate.title, fontSize: 20, bold: true, color: INK },
          { text: state, alignment: 'right', fontSize: 12, bold: true, color: INK },
        ],
      },
      resultOf(certificate),
      {
        table: {
          widths: ['auto', '*'],
          body: certificate.particulars.map(([label, value]) => [
            { text: label, color: GREY },
            { text: value, bold: true },
          ]),
        },
        layout: ruled as never,
        margin: [0, 10, 0, 0],
        fontSize: 9,
      },
      ...signaturesOf(certificate),
      { text: say('certificate.remarks'), style: 'section' },
      certificate.remarks.length > 0
        ? { ul: certificate.remarks, fontSize: 9 }
        : { text: say('certificate.no-remarks'), fontSize: 9 },
      ...mainTables(certificate),
      ...drawingsOf(certificate),
      ...photosOf(certificate, pictures),
      ...tableOf(certificate.instruments),
      ...tableOf(certificate.limits),
      ...sealOf(certificate, seal),
      { stack: certificate.cautions, fontSize: 8, color: GREY, margin: [0, 10, 0, 0] },
      ...ownerOf(certificate),
      ...annexOf(certificate),
      ...workingOf(certificate),
    ],
    ...(seal
      ? {
          files: {
            record: {
              src: `data:application/json;base64,${Buffer.from(seal.attachment.bytes).toString('base64')}`,
              name: seal.attachment.name,
              type: 'application/json',
              description: state,
            },
          },
        }
      : {}),
  } as TDocumentDefinitions
  return pdfmake.createPdf(definition).getBuffer() as unknown as Promise<Buffer>
}
