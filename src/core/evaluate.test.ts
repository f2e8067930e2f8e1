import { describe, expect, it } from 'vitest'
import { causes, evaluate, linesOf, sistersOf, type StepEvaluation, stepKey } from './evaluate'
import { moduleModel } from './pv/stringModel'
import type { Facts } from './record/facts'
import { coverHash } from './record/signature'
import { exampleModule } from './steps/worked'
import { conditions, FactsBuilder, JOB, people, START_ms, testId } from './testing/factsBuilder'

const model = moduleModel(exampleModule)
const volts = (modules: number, g = 742, t = 43.6): number => modules * model.voc_V(g, t)
const amperes = (g = 742, t = 43.6): number => model.isc_A(g, t)
const look = (facts: Facts, step: string, partId: string): StepEvaluation =>
  evaluate(facts, START_ms).byKey.get(stepKey(step, partId))!

function readyString(modules = 11): { build: FactsBuilder; string: string } {
  const build = new FactsBuilder()
  const string = build.string('2', modules)
  build.polarity(string)
  return { build, string }
}

describe('a voltage reading', () => {
  it('is within where it meets the expectation', () => {
    const { build, string } = readyString()
    build.voltage(string, volts(11))
    const one = look(build.facts(), 'pv-voc', string)
    expect(one).toMatchObject({
      verdict: 'within',
      done: true,
      finding: { code: expect.stringMatching(/^pv-voc.within/) },
    })
    expect(one.counting!.judgement.referred!.value).toBeCloseTo(11 * 37.4, 0)
  })

  it('is outside, and names one missing module of eleven', () => {
    const { build, string } = readyString()
    build.voltage(string, volts(10))
    const facts = build.facts()
    const evaluation = evaluate(facts, START_ms)
    const one = evaluation.byKey.get(stepKey('pv-voc', string))!
    expect(one.verdict).toBe('outside')
    expect(causes(evaluation, one)[0]).toMatchObject({
      code: 'modules-missing',
      figures: { count: 1 },
      fit: 'fits',
    })
  })

  it('names two modules where two of six were taken out', () => {
    // Common practice, no source: STC-referred Voc far outside, names 2 modules.
    const { build, string } = readyString(6)
    build.voltage(string, volts(4))
    const facts = build.facts()
    const evaluation = evaluate(facts, START_ms)
    const found = causes(evaluation, evaluation.byKey.get(stepKey('pv-voc', string))!)
    expect(found[0]).toMatchObject({ code: 'modules-missing', figures: { count: 2 } })
    expect(found[1]).toMatchObject({ code: 'module-reversed', fit: 'fits' })
  })

  it('names the neighbour that is long by as much', () => {
    const build = new FactsBuilder()
    const [short, long, sound] = [build.string('1'), build.string('2'), build.string('3')]
    for (const one of [short, long, sound]) build.polarity(one)
    build.voltage(short, volts(10))
    build.voltage(long, volts(12))
    build.voltage(sound, volts(11))
    const facts = build.facts()
    const evaluation = evaluate(facts, START_ms)
    const found = causes(evaluation, evaluation.byKey.get(stepKey('pv-voc', short))!)
    expect(found[0]).toMatchObject({ code: 'plugged-into-the-wrong-string', figures: { other: '2' } })
  })

  it('in dull light is explained, not shrugged at', () => {
    const { build, string } = readyString(5)
    build.voltage(string, volts(5, 100, 20), {}, { conditions: conditions(100, 20) })
    const facts = build.facts()
    const evaluation = evaluate(facts, START_ms)
    const one = look(facts, 'pv-voc', string)
    expect(one.verdict).toBe('within')
    const light = linesOf(evaluation, one).find((line) => line.code === 'pv-voc.light-term')
    expect(light!.result!.value).toBeLessThan(-15)
  })

  it('says where its conditions are more than a minute away', () => {
    const { build, string } = readyString()
    build.voltage(
      string,
      volts(11),
      {},
      { conditions: conditions(742, 43.6, new Date(START_ms - 120_000).toISOString()) },
    )
    expect(look(build.facts(), 'pv-voc', string).flags).toContain('conditions-apart')
  })

  it('decides nothing as a bound on the open side', () => {
    const { build, string } = readyString()
    build.reading('pv-voc', string, {
      slots: { voltage: { text: '>300', value: 300, bound: 'more-than', unit: 'V' } },
      conditions: conditions(),
    })
    expect(look(build.facts(), 'pv-voc', string)).toMatchObject({ verdict: 'not-yet', done: false })
  })
})

