import { describe, expect, it } from 'vitest'
import type { FoundClass } from '@/core/record/entry'
import { exampleSite } from '@/core/steps/worked'
import { choose, Installation, read } from '@/core/testing/installation'
import { shippedRegimes } from '@/core/regime/shipped'
import { certificateOf, type Table } from './certificate'

const wrong = (note: string) => ({ choice: 'not-as-it-should', note })

/** An installation that is looked at again, with one line of its list not as it should be. */
function inspected(as: FoundClass | null, regimeId?: string) {
  const made = new Installation({ rcd: {} })
  if (regimeId) made.regime = shippedRegimes.find(({ id }) => id === regimeId)!
  const site = made.build.part({ ...exampleSite, work: 'periodic' })
  made.take('ac-inspection', site, { 'look-chart': wrong('no list at the board') })
  const target = made.build.entries.at(-1)!.id
  const about = { step: 'ac-inspection', partId: site }
  if (as) made.build.add({ kind: 'class', v: 1, target, line: 'look-chart', as }, about)
  return { made, site, print: () => certificateOf(made.facts, 0, null) }
}
const texts = (table: Table): string[][] => table.rows.map((row) => row.map(({ text }) => text))

describe('the print of a periodic inspection', () => {
  it('begins with whether it may go on in use, and says what was found before anything else', () => {
    const { result, tables, title, owner } = inspected('could-be').print()
    expect(title).toBe('Report of a periodic inspection')
    expect(result).toMatchObject({
      verdict: 'outside',
      sentence: 'Unsatisfactory for continued use. 1 × Could become dangerous (C2).',
    })
    expect(tables[0]).toMatchObject({ id: 'snags', head: true })
    expect(texts(tables[0]!)).toEqual([
      ['AC inspection', expect.stringMatching(/: no list at the board$/), 'Could become dangerous (C2)', '–'],
    ])
    const todo = owner.blocks.find(({ title: own }) => own === 'What was found, and what to do')
    expect(todo?.lines[0]).toMatch(/^Have it put right soon.*no list at the board$/)
  })

  it('has letters only where the national documents are cited', () => {
    const { result } = inspected('could-be', 'iec60364-6').print()
    expect(result.sentence).toBe('Unsatisfactory for continued use. 1 × Could become dangerous.')
  })

  it('is no report of a sound installation while a class is missing or tests are open', () => {
    expect(inspected(null).print().result).toMatchObject({
      verdict: 'outside',
      sentence: 'Unsatisfactory for continued use. 1 × nobody said how grave.',
    })
    expect(inspected('improve').print().result).toMatchObject({ verdict: 'not-yet' })
  })

  it('is of new work as it was: snags in their own table, and the result of its tests', () => {
    const made = new Installation()
    const site = made.build.part({ ...exampleSite, work: 'new' })
    made.take('ac-inspection', site, { 'look-chart': wrong('no list at the board') })
    const { title, tables, result } = certificateOf(made.facts, 0, null)
    expect([title, tables.some(({ head }) => head)]).toEqual(['Electrical test record', false])
    expect(result.sentence).toMatch(/^1 test lies outside/)
  })
})

describe('the row of a circuit', () => {
  it('is no better than what was read of the device that it hangs on', () => {
    const { made, print } = inspected('improve')
    const verdict = () => {
      const table = print().tables.find(({ id }) => id === 'results-circuit')!
      return table.rows[0]!.at(-1)!.verdict
    }
    made.build.part({ ...made.says('zs', made.circuit).one.part.data, rcdId: made.rcd } as never, made.circuit)
    made.take('ac-polarity', made.circuit, { polarity: choose('correct') })
    expect(verdict()).not.toBe('outside')
    made.take('rcd-button', made.rcd!, { 'button-trips': wrong('nothing happens') })
    expect(made.says('rcd-button', made.rcd!).verdict).toBe('outside')
    expect(verdict()).toBe('outside')
  })

  it('has the figure of its loop', () => {
    const { made, print } = inspected('improve')
    made.take('zs', made.circuit, { zs: read(0.7, 'ohm', 2) })
    expect(
      print()
        .tables.find(({ id }) => id === 'results-circuit')!
        .rows[0]!.map(({ text }) => text),
    ).toContain('0.70')
  })
})
