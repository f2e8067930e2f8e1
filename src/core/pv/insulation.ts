/**
 * Test voltage and least resistance of a DC insulation test, and the verdict on its readings.
 * Source: IEC 62446-1:2016 6.7 and table 2 (from memory); schools as handbook section 5 names them.
 */
export const insulationSchools = ['table', 'fixed', 'twice'] as const
export type InsulationSchool = (typeof insulationSchools)[number]

/** Test voltages that instruments have, V. */
export const testSteps_V = [250, 500, 1000, 1500] as const
/** System voltage: what the string can reach, as table 2 takes it. */
export const SYSTEM_VOLTAGE_FACTOR = 1.25
const FIXED_V = 500
/** A step this close under twice the working voltage is as good as reached: 504 V is tested at 500 V [D]. */
const REACHED = 1.05

/** Table 2: rows by system voltage up to and including `upTo_V`; the first row is below its figure. */
const table2 = [
  { upTo_V: 120, exclusive: true, test_V: 250, least_Mohm: 0.5 },
  { upTo_V: 500, exclusive: false, test_V: 500, least_Mohm: 1 },
  { upTo_V: 1000, exclusive: false, test_V: 1000, least_Mohm: 1 },
  { upTo_V: Number.POSITIVE_INFINITY, exclusive: false, test_V: 1500, least_Mohm: 1 },
] as const
const USUAL_LEAST_Mohm = 1

export type InsulationTest = {
  testVoltage_V: number
  minimum_Mohm: number
  /** The step that the school asks for, where the module's maximum system voltage brought it down. */
  loweredFrom_V: number | null
}

export type InsulationAsk = {
  vocStc_V: number
  school: InsulationSchool
  /** For the school of twice the working voltage: as it was read under load, else N * Vmp at STC. */
  workingVoltage_V: number | null
  maxSystemVoltage_V: number | null
}

/**
 * What to test at, and what is the least allowed. Null where the modules' maximum lies below every step.
 *
 * @throws Error where the school of twice the working voltage is asked without one.
 * @example insulationTest({ vocStc_V: 310, school: 'twice', workingVoltage_V: 252, maxSystemVoltage_V: null })
 *   // { testVoltage_V: 500, minimum_Mohm: 1, loweredFrom_V: null }
 * @example insulationTest({ vocStc_V: 336.6, school: 'table', workingVoltage_V: null, maxSystemVoltage_V: null })
 *   // { testVoltage_V: 500, minimum_Mohm: 1, loweredFrom_V: null }
 */
export function insulationTest(ask: InsulationAsk): InsulationTest | null {
  const { asked_V, minimum_Mohm } = askedStep(ask)
  const most_V = ask.maxSystemVoltage_V ?? Number.POSITIVE_INFINITY
  if (asked_V <= most_V) return { testVoltage_V: asked_V, minimum_Mohm, loweredFrom_V: null }
  const lowered = testSteps_V.filter((step) => step <= most_V).at(-1)
  return lowered === undefined ? null : { testVoltage_V: lowered, minimum_Mohm, loweredFrom_V: asked_V }
}

function askedStep(ask: InsulationAsk): { asked_V: number; minimum_Mohm: number } {
  if (ask.school === 'fixed') return { asked_V: FIXED_V, minimum_Mohm: USUAL_LEAST_Mohm }
  if (ask.school === 'twice') {
    if (ask.workingVoltage_V === null) throw new Error('insulationTest: expected a working voltage, got none')
    const wanted = 2 * ask.workingVoltage_V
    const asked_V = testSteps_V.find((step) => wanted <= REACHED * step) ?? testSteps_V.at(-1)!
    return { asked_V, minimum_Mohm: USUAL_LEAST_Mohm }
  }
  const system_V = SYSTEM_VOLTAGE_FACTOR * ask.vocStc_V
  const row = table2.find((one) => (one.exclusive ? system_V < one.upTo_V : system_V <= one.upTo_V))!
  return { asked_V: row.test_V, minimum_Mohm: row.least_Mohm }
}