describe('gates', () => {
  it('hold the current back until polarity and voltage stand', () => {
    const build = new FactsBuilder()
    const string = build.string('1')
    expect(look(build.facts(), 'pv-isc', string)).toMatchObject({
      verdict: 'held-back',
      finding: { code: 'held-back.polarity-known' },
    })
    build.polarity(string)
    expect(look(build.facts(), 'pv-isc', string).finding.code).toBe('held-back.voltage-first')
    build.voltage(string, volts(11))
    expect(look(build.facts(), 'pv-isc', string).verdict).toBe('not-yet')
  })

  it('are hard for a reversed string, and an override does not open them', () => {
    const build = new FactsBuilder()
    const string = build.string('1')
    build.polarity(string, 'reversed')
    build.add(
      { kind: 'override', v: 1, gate: 'polarity-known', reason: 'in a hurry' },
      { step: 'pv-isc', partId: string },
    )
    expect(look(build.facts(), 'pv-isc', string)).toMatchObject({ verdict: 'held-back' })
  })

  it('open softly with a reason and a name, which are kept', () => {
    const { build, string } = readyString()
    build.add(
      { kind: 'override', v: 1, gate: 'voltage-first', reason: 'meter lead broken' },
      { step: 'pv-isc', partId: string },
    )
    const one = look(build.facts(), 'pv-isc', string)
    expect(one.verdict).toBe('not-yet')
    expect(one.gates.find((gate) => gate.id === 'voltage-first')).toMatchObject({
      overridden: { reason: 'meter lead broken', personId: people.wren },
    })
  })

  it('never refuse a fact: a reading made while held back is judged and flagged', () => {
    const build = new FactsBuilder()
    const string = build.string('1')
    build.current(string, amperes())
    expect(look(build.facts(), 'pv-isc', string)).toMatchObject({
      verdict: 'within',
      flags: expect.arrayContaining(['while-held-back']),
    })
  })

  it('hold back a string that no tester of the kit may be connected to', () => {
    const build = new FactsBuilder()
    const string = build.string('1', 30)
    build.polarity(string)
    const ranges = [
      { measures: 'dc-voltage' as const, accuracy: { ofReading_pct: 0.5, digits: 2 }, most: 1000, decimals: 1 },
    ]
    const tester = {
      id: testId(5),
      tag: '07',
      name: 'Tester',
      serial: '',
      calibrationDue: null,
      standIn: false,
      ranges,
    }
    const one = look(build.facts({ instruments: [tester] }), 'pv-voc', string)
    expect(one).toMatchObject({ verdict: 'held-back', finding: { code: 'held-back.tester-rating' } })
  })
})

describe('strings alike', () => {
  it('show the odd one out although it meets its own expectation', () => {
    const build = new FactsBuilder()
    const strings = ['1', '2', '3', '4'].map((tag) => build.string(tag))
    for (const one of strings) build.polarity(one)
    for (const [k, one] of strings.entries()) build.voltage(one, volts(11) * (k === 2 ? 0.963 : 1.025))
    const evaluation = evaluate(build.facts(), START_ms)
    expect(evaluation.byKey.get(stepKey('pv-voc', strings[2]!))).toMatchObject({
      verdict: 'outside',
      finding: { code: 'sisters.below' },
    })
    expect(evaluation.byKey.get(stepKey('pv-voc', strings[0]!))).toMatchObject({ verdict: 'within' })
  })

  it('are compared per module where their lengths differ', () => {
    const build = new FactsBuilder()
    const strings = [build.string('1', 11), build.string('2', 9), build.string('3', 10)]
    for (const one of strings) build.polarity(one)
    build.voltage(strings[0]!, volts(11))
    build.voltage(strings[1]!, volts(9))
    build.voltage(strings[2]!, volts(10))
    const evaluation = evaluate(build.facts(), START_ms)
    for (const one of strings) {
      expect(
        Math.abs(sistersOf(evaluation, evaluation.byKey.get(stepKey('pv-voc', one))!)!.deviation_pct),
      ).toBeLessThan(0.1)
    }
  })

  it('are compared weakly where the light moved between them', () => {
    const build = new FactsBuilder()
    const strings = ['1', '2', '3'].map((tag) => build.string(tag))
    for (const one of strings) build.polarity(one)
    for (const [k, g] of [700, 742, 800].entries()) build.current(strings[k]!, amperes(g), g)
    expect(evaluate(build.facts(), START_ms).byKey.get(stepKey('pv-isc', strings[0]!))!.flags).toContain('light-moved')
  })

  it('below 400 W/m2 have their currents marked weak', () => {
    const { build, string } = readyString()
    build.current(string, amperes(300), 300)
    expect(look(build.facts(), 'pv-isc', string).flags).toContain('weak-light')
  })
})

