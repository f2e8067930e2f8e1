/**
 * Current against voltage of strings of modules whose cell groups differ: shaded, bypassed, reversed. Exact at every
 * voltage: groups in series share a current, strings in parallel a voltage, and each is solved for what it shares.
 */
import { type CellGroup, LiveGroup } from './cellGroup'

export type CurveModule = { reversed: boolean; groups: readonly CellGroup[] }
export type CurveString = { seriesResistance_ohm: number; modules: readonly CurveModule[] }

export type PowerPoint = { voltage_V: number; current_A: number; power_W: number }
export type StringCurve = {
  voc_V: number
  isc_A: number
  vmp_V: number
  imp_A: number
  pmax_W: number
  fillFactor: number
  /** Every local maximum of power between short and open circuit, by voltage. */
  maxima: readonly PowerPoint[]
}

/** Groups that are alike, and stand the same way round, are solved once. */
type Alike = { group: LiveGroup; sign: 1 | -1; count: number }

const MAX_STEPS = 200
/** All groups are moved together so often; what has not settled by then is solved one by one. */
const MOST_TOGETHER = 12
/** Newton's next step is about the square of its last one: below this some 10 nV are left, and no current that counts. */
const SETTLED_V = 1e-4
/** Power is looked at in so many steps from short to open circuit before each maximum is found exactly. */
const SCAN_STEPS = 600

function keyOf(group: CellGroup, isReversed: boolean): string {
  const { bypass: by } = group
  const beside =
    by.kind === 'diode' ? `${by.saturationCurrent_A} ${by.slope_V}` : by.kind === 'short' ? by.resistance_ohm : ''
  const cells = `${group.photocurrent_A} ${group.saturationCurrent_A} ${group.modifiedIdeality_V}`
  return `${cells} ${group.seriesResistance_ohm} ${group.shuntResistance_ohm} ${by.kind} ${beside} ${isReversed}`
}

function alikeIn(modules: readonly CurveModule[]): Counted[] {
  const known = new Map<string, Counted>()
  for (const { reversed, groups } of modules) {
    for (const group of groups) {
      const key = keyOf(group, reversed)
      const alike = known.get(key)
      if (alike) alike.count++
      else known.set(key, { group, reversed, count: 1 })
    }
  }
  return [...known.values()]
}

/** Current in A at a voltage, and -dI/dV in S. */
type Flow = { current_A: number; conductance_S: number }

/** So many alike groups, and whether they stand the wrong way round. */
export type Counted = { count: number; group: CellGroup; reversed?: boolean }

/** One string that is asked at voltage after voltage: each answer begins where the one before ended. */
export class Sweep {
  private readonly alike: readonly Alike[]
  private readonly resistance_ohm: number
  private readonly most_A: number
  private slope_ohm = -1
  /** The last answer, and where it was asked; NaN before the first. */
  private lastVoltage_V = Number.NaN
  private lastCurrent_A = Number.NaN
  private lastConductance_S = Number.NaN

  /** @throws RangeError without a cell group. */
  constructor(groups: readonly Counted[], seriesResistance_ohm: number) {
    this.alike = groups.flatMap(({ count, group, reversed }) =>
      count > 0 ? [{ group: new LiveGroup(group), sign: reversed ? (-1 as const) : (1 as const), count }] : [],
    )
    if (this.alike.length === 0) throw new RangeError('Sweep: expected at least one cell group in each string')
    this.resistance_ohm = seriesResistance_ohm
    this.most_A = Math.max(1e-3, ...groups.map(({ group }) => group.photocurrent_A))
  }

  /** Voltage of the whole string at a current, V. A reversed module gives -V(-I), its diodes included. */
  voltageAt(current_A: number): number {
    let voltage_V = -this.resistance_ohm * current_A
    let slope_ohm = -this.resistance_ohm
    for (const { group, sign, count } of this.alike) {
      group.solve(sign * current_A, group.diode_V)
      voltage_V += count * sign * group.voltage_V
      slope_ohm -= (count * group.rise) / group.fall_S
    }
    this.slope_ohm = slope_ohm
    return voltage_V
  }

  /** Current at a voltage. */
  at(voltage_V: number): Flow {
    const found = this.together(voltage_V) ?? this.oneByOne(voltage_V)
    this.lastVoltage_V = voltage_V
    this.lastCurrent_A = found.current_A
    this.lastConductance_S = found.conductance_S
    return found
  }

  /**
   * All groups and their current moved at once by Newton's method on the whole string: every group carries the same
   * current, and their voltages add up. Null where that does not settle from where they stand.
   */
  private together(voltage_V: number): Flow | null {
    const { alike } = this
    if (Number.isNaN(this.lastVoltage_V)) return null
    this.lookAhead(voltage_V)
    for (let step = 0; step < MOST_TOGETHER; step++) {
      let volts = -voltage_V
      let ohms = this.resistance_ohm
      for (const { group, sign, count } of alike) {
        const own_ohm = group.rise / group.fall_S
        volts += count * sign * (group.voltage_V + own_ohm * group.current_A)
        ohms += count * own_ohm
      }
      const current_A = volts / ohms
      let far_V = 0
      for (const { group, sign } of alike) {
        const move_V = (group.current_A - sign * current_A) / group.fall_S
        group.at(group.diode_V + move_V)
        far_V = Math.max(far_V, Math.abs(move_V))
      }
      if (!Number.isFinite(far_V)) break
      if (far_V <= SETTLED_V) return { current_A, conductance_S: 1 / ohms }
    }
    for (const { group } of alike) group.diode_V = Number.NaN
    return null
  }

