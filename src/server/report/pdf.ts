/** The certificate as PDF, made on the server without a browser, from the same sections as the preview. */
import { resolve } from 'node:path'
import pdfmake from 'pdfmake'
import type { Content, TableCell, TDocumentDefinitions } from 'pdfmake/interfaces'
import type { SourceId } from '@/core/regime/sources'
import type { WorkingLine } from '@/core/verdict/working'
import type { Certificate } from '@/report/certificate'
import { sourceLine } from '@/report/sourceLine'
import { type Drawing, svgOf } from '@/report/drawing/node'
import { resultText, say, sayCode } from '@/words/say'
import { GREY, INK, mark, ruled, tableOf } from './pdfTable'
import { Printable } from './printable'

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

/** Schedules first, all on their side where one of them is too wide to stand; then everything but the annex. */
function mainTables({ tables }: Certificate): Content[] {
  const schedules = tables.filter(({ schedule }) => schedule)
  const rest = tables.filter(({ schedule, annex, head }) => !schedule && !annex && !head).flatMap(tableOf)
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
          { text: certificate.title, fontSize: 20, bold: true, color: INK, width: '*' },
          { text: state, width: 'auto', alignment: 'right', fontSize: 12, bold: true, color: INK },
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
      ...certificate.tables.filter(({ head }) => head).flatMap(tableOf),
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
