import { describe, expect, it } from 'vitest'
import { exampleModule } from '@/core/steps/worked'
import { weatherOf } from '@/core/pv/conditions'
import type { LiveSample } from '@/core/record/feed'
import { testId } from '@/core/testing/factsBuilder'
import { parseRoute, addressOf } from '../shell/route'
import { airBeside, conditionsNow } from './conditions'
import { isFresh, type Live, lightTrend } from './liveFeed'

const NOW = Date.parse('2026-05-14T11:00:00.000Z')
const sample = (quantity: LiveSample['quantity'], value: number, ago_s = 2): LiveSample => ({
  instrumentId: testId(2),
  quantity,
  read: { text: String(value), value, bound: 'exact', unit: quantity === 'irradiance' ? 'Wm2' : 'degC' },
  at: new Date(NOW - ago_s * 1000).toISOString(),
})
const meter = {
  id: testId(2),
  tag: '02',
  name: 'Meter',
  serial: '',
  calibrationDue: null,
  standIn: true,
  ranges: [{ measures: 'irradiance' as const, accuracy: { ofReading_pct: 2, digits: 1 }, most: 1600, decimals: 0 }],
}
const live = (samples: LiveSample[]): Live => ({
  paired: [],
  latest: Object.fromEntries(samples.map((one) => [one.quantity, one])),
  light: [],
  watched: [],
})

describe('conditions from the paired instruments', () => {
  it('take the sensor on the module before the air', () => {
    const conditions = conditionsNow(
      live([sample('irradiance', 742), sample('module-back-temperature', 40), sample('air-temperature', 18)]),
      [meter],
      'open-rack',
      NOW,
    )!
    expect(conditions).toMatchObject({
      how: 'stand-in',
      cell: { way: 'back', mounting: 'open-rack' },
      irradiance: { instrument: { tag: '02', accuracy: { ofReading_pct: 2 } } },
    })
    expect(weatherOf(conditions, exampleModule)!.cell.value_C).toBeCloseTo(42.226, 3)
  })

  it('keep the air beside the module’s own warmth, and not twice where it stands for it', () => {
    const shown = live([
      sample('irradiance', 742),
      sample('module-back-temperature', 40),
      sample('air-temperature', 18),
    ])
    const conditions = conditionsNow(shown, [meter], 'open-rack', NOW)
    const both = { ...meter, ranges: [...meter.ranges, { ...meter.ranges[0]!, measures: 'air-temperature' as const }] }
    expect(airBeside(shown.latest, conditions, [both], NOW)).toMatchObject({
      read: { value: 18 },
      instrument: { tag: '02' },
    })
    expect(airBeside(shown.latest, null, [meter], NOW)).toBeNull()
    const old = live([
      sample('irradiance', 742),
      sample('module-back-temperature', 40),
      sample('air-temperature', 18, 900),
    ])
    expect(airBeside(old.latest, conditions, [meter], NOW)).toBeNull()
    const byAir = live([sample('irradiance', 742), sample('air-temperature', 18)])
    expect(airBeside(byAir.latest, conditionsNow(byAir, [meter], 'open-rack', NOW), [meter], NOW)).toBeNull()
  })

  it('fall back to the air where that is all there is', () => {
    expect(
      conditionsNow(live([sample('irradiance', 742), sample('air-temperature', 18)]), [meter], 'open-rack', NOW),
    ).toMatchObject({ cell: { way: 'air' } })
  })

  it('are none without light, without a temperature, or once they are old', () => {
    expect(conditionsNow(live([sample('module-back-temperature', 40)]), [meter], 'open-rack', NOW)).toBeNull()
    expect(conditionsNow(live([sample('irradiance', 742)]), [meter], 'open-rack', NOW)).toBeNull()
    expect(
      conditionsNow(live([sample('irradiance', 742, 60), sample('air-temperature', 18)]), [meter], 'open-rack', NOW),
    ).toBeNull()
    expect(isFresh(undefined, NOW)).toBe(false)
  })
})

describe('how the light is', () => {
  const light = (values: number[]) => values.map((value, k) => ({ at: NOW + k * 2000, value }))

  it('is steady for as long as it stayed within 5 %', () => {
    expect(lightTrend(light([700, 705, 702, 699, 701, 703, 704]))).toEqual({ state: 'steady', seconds: 12 })
  })

  it('is rising or falling where it moved just now', () => {
    expect(lightTrend(light([500, 600, 700])).state).toBe('rising')
    expect(lightTrend(light([700, 600, 500])).state).toBe('falling')
    expect(lightTrend([])).toEqual({ state: 'steady', seconds: 0 })
  })
})

describe('the address of a place in a job', () => {
  it('comes back as it was written', () => {
    const route = { jobId: testId(1), view: 'run', step: 'pv-voc', partId: testId(2) } as const
    expect(parseRoute(addressOf(route).slice('/job'.length))).toEqual(route)
    // A circuit of the schedule, without a test of it.
    const row = { ...route, view: 'schedule' as const, step: null }
    expect(parseRoute(addressOf(row).slice('/job'.length))).toEqual(row)
  })

  it('is no place where no job is named', () => {
    expect(parseRoute('#')).toBeNull()
    expect(parseRoute('#../../etc')).toBeNull()
    expect(parseRoute(`#${testId(1)}/elsewhere`)).toMatchObject({ view: 'run', step: null })
  })
})
