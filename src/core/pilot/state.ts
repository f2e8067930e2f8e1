/** States of the control pilot by its level. Source: IEC 61851-1:2017 annex A, table A.2 (from memory). */

export const pilotStates = ['A', 'B', 'C', 'D', 'E', 'F'] as const
export type PilotState = (typeof pilotStates)[number]

/** The upper level of the pilot in each state, V; in F it stands at the lower one. */
export const pilotLevel_V: Readonly<Record<PilotState, number>> = { A: 12, B: 9, C: 6, D: 3, E: 0, F: -12 }
/** How far a level may lie off, measured at the charge point, V. */
export const PILOT_TOLERANCE_V = 1

/** Within which volts a state's level lies. */
export const pilotBand = (state: PilotState): { low: number; high: number } => ({
  low: pilotLevel_V[state] - PILOT_TOLERANCE_V,
  high: pilotLevel_V[state] + PILOT_TOLERANCE_V,
})

/**
 * The state that a level stands for; null between them.
 * @example stateAt(8.6) // 'B'
 */
export const stateAt = (voltage_V: number): PilotState | null =>
  pilotStates.find((state) => {
    const { low, high } = pilotBand(state)
    return voltage_V >= low && voltage_V <= high
  }) ?? null
