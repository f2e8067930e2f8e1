import { describe, expect, it } from 'vitest'
import { type CurveString, ParallelStrings } from '@/core/curve/stringCurve'
import reference from './data/stringCurve.json'

/** Within this share of Isc at every point. */
const SHARE = 1e-4

/**
 * Against a general circuit simulator, which solves the same strings as nodes, diodes and resistors
 * (scripts/string_curve_ngspice.py, ngspice 39.3 from Debian's packages).
 */
describe.each(reference)('a string: $name', ({ strings, voltages_V, currents_A }) => {
  const array = new ParallelStrings(strings as readonly CurveString[])

  it('carries the current that the simulator finds at every voltage', () => {
    const { isc_A } = array.features()
    const off = voltages_V.map((voltage, k) => Math.abs(array.currentAt(voltage) - currents_A[k]!))
    expect(Math.max(...off)).toBeLessThan(SHARE * isc_A)
  })

  it('has its highest power where none of the simulator’s points is higher', () => {
    const { pmax_W, vmp_V, maxima, voc_V } = array.features()
    const powers = voltages_V.map((voltage, k) => voltage * currents_A[k]!)
    expect(pmax_W).toBeGreaterThanOrEqual(Math.max(...powers) * (1 - SHARE))
    expect(array.currentAt(vmp_V) * vmp_V).toBeCloseTo(pmax_W, 6)
    expect(maxima.length).toBeGreaterThan(0)
    expect(Math.abs(array.currentAt(voc_V))).toBeLessThan(1e-6)
  })
})
