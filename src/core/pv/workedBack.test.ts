import { describe, expect, it } from 'vitest'
import { exampleModule } from '../steps/worked'
import { cellFromAir, USUAL_NOCT_C } from './cellTemperature'
import { moduleModel } from './stringModel'
import { lightOf, lightWorkedBack, plateBracket, readAir, UNREAD_AIR, weatherBy } from './workedBack'

const model = moduleModel(exampleModule)
/** What a string of the module gives in so much light and air: the model itself, not what works it back. */
const currentIn = (light_Wm2: number, air_C: number): number =>
  model.isc_A(light_Wm2, cellFromAir(air_C, light_Wm2, USUAL_NOCT_C).value_C)
const told = (current_A: number) => ({ current_A, uncertainty_A: 0.01 * current_A, module: exampleModule })

describe('light worked back from a current', () => {
  it('is the light that gave it, within a thousandth, from gloom to full sun', () => {
    for (const light of [60, 180, 420, 980])
      expect(lightOf(told(currentIn(light, 12)), readAir(12)) / light).toBeCloseTo(1, 3)
  })

  it('goes by the median: one shaded string does not dim the sky', () => {
    const currents = [210, 212, 90, 208].map((light) => told(currentIn(light, 9)))
    const found = lightWorkedBack(currents, readAir(9), 4)!
    expect(found.irradiance_Wm2).toBeCloseTo(209, 0)
    expect(found.count).toBe(4)
  })

  it('is known less surely by the minute, and never better than 5 %', () => {
    const current = [told(currentIn(300, 10))]
    const [now, later] = [0, 20].map((minutes) => lightWorkedBack(current, readAir(10), minutes)!.uncertainty_Wm2)
    expect(now! / 300).toBeGreaterThan(0.05)
    expect(later! / 300).toBeGreaterThan(0.2)
  })

  it('is none where nothing flows', () => {
    expect(lightWorkedBack([told(0)], UNREAD_AIR, 0)).toBeNull()
    expect(lightWorkedBack([], UNREAD_AIR, 0)).toBeNull()
  })

  it('makes the cell as warm as that light does on such air', () => {
    const weather = weatherBy({ irradiance_Wm2: 400, uncertainty_Wm2: 20, count: 1 }, readAir(10), exampleModule)
    expect(weather.cell).toEqual({ ...cellFromAir(10, 400, USUAL_NOCT_C), uncertainty_K: Math.hypot(6, 5) })
  })
})

describe('what the plate leaves in whatever light', () => {
  const voltage = (light: number, cell: number): number => 8 * model.voc_V(light, cell)
  it('holds a sound string from gloom to full sun, in frost and heat', () => {
    const { value, uncertainty } = plateBracket(voltage, UNREAD_AIR, exampleModule)
    for (const light of [60, 300, 1000])
      for (const air of [-4, 15, 33]) {
        const sound = voltage(light, cellFromAir(air, light, USUAL_NOCT_C).value_C)
        expect(Math.abs(sound - value)).toBeLessThan(uncertainty)
      }
  })

  it('is narrower where the air was read', () => {
    const [unread, read] = [UNREAD_AIR, readAir(15)].map((air) => plateBracket(voltage, air, exampleModule).uncertainty)
    expect(read!).toBeLessThan(0.8 * unread!)
  })
})
