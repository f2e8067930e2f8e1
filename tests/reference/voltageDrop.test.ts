/** Voltage drop against the published table of a wiring standard, and a sum by hand from its conductor tables. */
import { describe, expect, it } from 'vitest'
import { carries_A } from '@/core/circuit/carries'
import { dropAlong_V } from '@/core/circuit/voltageDrop'

const radial = { phases: 1, layout: 'radial' } as const

describe('voltage drop', () => {
  /** BS 7671 table 4D2B, two-core cable, 70 degC, alternating current, mV/A/m (from memory). */
  const one = { '1': 44, '1.5': 29, '2.5': 18, '4': 11, '6': 7.3, '10': 4.4, '16': 2.8, '25': 1.75, '35': 1.25 }
  /** The same, three- or four-core, three-phase; it is between lines, the square root of three more than to neutral. */
  const three = { '1': 38, '1.5': 25, '2.5': 15, '4': 9.5, '6': 6.4, '10': 3.8, '16': 2.4, '25': 1.5, '35': 1.1 }

  it.each(Object.entries(one))(
    'of %s mm² in one phase is that of the table, %s mV/A/m, within its rounding of 2 %%',
    (area, mV) => {
      const own = dropAlong_V({ ...radial, line_mm2: Number(area), length_m: 1 }, 1)! * 1000
      expect(Math.abs(own / mV - 1)).toBeLessThan(0.02)
    },
  )

  it.each(Object.entries(three))('of %s mm² in three phases is that of the table, %s mV/A/m', (area, mV) => {
    const own =
      dropAlong_V({ line_mm2: Number(area), length_m: 1, phases: 3, layout: 'radial' }, 1)! * 1000 * Math.sqrt(3)
    expect(Math.abs(own / mV - 1)).toBeLessThan(0.03)
  })

  it('by hand: 2.5 mm² of 7.41 mΩ/m at 20 °C, 1.2 when warm, there and back 20 m under 16 A is 5.69 V (IEC 60228 table 2)', () => {
    expect(dropAlong_V({ ...radial, line_mm2: 2.5, length_m: 20 }, 16)).toBeCloseTo(5.691, 3)
    expect(dropAlong_V({ phases: 1, layout: 'ring', line_mm2: 2.5, length_m: 80 }, 16)).toBeCloseTo(5.691, 3)
  })

  it('is nothing of a cross-section that no table has', () => {
    expect(dropAlong_V({ ...radial, line_mm2: 3, length_m: 20 }, 16)).toBeNull()
    expect(carries_A({ line_mm2: 3 })).toBeNull()
  })
})
