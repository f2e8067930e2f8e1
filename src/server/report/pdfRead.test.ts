/** The printed sheet read back by a PDF reader (pdf.js, a general library) and held against the evaluation. */
import { describe, expect, it } from 'vitest'
import { evaluate } from '@/core/evaluate'
import { moduleModel } from '@/core/pv/stringModel'
import type { PartData } from '@/core/plant/part'
import { readValueOf } from '@/core/quantity/readValue'
import { exampleBoard, exampleCircuit, exampleModule, exampleSupply } from '@/core/steps/worked'
import { FactsBuilder } from '@/core/testing/factsBuilder'
import { certificateOf } from '@/report/certificate'
import { readPdf } from '../../../tests/support/readPdf'
import { certificatePdf } from './pdf'

const site = (over: object = {}): PartData =>
  ({ kind: 'site', tag: 'Site', lowestTemperature_C: -8, highestCellTemperature_C: 70, ...over }) as PartData

const printed = async (build: FactsBuilder) => {
  const facts = build.facts()
  const certificate = certificateOf(facts, 0, null)
  return { facts, certificate, pages: await readPdf(await certificatePdf(certificate, null)) }
}

describe('a printed sheet, read back', () => {
  it('has every cell of the strings’ rows as the evaluation has it, each row in one line', async () => {
    const model = moduleModel(exampleModule)
    const build = new FactsBuilder()
    const strings = ['1', '2', '3'].map((tag) => build.string(tag))
    strings.forEach((id, k) => {
      build.polarity(id)
      build.voltage(id, (k === 1 ? 10 : 11) * model.voc_V(742, 43.6))
      build.current(id, model.isc_A(742, 43.6))
    })
    const { facts, certificate, pages } = await printed(build)
    const table = certificate.tables.find(({ id }) => id === 'results-string')!
    const lines = pages.flatMap(({ lines }) => lines)
    for (const row of table.rows) {
      const cells = row.map(({ text }) => text).filter((text) => text !== '' && !text.includes(' '))
      expect(
        lines.some((line) => cells.every((cell) => line.split(/\s+/).includes(cell))),
        cells.join(' | '),
      ).toBe(true)
    }
    // The figure itself, from the evaluation and not by way of the table.
    const evaluation = evaluate(facts, 0)
    for (const id of strings) {
      const { judgement } = evaluation.byKey.get(`pv-voc:${id}`)!
      const cells = [judgement!.rule!.measured!.text, judgement!.rule!.expected!.value.toFixed(1)]
      expect(lines.some((line) => cells.every((cell) => line.includes(cell)))).toBe(true)
    }
    expect(pages[0]!.text).toContain('1 test lies outside of the limits')
  }, 30_000)

  it('has the greatest permitted loop of each circuit beside what was read', async () => {
    const build = new FactsBuilder()
    build.part(exampleSupply)
    const boardId = build.part(exampleBoard)
    const on = (tag: string, rating_A: number): string => build.part({ ...exampleCircuit, tag, boardId, rating_A })
    const ids = [on('1', 32), on('2', 16)]
    for (const id of ids)
      build.reading('zs', id, { slots: { 'loop-method': { choice: 'high-current' }, zs: readValueOf(0.41, 'ohm', 2) } })
    const { certificate, pages } = await printed(build)
    const table = certificate.tables.find(({ id }) => id === 'results-circuit')!
    const most = table.columns.findIndex(({ label }) => label === 'at most')
    // BS 7671 table 41.3 for B32 and B16 (from memory).
    expect(table.rows.map((row) => row[most]!.text)).toEqual(['1.37', '2.73'])
    const lines = pages.flatMap(({ lines }) => lines)
    for (const limit of ['1.37', '2.73'])
      expect(lines.some((line) => line.split(/\s+/).includes(limit) && line.includes('0.41'))).toBe(true)
  }, 30_000)

  it('has result, client, departures, declarations and the day of the next inspection on its first page', async () => {
    const build = new FactsBuilder(false)
    build.part(
      site({
        client: 'Orla Fenwright',
        work: 'addition',
        departures: 'none',
        designer: 'Isolde Marrow',
        nextOn: '2031-03-07',
      }),
    )
    const [first] = (await printed(build)).pages
    for (const wanted of ['Not finished', 'Orla Fenwright', 'addition', 'Isolde Marrow', '7 Mar 2031', 'not signed'])
      expect(first!.text).toContain(wanted)
  }, 30_000)

  it('has a page for the owner, by itself', async () => {
    const build = new FactsBuilder(false)
    build.part(site({ callWhom: 'Marrow and Daughter, 01632 960 118' }))
    build.string('1')
    const page = (await printed(build)).pages.find(({ text }) => text.includes('For the owner'))!
    expect(page.text).toContain('How to switch it off')
    expect(page.text).toContain('Marrow and Daughter, 01632 960 118')
    expect(page.text).not.toContain('Working of every value')
  }, 30_000)

  it('marks what its font has no letter for, and says so, where a name is written from the right or with a picture', async () => {
    const build = new FactsBuilder(false)
    build.part(site({ client: 'עמית Świątek 😀', extent: `${'long '.repeat(99)}end` }))
    const pages = (await printed(build)).pages
    expect(pages[0]!.text).toContain('???? ?wi?tek ?')
    expect(pages[0]!.text).toContain('end')
    expect(pages.map(({ text }) => text).join()).toContain('no letter for')
  }, 30_000)
})
