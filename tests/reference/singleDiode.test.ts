import { describe, expect, it } from 'vitest'
import { atConditions, fitDeSoto } from '@/core/pv/deSoto'
import { currentAt, maximumPowerPoint, openCircuitVoltage, shortCircuitCurrent } from '@/core/pv/singleDiode'
import reference from './data/singleDiode.json'

/**
 * Against 50-digit arithmetic: five unknowns by Newton at once, curves by the Lambert W function
 * (scripts/single_diode_mpmath.py, mpmath from Debian's packages).
 */
describe.each(reference)('single diode of $module.pmax_W W, $module.cellsInSeries cells', ({ module, fit, points }) => {
  const fitted = fitDeSoto(module)
  if (fitted.state !== 'fitted') throw new Error('the reference plates have a solution')
  const near = (value: number, expected: number, relative = 1e-7): void =>
    expect(Math.abs(value / expected - 1)).toBeLessThan(relative)

  it('finds the five parameters of the other method', () => {
    for (const key of Object.keys(fit) as (keyof typeof fit)[]) near(fitted.parameters[key], fit[key], 1e-6)
  })

  it.each(points)('gives the curve at $irradiance_Wm2 W/m2 and $cellTemperature_C degC', (point) => {
    const here = atConditions(fitted.parameters, module, point.irradiance_Wm2, point.cellTemperature_C)
    near(openCircuitVoltage(here), point.voc_V)
    near(shortCircuitCurrent(here), point.isc_A)
    const power = maximumPowerPoint(here)
    near(power.vmp_V, point.vmp_V)
    near(power.imp_A, point.imp_A)
    near(power.pmax_W, point.pmax_W)
    for (const [k, voltage] of point.voltages_V.entries()) {
      expect(currentAt(here, voltage)).toBeCloseTo(point.currents_A[k]!, 5)
    }
  })
})
