import { describe, expect, it } from 'vitest'
import type { SlotValue } from '@/core/record/entry'
import { exampleCircuit, exampleElectrode, exampleRcd } from '@/core/steps/worked'
import { choose, classic, Installation, over, read } from '@/core/testing/installation'
import { certificateOf, type Table } from './certificate'

const ms = (value: number): SlotValue => read(value, 'ms', 1)
const tableOf = (tables: readonly Table[], id: string): Table => tables.find((table) => table.id === id)!
const column = (table: Table, label: string): string[] => {
  const at = table.columns.findIndex((one) => one.label === label)
  return table.rows.map((row) => row[at]?.text ?? '')
}

function tested() {
  const site = new Installation({ supply: { arrangement: 'TT' }, rcd: {} })
  site.regime = classic
  const second = site.build.part({ ...exampleRcd, tag: 'RCD2' })
  const electrode = site.build.part(exampleElectrode)
  site.build.part({
    kind: 'buried-service',
    tag: 'W1',
    what: 'water',
    material: 'metal',
    bearing_deg: 80,
    away_m: 4,
    electrodeId: null,
  })
  const held = { 'half-0': over(1999, 'ms'), 'half-180': over(1999, 'ms') }
  const trips = (once: number, five: number) => ({
    ...held,
    'once-0': ms(once),
    'once-180': ms(once + 4),
    'five-0': ms(five),
    'five-180': ms(five + 1),
  })
  site.take('rcd-trips', site.rcd!, trips(28, 14.2)).take('rcd-trips', second, trips(31, 9))
  site.take('electrode', electrode, {
    'electrode-method': choose('three-lead'),
    'electrode-lead': choose('taken-off'),
    'spike-distance': read(40, 'm', 0),
    'spike-bearing': read(80, 'deg', 0),
    're-1': read(18.3, 'ohm', 1),
    're-2': read(17.7, 'ohm', 1),
    're-3': read(18.3, 'ohm', 1),
  })
  return certificateOf(site.facts, 0, null)
}

describe('earth and the AC side on a certificate', () => {
  const certificate = tested()

  it('has every trip of a device in a column of its own', () => {
    const table = tableOf(certificate.tables, 'rcd-trips')
    expect(column(table, 'IΔn, 180°, ms')).toEqual(['32.0', '35.0'])
    expect(column(table, '5 IΔn, 0°, ms')).toEqual(['14.2', '9.0'])
    expect(column(table, '½ IΔn, 0°, ms')).toEqual(['>1999', '>1999'])
    expect(table.columns.some((one) => one.label === 'Set-up')).toBe(false)
  })

  it('has the electrode’s sheet with its way and the ground from above', () => {
    const [sheet] = certificate.drawings
    expect(sheet).toMatchObject({ title: 'Read electrode E1' })
    expect(sheet!.drawings.map((one) => one.name)).toEqual(['spikes', 'garden'])
    expect(sheet!.drawings[1]!.nodes.some((node) => node.text === 'W1 water')).toBe(true)
  })

  it('names the source of each limit it judged by', () => {
    const sources = certificate.limits.rows.map((row) => row.map((cell) => cell.text).join(' '))
    expect(sources.some((text) => text.includes('IEC 61008-1'))).toBe(true)
    expect(sources.some((text) => text.includes('411.5.3'))).toBe(true)
  })

  it('prints no limits or schools of a side that the plant has not', () => {
    const texts = certificate.limits.rows.map((row) => row[0]!.text)
    expect(texts).toContain('Trips of a residual current device')
    for (const words of ['Voltage in the cold', 'Order of work', 'Strings alike']) expect(texts).not.toContain(words)
  })

  it('has no sheet of what nobody read', () => {
    const site = new Installation({ rcd: {} })
    site.build.part(exampleElectrode)
    expect(certificateOf(site.facts, 0, null).drawings).toEqual([])
  })
})

describe('the row of a circuit', () => {
  it('has R2 in a column of its own where the protective conductor was read by itself', () => {
    const site = new Installation()
    const second = site.build.part({ ...exampleCircuit, tag: '2' })
    const labels = () => tableOf(certificateOf(site.facts, 0, null).tables, 'results-circuit').columns
    site.take('r1r2', site.circuit, { r1r2: read(0.4) })
    expect(labels().some(({ label }) => label.startsWith('R2'))).toBe(false)
    site.take('r1r2', second, { 'continuity-way': choose('protective-alone'), 'r2-alone': read(0.25) })
    const table = tableOf(certificateOf(site.facts, 0, null).tables, 'results-circuit')
    expect(column(table, 'R1+R2, Ω')).toEqual(['0.40', '–'])
    expect(column(table, 'R2, PE alone, Ω')).toEqual(['–', '0.25'])
  })
})
