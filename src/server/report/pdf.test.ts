import { describe, expect, it } from 'vitest'
import { moduleModel } from '@/core/pv/stringModel'
import { exampleModule } from '@/core/steps/worked'
import { FactsBuilder } from '@/core/testing/factsBuilder'
import { certificateOf } from '@/report/certificate'
import { attachmentOf } from '../../../tests/support/pdfAttachment'
import { certificatePdf } from './pdf'

function certificate(strings: number, issue: string | null) {
  const model = moduleModel(exampleModule)
  const build = new FactsBuilder()
  for (let n = 1; n <= strings; n++) {
    const string = build.string(String(n))
    build.polarity(string)
    build.voltage(string, 11 * model.voc_V(742, 43.6) * (n % 7 === 0 ? 0.9 : 1))
  }
  return certificateOf(build.facts(), 0, issue)
}
const pagesOf = (pdf: Buffer): number =>
  Number(
    /\/Type \/Pages[^>]*\/Count (\d+)/.exec(pdf.toString('latin1'))?.[1] ??
      /\/Count (\d+)/.exec(pdf.toString('latin1'))?.[1],
  )

describe('the certificate as PDF', () => {
  it('embeds its fonts, and nothing from outside', async () => {
    const pdf = (await certificatePdf(certificate(2, null), null)).toString('latin1')
    expect(pdf.startsWith('%PDF-')).toBe(true)
    expect(pdf.match(/FontFile2/g)?.length).toBeGreaterThanOrEqual(2)
    expect(pdf).toContain('UpstandPrint-Regular')
    expect(pdf).not.toContain('Helvetica')
    expect(pdf).not.toContain('EmbeddedFile')
  })

  it('is printed on the paper that the company keeps', async () => {
    const plain = certificate(1, null)
    const sizeOf = async (paper: 'A4' | 'LETTER'): Promise<string> => {
      const { name, letterhead } = plain.company
      const on = { ...plain, company: { name, letterhead: { ...letterhead, paper } } }
      return /\/MediaBox \[([\d. ]+)\]/.exec((await certificatePdf(on, null)).toString('latin1'))?.[1] ?? ''
    }
    // ISO 216: 210 × 297 mm; ANSI/ASME Y14.1, size A: 8.5 × 11 in, 72 points each. From memory.
    expect(await sizeOf('A4')).toBe('0 0 595.28 841.89')
    expect(await sizeOf('LETTER')).toBe('0 0 612 792')
  })

  it('grows by pages with its strings', async () => {
    const few = pagesOf(await certificatePdf(certificate(2, null), null))
    const many = pagesOf(await certificatePdf(certificate(80, null), null))
    expect(few).toBeGreaterThanOrEqual(2)
    expect(many).toBeGreaterThan(few + 5)
  }, 30_000)

  it('carries the sealed data as they are', async () => {
    const bytes = '{"format":"upstand-sealed-record","Ω":"≥"}'
    const pdf = await certificatePdf(certificate(1, 'A'), {
      hash: 'a'.repeat(64),
      keys: ['c'.repeat(64), 'b'.repeat(64)],
      attachment: { name: 'x-A.json', bytes },
    })
    expect(attachmentOf(pdf)).toBe(bytes)
  })

  it('of an empty job is short: what is judged by, and the open lists of its site', async () => {
    expect(pagesOf(await certificatePdf(certificate(0, null), null))).toBeLessThanOrEqual(4)
  })
})
