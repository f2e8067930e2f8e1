import { describe, expect, it } from 'vitest'
import { evaluate } from '../evaluate'
import { moduleModel } from '../pv/stringModel'
import { exampleModule, exampleSite } from '../steps/worked'
import { FactsBuilder, people, START_ms, testId } from '../testing/factsBuilder'
import { Installation } from '../testing/installation'
import { reviewOf } from './review'

const dayOf = (at_ms: number): string => new Date(at_ms).toISOString().slice(0, 10)
const model = moduleModel(exampleModule)
const standIn = {
  id: testId(7),
  tag: '07',
  name: 'Tester',
  calibrationDue: '2026-01-01',
  standIn: true,
  accuracy: { ofReading_pct: 0.5, digits: 2 },
  most: 1000,
}

const of = (items: ReturnType<typeof reviewOf>, id: string) => items.find((one) => one.id === id)

describe('what is looked at before signing', () => {
  function roof() {
    const build = new FactsBuilder()
    const strings = ['1', '2', '3'].map((tag) => build.string(tag)) as [string, string, string]
    for (const id of strings) build.polarity(id)
    return { build, strings, items: () => reviewOf(evaluate(build.facts(), START_ms), dayOf) }
  }

  it('is one matter a test, with all its parts, and grave matters come first and want words', () => {
    const { build, strings, items } = roof()
    for (const id of strings) build.voltage(id, 9 * model.voc_V(742, 43.6))
    const all = items()
    expect(all[0]).toMatchObject({ id: 'outside:pv-voc', kind: 'outside', wantsWords: true })
    expect(all[0]!.parts.map(({ data }) => data.tag)).toEqual(['1', '2', '3'])
    expect(of(all, 'open:pv-isc')).toMatchObject({ wantsWords: true })
    expect(of(all, 'outside:pv-polarity')).toBeUndefined()
  })

  it('names what was gone on with before its turn, and the reason that was given', () => {
    const { build, strings, items } = roof()
    const [id] = strings
    build.add(
      { kind: 'override', v: 1, gate: 'voltage-first', reason: 'meter was away' },
      { step: 'pv-isc', partId: id },
    )
    build.current(id, model.isc_A(742, 43.6))
    expect(of(items(), 'overridden:pv-isc')).toMatchObject({ reasons: ['meter was away'], wantsWords: true })
  })

  it('names what was left out with its reason, which has been given already', () => {
    const { build, strings, items } = roof()
    build.add({ kind: 'left-out', v: 1, reason: 'not wired yet' }, { step: 'pv-insulation', partId: strings[0] })
    expect(of(items(), 'left-out:pv-insulation')).toMatchObject({ reasons: ['not wired yet'], wantsWords: false })
  })

  it('names an instrument out of calibration, and says once that instruments were simulated', () => {
    const { build, strings, items } = roof()
    for (const id of strings)
      build.voltage(id, 11 * model.voc_V(742, 43.6), {}, { instrument: standIn, how: 'stand-in' })
    const all = items()
    expect(of(all, 'out-of-calibration:pv-voc')).toMatchObject({ wantsWords: true })
    expect(all.filter(({ kind }) => kind === 'simulated')).toHaveLength(1)
    expect(of(all, 'simulated')!.parts).toHaveLength(3)
  })

  it('names a snag that somebody wrote down though the test is within, until it is closed', () => {
    const { build, strings, items } = roof()
    build.voltage(strings[0], 11 * model.voc_V(742, 43.6))
    build.add({ kind: 'snag', v: 1, text: 'plug is cracked' }, { step: 'pv-voc', partId: strings[0] })
    expect(items().find(({ kind }) => kind === 'snag')).toMatchObject({
      reasons: ['plug is cracked'],
      wantsWords: true,
    })
  })

  it('names missing particulars, and a day that cannot be', () => {
    const build = new FactsBuilder(false)
    build.part({
      kind: 'site',
      tag: 'Site',
      lowestTemperature_C: -8,
      highestCellTemperature_C: 70,
      nextOn: '2020-01-01',
    })
    build.polarity(build.string('1'))
    const all = reviewOf(evaluate(build.facts(), START_ms), dayOf)
    expect(of(all, 'missing')).toMatchObject({ wantsWords: false })
    expect(of(all, 'strange-day:particulars.next-before')).toMatchObject({ wantsWords: true })
  })

  it('is carried by the signature, which says it of itself', () => {
    const { build } = roof()
    build.add(
      {
        kind: 'signature',
        v: 1,
        role: 'tested',
        printedName: 'Ada',
        statement: 'so it was',
        coversHash: '0'.repeat(64),
        review: [{ of: 'open:pv-voc', text: 'comes on Monday' }],
      },
      { personId: people.ada },
    )
    expect(evaluate(build.facts(), START_ms).signatures[0]!.review).toEqual([
      { of: 'open:pv-voc', text: 'comes on Monday' },
    ])
  })
})

describe('before a periodic inspection is signed', () => {
  it('danger wants to know whom it was told, and what nobody classed is named', () => {
    const made = new Installation()
    const site = made.build.part({ ...exampleSite, work: 'periodic' })
    const wrong = (note: string) => ({ choice: 'not-as-it-should', note })
    made.take('ac-inspection', site, { 'look-board': wrong('a finger gets in'), 'look-chart': wrong('none') })
    const reading = made.build.entries.at(-1)!.id
    const items = () => reviewOf(evaluate(made.facts, START_ms), dayOf)
    expect(items().find(({ kind }) => kind === 'unclassed')).toMatchObject({ wantsWords: true })
    for (const [line, as] of [
      ['look-board', 'danger'],
      ['look-chart', 'improve'],
    ] as const)
      made.build.add({ kind: 'class', v: 1, target: reading, line, as }, { step: 'ac-inspection', partId: site })
    expect(items()[0]).toMatchObject({
      id: `danger:${reading}:look-board`,
      reasons: ['a finger gets in'],
      wantsWords: true,
    })
    expect(items().some(({ kind }) => kind === 'unclassed')).toBe(false)
    // Its class has said it: that it is outside is looked at, and wants no words once more.
    expect(of(items(), 'outside:ac-inspection')).toMatchObject({ wantsWords: false })
  })
})
