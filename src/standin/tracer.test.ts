import { describe, expect, it } from 'vitest'
import { featuresOf } from '@/core/curve/features'
import { referenceOf } from '@/core/curve/reference'
import { moduleModel } from '@/core/pv/stringModel'
import { liveSample } from '@/core/record/feed'
import { exampleModule, exampleString } from '@/core/steps/worked'
import { testId } from '@/core/testing/factsBuilder'
import { pressStandIn } from './press'
import { asBuilt, type Fault } from './roof'
import { skyAt } from './sky'

const START = Date.parse('2026-05-14T10:00:00.000Z')
const tracer = (most = 1000) => ({
  id: testId(9),
  tag: '06',
  name: 'Stand-in',
  serial: '',
  calibrationDue: null,
  standIn: true,
  ranges: [{ measures: 'iv-curve' as const, accuracy: { ofReading_pct: 0.5, digits: 0 }, most, decimals: 0 }],
})
const built = (fault: Fault): string => {
  for (let n = 0; n < 4000; n++) if (asBuilt(testId(n), 11).fault === fault) return testId(n)
  throw new Error(`no string with ${fault}`)
}
const press = (fault: Fault, most = 1000) =>
  pressStandIn(tracer(most), 'iv-curve', { id: built(fault), data: exampleString(11) }, 'roof', START)
function sweep(fault: Fault) {
  const pressed = press(fault)
  if (pressed.state !== 'swept') throw new Error(JSON.stringify(pressed))
  const features = featuresOf(pressed.samples.flatMap(({ sweep: part }) => part?.points ?? []))
  if (typeof features === 'string') throw new Error(features)
  return { samples: pressed.samples, features }
}

describe('the simulated curve tracer', () => {
  const { irradiance_Wm2, cell_C } = skyAt('roof', START)
  const expected = referenceOf(moduleModel(exampleModule).parameters!, exampleModule, 11, irradiance_Wm2, cell_C)

  it('sends a sweep in parts, each through the same door, the last with what it knows of it', () => {
    const { samples } = sweep('none')
    expect(samples.length).toBeGreaterThan(5)
    expect(samples.map(({ sweep: part }) => part!.done)).toEqual(samples.map((_, k) => k === samples.length - 1))
    expect(samples.at(-1)!.sweep!.endIrradiance_Wm2).toBeGreaterThan(100)
    for (const sample of samples) expect(liveSample(tracer(), sample)).toMatchObject({ quantity: 'iv-curve' })
    expect(new Set(samples.map(({ at }) => at)).size).toBe(samples.length)
  })

  it('shows a sound string near what the core expects, although its physics are its own', () => {
    const { features } = sweep('none')
    expect(Math.abs(features.voc_V / expected.voc_V - 1)).toBeLessThan(0.01)
    expect(Math.abs(features.isc_A / expected.isc_A - 1)).toBeLessThan(0.02)
    expect(Math.abs(features.pmax_W / expected.pmax_W - 1)).toBeLessThan(0.03)
    expect(features.steps).toEqual([])
  })

  it('shows each fault by its own shape', () => {
    const sound = sweep('none').features
    expect(sweep('shaded').features.steps).toHaveLength(1)
    expect(sweep('bad-joint').features.slopeAtVoc_ohm - sound.slopeAtVoc_ohm).toBeCloseTo(3.4, 0)
    expect(sweep('leaky-cells').features.slopeAtIsc_S).toBeGreaterThan(2 * sound.slopeAtIsc_S)
    expect(sweep('soiled').features.isc_A / sound.isc_A).toBeLessThan(0.9)
    // A module the wrong way round takes its own volts twice.
    expect(sweep('module-turned').features.voc_V / sound.voc_V).toBeCloseTo(9 / 11, 2)
  })

  it('refuses crossed plugs, and more volts than it is made for', () => {
    expect(press('reversed')).toMatchObject({ state: 'refused', code: 'standin-reversed' })
    expect(press('none', 300)).toMatchObject({ state: 'refused', code: 'standin-rating', most: 300 })
  })

  it('is heard only with its points, and nothing else has any', () => {
    const at = new Date(START).toISOString()
    const bare = { quantity: 'iv-curve' as const, value: 12, bound: 'exact' as const, unit: 'one', at }
    expect(liveSample(tracer(), bare)).toEqual({ code: 'feed-sweep' })
  })
})
