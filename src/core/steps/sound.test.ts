import { describe, expect, it } from 'vitest'
import { readStepById } from '.'
import { evaluate, soundOf, stepKey } from '../evaluate'
import { moduleModel } from '../pv/stringModel'
import { readValueOf } from '../quantity/readValue'
import { conditions, FactsBuilder } from '../testing/factsBuilder'
import { exampleBoard, exampleCircuit, exampleElectrode, exampleModule, exampleRcd, exampleSupply } from './worked'

const model = moduleModel(exampleModule)
const soundsOf = (build: FactsBuilder, step: string, part: string) => {
  const evaluation = evaluate(build.facts(), 0)
  return soundOf(evaluation, evaluation.byKey.get(stepKey(step, part))!)
}

describe('a voltage that looks low and is not', () => {
  const read = (light: number, cell: number, really = 10) => {
    const build = new FactsBuilder()
    const string = build.string('1', 10)
    build.polarity(string)
    build.voltage(string, really * model.voc_V(light, cell), {}, { conditions: conditions(light, cell) })
    return soundsOf(build, 'pv-voc', string)
  }
  it('is told by the dull light, with what that costs', () => {
    const [one] = read(120, 24)
    expect(one!.code).toBe('sound.dull-light')
    // The light term of 60 cells at 120 W/m2 is about 3.6 V of 37.4.
    expect(one!.figures.byLight_pct as number).toBeGreaterThan(8)
    expect(one!.figures.byLight_pct as number).toBeLessThan(12)
  })
  it('is told by the warmth in full sun', () => {
    const [one] = read(950, 62)
    expect(one).toMatchObject({ code: 'sound.warm-cells' })
    expect(one!.figures.byWarmth_pct as number).toBeCloseTo(0.31 * 37, 0)
  })
  it('is nothing where it does not look low, and where it is outside', () => {
    expect(read(990, 27)).toEqual([])
    expect(read(120, 14, 8)).toEqual([])
  })
  it('is told of the longer one among neighbours', () => {
    const build = new FactsBuilder()
    const [short, long] = [build.string('1', 10), build.string('2', 11)]
    for (const [id, modules] of [
      [short, 10],
      [long, 11],
    ] as const) {
      build.polarity(id)
      build.voltage(id, modules * model.voc_V(990, 26), {}, { conditions: conditions(990, 26) })
    }
    expect(soundsOf(build, 'pv-voc', long)).toMatchObject([{ code: 'sound.longer', figures: { other: '1', more: 1 } }])
    expect(soundsOf(build, 'pv-voc', short)).toEqual([])
  })
})

describe('a loop that looks wrong and is not', () => {
  const read = (arrangement: 'TT' | 'TN-S', zs: number) => {
    const build = new FactsBuilder()
    const supply = build.part({ ...exampleSupply, arrangement })
    const board = build.part({ ...exampleBoard, supplyId: supply })
    const rcd = build.part({ ...exampleRcd, boardId: board })
    const circuit = build.part({ ...exampleCircuit, boardId: board, rcdId: rcd })
    const electrode = build.part(exampleElectrode)
    build.reading('electrode', electrode, readStepById('electrode')!.example.reading!)
    build.reading('ze', supply, {
      slots: {
        ze: readValueOf(arrangement === 'TT' ? 45 : 0.3, 'ohm', 2),
        'earthing-conductor': { choice: 'earth-off' },
      },
    })
    build.reading('r1r2', circuit, { slots: { r1r2: readValueOf(0.5, 'ohm', 2) } })
    build.reading('zs', circuit, {
      slots: { 'loop-method': { choice: 'non-trip' }, zs: readValueOf(zs, 'ohm', 2) },
    })
    const evaluation = evaluate(build.facts(), 0)
    const one = evaluation.byKey.get(stepKey('zs', circuit))!
    return { verdict: one.verdict, finding: one.finding.code, codes: soundOf(evaluation, one).map(({ code }) => code) }
  }
  it('is under its sum where paths lie beside each other', () => {
    expect(read('TN-S', 0.55)).toMatchObject({ verdict: 'within', codes: ['sound.under-sum'] })
    expect(read('TN-S', 0.8).codes).toEqual([])
  })
  it('is above the electrode alone in TT, for the source’s electrode is in it', () => {
    const { codes } = read('TT', 45.6)
    expect(codes).toContain('sound.above-electrode')
    expect(read('TT', 41).codes).not.toContain('sound.above-electrode')
  })
})

describe('what is said of others', () => {
  it('is that insulation rose while it was charging, and that type A was tried with alternating current', () => {
    const build = new FactsBuilder()
    const string = build.string('1')
    build.polarity(string)
    build.reading('pv-insulation', string, {
      slots: {
        method: { choice: 'joined-to-earth' },
        'set-voltage': { choice: 'v1000' },
        joined: readValueOf(310, 'Mohm', 0),
        behaviour: { choice: 'risen-to-it' },
        surface: { choice: 'dry' },
        surge: { choice: 'none-there' },
      },
    })
    expect(soundsOf(build, 'pv-insulation', string)).toMatchObject([{ code: 'sound.risen', figures: { read: '310' } }])
    const ac = new FactsBuilder()
    const board = ac.part({ ...exampleBoard, supplyId: ac.part(exampleSupply) })
    const rcd = ac.part({ ...exampleRcd, boardId: board, type: 'A' })
    ac.reading('rcd-trips', rcd, { slots: { 'once-0': readValueOf(41.2, 'ms', 1) } })
    const codes = soundsOf(ac, 'rcd-trips', rcd).map(({ code }) => code)
    expect(codes).toEqual(['sound.alternating'])
  })
})
