/** Prospective currents from measured loops. Source: BS 7671:2018 612.11 and 643.7.3; three-phase: common practice. */

export type Loops = {
  lineEarth_ohm: number
  lineNeutral_ohm: number
  /** Between two lines where it was read, ohm; else it is worked out from line to neutral. */
  lineLine_ohm?: number | null
  phases: 1 | 3
  nominal_V: number
}

export type FaultCurrents = {
  pefc_A: number
  pscc_A: number
  /** The highest of all that can flow here: what every device must be able to break. */
  ipf_A: number
  /**
   * Three lines together: twice the line-neutral current, the safe rule where the neutral is no thinner than a line, or
   * 2/sqrt(3) of a current read between lines, whichever is higher; null where there is one phase.
   */
  threePhase_A: number | null
  lineLine_A: number | null
}

/**
 * Currents of a point from its loops.
 * @example faultCurrents({ lineEarth_ohm: 0.23, lineNeutral_ohm: 0.25, phases: 1, nominal_V: 230 }).ipf_A // 1000
 */
export function faultCurrents({
  lineEarth_ohm,
  lineNeutral_ohm,
  lineLine_ohm = null,
  phases,
  nominal_V,
}: Loops): FaultCurrents {
  const pefc_A = nominal_V / lineEarth_ohm
  const pscc_A = nominal_V / lineNeutral_ohm
  if (phases === 1) return { pefc_A, pscc_A, ipf_A: Math.max(pefc_A, pscc_A), threePhase_A: null, lineLine_A: null }
  const lineLine_A = lineLine_ohm === null ? Math.sqrt(3) * pscc_A : (Math.sqrt(3) * nominal_V) / lineLine_ohm
  const threePhase_A = Math.max(2 * pscc_A, (2 / Math.sqrt(3)) * lineLine_A)
  return { pefc_A, pscc_A, ipf_A: Math.max(pefc_A, threePhase_A), threePhase_A, lineLine_A }
}

/**
 * Whether a PEFC read with the earthing conductor on lies under what Ze alone gives, beyond the readings' own
 * uncertainty: parallel paths can only add to it. Suspect contact or leads, and repeat.
 */
export function belowWhatZeGives(pefc_A: number, ze_ohm: number, nominal_V: number, uncertainty_pct: number): boolean {
  return pefc_A < (nominal_V / ze_ohm) * (1 - uncertainty_pct / 100)
}
