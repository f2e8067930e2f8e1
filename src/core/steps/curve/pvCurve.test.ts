import { describe, expect, it } from 'vitest'
import { evaluate, picturesOf, stepKey, toExplain } from '../../evaluate'
import { allCauses } from '../../evaluation/allCauses'
import type { CurvePoint } from '../../curve/points'
import { groupOf, modulesOf, referenceOf } from '../../curve/reference'
import { ParallelStrings } from '../../curve/stringCurve'
import { atConditions } from '../../pv/deSoto'
import { moduleModel } from '../../pv/stringModel'
import { shippedRegimes } from '../../regime/shipped'
import { gaussian } from '@/standin/random'
import { FactsBuilder, START_ms, testId } from '../../testing/factsBuilder'
import { exampleConditions, exampleModule, exampleString } from '../worked'

const MODULES = 11
const parameters = moduleModel(exampleModule).parameters!

/** What a string gives at a light and a cell temperature; its first groups have another light. */
function swept(light_Wm2: number, cell_C: number, { shaded = 0, share = 1, ohm = 0 } = {}) {
  const sound = groupOf(atConditions(parameters, exampleModule, light_Wm2, cell_C))
  const dim = { ...sound, photocurrent_A: sound.photocurrent_A * share }
  const all = 3 * MODULES
  const array = new ParallelStrings([
    { seriesResistance_ohm: ohm, modules: modulesOf([all - shaded, sound], [shaded, dim]) },
  ])
  const { voc_V } = array.features()
  const points = Array.from({ length: 120 }, (_, k): CurvePoint => {
    const voltage = (1.001 * voc_V * k) / 119
    return [voltage, array.currentAt(voltage)]
  })
  return { voltages_V: points.map(([voltage]) => voltage), currents_A: points.map(([, current]) => current) }
}

type Curve = ReturnType<typeof swept> & { endIrradiance_Wm2?: number; sweep_s?: number }
const ARRAY = testId(0xa1)

/** A string of an array of a category, with a curve read under conditions. */
function read(
  curve: Curve | null,
  conditions = exampleConditions(850, 40),
  category: 1 | 2 = 2,
  regime = shippedRegimes[0]!,
) {
  const build = new FactsBuilder()
  build.part({ kind: 'array', tag: 'South', tilt_deg: 30, azimuth_deg: 180, mounting: 'close-roof', category }, ARRAY)
  const id = build.part({ ...exampleString(MODULES), arrayId: ARRAY })
  if (curve) build.reading('pv-curve', id, { slots: { curve: { curve } }, conditions })
  const evaluation = evaluate({ ...build.facts(), regime }, START_ms)
  const one = evaluation.byKey.get(stepKey('pv-curve', id))
  return { evaluation, one: one!, isAsked: one !== undefined }
}
const ofReading = (...all: Parameters<typeof read>) => {
  const { evaluation, one } = read(...all)
  return { evaluation, one, judgement: one.readings[0]!.judgement }
}