  /** Moves every group to where it would be at another voltage if nothing were curved. */
  private lookAhead(voltage_V: number): void {
    const more_A = -this.lastConductance_S * (voltage_V - this.lastVoltage_V)
    for (const { group, sign } of this.alike) group.at(group.diode_V - (sign * more_A) / group.fall_S)
  }

  /** Newton's method on the current alone, kept between two currents that hold the root: it always ends. */
  private oneByOne(voltage_V: number): Flow {
    const { most_A } = this
    let low = Number.NEGATIVE_INFINITY
    let high = Number.POSITIVE_INFINITY
    const ahead_A = this.lastCurrent_A - this.lastConductance_S * (voltage_V - this.lastVoltage_V)
    let current_A = Number.isNaN(ahead_A) ? most_A : ahead_A
    let reach = most_A
    for (let step = 0; step < MAX_STEPS; step++) {
      const residual = this.voltageAt(current_A) - voltage_V
      // Less current, more voltage.
      if (residual > 0) low = current_A
      else high = current_A
      const newton = current_A - residual / this.slope_ohm
      if (Math.abs(newton - current_A) <= 1e-12 * most_A) {
        current_A = newton
        break
      }
      current_A = this.between(current_A, newton, low, high, reach)
      reach *= 2
    }
    return { current_A, conductance_S: -1 / this.slope_ohm }
  }

  /** Where to look next: by Newton between the two sides, halfway where it leaves them; towards an open side, in reach. */
  private between(current_A: number, newton: number, low: number, high: number, reach: number): number {
    if (Number.isFinite(low) && Number.isFinite(high)) return newton > low && newton < high ? newton : (low + high) / 2
    return current_A + Math.sign(newton - current_A) * Math.min(reach, Math.abs(newton - current_A))
  }
}

/** All strings at a voltage. */
function flowOfAll(sweeps: readonly Sweep[], voltage_V: number): Flow {
  let current_A = 0
  let conductance_S = 0
  for (const sweep of sweeps) {
    const one = sweep.at(voltage_V)
    current_A += one.current_A
    conductance_S += one.conductance_S
  }
  return { current_A, conductance_S }
}

/** Where a falling function of voltage passes zero, V. */
function rootBetween(falling: (voltage_V: number) => number, from_V: number, to_V: number): number {
  let [low, high] = [from_V, to_V]
  for (let step = 0; step < MAX_STEPS && high - low > 1e-13 * Math.max(1, Math.abs(high)); step++) {
    const middle = (low + high) / 2
    if (falling(middle) > 0) low = middle
    else high = middle
  }
  return (low + high) / 2
}

/** Strings in parallel, ready to be asked at any voltage. */
export class ParallelStrings {
  private readonly strings: readonly Sweep[]

  /** @throws RangeError without a string, or where a string has no group. */
  constructor(strings: readonly CurveString[]) {
    if (strings.length === 0) throw new RangeError('ParallelStrings: expected at least one string')
    this.strings = strings.map(({ modules, seriesResistance_ohm }) => new Sweep(alikeIn(modules), seriesResistance_ohm))
  }

  /** Current at a voltage, A; negative beyond open circuit. */
  currentAt(voltage_V: number): number {
    return flowOfAll(this.strings, voltage_V).current_A
  }

  /** What stands out on the curve: open and short circuit, each maximum of power, and the highest of them. */
  features(): StringCurve {
    const open = this.strings.map((string) => string.voltageAt(0))
    const voc_V = rootBetween((voltage) => this.currentAt(voltage), Math.min(...open), Math.max(...open))
    const isc_A = this.currentAt(0)
    const maxima = this.maximaUpTo(voc_V)
    const best = maxima.reduce((most, one) => (one.power_W > most.power_W ? one : most), {
      voltage_V: 0,
      current_A: isc_A,
      power_W: 0,
    })
    const ideal_W = voc_V * isc_A
    return {
      voc_V,
      isc_A,
      vmp_V: best.voltage_V,
      imp_A: best.current_A,
      pmax_W: best.power_W,
      fillFactor: ideal_W > 0 ? best.power_W / ideal_W : 0,
      maxima,
    }
  }

  /** dP/dV, W/V. */
  private powerSlope(voltage_V: number): number {
    const { current_A, conductance_S } = flowOfAll(this.strings, voltage_V)
    return current_A - voltage_V * conductance_S
  }

  private maximaUpTo(voc_V: number): PowerPoint[] {
    if (!(voc_V > 0)) return []
    const found: PowerPoint[] = []
    let before = this.powerSlope(0)
    for (let k = 1; k <= SCAN_STEPS; k++) {
      const [from_V, to_V] = [((k - 1) * voc_V) / SCAN_STEPS, (k * voc_V) / SCAN_STEPS]
      const here = this.powerSlope(to_V)
      if (before > 0 && here <= 0) {
        const voltage_V = rootBetween((voltage) => this.powerSlope(voltage), from_V, to_V)
        const current_A = this.currentAt(voltage_V)
        found.push({ voltage_V, current_A, power_W: voltage_V * current_A })
      }
      before = here
    }
    return found
  }
}
