import { describe, expect, it } from 'vitest'
import { readValueOf } from '@/core/quantity/readValue'
import { siteInspection } from '@/core/steps/site/siteInspection'
import { moduleModel } from '@/core/pv/stringModel'
import { exampleModule } from '@/core/steps/worked'
import { FactsBuilder, people, testId } from '@/core/testing/factsBuilder'
import { certificateOf } from './certificate'

const plain = (text: string): string => text.replaceAll('\u00a0', ' ')
const one_V = moduleModel(exampleModule).voc_V(742, 43.6)

function commissioned() {
  const build = new FactsBuilder()
  const site = build.part({ kind: 'site', tag: 'Site', lowestTemperature_C: -10, highestCellTemperature_C: 70 })
  const array = build.part({ kind: 'array', tag: 'South', tilt_deg: 35, azimuth_deg: 180, mounting: 'open-rack' })
  const row = build.part({ kind: 'row', tag: 'R1', arrayId: array, conductor: null })
  const string = build.string('1')
  build.part({ kind: 'inverter', tag: 'INV', maxInput_V: 1000 })
  const answers = Object.fromEntries(siteInspection.slots.map((slot) => [slot.id, { choice: 'as-it-should' }]))
  build.reading('inspection', site, {
    slots: { ...answers, labels: { choice: 'not-as-it-should', note: 'one is missing' } },
  })
  build.reading('lead-null', site, { slots: { 'lead-set': { choice: 'reel' }, nulled: readValueOf(0, 'ohm', 2) } })
  build.reading('earth-continuity', row, {
    slots: { resistance: readValueOf(0.18, 'ohm', 2), 'lead-set': { choice: 'reel' } },
  })
  build.polarity(string)
  const short = build.voltage(string, 10 * one_V)
  build.add(
    { kind: 'remedy', v: 1, snag: short, text: 'module plugged in', repeat: ['pv-voc'] },
    { step: 'pv-voc', partId: string, personId: people.ada },
  )
  build.voltage(string, 11 * one_V)
  build.reading('pv-insulation', string, {
    slots: {
      method: { choice: 'each-to-earth' },
      'set-voltage': { choice: 'v500' },
      'negative-to-earth': readValueOf(350, 'Mohm', 0),
      'positive-to-earth': { text: '>999', value: 999, bound: 'more-than', unit: 'Mohm' },
      behaviour: { choice: 'risen-to-it' },
      surface: { choice: 'damp' },
      surge: { choice: 'none-there' },
    },
  })
  build.add(
    { kind: 'photo', v: 1, attachment: testId(5), sha256: 'a'.repeat(64), takenAt: null, caption: 'the plug' },
    { step: 'pv-voc', partId: string },
  )
  return build
}

describe('the DC side on a certificate', () => {
  const certificate = certificateOf(commissioned().facts(), 0, null)
  const table = (id: string) => certificate.tables.find((one) => one.id === id)!
  const texts = (id: string): string[][] => table(id).rows.map((cells) => cells.map((cell) => plain(cell.text)))

  it('says how many modules of which type there are', () => {
    const build = new FactsBuilder()
    build.string('1', 11)
    build.string('2', 14)
    const { particulars } = certificateOf(build.facts(), 0, null)
    expect(particulars.map(([, value]) => plain(value))).toContain('25 × Example Sixty')
  })

  it('prints the inspection line by line, with words and marks', () => {
    expect(table('inspection').rows.length).toBe(siteInspection.slots.length)
    const labels = table('inspection').rows.find((cells) => cells[0]!.text.startsWith('Labels'))!
    expect(labels[1]).toMatchObject({ text: 'To be mended', verdict: 'outside' })
    expect(labels[2]!.text).toBe('one is missing')
  })

  it('prints the design check with what was computed and what it may be', () => {
    const rows = texts('design')
    expect(rows.map(([test]) => test)).toContain('A2 Highest voltage')
    expect(rows.find(([test]) => test === 'A2 Highest voltage')).toContain('South')
    expect(table('design').columns.map((column) => column.label)).toContain('Verdict')
  })

  it('prints earth continuity in ohms, with the limit and the leads', () => {
    const [row] = texts('earth-continuity')
    expect(table('earth-continuity').columns[1]!.label).toBe('Read, Ω')
    expect(row).toEqual(expect.arrayContaining(['R1', '≤ 1.00', 'Lead set: reel', 'Within']))
  })

  it('prints insulation as it counts, and how it was set up', () => {
    const [row] = texts('pv-insulation')
    expect(row!.join('|')).toContain('350')
    expect(row!.join('|')).toContain('≥ 1.0')
    expect(row!.join('|')).toContain('Set to: 500 V')
    const plus = table('pv-insulation').columns.findIndex((column) => column.label === '+ to earth, MΩ')
    expect(row![plus]).toBe('>999')
    expect(row!.at(-1)).toContain('taken damp or wet')
  })

  it('prints a snag with what was found, what was done, by whom, and that it is closed', () => {
    const snags = texts('snags')
    const voltage = snags.find((row) => row[0] === 'Voltage 1')!
    expect(voltage[1]).toContain('below the')
    expect(voltage[1]).toContain('Wren')
    expect(voltage[2]).toContain('module plugged in (Ada')
    expect(voltage[3]).toBe('closed')
    expect(snags.find((row) => row[0] === 'Inspection')!.at(-1)).toBe('open')
  })

  it('names each photo by its step and its words', () => {
    expect(certificate.photos).toMatchObject([{ attachment: testId(5), title: 'Voltage 1: the plug' }])
  })

  it('prints every limit that was used with its source, and the schools, and no other', () => {
    const rows = certificate.limits.rows.map((cells) => cells.map((cell) => plain(cell.text)))
    const row = rows.find((cells) => cells[0] === 'Earth continuity to a row, set limit')!
    expect(row.slice(1)).toEqual(['1 Ω', 'common practice, no source'])
    expect(rows.find((cells) => cells[0] === 'Insulation test voltage')![1]).toBe('by the standard’s table')
    expect(rows.map(([name]) => name)).not.toContain('Fill factor of a curve under the model’s')
  })

  it('prints the limits that stand in no regime, of tables and plates, once each', () => {
    const rows = certificate.limits.rows.map((cells) => cells.map((cell) => plain(cell.text)))
    expect(rows.filter((cells) => cells[0] === 'Least insulation')).toEqual([
      ['Least insulation', '1 MΩ', 'IEC 62446-1:2016+A1, 6.7, table 2 *'],
    ])
  })

  it('prints by whom a source was held against its document', () => {
    const held = {
      source: 'iec-62446-insulation',
      edition: '2016+A1',
      by: 'Isolde Marrow',
      at: '2026-03-07T09:00:00.000Z',
      agrees: true,
      note: '',
    }
    const { limits } = certificateOf(commissioned().facts({ compared: [held] }), 0, null)
    const row = limits.rows.find(([name]) => name!.text === 'Least insulation')!
    expect(plain(row[2]!.text)).toContain('compared with 2016+A1, Isolde Marrow, 7 Mar 2026')
  })

  it('works every sum out, the design check among them', () => {
    const keys = certificate.working.map((section) => section.key.split(':')[0])
    expect(keys).toEqual(expect.arrayContaining(['design-voltage', 'earth-continuity', 'pv-voc', 'pv-insulation']))
  })
})