describe('a curve of a string', () => {
  it('is asked where the array is tested to category 2, or the regime wants one of every string', () => {
    expect(read(null, undefined, 2).isAsked).toBe(true)
    expect(read(null, undefined, 1).isAsked).toBe(false)
    const always = { ...shippedRegimes[0]!, schools: { ...shippedRegimes[0]!.schools, 'pv.curves': 'always' as const } }
    expect(read(null, undefined, 1, always).isAsked).toBe(true)
  })

  it('of a sound string is within at whatever light is worth it, its power at STC that of the plate', () => {
    for (const [light, cell] of [
      [1000, 25],
      [850, 40],
      [520, 31],
    ] as const) {
      const { judgement } = ofReading(swept(light, cell), exampleConditions(light, cell))
      expect(judgement.verdict).toBe('within')
      expect(Math.abs(judgement.referred!.difference_pct)).toBeLessThan(1)
      expect(judgement.lines.filter((line) => line.decides)).toHaveLength(1)
      expect(judgement.comparable! / exampleModule.pmax_W).toBeCloseTo(1, 1)
    }
  })

  it('says what is wrong with it: power, fill factor, ledge, short circuit, open circuit', () => {
    const codes = (curve: Curve): string[] => {
      const { finding } = ofReading(curve).judgement
      return [finding, ...(finding.also ?? [])].map(({ code }) => code)
    }
    const shade = codes(swept(850, 40, { shaded: 5, share: 0.4 }))
    expect(shade).toContain('pv-curve.ledge.outside')
    expect(shade).toContain('pv-curve.power.outside')
    expect(codes(swept(850, 40, { ohm: 5 }))).toEqual(['pv-curve.power.outside', 'pv-curve.fill.outside'])
    expect(codes(swept(700, 40))).toEqual(['pv-curve.power.outside', 'pv-curve.current.outside'])
    expect(codes(swept(850, 75))).toContain('pv-curve.voltage.outside')
  })

  it('in dull light, under light that moved, or without any is kept and not judged', () => {
    const codeOf = (...all: Parameters<typeof read>) => {
      const { verdict, finding, comparable } = ofReading(...all).judgement
      expect([verdict, comparable]).toEqual(['not-yet', null])
      return finding.code
    }
    expect(codeOf(swept(390, 30), exampleConditions(390, 30))).toBe('pv-curve.dull')
    expect(codeOf({ ...swept(850, 40), endIrradiance_Wm2: 780 })).toBe('pv-curve.light-moved')
    expect(ofReading({ ...swept(850, 40), endIrradiance_Wm2: 830 }).judgement.verdict).toBe('within')
    const bare = new FactsBuilder()
    bare.part(
      { kind: 'array', tag: 'South', tilt_deg: 30, azimuth_deg: 180, mounting: 'close-roof', category: 2 },
      ARRAY,
    )
    const id = bare.part({ ...exampleString(MODULES), arrayId: ARRAY })
    bare.reading('pv-curve', id, { slots: { curve: { curve: swept(850, 40) } }, conditions: null })
    const one = evaluate(bare.facts(), START_ms).byKey.get(stepKey('pv-curve', id))!
    expect(one.readings[0]!.judgement.finding.code).toBe('pv-curve.no-conditions')
  })

  it('so noisy or so coarse that a ledge would not be seen is not called sound', () => {
    const sound = swept(850, 40)
    const next = gaussian(3)
    const noisy = { ...sound, currents_A: sound.currents_A.map((current) => current + 0.1 * next()) }
    const sparse = (_: number, k: number): boolean => k % 20 === 0 || k >= 112
    const coarse = {
      voltages_V: sound.voltages_V.filter(sparse),
      currents_A: sound.currents_A.filter(sparse),
    }
    const codes = [noisy, coarse].map((curve) => {
      const { verdict, finding } = ofReading(curve).judgement
      return [verdict, finding.code]
    })
    expect(codes).toEqual([
      ['not-yet', 'pv-curve.noisy'],
      ['not-yet', 'pv-curve.coarse'],
    ])
    // What is outside for another reason is so whatever the scatter.
    const weak = { ...noisy, currents_A: noisy.currents_A.map((current) => current * 0.8) }
    expect(ofReading(weak).judgement.verdict).toBe('outside')
  })

  it('swept faster than cells follow says so, and one in weak light that its translation is', () => {
    const flags = (...all: Parameters<typeof read>) => ofReading(...all).judgement.flags
    expect(flags({ ...swept(850, 40), sweep_s: 0.004 })).toContain('fast-sweep')
    expect(flags({ ...swept(850, 40), sweep_s: 0.9 })).not.toContain('fast-sweep')
    expect(flags(swept(650, 40), exampleConditions(650, 40))).toContain('weak-translation')
  })

  it('is drawn over the expected one, as swept and carried', () => {
    const { evaluation, one } = ofReading(swept(850, 40, { shaded: 5, share: 0.4 }))
    const [picture] = picturesOf(evaluation, one, one.readings[0]!.entry.body)
    if (picture?.kind !== 'curve') throw new Error('expected a curve')
    expect(picture.steps).toHaveLength(1)
    const stc = referenceOf(parameters, exampleModule, MODULES, 1000, 25)
    expect(picture.atStc.expected.at(-1)![0]).toBeCloseTo(stc.voc_V, 6)
    expect(picture.atStc.measured).toHaveLength(picture.measured.length)
    expect(picture.top!.vmp_V).toBeGreaterThan(picture.vmp_V)
  })

  it('names causes only where something is wrong, the right one first', () => {
    const { evaluation, one } = ofReading(swept(850, 40, { shaded: 5, share: 0.4 }))
    const [first] = allCauses(evaluation, one)
    expect([first!.code, first!.figures.count, Math.round(Number(first!.figures.light_pct))]).toEqual([
      'curve-shade',
      5,
      40,
    ])
    const sound = ofReading(swept(850, 40))
    expect(toExplain(sound.evaluation, sound.one)).toBeNull()
    expect(allCauses(sound.evaluation, sound.one)).toEqual([])
  })
})
