import { describe, expect, it } from 'vitest'
import { evaluate } from '../evaluate'
import { moduleModel } from '../pv/stringModel'
import { readValueOf } from '../quantity/readValue'
import { exampleModule } from '../steps/worked'
import { FactsBuilder } from '../testing/factsBuilder'
import { oddestOf, stripsOf } from './comparing'

const model = moduleModel(exampleModule)
const voltsOf = (modules: number, light = 742): number => modules * model.voc_V(light, 43.6)
const amperes = model.isc_A(742, 43.6)

/** Strings of so many modules, each read as if it had so many. */
function roof(lengths: readonly number[], really: readonly number[] = lengths) {
  const build = new FactsBuilder()
  const ids = lengths.map((length, k) => build.string(String(k + 1), length))
  for (const [k, id] of ids.entries()) {
    build.polarity(id)
    build.voltage(id, voltsOf(really[k]!))
    build.current(id, amperes)
  }
  const evaluation = evaluate(build.facts(), 0)
  return { build, ids, strips: stripsOf(evaluation, evaluation.parts.get(ids[0]!)!) }
}
const byTag = (strip: ReturnType<typeof stripsOf>[number]) =>
  Object.fromEntries(strip.members.map((one) => [one.part.data.tag, one]))

describe('strings side by side', () => {
  it('stand in per cent of the middle one, whatever their length and light', () => {
    const { strips } = roof([11, 8, 11, 11])
    expect(strips.map(({ step }) => step.id)).toEqual(['pv-voc', 'pv-isc'])
    for (const { members } of strips) for (const one of members) expect(one.value).toBeCloseTo(100, 1)
    // Volts of strings of unlike length have no middle of their own.
    expect(strips[0]!.middle).toBeNull()
    expect(strips[1]!.middle!.unit).toBe('A')
    expect(oddestOf(strips)).toBeNull()
  })

  it('say how many modules the odd one lacks, and it does not move the middle', () => {
    const { strips } = roof([11, 11, 11, 11], [11, 11, 9, 11])
    const odd = byTag(strips[0]!)['3']!
    expect(odd.verdict).toBe('outside')
    expect(odd.gap).toMatchObject({ by: 'modules', count: 2 })
    expect(odd.value).toBeCloseTo((100 * 9) / 11, 1)
    expect(odd.figure).toMatchObject({ unit: 'V' })
    expect(odd.figure.value).toBeCloseTo(9 * exampleModule.voc_V, 0)
    expect(byTag(strips[0]!)['1']!.value).toBeCloseTo(100, 1)
    expect(oddestOf(strips)!.member.part.data.tag).toBe('3')
    expect(strips[0]!.members[0]!.part.data.tag).toBe('3')
  })

  it('say cell groups where it is no whole module, and a share where it is no voltage', () => {
    const { build, ids, strips } = roof([8, 8, 8, 8], [8, 8, 8 - 4 / 3, 8])
    expect(byTag(strips[0]!)['3']!.gap).toMatchObject({ by: 'groups', count: 4 })
    build.current(ids[1]!, 0.8 * amperes)
    const evaluation = evaluate(build.facts(), 0)
    const current = stripsOf(evaluation, evaluation.parts.get(ids[0]!)!)[1]!
    expect(byTag(current)['2']!.gap).toMatchObject({ by: 'pct', count: expect.closeTo(20, 0) })
  })

  it('stand on the scale of the test itself where a least is what counts', () => {
    const { build, ids } = roof([11, 11])
    for (const [k, id] of ids.entries())
      build.reading('pv-insulation', id, {
        slots: {
          method: { choice: 'joined-to-earth' },
          'set-voltage': { choice: 'v1000' },
          joined: readValueOf(k === 0 ? 240 : 36, 'Mohm', 0),
          behaviour: { choice: 'risen-to-it' },
          surface: { choice: 'dry' },
          surge: { choice: 'none-there' },
        },
      })
    const evaluation = evaluate(build.facts(), 0)
    const strip = stripsOf(evaluation, evaluation.parts.get(ids[0]!)!).find(({ step }) => step.id === 'pv-insulation')!
    expect(strip).toMatchObject({ unit: 'Mohm', scale: 'log', middle: null, band: { low: 1 } })
    expect(strip.members.map(({ value }) => value)).toEqual([36, 240])
  })

  it('stand as they were read where nobody read the light', () => {
    const build = new FactsBuilder()
    const ids = ['1', '2', '3'].map((tag) => build.string(tag, 10))
    for (const [k, id] of ids.entries()) {
      build.polarity(id)
      build.voltage(id, voltsOf(k === 1 ? 9 : 10, 150), {}, { conditions: null })
    }
    const evaluation = evaluate(build.facts(), 0)
    const [strip] = stripsOf(evaluation, evaluation.parts.get(ids[0]!)!)
    expect(strip!.asRead).toBe(true)
    expect(byTag(strip!)['2']!.gap).toMatchObject({ by: 'modules', count: 1 })
  })

  it('are none where one was read alone', () => {
    expect(roof([11]).strips).toEqual([])
  })
})
