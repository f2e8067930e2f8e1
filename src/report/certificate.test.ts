import { describe, expect, it } from 'vitest'
import { evaluate } from '@/core/evaluate'
import { moduleModel } from '@/core/pv/stringModel'
import { coverHash } from '@/core/record/signature'
import { steps } from '@/core/steps'
import { isRead } from '@/core/steps/step'
import { exampleModule } from '@/core/steps/worked'
import { FactsBuilder, people, testId } from '@/core/testing/factsBuilder'
import { certificateOf } from './certificate'
import { sourceLine } from './sourceLine'

const model = moduleModel(exampleModule)
const volts = (modules: number): number => modules * model.voc_V(742, 43.6)
const instrument = {
  id: testId(7),
  tag: '07',
  name: 'Tester',
  calibrationDue: '2026-01-01',
  standIn: true,
  accuracy: { ofReading_pct: 0.5, digits: 2 },
  most: 1000,
}

function roof() {
  const build = new FactsBuilder(false)
  const [sound, short, open] = [build.string('1'), build.string('2'), build.string('10')]
  build.polarity(sound)
  build.polarity(short)
  build.voltage(sound, volts(11), {}, { instrument, how: 'stand-in', note: 'windy' })
  build.voltage(short, volts(10))
  const voided = build.voltage(short, volts(10))
  build.add({ kind: 'void', v: 1, target: voided, reason: 'wrong range' }, { personId: people.ada })
  build.add({ kind: 'left-out', v: 1, reason: 'not wired yet' }, { step: 'pv-polarity', partId: open })
  build.add(
    { kind: 'override', v: 1, gate: 'voltage-first', reason: 'meter was away' },
    { step: 'pv-isc', partId: short },
  )
  build.current(short, model.isc_A(742, 43.6))
  return build
}
const plain = (text: string): string => text.replaceAll('\u00a0', ' ')

