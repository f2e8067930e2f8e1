import { describe, expect, it } from 'vitest'
import { earthFault } from '@/core/pv/earthFault'
import { exampleString } from '@/core/steps/worked'
import { testId } from '@/core/testing/factsBuilder'
import { hasLeak, INPUT_Mohm, insulationOf, voltageToEarth, wayToEarth } from './leak'

const string = exampleString(14)
const ids = Array.from({ length: 600 }, (_, n) => testId(n))
const leaky = ids.filter(hasLeak)
const VOC_V = 500

describe('a simulated string to earth', () => {
  it('leaves volts from which the plug that leaks is found, wherever it is', () => {
    expect(leaky.length).toBeGreaterThan(15)
    for (const id of leaky) {
      const way = wayToEarth(id, string, false, 'dry')
      const [plus, minus] = (['plus', 'minus'] as const).map((end) => voltageToEarth(way, 14, VOC_V, end))
      const found = earthFault({
        voc_V: VOC_V,
        positiveToEarth_V: plus!,
        negativeToEarth_V: minus!,
        meterResistance_ohm: INPUT_Mohm * 1e6,
        modulesInSeries: 14,
      })!
      expect(found.afterModule).toBe(way.leak!.afterModule)
      expect(found.faultResistance_ohm / 1e6).toBeCloseTo(way.leak!.resistance_Mohm, 1)
    }
  })

  it('is low only in the half that holds the plug', () => {
    const id = leaky.find((one) => {
      const at = wayToEarth(one, string, false, 'dry').leak!.afterModule
      return at > 2 && at < 6
    })!
    const way = wayToEarth(id, string, false, 'dry')
    expect(insulationOf(way, 14, 0, 7)).toBeLessThan(1)
    expect(insulationOf(way, 14, 7, 14)).toBeGreaterThan(50)
  })

  it('is sound once mended, and leaks more when wet', () => {
    const id = leaky[0]!
    expect(wayToEarth(id, string, true, 'dry').leak).toBeNull()
    const [dry, wet] = (['dry', 'wet'] as const).map((one) => wayToEarth(id, string, false, one).leak!.resistance_Mohm)
    expect(wet!).toBeLessThan(dry!)
  })
})
