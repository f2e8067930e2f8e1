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

/** Voltage in V at a current, and its slope dV/dI in ohm, which is never positive. */
export type Solved = { voltage_V: number; slope_ohm: number }

const MAX_STEPS = 200
/** Exponents beyond this are no currents that anything survives: they are cut so that no figure is lost. */
const MOST_EXPONENT = 690
const exp = (x: number): number => Math.exp(Math.min(x, MOST_EXPONENT))
const expm1 = (x: number): number => Math.expm1(Math.min(x, MOST_EXPONENT))

/** Current of a bypass at the voltage across its group, A, and how it falls with that voltage, S. */
function bypassAt(bypass: Bypass, voltage_V: number): { current_A: number; fall_S: number } {
  switch (bypass.kind) {
    case 'open':
      return { current_A: 0, fall_S: 0 }
    case 'short':
      return { current_A: -voltage_V / bypass.resistance_ohm, fall_S: 1 / bypass.resistance_ohm }
    case 'diode': {
      const x = -voltage_V / bypass.slope_V
      return {
        current_A: bypass.saturationCurrent_A * expm1(x),
        fall_S: (bypass.saturationCurrent_A / bypass.slope_V) * exp(x),
      }
    }
  }
}

type Point = { voltage_V: number; current_A: number; fall_S: number; rise: number }

/** Everything at a diode voltage u: voltage and current of the group, -dI/du, and dV/du. */
function pointAt(group: CellGroup, u: number): Point {
  const { photocurrent_A, saturationCurrent_A, seriesResistance_ohm, shuntResistance_ohm, modifiedIdeality_V } = group
  const x = u / modifiedIdeality_V
  const cell_A = photocurrent_A - saturationCurrent_A * expm1(x) - u / shuntResistance_ohm
  const cell_S = (saturationCurrent_A / modifiedIdeality_V) * exp(x) + 1 / shuntResistance_ohm
  const voltage_V = u - seriesResistance_ohm * cell_A
  const rise = 1 + seriesResistance_ohm * cell_S
  const beside = bypassAt(group.bypass, voltage_V)
  return { voltage_V, current_A: cell_A + beside.current_A, fall_S: cell_S + beside.fall_S * rise, rise }
}

/** Two diode voltages between which a current flows: the lower one carries more, the upper one less. */
function bracket(group: CellGroup, current_A: number): [low: number, high: number] {
  const { photocurrent_A, saturationCurrent_A, modifiedIdeality_V } = group
  const over = (photocurrent_A - current_A) / saturationCurrent_A
  let high = over > 0 ? modifiedIdeality_V * Math.log1p(over) : 0
  let step = modifiedIdeality_V
  while (pointAt(group, high).current_A > current_A) {
    high += step
    step *= 2
  }
  let low = high - modifiedIdeality_V
  step = modifiedIdeality_V
  while (pointAt(group, low).current_A < current_A) {
    low -= step
    step *= 2
  }
  return [low, high]
}

/**
 * Voltage of a group at the current through it. Newton's method on u, kept between two sides that always hold the root.
 *
 * @param current_A positive as it flows out of a lit group; any finite current has its voltage.
 */
export function groupAt(group: CellGroup, current_A: number): Solved {
  let [low, high] = bracket(group, current_A)
  let u = high
  for (let step = 0; step < MAX_STEPS; step++) {
    const { current_A: flows_A, fall_S } = pointAt(group, u)
    const residual = flows_A - current_A
    if (residual > 0) low = u
    else high = u
    const newton = u + residual / fall_S
    const next = newton > low && newton < high ? newton : (low + high) / 2
    if (Math.abs(next - u) <= 1e-14 * Math.max(1e-3, Math.abs(u)) || next === u) break
    u = next
  }
  const { voltage_V, fall_S, rise } = pointAt(group, u)
  return { voltage_V, slope_ohm: -rise / fall_S }
}
