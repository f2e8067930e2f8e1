/**
 * The stand-ins' own solver: a string of unlike modules, each a single diode with bypass diodes, solved by bisection.
 * It shares no code and no fit with the core, so that what the core expects is met by something independent.
 */
export type StandinModule = {
  photocurrent_A: number
  saturationCurrent_A: number
  seriesResistance_ohm: number
  shuntResistance_ohm: number
  /** n Ns k T/q, V. */
  ideality_V: number
  /** Share of its cells that are not short-circuited by a broken bypass diode. */
  share: number
}

/** A module whose current is forced above its own is passed by its bypass diodes at about this voltage, V. */
const BYPASSED_V = -1.5
const HALVINGS = 60

function bisect(f: (x: number) => number, from: number, to: number): number {
  let [low, high] = [from, to]
  const rising = f(high) > 0
  for (let k = 0; k < HALVINGS; k++) {
    const middle = (low + high) / 2
    if (f(middle) > 0 === rising) high = middle
    else low = middle
  }
  return (low + high) / 2
}

/** Terminal voltage of a module in V at a forced current in A. */
export function moduleVoltage(module: StandinModule, current_A: number): number {
  const excess = (u: number): number =>
    module.photocurrent_A -
    module.saturationCurrent_A * Math.expm1(u / module.ideality_V) -
    u / module.shuntResistance_ohm -
    current_A
  const ceiling = module.ideality_V * Math.log1p(module.photocurrent_A / module.saturationCurrent_A) + 1
  if (excess(BYPASSED_V) < 0) return BYPASSED_V
  const voltage = bisect(excess, BYPASSED_V, ceiling) - current_A * module.seriesResistance_ohm
  return Math.max(BYPASSED_V, voltage * module.share)
}

const stringVoltage = (modules: readonly StandinModule[], current_A: number): number =>
  modules.reduce((sum, module) => sum + moduleVoltage(module, current_A), 0)

/** Open-circuit voltage of the string, V. */
export function stringOpenVoltage(modules: readonly StandinModule[]): number {
  return stringVoltage(modules, 0)
}

/** Short-circuit current of the string, A: the current at which its voltages sum to nothing. */
export function stringShortCurrent(modules: readonly StandinModule[]): number {
  const most = Math.max(...modules.map((module) => module.photocurrent_A))
  return bisect((current) => stringVoltage(modules, current), 0, most)
}

const GOLDEN = (Math.sqrt(5) - 1) / 2
const NARROWINGS = 40

/** Voltage in V and current in A at which the string gives the most power, by golden-section search over the current. */
export function stringMaximumPower(modules: readonly StandinModule[]): { voltage_V: number; current_A: number } {
  const power = (current: number): number => current * stringVoltage(modules, current)
  let [low, high] = [0, stringShortCurrent(modules)]
  for (let k = 0; k < NARROWINGS; k++) {
    const [left, right] = [high - GOLDEN * (high - low), low + GOLDEN * (high - low)]
    if (power(left) > power(right)) high = right
    else low = left
  }
  const current_A = (low + high) / 2
  return { voltage_V: stringVoltage(modules, current_A), current_A }
}
