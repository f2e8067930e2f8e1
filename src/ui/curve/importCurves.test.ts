import { describe, expect, it } from 'vitest'
import type { FileCurve } from '@/core/curve/curveFile'
import { evaluate } from '@/core/evaluate'
import type { StepEvaluation } from '@/core/evaluation/types'
import { exampleConditions, exampleString } from '@/core/steps/worked'
import { FactsBuilder, START_ms, testId } from '@/core/testing/factsBuilder'
import { bodyFor, conditionsOf, refusalOn, rowsOf, stringsFor } from './importCurves'

const ARRAY = testId(0xa1)
const build = new FactsBuilder()
build.part({ kind: 'array', tag: 'South', tilt_deg: 30, azimuth_deg: 180, mounting: 'close-roof', category: 2 }, ARRAY)
for (const tag of ['1', '2', 'A3', 'B3']) build.part({ ...exampleString(11), tag, arrayId: ARRAY })
const evaluation = evaluate(build.facts(), START_ms)
const steps: StepEvaluation[] = evaluation.steps.filter(({ step }) => step.id === 'pv-curve')
const one = steps.find(({ part }) => part.data.tag === '1')!
const tagOf = (id: string | null): string | null => steps.find(({ part }) => part.id === id)?.part.data.tag ?? null

const curve = (name: string, swap = false, rest: Partial<FileCurve> = {}): FileCurve => ({
  name,
  points: Array.from({ length: 40 }, (_, k) => {
    const voltage = (410 * k) / 39
    const current = 9.6 * Math.max(0, 1 - Math.exp((voltage - 410) / 20))
    return swap ? ([current, voltage] as const) : ([voltage, current] as const)
  }),
  skipped: 0,
  irradiance_Wm2: null,
  temperature_C: null,
  ...rest,
})
const tagsFor = (names: string[], before = {}): (string | null)[] =>
  stringsFor(rowsOf(names.map((name) => curve(name))), steps, before).map(tagOf)

describe('curves of a file', () => {
  it('go to their strings by name, by number where only one has it, and as they went before', () => {
    expect(tagsFor(['STR-01', '2'])).toEqual(['1', '2'])
    expect(tagsFor(['a3'])).toEqual(['A3'])
    // Two strings end in 3: nobody guesses.
    expect(tagsFor(['M3', ''])).toEqual([null, null])
    expect(tagsFor(['M3'], { M3: 'B3' })).toEqual(['B3'])
  })

  it('are one a string: the second of a name is left to somebody', () => {
    expect(tagsFor(['1', '1'])).toEqual(['1', null])
  })

  it('say why they cannot be taken', () => {
    const [bad] = rowsOf([curve('1', false, { points: [[0, 1]] })])
    expect(bad!.refused).toContain('at least 5 points')
    const [swapped] = rowsOf([curve('1', true)])
    const body = bodyFor(one, swapped!, null, exampleConditions(1000, 25))
    expect(refusalOn(evaluation, one, swapped!, body)).toContain('look swapped')
    const [fine] = rowsOf([curve('1')])
    expect(refusalOn(evaluation, one, fine!, bodyFor(one, fine!, null, exampleConditions(1000, 25)))).toBeNull()
  })

  it('bring their own light and warmth where the file has them, else those of now', () => {
    const now = exampleConditions(700, 30)
    expect(conditionsOf(curve('1'), now)).toBe(now)
    const own = conditionsOf(curve('1', false, { irradiance_Wm2: 812, temperature_C: 46.2 }), now)!
    expect([own.irradiance.read.value, own.cell.read.value, own.how]).toEqual([812, 46.2, 'file'])
  })

  it('are kept under the name that their instrument gave them', () => {
    const [row] = rowsOf([curve('MEM 17')])
    const { slots, how } = bodyFor(one, row!, null, null)
    expect(how).toBe('file')
    expect(slots.curve).toMatchObject({ curve: { memory: 'MEM 17' } })
  })
})
