import { describe, expect, it } from 'vitest'
import type { PartData } from '@/core/plant/part'
import { feedSampleSchema, liveSample } from '@/core/record/feed'
import type { Instrument, Measurable } from '@/core/record/instrument'
import { moduleModel } from '@/core/pv/stringModel'
import { exampleModule, exampleString } from '@/core/steps/worked'
import { testId } from '@/core/testing/factsBuilder'
import { loggerFile } from './logger'
import { pressStandIn, wasBuiltSound } from './press'
import { asBuilt, stringAtWork } from './roof'
import { skyAt } from './sky'

const START = Date.parse('2026-05-14T10:00:00.000Z')
const range = (measures: Measurable, most: number, decimals: number) => ({
  measures,
  accuracy: { ofReading_pct: 2, digits: 2 },
  most,
  decimals,
})
const tester: Instrument = {
  id: testId(9),
  tag: '07',
  name: 'Stand-in',
  serial: '',
  calibrationDue: null,
  standIn: true,
  ranges: [
    range('dc-voltage', 1000, 1),
    range('dc-current', 20, 2),
    range('dc-polarity', 1000, 0),
    range('insulation', 999, 1),
    range('continuity', 200, 2),
  ],
}
const row: PartData = {
  kind: 'row',
  tag: 'R1',
  arrayId: null,
  conductor: { length_m: 30, area_mm2: 6, joints: 4 },
}
const site: PartData = { kind: 'site', tag: 'Site', lowestTemperature_C: -10, highestCellTemperature_C: 70 }
const idWhere = (is: (id: string) => boolean): string => {
  for (let n = 0; n < 5000; n++) if (is(testId(n))) return testId(n)
  throw new Error('no such id')
}
const press = (key: Measurable, id: string, data: PartData, connection = {}) =>
  pressStandIn(tester, key, { id, data }, 'roof', START, connection)
const shown = (...all: Parameters<typeof press>) => {
  const pressed = press(...all)
  if (pressed.state === 'swept') return pressed.samples.at(-1)!
  if (pressed.state !== 'shown') throw new Error(JSON.stringify(pressed))
  return pressed.sample
}

describe('the simulated tester on insulation', () => {
  const sound = idWhere((id) => wasBuiltSound('insulation', id))
  const leaky = idWhere((id) => !wasBuiltSound('insulation', id))

  it('reads a sound string high, and one with a damp plug low', () => {
    expect(shown('insulation', sound, exampleString(12)).value).toBeGreaterThan(50)
    expect(shown('insulation', leaky, exampleString(12)).value).toBeLessThan(1)
  })

  it('reads a string that was mended high', () => {
    expect(shown('insulation', leaky, exampleString(12), { mended: true }).value).toBeGreaterThan(50)
  })

  it('shows a bound over its range', () => {
    const sample = shown('insulation', sound, exampleString(1))
    expect(sample).toMatchObject({ bound: 'more-than', text: '>999', value: 999 })
  })

  it('has a few leaky strings among many', () => {
    const many = Array.from({ length: 1000 }, (_, n) => wasBuiltSound('insulation', testId(n)))
    const share = many.filter((one) => !one).length / many.length
    expect(share).toBeGreaterThan(0.02)
    expect(share).toBeLessThan(0.12)
  })
})

describe('the simulated tester on continuity', () => {
  it('reads copper and joints of a sound row, under an ohm', () => {
    const id = idWhere((one) => wasBuiltSound('bonding', one))
    const value = shown('continuity', id, row).value
    expect(value).toBeGreaterThan((0.01724 * 30) / 6)
    expect(value).toBeLessThan(0.5)
  })

  it('finds a joint that was never tightened', () => {
    const id = idWhere((one) => !wasBuiltSound('bonding', one))
    expect(shown('continuity', id, row).value).toBeGreaterThan(1)
    expect(shown('continuity', id, row, { mended: true }).value).toBeLessThan(0.5)
  })

  it('shows the leads’ own resistance until they are nulled', () => {
    const id = idWhere((one) => wasBuiltSound('bonding', one))
    const more = shown('continuity', id, row, { nulled: false }).value - shown('continuity', id, row).value
    expect(more).toBeGreaterThan(0.3)
    expect(more).toBeLessThan(0.6)
  })

  it('shows next to nothing with its clips joined, and on an isolated cable', () => {
    expect(shown('continuity', testId(1), site).value).toBeLessThanOrEqual(0.02)
    expect(shown('dc-current', testId(1), site).value).toBeLessThanOrEqual(0.02)
  })
})

describe('the simulated tester anywhere', () => {
  it('has nothing to show where it is not connected', () => {
    expect(press('insulation', testId(1), site)).toMatchObject({ state: 'refused', code: 'standin-not-here' })
    expect(press('tilt', testId(1), exampleString(3))).toMatchObject({ state: 'refused', code: 'standin-not-here' })
    const bare = { ...tester, ranges: [range('dc-voltage', 1000, 1)] }
    expect(pressStandIn(bare, 'continuity', { id: testId(1), data: row }, 'roof', START)).toMatchObject({
      code: 'standin-not-here',
    })
  })

  it.each([
    ['insulation', exampleString(12)],
    ['continuity', row],
  ] as const)('speaks of %s through the feed’s own shape', (key, data) => {
    const sample = feedSampleSchema.parse(shown(key, testId(3), data))
    expect(liveSample(tester, sample)).toMatchObject({ instrumentId: tester.id, quantity: key })
  })

  it('reads a string at work while the inverter runs: less current than shorted, less voltage than open', () => {
    const id = idWhere((one) => asBuilt(one, 11).fault === 'none')
    const open = shown('dc-voltage', id, exampleString(11)).value
    const work = shown('dc-voltage', id, exampleString(11), { loaded: true }).value
    expect(work / open).toBeGreaterThan(0.7)
    expect(work / open).toBeLessThan(0.9)
    const shorted = shown('dc-current', id, exampleString(11)).value
    const working = shown('dc-current', id, exampleString(11), { loaded: true }).value
    expect(working / shorted).toBeGreaterThan(0.85)
    expect(working / shorted).toBeLessThan(1)
  })

  it('works where the core’s own model expects the most power, to a few per cent', () => {
    const id = idWhere((one) => asBuilt(one, 11).fault === 'none')
    const sky = skyAt('roof', START)
    const { voltage_V, current_A } = stringAtWork(sky, exampleString(11), asBuilt(id, 11))
    const { pmax_W } = moduleModel(exampleModule).maximumPower(sky.irradiance_Wm2, sky.cell_C)
    expect((voltage_V * current_A) / (11 * pmax_W)).toBeGreaterThan(0.95)
    expect((voltage_V * current_A) / (11 * pmax_W)).toBeLessThan(1.05)
  })
})

describe('the simulated logger', () => {
  it('writes a line every ten seconds by its own clock', () => {
    const lines = loggerFile('roof', 'logger', START, START + 60_000, 3600)
      .trim()
      .split('\n')
    expect(lines.length).toBe(8)
    expect(lines[1]).toMatch(/^2026-05-14T11:00:00\.000Z,\d+\.\d,\d+\.\d$/)
    const light = Number(lines[1]!.split(',')[1])
    expect(Math.abs(light / skyAt('roof', START).irradiance_Wm2 - 1)).toBeLessThan(0.06)
  })
})
