import { describe, expect, it } from 'vitest'
import { causes, evaluate, evaluateDraft, evaluateNext, linesOf, stepKey } from '../evaluate'
import { cellFromAir, USUAL_NOCT_C } from '../pv/cellTemperature'
import { moduleModel } from '../pv/stringModel'
import { readValueOf } from '../quantity/readValue'
import type { Body } from '../record/entry'
import { exampleModule } from '../steps/worked'
import { FactsBuilder, readingBody, START_ms } from '../testing/factsBuilder'

const model = moduleModel(exampleModule)
const AIR_C = 9
const air = { read: readValueOf(AIR_C, 'degC', 0), instrument: null }
const cellIn = (light: number): number => cellFromAir(AIR_C, light, USUAL_NOCT_C).value_C
const voltsOf = (modules: number, light: number): number => modules * model.voc_V(light, cellIn(light))
const amperesIn = (light: number): number => model.isc_A(light, cellIn(light))
const atMinute = (minute: number) => ({ deviceTime: new Date(START_ms + 60_000 * minute).toISOString() })

/** A roof with strings of so many modules each, nobody has a light meter. */
class Drizzle extends FactsBuilder {
  readonly strings: string[]
  constructor(lengths: readonly number[]) {
    super()
    const array = this.part({ kind: 'array', tag: 'South', tilt_deg: 35, azimuth_deg: 180, mounting: 'close-roof' })
    this.strings = lengths.map((modulesInSeries, k) =>
      this.part({
        kind: 'string',
        tag: String(k + 1),
        arrayId: array,
        modulesInSeries,
        moduleType: { id: exampleId, make: 'Example', name: 'Sixty', data: exampleModule },
      }),
    )
    for (const string of this.strings) this.polarity(string)
  }
  volts(k: number, volts: number, minute: number, body: Partial<Body<'reading'>> = { air }): this {
    const slots = { voltage: readValueOf(volts, 'V', 1) }
    this.reading('pv-voc', this.strings[k]!, { slots, ...body }, atMinute(minute))
    return this
  }
  amperes(k: number, amperes: number, minute: number): this {
    const slots = { current: readValueOf(amperes, 'A', 2) }
    this.reading('pv-isc', this.strings[k]!, { slots, air }, atMinute(minute))
    return this
  }
  of(step: string, k: number) {
    const evaluation = evaluate(this.facts(), 0)
    return { evaluation, one: evaluation.byKey.get(stepKey(step, this.strings[k]!))! }
  }
}
const exampleId = '00000000-0000-7000-8000-000000000001'