describe('which reading counts', () => {
  it('is the latest, and a void ends its say', () => {
    const { build, string } = readyString()
    const first = build.voltage(string, volts(11))
    const second = build.voltage(string, volts(10))
    expect(look(build.facts(), 'pv-voc', string).counting!.entry.id).toBe(second)
    build.add({ kind: 'void', v: 1, target: second, reason: 'wrong string' })
    const one = look(build.facts(), 'pv-voc', string)
    expect(one.counting!.entry.id).toBe(first)
    expect(one.readings[1]!.ended).toMatchObject({ by: 'void', reason: 'wrong string' })
  })

  it('follows the corrected time, not the order of arrival', () => {
    const { build, string } = readyString()
    const real = build.voltage(string, volts(11), { deviceTime: '2026-05-14T12:00:00.000Z' })
    build.voltage(string, volts(10), { deviceTime: '2026-05-14T13:00:00.000Z', clockOffset_ms: -7_200_000 })
    expect(look(build.facts(), 'pv-voc', string).counting!.entry.id).toBe(real)
  })

  it('takes a void that arrives before its target', () => {
    const { build, string } = readyString()
    const target = build.voltage(string, volts(10))
    build.add({ kind: 'void', v: 1, target, reason: 'slip' }, { deviceTime: '2026-05-14T09:00:00.000Z' })
    expect(look(build.facts(), 'pv-voc', string).verdict).toBe('not-yet')
  })

  it('of two people who disagree waits for a choice', () => {
    const { build, string } = readyString()
    const hers = build.voltage(string, volts(11))
    build.voltage(string, volts(10), { personId: people.ada })
    build.voltage(string, volts(11), { personId: people.wren })
    expect(look(build.facts(), 'pv-voc', string)).toMatchObject({ verdict: 'close', finding: { code: 'two-people' } })
    build.add({ kind: 'choice', v: 1, target: hers, reason: null }, { step: 'pv-voc', partId: string })
    const one = look(build.facts(), 'pv-voc', string)
    expect(one.counting!.entry.id).toBe(hers)
    expect(one.flags).not.toContain('two-people')
  })
})

describe('a plant change after a reading', () => {
  function changed(modules: number) {
    const { build, string } = readyString()
    build.voltage(string, volts(11))
    const before = build.entries.find((entry) => entry.partId === string)!.body
    if (before.kind !== 'plant-change' || before.after?.kind !== 'string') throw new Error('expected the string')
    const after = { ...before.after, modulesInSeries: modules, tag: '2a' }
    build.add({ kind: 'plant-change', v: 1, before: before.after, after, base: null }, { partId: string })
    return { build, string }
  }

  it('asks for a second look where it touched an input', () => {
    const { build, string } = changed(12)
    expect(look(build.facts(), 'pv-voc', string)).toMatchObject({
      verdict: 'outside',
      flags: expect.arrayContaining(['plant-changed']),
    })
  })

  it('leaves the verdict alone where it did not', () => {
    const { build, string } = changed(11)
    expect(look(build.facts(), 'pv-voc', string)).toMatchObject({ verdict: 'within' })
  })

  it('is settled by a confirmation', () => {
    const { build, string } = changed(12)
    build.add({ kind: 'confirmation', v: 1, of: 'plant-changed', note: null }, { step: 'pv-voc', partId: string })
    expect(look(build.facts(), 'pv-voc', string).flags).not.toContain('plant-changed')
  })
})

describe('signatures', () => {
  it('are fresh until a fact is added', () => {
    const { build, string } = readyString()
    const coversHash = coverHash(build.entries)
    build.add({ kind: 'signature', v: 1, role: 'tested', printedName: 'Wren', statement: 'so it was', coversHash })
    expect(evaluate(build.facts(), START_ms).signatures).toMatchObject([{ role: 'tested', fresh: true }])
    build.voltage(string, volts(11))
    expect(evaluate(build.facts(), START_ms).signatures).toMatchObject([{ fresh: false }])
  })
})

describe('left out', () => {
  it('keeps reason and name and counts as done', () => {
    const build = new FactsBuilder()
    const string = build.string('1')
    build.add({ kind: 'left-out', v: 1, reason: 'not wired yet' }, { step: 'pv-polarity', partId: string })
    expect(look(build.facts(), 'pv-polarity', string)).toMatchObject({
      verdict: 'left-out',
      done: true,
      leftOut: { reason: 'not wired yet' },
    })
  })

  it('ends with a later reading', () => {
    const build = new FactsBuilder()
    const string = build.string('1')
    build.add({ kind: 'left-out', v: 1, reason: 'not wired yet' }, { step: 'pv-polarity', partId: string })
    build.polarity(string)
    expect(look(build.facts(), 'pv-polarity', string).verdict).toBe('within')
  })
})

describe('evaluation as a whole', () => {
  it('does not depend on the order of arrival, nor on now', () => {
    const { build, string } = readyString()
    build.voltage(string, volts(11))
    build.current(string, amperes())
    const forward = evaluate(build.facts(), START_ms)
    const backward = evaluate(build.facts({ entries: [...build.entries].reverse() }), START_ms + 1e12)
    expect(backward.steps.map((one) => [one.key, one.verdict])).toEqual(
      forward.steps.map((one) => [one.key, one.verdict]),
    )
  })

  it('says what to do next and how far it is', () => {
    const { build } = readyString()
    const evaluation = evaluate(build.facts(), START_ms)
    expect(evaluation.progress).toMatchObject({ done: 2, total: 10 })
    expect(evaluation.next).toBe(stepKey('inspection', JOB))
  })
})
