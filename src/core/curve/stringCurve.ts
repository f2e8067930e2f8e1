/**
 * Current against voltage of strings of modules whose cell groups differ: shaded, bypassed, reversed. Exact at every
 * voltage: groups in series share a current, strings in parallel a voltage, and each is solved for what it shares.
 */
import { type CellGroup, groupAt, type Solved } from './cellGroup'

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

/** Groups that are alike are solved once: how often each stands in a string, and how often the wrong way round. */
type Counted = { group: CellGroup; forward: number; reversed: number }
type Counts = { seriesResistance_ohm: number; groups: readonly Counted[] }

const MAX_STEPS = 200
/** Power is looked at in so many steps from short to open circuit before each maximum is found exactly. */
const SCAN_STEPS = 600

function countsOf({ seriesResistance_ohm, modules }: CurveString): Counts {
  const known = new Map<string, Counted>()
  for (const { reversed, groups } of modules) {
    for (const group of groups) {
      const key = JSON.stringify(group, Object.keys(group).concat(Object.keys(group.bypass)).sort())
      const counted = known.get(key) ?? { group, forward: 0, reversed: 0 }
      if (reversed) counted.reversed++
      else counted.forward++
      known.set(key, counted)
    }
  }
  return { seriesResistance_ohm, groups: [...known.values()] }
}

/** Voltage of a whole string at a current. A reversed module gives -V(-I), its diodes included. */
function stringAt({ seriesResistance_ohm, groups }: Counts, current_A: number): Solved {
  let voltage_V = -seriesResistance_ohm * current_A
  let slope_ohm = -seriesResistance_ohm
  for (const { group, forward, reversed } of groups) {
    if (forward > 0) {
      const one = groupAt(group, current_A)
      voltage_V += forward * one.voltage_V
      slope_ohm += forward * one.slope_ohm
    }
    if (reversed > 0) {
      const one = groupAt(group, -current_A)
      voltage_V -= reversed * one.voltage_V
      slope_ohm += reversed * one.slope_ohm
    }
  }
  return { voltage_V, slope_ohm }
}

/** Current in A at a voltage, and -dI/dV in S. */
type Flow = { current_A: number; conductance_S: number }

/** Current of one string at a voltage: Newton's method between two currents that hold the root. */
function flowOf(string: Counts, voltage_V: number): Flow {
  const most_A = Math.max(1e-3, ...string.groups.map(({ group }) => group.photocurrent_A))
  let low = 0
  let high = most_A
  // Less current, more voltage: the lower side must lie above the voltage and the upper side below it.
  for (let step = most_A; stringAt(string, low).voltage_V < voltage_V; step *= 2) low -= step
  for (let step = most_A; stringAt(string, high).voltage_V > voltage_V; step *= 2) high += step
  let current_A = (low + high) / 2
  let slope_ohm = -1
  for (let step = 0; step < MAX_STEPS; step++) {
    const solved = stringAt(string, current_A)
    slope_ohm = solved.slope_ohm
    const residual = solved.voltage_V - voltage_V
    if (residual > 0) low = current_A
    else high = current_A
    const newton = current_A - residual / slope_ohm
    const next = newton > low && newton < high ? newton : (low + high) / 2
    if (Math.abs(next - current_A) <= 1e-13 * most_A || next === current_A) break
    current_A = next
  }
  return { current_A, conductance_S: -1 / slope_ohm }
}

const flowOfAll = (strings: readonly Counts[], voltage_V: number): Flow =>
  strings.reduce(
    (sum, string) => {
      const one = flowOf(string, voltage_V)
      return { current_A: sum.current_A + one.current_A, conductance_S: sum.conductance_S + one.conductance_S }
    },
    { current_A: 0, conductance_S: 0 },
  )

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
  private readonly strings: readonly Counts[]

  /** @throws RangeError without a string, or where a string has no group. */
  constructor(strings: readonly CurveString[]) {
    this.strings = strings.map(countsOf)
    if (strings.length === 0 || this.strings.some(({ groups }) => groups.length === 0))
      throw new RangeError('ParallelStrings: expected at least one string, and a cell group in each')
  }

  /** Current at a voltage, A; negative beyond open circuit. */
  currentAt(voltage_V: number): number {
    return flowOfAll(this.strings, voltage_V).current_A
  }

  /** What stands out on the curve: open and short circuit, each maximum of power, and the highest of them. */
  features(): StringCurve {
    const open = this.strings.map((string) => stringAt(string, 0).voltage_V)
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
