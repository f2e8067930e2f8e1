import { describe, expect, it } from 'vitest'
import { evaluate } from '@/core/evaluate'
import { readValueOf } from '@/core/quantity/readValue'
import { exampleBoard, exampleCircuit, exampleElectrode, exampleRcd, exampleSupply } from '@/core/steps/worked'
import { FactsBuilder } from '@/core/testing/factsBuilder'
import { certificateOf } from './certificate'
import { plantTables, supplyParticulars } from './plantTables'

const build = new FactsBuilder()
build.part({ ...exampleSupply, arrangement: 'TT', declaredZe_ohm: null })
const boardId = build.part(exampleBoard)
const rcdId = build.part({ ...exampleRcd, boardId, delay: 'selective', rated_mA: 100 })
const circuits = ['1', '2'].map((tag) => build.part({ ...exampleCircuit, tag, boardId, rcdId, breaking_kA: null }))
build.part(exampleElectrode)
for (const [k, id] of circuits.entries())
  build.reading('zs', id, {
    slots: { 'loop-method': { choice: 'non-trip' }, zs: readValueOf(20 + k, 'ohm', 1) },
    conditions: null,
  })
const facts = build.facts()

describe('the plant on the certificate', () => {
  it('has a row a circuit with its device, conductors and RCD', () => {
    const [table] = plantTables(evaluate(facts, 0))
    expect(table!.rows[0]!.map((cell) => cell.text)).toEqual([
      '1',
      'Sockets',
      'radial',
      'DB1',
      'RCD1',
      '1',
      'B32',
      '–',
      '2.5',
      '1.5',
      '20',
    ])
  })

  it('has devices and electrodes, and nothing of what is not there', () => {
    const ids = (all: ReturnType<typeof plantTables>): string[] => all.map((one) => one.id)
    expect(ids(plantTables(evaluate(facts, 0)))).toEqual(['circuit', 'rcd', 'electrode'])
    const roof = new FactsBuilder()
    roof.string('1')
    expect(plantTables(evaluate(roof.facts(), 0))).toEqual([])
    expect(supplyParticulars(evaluate(roof.facts(), 0))).toEqual([])
  })

  it('says supply and earthing, and is called by what the plant has', () => {
    const certificate = certificateOf(facts, 0, null)
    expect(certificate.title).toBe('Electrical test record')
    expect(certificate.particulars.map(([, text]) => text)).toContain('TT, 1 × 230\u00a0V')
    expect(certificate.particulars.map(([label]) => label)).not.toContain('Modules')
  })

  it('says once what holds for all rows of a test', () => {
    const table = certificateOf(facts, 0, null).tables.find((one) => one.id === 'zs')!
    expect(table.note).toBe('All rows: Method: Non-trip')
    expect(table.columns.map((column) => column.label)).not.toContain('Set-up')
  })

  it('prints the limits of the AC side with where they come from', () => {
    const { limits } = certificateOf(facts, 0, null)
    const row = limits.rows.find(([name]) => name!.text === 'Highest RA for its RCD')!
    expect(row.map((cell) => cell.text)).toEqual([
      'Highest RA for its RCD',
      expect.stringContaining('500'),
      expect.stringContaining('411.5.3'),
    ])
  })
})
