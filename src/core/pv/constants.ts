/** Boltzmann constant, J/K. Source: SI Brochure 9th edition, 2.2 (exact by definition). */
export const BOLTZMANN_JperK = 1.380649e-23
/** Elementary charge, C. Source: SI Brochure 9th edition, 2.2 (exact by definition). */
export const ELEMENTARY_CHARGE_C = 1.602176634e-19
/** Boltzmann constant over elementary charge, V/K. */
export const THERMAL_VOLTAGE_VperK = BOLTZMANN_JperK / ELEMENTARY_CHARGE_C
/** Zero of the Celsius scale, K. Source: SI Brochure 9th edition, 2.3.1. */
export const ZERO_CELSIUS_K = 273.15
/** Cell temperature at standard test conditions, degC. Source: IEC 60904-3 (from memory). */
export const STC_TEMPERATURE_C = 25
/** Irradiance at standard test conditions, W/m2. Source: IEC 60904-3 (from memory). */
export const STC_IRRADIANCE_Wm2 = 1000

/** Thermal voltage kT/q in V at a temperature in degC. */
export function thermalVoltage(temperature_C: number): number {
  return THERMAL_VOLTAGE_VperK * (temperature_C + ZERO_CELSIUS_K)
}
