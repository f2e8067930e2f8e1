import { describe, expect, it } from 'vitest'
import { causes, evaluate, stepKey } from '../evaluate'
import { moduleModel } from '../pv/stringModel'
import type { Cause } from '../verdict/cause'
import { exampleModule } from '../steps/worked'
import { FactsBuilder, START_ms } from '../testing/factsBuilder'
import { fitOf } from './fit'

const model = moduleModel(exampleModule)
const VOLTS = 11 * model.voc_V(742, 43.6)
const AMPERES = model.isc_A(742, 43.6)

function causesOf(step: 'pv-voc' | 'pv-isc', share: number): Cause[] {
  const build = new FactsBuilder()
  const string = build.string('1')
  build.polarity(string)
  if (step === 'pv-voc') build.voltage(string, VOLTS * share)
  else {
    build.voltage(string, VOLTS)
    build.current(string, AMPERES * share)
  }
  const facts = build.facts()
  const evaluation = evaluate(facts, START_ms)
  return causes(evaluation, evaluation.byKey.get(stepKey(step, string))!)
}
const codes = (list: Cause[], fit?: Cause['fit']): string[] =>
  list.filter((one) => !fit || one.fit === fit).map((one) => one.code)

describe('causes of a voltage', () => {
  it('are none where it is within', () => {
    expect(causesOf('pv-voc', 1)).toEqual([])
  })

  it('name modules too many', () => {
    expect(causesOf('pv-voc', 12 / 11)[0]).toMatchObject({ code: 'modules-extra', figures: { count: 1 }, fit: 'fits' })
  })

  it('name bypassed groups between whole modules', () => {
    const list = causesOf('pv-voc', 1 - 2 / 33)
    expect(list[0]).toMatchObject({ code: 'groups-bypassed', figures: { count: 2, groups: 33 }, fit: 'fits' })
  })

  it('keep what was ruled out, at the end, with what it would need', () => {
    const list = causesOf('pv-voc', 9 / 11)
    expect(list[0]!.code).toBe('modules-missing')
    expect(list.at(-1)).toMatchObject({
      code: 'cells-hotter',
      fit: 'does-not-fit',
      figures: { needed_C: expect.any(Number) },
    })
  })

  it('blame the sensor only within what is believable', () => {
    expect(codes(causesOf('pv-voc', 0.955))).toContain('cells-hotter')
    expect(causesOf('pv-voc', 0.955).find((one) => one.code === 'cells-hotter')!.fit).toBe('may-fit')
  })
})

describe('causes of a current', () => {
  it('name soiling or even shade where it is some per cent low', () => {
    expect(causesOf('pv-isc', 0.86)[0]).toMatchObject({ code: 'soiling-or-even-shade', fit: 'fits' })
  })

  it('name an open switch where nothing flows', () => {
    expect(codes(causesOf('pv-isc', 0.01), 'fits')).toContain('switch-not-closed')
  })

  it('name two strings joined where it is double', () => {
    expect(codes(causesOf('pv-isc', 2), 'fits')).toContain('two-strings-joined')
  })

  it('say what light would explain it', () => {
    const list = causesOf('pv-isc', 0.86)
    expect(list.find((one) => one.code === 'sensor-out-of-plane')!.figures.needed_Wm2).toBeCloseTo(0.86 * 742, 0)
  })
})

describe('how well a cause fits', () => {
  it('is told by the combined uncertainty', () => {
    expect([fitOf(0.5, 1), fitOf(-1.5, 1), fitOf(3, 1)]).toEqual(['fits', 'may-fit', 'does-not-fit'])
  })
})
