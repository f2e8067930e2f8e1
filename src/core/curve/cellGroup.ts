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

const MAX_STEPS = 200
/** Exponents beyond this are no currents that anything survives: they are cut so that no figure is lost. */
const MOST_EXPONENT = 690
/** From here on a bypass diode that blocks lets nothing through that a figure shows. */
const BLOCKS = -40
const exp = (x: number): number => Math.exp(Math.min(x, MOST_EXPONENT))

/**
 * A group that is asked again and again: what it answered last stands in its fields, so that a sweep over hundreds of
 * points makes no garbage. Reciprocals are taken once.
 */
export class LiveGroup {
  /** Voltage across it, V; current through it with its bypass, A; -dI/du, S; dV/du. */
  voltage_V = 0
  current_A = 0
  fall_S = 0
  rise = 1
  /** Diode voltage of the last answer, V. */
  diode_V = Number.NaN

  private readonly lit_A: number
  private readonly dark_A: number
  private readonly perIdeality: number
  private readonly series_ohm: number
  private readonly shunt_S: number
  private readonly bypassSaturation_A: number
  private readonly perSlope: number
  private readonly short_S: number

  constructor(private readonly group: CellGroup) {
    const { bypass } = group
    this.dark_A = group.saturationCurrent_A
    this.lit_A = group.photocurrent_A + group.saturationCurrent_A
    this.perIdeality = 1 / group.modifiedIdeality_V
    this.series_ohm = group.seriesResistance_ohm
    this.shunt_S = 1 / group.shuntResistance_ohm
    this.bypassSaturation_A = bypass.kind === 'diode' ? bypass.saturationCurrent_A : 0
    this.perSlope = bypass.kind === 'diode' ? 1 / bypass.slope_V : 0
    this.short_S = bypass.kind === 'short' ? 1 / bypass.resistance_ohm : 0
  }

  /** Everything at a diode voltage. */
  at(diode_V: number): void {
    const grown_A = this.dark_A * exp(diode_V * this.perIdeality)
    const cell_A = this.lit_A - grown_A - diode_V * this.shunt_S
    const cell_S = grown_A * this.perIdeality + this.shunt_S
    const voltage_V = diode_V - this.series_ohm * cell_A
    this.rise = 1 + this.series_ohm * cell_S
    this.diode_V = diode_V
    this.voltage_V = voltage_V
    let beside_A = -voltage_V * this.short_S
    let beside_S = this.short_S
    if (this.bypassSaturation_A > 0) {
      const x = -voltage_V * this.perSlope
      const through_A = x < BLOCKS ? 0 : this.bypassSaturation_A * exp(x)
      beside_A = through_A - this.bypassSaturation_A
      beside_S = through_A * this.perSlope
    }
    this.current_A = cell_A + beside_A
    this.fall_S = cell_S + beside_S * this.rise
  }

  /**
   * Everything at a current: Newton's method on u, kept between two sides that always hold the root.
   *
   * @param current_A positive as it flows out of a lit group; any finite current has its voltage.
   * @param near_V a diode voltage that is thought to be near.
   */
  solve(current_A: number, near_V = Number.NaN): void {
    let [low, high] = bracket(this.group, current_A)
    let u = near_V > low && near_V < high ? near_V : high
    this.at(u)
    for (let step = 0; step < MAX_STEPS; step++) {
      const residual = this.current_A - current_A
      if (residual > 0) low = u
      else high = u
      const newton = u + residual / this.fall_S
      const next = newton > low && newton < high ? newton : (low + high) / 2
      const isThere = Math.abs(next - u) <= 1e-13 * Math.max(1e-2, Math.abs(u)) || next === u
      u = next
      this.at(u)
      if (isThere) break
    }
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
