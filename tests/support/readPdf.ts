/** Reads a PDF back as people see it: page by page, in lines. */
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs'

export type ReadPage = { text: string; lines: string[] }
type Item = { str: string; transform: number[] }

/** Within so many points two pieces of text stand on one line. */
const ON_LINE = 2

export async function readPdf(pdf: Uint8Array): Promise<ReadPage[]> {
  const document = await getDocument({ data: new Uint8Array(pdf), useSystemFonts: false, verbosity: 0 }).promise
  const pages: ReadPage[] = []
  for (let n = 1; n <= document.numPages; n++) {
    const content = await (await document.getPage(n)).getTextContent()
    const lines: { y: number; items: { x: number; text: string }[] }[] = []
    for (const { str, transform } of content.items as Item[]) {
      if (str.trim() === '') continue
      const [x, y] = [transform[4]!, transform[5]!]
      const line = lines.find((one) => Math.abs(one.y - y) < ON_LINE) ?? { y, items: [] }
      if (line.items.length === 0) lines.push(line)
      line.items.push({ x, text: str.replaceAll('\u00a0', ' ') })
    }
    const written = lines
      .sort((a, b) => b.y - a.y)
      .map(({ items }) =>
        items
          .sort((a, b) => a.x - b.x)
          .map(({ text }) => text)
          .join(' '),
      )
    pages.push({ lines: written, text: written.join('\n').replace(/ +/g, ' ') })
  }
  await document.destroy()
  return pages
}
