/**
 * A group of cells in series with its bypass: the part of a module that lives or fails as one. Solved through the diode
 * voltage u of the single-diode equation, in which current and voltage are explicit, so that nothing is iterated twice.
 */
import type { SingleDiode } from '../pv/singleDiode'

/** What lies across a group: a diode, one that has failed to a short, or nothing. */
export type Bypass =
  | { kind: 'diode'; saturationCurrent_A: number; slope_V: number }
  | { kind: 'short'; resistance_ohm: number }
  | { kind: 'open' }

export type CellGroup = SingleDiode & { bypass: Bypass }

/** Voltage in V at a current, its slope dV/dI in ohm, which is never positive, and the diode voltage behind it. */
export type Solved = { voltage_V: number; slope_ohm: number; diode_V: number }

const MAX_STEPS = 200
/** Exponents beyond this are no currents that anything survives: they are cut so that no figure is lost. */
const MOST_EXPONENT = 690
/** From here on a bypass diode that blocks lets nothing through that a figure shows. */
const BLOCKS = -40
const exp = (x: number): number => Math.exp(Math.min(x, MOST_EXPONENT))

/** Everything at a diode voltage: voltage and current of the group with its bypass, -dI/du in S, and dV/du. */
export type CellPoint = { voltage_V: number; current_A: number; fall_S: number; rise: number }

export function pointAt(group: CellGroup, diode_V: number): CellPoint {
  const { photocurrent_A, saturationCurrent_A, seriesResistance_ohm, shuntResistance_ohm, modifiedIdeality_V } = group
  const grown_A = saturationCurrent_A * exp(diode_V / modifiedIdeality_V)
  const cell_A = photocurrent_A + saturationCurrent_A - grown_A - diode_V / shuntResistance_ohm
  const cell_S = grown_A / modifiedIdeality_V + 1 / shuntResistance_ohm
  const voltage_V = diode_V - seriesResistance_ohm * cell_A
  const rise = 1 + seriesResistance_ohm * cell_S
  const { bypass } = group
  if (bypass.kind === 'open') return { voltage_V, current_A: cell_A, fall_S: cell_S, rise }
  if (bypass.kind === 'short') {
    const beside_S = 1 / bypass.resistance_ohm
    return { voltage_V, current_A: cell_A - voltage_V * beside_S, fall_S: cell_S + beside_S * rise, rise }
  }
  const x = -voltage_V / bypass.slope_V
  const leak_A = bypass.saturationCurrent_A
  if (x < BLOCKS) return { voltage_V, current_A: cell_A - leak_A, fall_S: cell_S, rise }
  const beside_A = leak_A * exp(x)
  return {
    voltage_V,
    current_A: cell_A + beside_A - leak_A,
    fall_S: cell_S + (beside_A / bypass.slope_V) * rise,
    rise,
  }
}

/** A voltage across the group at or below which its bypass alone carries a current, V. */
function lowestVoltage({ bypass, shuntResistance_ohm }: CellGroup, current_A: number): number {
  switch (bypass.kind) {
    case 'diode':
      return -bypass.slope_V * Math.log1p(current_A / bypass.saturationCurrent_A)
    case 'short':
      return -bypass.resistance_ohm * current_A
    case 'open':
      return -shuntResistance_ohm * current_A
  }
}

/**
 * Two diode voltages between which a current flows. Above: the diode alone leaves no more than the current, and the
 * bypass blocks. Below: a dark cell that is driven backwards, or the bypass by itself, carries at least as much.
 */
function bracket(group: CellGroup, current_A: number): [low: number, high: number] {
  const { photocurrent_A, saturationCurrent_A, seriesResistance_ohm, modifiedIdeality_V } = group
  const over_A = photocurrent_A - current_A
  const byDiode = over_A > 0 ? modifiedIdeality_V * Math.log1p(over_A / saturationCurrent_A) : 0
  const high = Math.max(byDiode, seriesResistance_ohm * current_A)
  return [current_A > 0 ? lowestVoltage(group, current_A) : 0, high]
}

/**
 * Voltage of a group at the current through it: Newton's method on u, kept between two sides that always hold the root.
 *
 * @param current_A positive as it flows out of a lit group; any finite current has its voltage.
 * @param near_V a diode voltage that is thought to be near, such as that of the current before.
 */
export function groupAt(group: CellGroup, current_A: number, near_V?: number): Solved {
  let [low, high] = bracket(group, current_A)
  let u = near_V !== undefined && near_V > low && near_V < high ? near_V : high
  let point = pointAt(group, u)
  for (let step = 0; step < MAX_STEPS; step++) {
    const residual = point.current_A - current_A
    if (residual > 0) low = u
    else high = u
    const newton = u + residual / point.fall_S
    const next = newton > low && newton < high ? newton : (low + high) / 2
    const isThere = Math.abs(next - u) <= 1e-13 * Math.max(1e-2, Math.abs(u)) || next === u
    u = next
    point = pointAt(group, u)
    if (isThere) break
  }
  return { voltage_V: point.voltage_V, slope_ohm: -point.rise / point.fall_S, diode_V: u }
}
