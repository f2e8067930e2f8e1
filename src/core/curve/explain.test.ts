import { describe, expect, it } from 'vitest'
import { moduleModel } from '../pv/stringModel'
import { exampleModule } from '../steps/worked'
import { atConditions } from '../pv/deSoto'
import { explain, type Explained } from './explain'
import type { CurvePoint } from './points'
import type { CurveQuestion } from './question'
import { groupOf, modulesOf } from './reference'
import { type CurveString, ParallelStrings } from './stringCurve'

const parameters = moduleModel(exampleModule).parameters!
const sound = groupOf(atConditions(parameters, exampleModule, 900, 42))
const string = (modules: number): CurveString => ({ seriesResistance_ohm: 0, modules: modulesOf([3 * modules, sound]) })

function asked(strings: readonly CurveString[], rest: Partial<CurveQuestion> = {}): CurveQuestion {
  const array = new ParallelStrings(strings)
  const { voc_V } = array.features()
  return {
    points: Array.from({ length: 120 }, (_, k): CurvePoint => {
      const voltage = (1.001 * voc_V * k) / 119
      return [voltage, array.currentAt(voltage)]
    }),
    parameters,
    module: exampleModule,
    modulesInSeries: 12,
    irradiance_Wm2: 900,
    irradianceUncertainty_Wm2: 20,
    cellTemperature_C: 42,
    cellTemperatureUncertainty_K: 2,
    instrument_pct: 0.5,
    ...rest,
  }
}
function explained(question: CurveQuestion): Explained {
  const found = explain(question)
  if (typeof found === 'string') throw new Error(found)
  return found
}

describe('what explains a curve', () => {
  it('is nothing where the string is as its data sheet says', () => {
    const { isSound, ranked } = explained(asked([string(12)]))
    expect([isSound, ranked[0]!.id]).toEqual([true, 'sound'])
  })

  it('of strings in parallel is the one that is short', () => {
    const { ranked, isSound } = explained(asked([string(12), string(12), string(11)], { stringsInParallel: 3 }))
    expect([isSound, ranked[0]!.id, ranked[0]!.figures]).toEqual([false, 'parallel-mismatch', { count: 1, strings: 3 }])
    expect(explained(asked([string(12), string(12)], { stringsInParallel: 2 })).isSound).toBe(true)
  })

  it('tells how far it has come, and is the same each time', () => {
    const shares: number[] = []
    const question = asked([string(11)])
    const first = explain(question, (share) => shares.push(share))
    expect(shares.length).toBeGreaterThan(10)
    expect([...shares].sort((a, b) => a - b)).toEqual(shares)
    expect(shares.at(-1)).toBeLessThanOrEqual(1)
    expect(explain(question)).toEqual(first)
  })

  it('refuses points that are none', () => {
    expect(explain({ ...asked([string(12)]), points: [[0, 1]] })).toBe('too-few-points')
  })
})