describe('strings read without a light meter', () => {
  it('are each other’s meter: alike ones within minutes are held against each other', () => {
    const roof = new Drizzle([8, 8, 8, 8])
    const sound = voltsOf(8, 150)
    const one = voltsOf(7, 150)
    ;[sound, sound * 1.004, one, sound * 0.997].forEach((volts, k) => void roof.volts(k, volts, 2 * k))
    expect([0, 1, 2, 3].map((k) => roof.of('pv-voc', k).one.verdict)).toEqual(['within', 'within', 'outside', 'within'])
    const { one: odd, evaluation } = roof.of('pv-voc', 2)
    expect(odd.finding.code).toBe('sisters.as-read-below')
    expect(odd.flags).toContain('sisters-only')
    expect(causes(evaluation, odd)[0]).toMatchObject({ code: 'modules-missing', figures: { count: 1 } })
    expect(linesOf(evaluation, odd).filter((line) => line.decides)).toHaveLength(1)
  })

  it('are compared a module each where they are of unlike length', () => {
    const roof = new Drizzle([6, 9, 9])
    roof.volts(0, voltsOf(6, 200), 0).volts(1, voltsOf(9, 200), 2).volts(2, voltsOf(9, 200), 4)
    expect([0, 1, 2].map((k) => roof.of('pv-voc', k).one.verdict)).toEqual(['within', 'within', 'within'])
  })

  it('of which there are two accuse each other where they differ', () => {
    const roof = new Drizzle([8, 8]).volts(0, voltsOf(8, 200), 0).volts(1, voltsOf(7, 200), 2)
    for (const k of [0, 1]) expect(roof.of('pv-voc', k).one.verdict).toBe('outside')
    expect(roof.of('pv-voc', 1).one.finding.code).toBe('sisters.pair-below')
  })

  it('of which no two agree prove nothing: a voltage is outside, a current is read again', () => {
    const roof = new Drizzle([8, 8, 8])
    ;[5, 6.5, 8].forEach((modules, k) => void roof.volts(k, voltsOf(modules, 200), k))
    ;[300, 240, 190].forEach((light, k) => void roof.amperes(k, amperesIn(light), 3 + k))
    for (const k of [0, 1, 2]) {
      expect(roof.of('pv-voc', k).one.verdict).toBe('outside')
      expect(roof.of('pv-isc', k).one).toMatchObject({ verdict: 'not-yet', finding: { code: 'sisters.none-agree' } })
    }
  })

  it('prove nothing by night, where all agree that nothing flows', () => {
    const roof = new Drizzle([8, 8, 8])
    for (const k of [0, 1, 2]) roof.amperes(k, 0, k)
    const { one } = roof.of('pv-isc', 1)
    expect(one).toMatchObject({ verdict: 'not-yet', finding: { code: 'sisters.nothing-there' } })
    for (const { result } of one.judgement!.lines) expect(result?.value).not.toBeNaN()
  })

  it('are not compared with what was read an hour before', () => {
    const roof = new Drizzle([8, 8, 8]).volts(0, voltsOf(8, 800), 0).volts(1, voltsOf(8, 800), 1)
    roof.volts(2, voltsOf(8, 90), 60)
    expect(roof.of('pv-voc', 2).one.verdict).not.toBe('outside')
    expect(roof.of('pv-voc', 0).one.verdict).toBe('within')
  })

  it('say by their currents what light there was: a module that all lack shows', () => {
    const roof = new Drizzle([8, 8, 8])
    for (const k of [0, 1, 2]) roof.volts(k, voltsOf(6, 180), k).amperes(k, amperesIn(180), 4 + k)
    const { one } = roof.of('pv-voc', 1)
    expect(one.verdict).toBe('outside')
    expect(one.finding.code).toBe('by-light.below')
    expect(one.finding.figures.light_Wm2 as number).toBeCloseTo(180, -1)
    expect(one.flags).toContain('light-worked-back')
    expect(one.flags).not.toContain('sisters-only')
    expect(roof.of('pv-isc', 1).one.flags).toContain('sisters-only')
  })

  it('that stand alone get their verdict by the light of their own current', () => {
    const roof = new Drizzle([8]).volts(0, voltsOf(8, 180), 0, {})
    expect(roof.of('pv-voc', 0).one.verdict).not.toBe('within')
    roof.amperes(0, amperesIn(180), 3)
    // Nobody read the air: the bracket reaches into the close band.
    expect(roof.of('pv-voc', 0).one).toMatchObject({ verdict: 'close', finding: { code: 'by-light.close' } })
    expect(roof.of('pv-voc', 0).one.flags).toContain('weak-conditions')
    expect(roof.volts(0, voltsOf(8, 180), 4).of('pv-voc', 0).one.verdict).toBe('within')
    expect(roof.of('pv-isc', 0).one).toMatchObject({ verdict: 'not-yet', finding: { code: 'pv-isc.alone' } })
  })

  it('with nothing beside them are outside only where no light explains them', () => {
    expect(new Drizzle([8]).volts(0, voltsOf(5, 900), 0).of('pv-voc', 0).one.verdict).toBe('outside')
    expect(new Drizzle([8]).volts(0, voltsOf(7, 900), 0).of('pv-voc', 0).one.verdict).not.toBe('outside')
    expect(new Drizzle([8]).volts(0, voltsOf(12, 900), 0).of('pv-voc', 0).one.verdict).toBe('outside')
  })

  it('decide nothing of a current while the light moves, which a string read twice shows', () => {
    const roof = new Drizzle([8, 8, 8, 8])
    ;[300, 300, 220, 300].forEach((light, k) => void roof.amperes(k, amperesIn(light), k))
    expect(roof.of('pv-isc', 2).one.verdict).toBe('outside')
    roof.amperes(0, amperesIn(230), 5)
    expect(roof.of('pv-isc', 2).one).toMatchObject({ verdict: 'not-yet', finding: { code: 'sisters.light-moved' } })
  })

  it('hold up nothing that comes after them', () => {
    const roof = new Drizzle([8]).volts(0, voltsOf(7, 300), 0)
    expect(roof.of('pv-voc', 0).one.verdict).toBe('not-yet')
    const { one } = roof.of('pv-insulation', 0)
    expect(one.gates.find(({ id }) => id === 'voltage-before-insulation')).toMatchObject({ met: true })
    expect(roof.of('pv-isc', 0).one.gates.find(({ id }) => id === 'voltage-first')).toMatchObject({ met: true })
  })

  it('come to the same read one by one as all anew, and whoever drafts one sees it before', () => {
    const roof = new Drizzle([8, 8, 8])
    let running = evaluate(roof.facts({ entries: [...roof.entries] }), 0)
    const steps: (() => unknown)[] = [
      () => roof.volts(0, voltsOf(8, 150), 0),
      () => roof.volts(1, voltsOf(7, 150), 2),
      () => roof.amperes(0, amperesIn(150), 4),
      () => roof.volts(2, voltsOf(8, 150), 5),
    ]
    for (const step of steps) {
      step()
      const facts = roof.facts({ entries: [...roof.entries] })
      running = evaluateNext(running, facts, 0)
      const anew = evaluate(facts, 0)
      expect(running.steps.map(({ key, verdict, finding, flags }) => ({ key, verdict, finding, flags }))).toEqual(
        anew.steps.map(({ key, verdict, finding, flags }) => ({ key, verdict, finding, flags })),
      )
    }
    const one = running.byKey.get(stepKey('pv-voc', roof.strings[1]!))!
    const body = readingBody({ slots: { voltage: readValueOf(voltsOf(8, 150), 'V', 1) }, air })
    expect(evaluateDraft(running, one, body).verdict).toBe('within')
  })

  it('are judged by their light where it was read', () => {
    const roof = new Drizzle([8, 8]).volts(0, voltsOf(8, 150), 0)
    roof.voltage(roof.strings[1]!, voltsOf(8, 742))
    expect(roof.of('pv-voc', 1).one.flags).not.toContain('sisters-only')
  })
})

describe('strings under load, with a clamp alone', () => {
  it('are compared by their currents', () => {
    const roof = new Drizzle([8, 8, 8])
    ;[3.1, 3.12, 2.2].forEach(
      (amperes, k) =>
        void roof.reading(
          'operating',
          roof.strings[k]!,
          {
            slots: { 'read-by': { choice: 'clamp-alone' }, current: readValueOf(amperes, 'A', 2) },
          },
          atMinute(k),
        ),
    )
    expect([0, 1, 2].map((k) => roof.of('operating', k).one.verdict)).toEqual(['within', 'within', 'outside'])
    expect(roof.of('operating', 2).one.flags).toContain('sisters-only')
  })
})
