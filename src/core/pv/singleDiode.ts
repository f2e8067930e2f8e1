/**
 * The single-diode equation I = IL - I0 (exp((V + I Rs)/a) - 1) - (V + I Rs)/Rsh.
 *
 * Solved exactly through the diode voltage u = V + I Rs: both I(u) = IL - I0 (exp(u/a) - 1) - u/Rsh and
 * V(u) = u - Rs I(u) are explicit and monotone, so Newton's method on u converges from above without fail.
 * Equivalence with the Lambert W form is checked in tests/reference against 50-digit arithmetic.
 */
export type SingleDiode = {
  photocurrent_A: number
  saturationCurrent_A: number
  seriesResistance_ohm: number
  shuntResistance_ohm: number
  /** n Ns k T/q: the whole series string's modified ideality, V. */
  modifiedIdeality_V: number
}

const MAX_STEPS = 200

/** Current in A at a diode voltage in V. */
function currentAtDiode(d: SingleDiode, u: number): number {
  return d.photocurrent_A - d.saturationCurrent_A * Math.expm1(u / d.modifiedIdeality_V) - u / d.shuntResistance_ohm
}

/** Slope -dI/du in S at a diode voltage in V; always positive. */
function conductanceAtDiode(d: SingleDiode, u: number): number {
  return (d.saturationCurrent_A / d.modifiedIdeality_V) * Math.exp(u / d.modifiedIdeality_V) + 1 / d.shuntResistance_ohm
}

/** A diode voltage in V at or above the open-circuit voltage: where the diode alone carries the photocurrent. */
function openCircuitCeiling(d: SingleDiode): number {
  return d.modifiedIdeality_V * Math.log1p(d.photocurrent_A / d.saturationCurrent_A)
}

/** Open-circuit voltage, V. */
export function openCircuitVoltage(d: SingleDiode): number {
  let u = openCircuitCeiling(d)
  for (let step = 0; step < MAX_STEPS; step++) {
    const next = u + currentAtDiode(d, u) / conductanceAtDiode(d, u)
    if (!(Math.abs(next - u) > 1e-13 * Math.abs(u))) return next
    u = next
  }
  return u
}

/** Diode voltage in V at a terminal voltage in V. */
function diodeVoltageAt(d: SingleDiode, voltage_V: number): number {
  if (d.seriesResistance_ohm === 0) return voltage_V
  // The residual u - Rs I(u) - V is convex and rising: from any point where it is positive Newton falls to the root.
  let u = Math.max(voltage_V + d.seriesResistance_ohm * (d.photocurrent_A + d.saturationCurrent_A), voltage_V)
  if (voltage_V > u) u = voltage_V
  const ceiling = Math.max(openCircuitCeiling(d), voltage_V)
  if (u > ceiling) u = ceiling
  for (let step = 0; step < MAX_STEPS; step++) {
    const residual = u - d.seriesResistance_ohm * currentAtDiode(d, u) - voltage_V
    const next = u - residual / (1 + d.seriesResistance_ohm * conductanceAtDiode(d, u))
    if (!(Math.abs(next - u) > 1e-14 * Math.max(1, Math.abs(u)))) return next
    u = next
  }
  return u
}

/** Current in A at a terminal voltage in V; negative beyond the open-circuit voltage. */
export function currentAt(d: SingleDiode, voltage_V: number): number {
  return currentAtDiode(d, diodeVoltageAt(d, voltage_V))
}

/** Short-circuit current, A. */
export function shortCircuitCurrent(d: SingleDiode): number {
  return currentAt(d, 0)
}

export type MaximumPowerPoint = { vmp_V: number; imp_A: number; pmax_W: number }

/** The maximum-power point: the root of d(V I)/du, bracketed between short and open circuit. */
export function maximumPowerPoint(d: SingleDiode): MaximumPowerPoint {
  const slope = (u: number): number => {
    const current = currentAtDiode(d, u)
    const conductance = conductanceAtDiode(d, u)
    const voltage = u - d.seriesResistance_ohm * current
    return current * (1 + d.seriesResistance_ohm * conductance) - voltage * conductance
  }
  let low = diodeVoltageAt(d, 0)
  let high = openCircuitVoltage(d)
  for (let step = 0; step < MAX_STEPS && high - low > 1e-15 * high; step++) {
    const middle = (low + high) / 2
    if (middle === low || middle === high) break
    if (slope(middle) > 0) low = middle
    else high = middle
  }
  const u = (low + high) / 2
  const imp_A = currentAtDiode(d, u)
  const vmp_V = u - d.seriesResistance_ohm * imp_A
  return { vmp_V, imp_A, pmax_W: vmp_V * imp_A }
}
