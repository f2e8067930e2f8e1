import { describe, expect, it } from 'vitest'
import { evaluate } from '../evaluate'
import { readStepById } from '../steps'
import { FactsBuilder } from '../testing/factsBuilder'
import { sunOf } from './sunOfDay'

describe('the light of a day', () => {
  const build = new FactsBuilder()
  const [first, second] = [build.string('1'), build.string('2')]
  const voc = readStepById('pv-voc')!.example.reading!
  const isc = readStepById('pv-isc')!.example.reading!
  build.reading('pv-voc', first, voc)
  build.reading('pv-voc', second, voc)
  build.reading('pv-isc', first, isc)
  build.polarity(first)
  const evaluation = evaluate(build.facts(), 0)
  const own = (step: string, part: string) =>
    evaluation.steps.find((one) => one.step.id === step && one.part.id === part)!

  it('has every reading of the visit that was taken under it, in order, the own ones marked', () => {
    const points = sunOf(evaluation, own('pv-voc', second))
    expect(points.map(({ step, tag, isOwn }) => [step, tag, isOwn])).toEqual([
      ['pv-voc', '1', false],
      ['pv-voc', '2', true],
      ['pv-isc', '1', false],
    ])
    expect(points.map(({ irradiance_Wm2 }) => irradiance_Wm2)).toEqual(
      [voc, voc, isc].map(({ conditions }) => conditions!.irradiance.read.value),
    )
  })

  it('is nothing to a test that asks for none', () => {
    expect(sunOf(evaluation, own('pv-polarity', first))).toEqual([])
  })

  it('leaves out what is no light, and what was voided', () => {
    const { conditions } = voc
    const over = {
      ...conditions!,
      irradiance: { ...conditions!.irradiance, read: { ...conditions!.irradiance.read, bound: 'more-than' as const } },
    }
    const other = new FactsBuilder()
    const string = other.string('1')
    other.reading('pv-voc', string, { ...voc, conditions: over })
    const id = other.reading('pv-voc', string, voc)
    const before = evaluate(other.facts(), 0)
    const one = (of: typeof before) => of.steps.find(({ step }) => step.id === 'pv-voc')!
    expect(sunOf(before, one(before))).toHaveLength(1)
    other.add({ kind: 'void', v: 1, target: id, reason: 'the wrong string' }, { partId: string, step: 'pv-voc' })
    const after = evaluate(other.facts(), 0)
    expect(sunOf(after, one(after))).toEqual([])
  })
})
