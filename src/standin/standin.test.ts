import { describe, expect, it } from 'vitest'
import { currentAt, openCircuitVoltage } from '@/core/pv/singleDiode'
import { moduleModel } from '@/core/pv/stringModel'
import { exampleModule, exampleString } from '@/core/steps/worked'
import { testId } from '@/core/testing/factsBuilder'
import { asBuilt, stringUnder } from './roof'
import { sensorReading } from './sensors'
import { skyAt, skyHour } from './sky'
import { groupVoltage, type StandinGroup, type StandinString, stringOpenVoltage, stringShortCurrent } from './solver'
import { pressTester } from './stringTester'

const START = Date.parse('2026-05-14T10:00:00.000Z')
const tester = (most = 1000) => ({
  id: testId(9),
  tag: '07',
  name: 'Stand-in',
  serial: '',
  calibrationDue: null,
  standIn: true,
  ranges: [
    { measures: 'dc-voltage' as const, accuracy: { ofReading_pct: 0.5, digits: 2 }, most, decimals: 1 },
    { measures: 'dc-current' as const, accuracy: { ofReading_pct: 1, digits: 2 }, most: 20, decimals: 2 },
    { measures: 'dc-polarity' as const, accuracy: { ofReading_pct: 0, digits: 0 }, most: 1000, decimals: 0 },
  ],
})
const withFault = (fault: string): string => {
  for (let n = 0; n < 2000; n++) if (asBuilt(testId(n), 11).fault === fault) return testId(n)
  throw new Error(`no string with ${fault}`)
}

describe('the simulated sky', () => {
  it('is the same for the same seed and time', () => {
    expect(skyAt('roof', START)).toEqual(skyAt('roof', START))
    expect(skyAt('roof', START)).not.toEqual(skyAt('roof', START + 1000))
  })

  it('is always day, and never beyond what a sky gives', () => {
    for (let at = START; at < START + 86_400_000; at += 61_000) {
      const { irradiance_Wm2, cell_C, air_C } = skyAt('roof', at)
      expect(skyHour(at)).toBeGreaterThanOrEqual(9.5)
      expect(irradiance_Wm2).toBeGreaterThan(100)
      expect(irradiance_Wm2).toBeLessThan(1100)
      expect(cell_C).toBeGreaterThan(air_C)
    }
  })

  it('has passing cloud', () => {
    const drops = Array.from({ length: 600 }, (_, k) => skyAt('roof', START + k * 20_000).irradiance_Wm2)
    expect(Math.min(...drops)).toBeLessThan(0.7 * Math.max(...drops))
  })
})

describe('the simulated sensors', () => {
  it('stay within their class under steady sky', () => {
    for (let n = 0; n < 50; n++) {
      const shown = sensorReading('irradiance', 'still', `sensor ${n}`, START)
      const truth = skyAt('still', START).irradiance_Wm2
      expect(Math.abs(shown / truth - 1)).toBeLessThan(0.035)
    }
  })
})

describe('the simulated roof', () => {
  it('scatters about the core’s expectation although its physics are its own', () => {
    const model = moduleModel(exampleModule)
    const sky = { irradiance_Wm2: 700, air_C: 18, cell_C: 42 }
    const sound = stringUnder(sky, exampleString(11), asBuilt(withFault('none'), 11))
    expect(Math.abs(sound.voltage_V / (11 * model.voc_V(700, 42)) - 1)).toBeLessThan(0.01)
    expect(Math.abs(sound.current_A / model.isc_A(700, 42) - 1)).toBeLessThan(0.015)
  })

  it('builds about one string in six with a fault', () => {
    const faults = Array.from({ length: 1000 }, (_, n) => asBuilt(testId(n), 11).fault)
    const share = faults.filter((fault) => fault !== 'none').length / faults.length
    expect(share).toBeGreaterThan(0.12)
    expect(share).toBeLessThan(0.24)
  })
})

describe('the stand-ins’ own solver', () => {
  const plain: StandinGroup = {
    photocurrent_A: 9,
    saturationCurrent_A: 1e-10,
    seriesResistance_ohm: 0.3,
    shuntResistance_ohm: 300,
    ideality_V: 1.5,
  }
  const string = (...groups: StandinGroup[]): StandinString => ({ groups, joints_ohm: 0 })

  it('meets the core’s solution of the same diode, although it shares nothing with it', () => {
    const same = { ...plain, modifiedIdeality_V: plain.ideality_V }
    expect(stringOpenVoltage(string(plain))).toBeCloseTo(openCircuitVoltage(same), 9)
    for (const current of [0, 3, 6, 8.5]) {
      expect(currentAt(same, groupVoltage(plain, current))).toBeCloseTo(current, 9)
    }
  })

  it('lets bypass diodes carry a string past one dim group', () => {
    const dim = { ...plain, photocurrent_A: 3 }
    const short = stringShortCurrent(string(plain, plain, plain, dim))
    expect(short).toBeGreaterThan(8.5)
    expect(groupVoltage(dim, short)).toBeLessThan(0)
  })

  it('loses a group that is shorted, and two where one is turned round', () => {
    const whole = stringOpenVoltage(string(plain))
    expect(stringOpenVoltage(string(plain, plain, { ...plain, shorted: true }))).toBeCloseTo(2 * whole, 9)
    expect(stringOpenVoltage({ ...string(plain, plain, plain), turned: 1 })).toBeCloseTo(whole, 9)
  })
})

describe('the simulated tester', () => {
  it('shows a sound string to its resolution', () => {
    const pressed = pressTester(tester(), 'dc-voltage', withFault('none'), exampleString(11), 'roof', START)
    expect(pressed).toMatchObject({ state: 'shown', sample: { unit: 'V', text: expect.stringMatching(/^\d+\.\d$/) } })
  })

  it('refuses a reversed string', () => {
    const partId = withFault('reversed')
    expect(pressTester(tester(), 'dc-current', partId, exampleString(11), 'roof', START)).toMatchObject({
      code: 'standin-reversed',
    })
    expect(pressTester(tester(), 'dc-polarity', partId, exampleString(11), 'roof', START)).toMatchObject({
      sample: { value: -1 },
    })
  })

  it('refuses more volts than it is made for', () => {
    const pressed = pressTester(tester(300), 'dc-voltage', withFault('none'), exampleString(11), 'roof', START)
    expect(pressed).toMatchObject({ state: 'refused', code: 'standin-rating', unit: 'V', most: 300 })
  })
})
