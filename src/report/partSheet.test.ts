import { describe, expect, it } from 'vitest'
import { exampleChargePoint } from '@/core/steps/worked'
import { choose, Installation, read } from '@/core/testing/installation'
import { certificateOf } from './certificate'

describe('charge points side by side', () => {
  const site = new Installation({ circuit: { rating_A: 40 } })
  const points = ['CP1', 'CP2'].map((tag) => site.build.part({ ...exampleChargePoint, tag, circuitId: site.circuit }))
  const duties = (full: number, lower: number) => ({
    'cable-full': choose('cable-32'),
    'duty-full': read(full, 'pct', 1),
    'cable-lower': choose('cable-20'),
    'duty-lower': read(lower, 'pct', 1),
  })
  site.take('point-current', points[0]!, duties(53.3, 53.3)).take('point-current', points[1]!, duties(53.2, 33.3))
  const sheet = certificateOf(site.facts, 0, null).tables.find((table) => table.id.startsWith('sheet-charge-point'))!
  const row = (name: string): string[] =>
    sheet.rows.find((cells) => cells[0]!.text.trim() === name)!.map((cell) => cell.text)

  it('have a column each, named by their tags', () => {
    expect(sheet.columns.map((one) => one.label)).toEqual(['Test', 'CP1', 'CP2'])
    expect(sheet.title).toContain('CP1, CP2')
  })

  it('show how each test came out, and its figures under it', () => {
    expect(row('F6 Pilot allows').slice(1)).toEqual(['Outside', 'Within'])
    expect(row('Duty, full, %').slice(1)).toEqual(['53.3', '53.2'])
    expect(row('Duty, a step lower, %').slice(1)).toEqual(['53.3', '33.3'])
    expect(sheet.rows.find((cells) => cells[0]!.text === 'F6 Pilot allows')![1]!.verdict).toBe('outside')
  })

  it('give the record its name, and one alone is not called a pair', () => {
    expect(certificateOf(site.facts, 0, null).title).toBe('Electrical and charge point test record')
    const alone = new Installation({ circuit: { rating_A: 40 } })
    alone.build.part({ ...exampleChargePoint, circuitId: alone.circuit })
    const [own] = certificateOf(alone.facts, 0, null).tables.filter((table) => table.id.startsWith('sheet-'))
    expect(own!.title).toBe(`Charge point ${exampleChargePoint.tag}`)
  })

  it('list no figure that nobody read, and stand in no record without such points', () => {
    expect(sheet.rows.some((cells) => cells[0]!.text.includes('Ramp'))).toBe(false)
    const none = certificateOf(new Installation().facts, 0, null)
    expect(none.title).toBe('Electrical test record')
    expect(none.tables.some((table) => table.id.startsWith('sheet-'))).toBe(false)
  })
})
