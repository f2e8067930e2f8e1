/** What the resistor in a plug says of its cable. Source: IEC 61851-1:2017 annex B, table B.2 (from memory). */

export type CableCode = { resistance_ohm: number; current_A: number; currentSinglePhase_A: number }

export const cableCodes: readonly CableCode[] = [
  { resistance_ohm: 1500, current_A: 13, currentSinglePhase_A: 13 },
  { resistance_ohm: 680, current_A: 20, currentSinglePhase_A: 20 },
  { resistance_ohm: 220, current_A: 32, currentSinglePhase_A: 32 },
  { resistance_ohm: 100, current_A: 63, currentSinglePhase_A: 70 },
]

/** The resistor itself is good for 3 %, a meter and its plug for a few more (house rule 19). */
export const CODE_TOLERANCE_pct = 10

/** Between which ohms a code is known. */
export const codeBand = ({ resistance_ohm }: CableCode): { low: number; high: number } => ({
  low: resistance_ohm * (1 - CODE_TOLERANCE_pct / 100),
  high: resistance_ohm * (1 + CODE_TOLERANCE_pct / 100),
})

/**
 * The code that a resistance stands for; null between codes, where no cable is known by it.
 * @example cableBy(683)?.current_A // 20
 */
export const cableBy = (resistance_ohm: number): CableCode | null =>
  cableCodes.find((code) => {
    const { low, high } = codeBand(code)
    return resistance_ohm >= low && resistance_ohm <= high
  }) ?? null