describe('what a certificate says', () => {
  const certificate = certificateOf(roof().facts(), 0, null)
  const table = (id: string) => certificate.tables.find((one) => one.id === id)!
  const row = (id: string, tag: string) =>
    table(id)
      .rows.find((cells) => cells[0]!.text === tag)!
      .map((cell) => cell.text)

  it('has a table for every test of its parts, then snags, and a row for every part, in tag order', () => {
    const asked = new Set(evaluate(roof().facts(), 0).steps.map((one) => one.step.id))
    const printed = steps.filter((one) => asked.has(one.id) && isRead(one))
    const idsOf = (all: typeof printed): string[] => all.map((one) => one.id)
    expect(certificate.tables.map((one) => one.id)).toEqual([
      'results-string',
      'particulars',
      ...(steps.some((one) => asked.has(one.id) && !isRead(one)) ? ['design'] : []),
      ...idsOf(printed.filter((one) => one.appliesTo !== 'string')),
      'snags',
      expect.stringMatching(/^compare-/),
      ...idsOf(printed.filter((one) => one.appliesTo === 'string')),
    ])
    expect(table('pv-voc').rows.map((cells) => cells[0]!.text)).toEqual(['1', '2', '10'])
    for (const one of certificate.tables) for (const cells of one.rows) expect(cells.length).toBe(one.columns.length)
  })

  it('holds alike strings side by side, once a group, in the order of their tags', () => {
    const [compared, ...more] = certificate.tables.filter(({ id }) => id.startsWith('compare-'))
    expect(more).toEqual([])
    expect(compared!.columns.map(({ label }) => label).slice(0, 3)).toEqual([
      'String',
      'Voltage',
      'Voltage, % of the middle',
    ])
    const [first] = compared!.rows
    expect(first![1]!.text).toMatch(/^\d+\.\d V$/)
    expect(Number(first![2]!.text)).toBeGreaterThan(50)
  })

  it('shows read, expected, limits, referral, conditions and verdict of a value', () => {
    const cells = row('pv-voc', '1')
    expect(cells[1]).toMatch(/^\d+\.\d ±\d\.\d$/)
    expect(Number(cells[4])).toBeCloseTo(11 * 37.4, 0)
    expect(cells.slice(5, 8)).toEqual(['742', '43.6', 'Within'])
  })

  it('calls a row close only where nothing of it is open', () => {
    const build = new FactsBuilder()
    const id = build.string('1')
    build.polarity(id)
    build.voltage(id, 0.956 * volts(11))
    const facts = build.facts()
    expect(evaluate(facts, 0).byKey.get(`pv-voc:${id}`)!.verdict).toBe('close')
    const [one] = certificateOf(facts, 0, null).tables.find(({ schedule }) => schedule)!.rows
    expect(one!.at(-1)!.verdict).not.toBe('close')
    expect(one!.at(-1)!.verdict).not.toBe('within')
    expect(one!.map(({ verdict }) => verdict)).toContain('close')
  })

  it('flags a simulated instrument and one out of calibration', () => {
    expect(row('pv-voc', '1').at(-1)).toContain('from a simulated instrument')
    expect(row('pv-voc', '1').at(-1)).toContain('out of calibration')
    expect(row('pv-voc', '1').at(-1)).toContain('“windy”')
  })

  it('prints the reason and name of what was left out', () => {
    expect(row('pv-polarity', '10')).toContain('Left out')
    expect(row('pv-polarity', '10').at(-1)).toBe('not wired yet (Wren)')
  })

  it('tells what was asked back, and what was answered to it', () => {
    const build = new FactsBuilder()
    const string = build.string('4')
    build.polarity(string)
    const about = { step: 'pv-polarity', partId: string }
    const question = build.add({ kind: 'question', v: 1, text: 'At the plugs?' }, { ...about, personId: people.ada })
    const remarks = (): string => certificateOf(build.facts(), 0, null).remarks.map(plain).join(' ')
    expect(remarks()).toContain('Polarity 4: Ada asked “At the plugs?”. Nobody has answered.')
    build.add({ kind: 'answer', v: 1, question, text: 'Yes.' }, about)
    expect(remarks()).toContain('Polarity 4: Ada asked “At the plugs?”; Wren answered “Yes.”.')
  })

  it('remarks what is outside and what it means, overrides and voids with their names', () => {
    const remarks = certificate.remarks.map(plain).join('\n')
    expect(remarks).toContain('String 2 reads as if 1 of 11 modules were left out.')
    expect(remarks).toContain('gone on without “Voltage of string 2” (meter was away; Wren)')
    expect(remarks).toContain('a reading was voided (wrong range; Ada)')
  })

  it('says who moved the job to a newer version of its rules, and why', () => {
    const moved = { kind: 'regime-move', v: 1, regime: 'own', from: 1, to: 2, reason: 'the insurer asks' } as const
    const build = new FactsBuilder(false)
    build.string('1')
    build.add(moved, { personId: people.ada })
    const { remarks } = certificateOf(build.facts(), 0, null)
    expect(remarks.map(plain).join()).toMatch(/from version 1 of .* to version 2: the insurer asks \(Ada\)/)
  })

  it('writes out the working of every number', () => {
    expect(certificate.working.map((section) => section.title)).toEqual([
      'Read voltage, string 1',
      'Read voltage, string 2',
      'Read current, string 2',
    ])
    for (const section of certificate.working) expect(section.lines.filter((line) => line.decides).length).toBe(1)
  })

  it('names the source of every limit, with the mark of what was recalled', () => {
    expect(certificate.limits.rows.map((cells) => cells[2]!.text)).toContain('IEC 62446-1:2016+A1, 6.4 and 6.5 *')
    expect(sourceLine('house-close-band', undefined)).toBe('house rule 1')
    expect(certificate.cautions.join()).toContain('written from memory')
  })

  it('lists each instrument once', () => {
    expect(certificate.instruments.rows.map((cells) => cells[0]!.text).sort()).toEqual(['02', '07'])
  })

  it('tells fresh signatures from stale ones', () => {
    const build = roof()
    build.add({
      kind: 'signature',
      v: 1,
      role: 'tested',
      printedName: 'Wren',
      statement: 'so it was',
      coversHash: coverHash(build.entries),
    })
    expect(certificateOf(build.facts(), 0, 'A').declarations).toMatchObject([{ name: 'Wren', fresh: true }])
    build.add({ kind: 'remark', v: 1, text: 'and more' })
    expect(certificateOf(build.facts(), 0, 'A').declarations).toMatchObject([{ fresh: false }])
  })

  it('of an empty job still stands, with the lists of its site open', () => {
    const empty = certificateOf(new FactsBuilder(false).facts(), 0, null)
    expect(empty).toMatchObject({ working: [], remarks: [], issue: null })
    const verdicts = empty.tables.flatMap((one) => one.rows.flatMap((cells) => cells.map((cell) => cell.verdict)))
    expect(verdicts).not.toContain('within')
  })
})
