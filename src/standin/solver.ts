/**
 * The stand-ins' own solver: a string of unlike cell groups, each a single diode with its bypass diode, solved at a
 * current. It shares no code and no fit with the core, so that what the core expects is met by something independent.
 */
export type StandinGroup = {
  photocurrent_A: number
  saturationCurrent_A: number
  seriesResistance_ohm: number
  shuntResistance_ohm: number
  /** n Ns k T/q, V. */
  ideality_V: number
  /** Its bypass diode has failed to a short. */
  shorted?: boolean
}

/** A group whose current is forced above its own is passed by its bypass diode at about this voltage, V. */
const BYPASSED_V = -0.5
const FALLS = 30
const HALVINGS = 60
const NEAR = 1e-13

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

/** Terminal voltage of a group in V at a forced current in A. */
export function groupVoltage(group: StandinGroup, current_A: number): number {
  if (group.shorted) return 0
  const { photocurrent_A, saturationCurrent_A, shuntResistance_ohm, ideality_V, seriesResistance_ohm } = group
  const over_A = photocurrent_A - current_A
  // Driven above its own light: through the shunt as far as the bypass diode lets it.
  if (over_A <= 0) return Math.max(BYPASSED_V, over_A * shuntResistance_ohm - current_A * seriesResistance_ohm)
  // From where the diode alone would carry it: above the answer, and the curve bends so that each step falls short of it.
  let u = ideality_V * Math.log1p(over_A / saturationCurrent_A)
  for (let k = 0; k < FALLS; k++) {
    const grown_A = saturationCurrent_A * Math.exp(u / ideality_V)
    const excess_A = over_A - (grown_A - saturationCurrent_A) - u / shuntResistance_ohm
    const move_V = excess_A / (grown_A / ideality_V + 1 / shuntResistance_ohm)
    u += move_V
    if (Math.abs(move_V) < NEAR * Math.abs(u)) break
  }
  return Math.max(BYPASSED_V, u - current_A * seriesResistance_ohm)
}

/** A string: its groups, of which the first so many stand the wrong way round, and what joints and cables have in series. */
export type StandinString = { groups: readonly StandinGroup[]; joints_ohm: number; turned?: number }

export const stringVoltage = ({ groups, joints_ohm, turned = 0 }: StandinString, current_A: number): number =>
  groups.reduce(
    (sum, group, k) => sum + (k < turned ? -groupVoltage(group, -current_A) : groupVoltage(group, current_A)),
    -joints_ohm * current_A,
  )

/** Open-circuit voltage of the string, V. */
export function stringOpenVoltage(string: StandinString): number {
  return stringVoltage(string, 0)
}

/** Short-circuit current of the string, A: the current at which its voltages sum to nothing. */
export function stringShortCurrent(string: StandinString): number {
  const most = Math.max(...string.groups.map((group) => group.photocurrent_A))
  return bisect((current) => stringVoltage(string, current), 0, most)
}

const GOLDEN = (Math.sqrt(5) - 1) / 2
const NARROWINGS = 40

/** Voltage in V and current in A at which the string gives the most power, by golden-section search over the current. */
export function stringMaximumPower(string: StandinString): { voltage_V: number; current_A: number } {
  const power = (current: number): number => current * stringVoltage(string, current)
  let [low, high] = [0, stringShortCurrent(string)]
  for (let k = 0; k < NARROWINGS; k++) {
    const [left, right] = [high - GOLDEN * (high - low), low + GOLDEN * (high - low)]
    if (power(left) > power(right)) high = right
    else low = left
  }
  const current_A = (low + high) / 2
  return { voltage_V: stringVoltage(string, current_A), current_A }
}
