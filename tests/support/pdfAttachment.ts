import { inflateSync } from 'node:zlib'

/** The text of the JSON file attached inside a PDF: the one stream that holds a sealed record. */
export function attachmentOf(pdf: Buffer): string {
  const latin = pdf.toString('latin1')
  for (let at = latin.indexOf('stream\n'); at !== -1; at = latin.indexOf('stream\n', at + 1)) {
    if (latin.slice(at - 3, at) === 'end') continue
    const from = at + 'stream\n'.length
    const bytes = pdf.subarray(from, latin.indexOf('endstream', from))
    let text: string
    try {
      text = inflateSync(bytes).toString('utf8')
    } catch {
      continue
    }
    if (text.includes('"upstand-sealed-record"')) return text
  }
  throw new Error('attachmentOf: expected a sealed record inside the PDF')
}
