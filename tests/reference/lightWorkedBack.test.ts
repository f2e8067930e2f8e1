/**
 * Light worked back from currents, held against the simulated sky. The strings under it have physics of their own (each
 * cell group a diode, scatter between modules): nothing of the core's model is in them.
 */
import { describe, expect, it } from 'vitest'
import type { StringData } from '@/core/plant/part'
import { expectation } from '@/core/pv/expectation'
import { moduleModel } from '@/core/pv/stringModel'
import { lightWorkedBack, plateBracket, readAir, UNREAD_AIR, weatherBy } from '@/core/pv/workedBack'
import { tarnlight } from '@/server/demo/modules'
import { asBuilt, stringUnder } from '@/standin/roof'
import { DRIZZLE_SKY, PRACTICE_SKY, skyAt } from '@/standin/sky'

const MODULES = 11
const string: StringData = {
  kind: 'string',
  tag: '1',
  arrayId: null,
  modulesInSeries: MODULES,
  moduleType: tarnlight,
}
const module = tarnlight.data
const model = moduleModel(module)
const voltsAt = (light: number, cell: number): number => MODULES * model.voc_V(light, cell)
/** Strings that were built sound, by their seeds. */
const sound = Array.from({ length: 60 }, (_, k) => `string ${k}`).filter((id) => asBuilt(id, MODULES).fault === 'none')
/** Cells as warm as their light makes them: at a cloud's edge they are of another light, and nobody reads then. */
const inBalance =
  (seed: string) =>
  (at: number): boolean => {
    const { irradiance_Wm2, air_C, cell_C } = skyAt(seed, at)
    return Math.abs(cell_C - air_C - 0.031 * irradiance_Wm2) < 5
  }
const moments = Array.from({ length: 120 }, (_, k) => 1_780_000_000_000 + k * 613_000)

describe.each([DRIZZLE_SKY, PRACTICE_SKY])('light worked back under the %s', (seed) => {
  it('lies where the sky is, within what it says of itself', () => {
    for (const at of moments) {
      const sky = skyAt(seed, at)
      const currents = sound.slice(0, 4).map((id) => {
        const { current_A } = stringUnder(sky, string, asBuilt(id, MODULES))
        return { current_A, uncertainty_A: 0.01 * current_A, module }
      })
      const { irradiance_Wm2, uncertainty_Wm2 } = lightWorkedBack(currents, readAir(sky.air_C), 4)!
      expect(Math.abs(irradiance_Wm2 - sky.irradiance_Wm2)).toBeLessThan(uncertainty_Wm2)
    }
  })

  it('gives each sound voltage an expectation that holds it, and one without a module another', () => {
    const still = moments.filter(inBalance(seed))
    expect(still.length).toBeGreaterThan(90)
    for (const at of still) {
      const sky = skyAt(seed, at)
      const id = sound[Math.floor(at / 613_000) % sound.length]!
      const { current_A, voltage_V } = stringUnder(sky, string, asBuilt(id, MODULES))
      const light = lightWorkedBack([{ current_A, uncertainty_A: 0.01 * current_A, module }], readAir(sky.air_C), 4)!
      const { value, uncertainty } = expectation(voltsAt, weatherBy(light, readAir(sky.air_C), module), 1)
      expect(Math.abs(voltage_V - value)).toBeLessThan(uncertainty)
      // A module less lies further away than the bracket is wide.
      expect(value - (voltage_V * (MODULES - 1)) / MODULES).toBeGreaterThan(uncertainty)
    }
  })

  it('is not needed for what the plate leaves in any light', () => {
    const { value, uncertainty } = plateBracket(voltsAt, UNREAD_AIR, module)
    for (const at of moments) {
      const { voltage_V } = stringUnder(skyAt(seed, at), string, asBuilt(sound[0]!, MODULES))
      expect(Math.abs(voltage_V - value)).toBeLessThan(uncertainty)
    }
  })
})
