/** A simulated curve tracer: a sweep from short to open circuit, with its resolution, its noise, and the light that moves. */
import type { CurvePoint } from '@/core/curve/points'
import type { StringData } from '@/core/plant/part'
import type { FeedSample } from '@/core/record/feed'
import type { Instrument } from '@/core/record/instrument'
import { chance, gaussian, scatter, seedOf } from './random'
import { type AsBuilt, asBuilt, stringAsBuilt } from './roof'
import { sensorReading } from './sensors'
import type { Pressed } from './shown'
import { skyAt } from './sky'
import { stringOpenVoltage, stringShortCurrent, stringVoltage } from './solver'

const POINTS = 120
const SWEEP_ms = 900
/** Points that go out together. */
const AT_ONCE = 12
/** Scatter of a reading, share of the range in use; last places that its display shows. */
const NOISE = 0.0012
const VOLT_PLACES = 2
const AMPERE_PLACES = 3
/** Cells hold charge: what is read belongs to a voltage that was there so much later, s. */
const CAPACITANCE_LAG_s = 0.0004
/** How points lie along the sweep: closer together towards open circuit. */
const BEND = 1.35
/** The table that a sweep is looked up in. */
const TABLE = 420

/**
 * Sweeps a string and sends what it reads in parts, as a tracer does.
 *
 * @param at_ms when its key was pressed, ms since 1970; the light moves while it sweeps.
 */
export function pressTracer(
  instrument: Instrument,
  partId: string,
  string: StringData,
  skySeed: string,
  at_ms: number,
  mended = false,
): Pressed {
  const range = instrument.ranges.find((one) => one.measures === 'iv-curve')
  if (!range) return { state: 'refused', code: 'standin-not-here' }
  const built = asBuilt(partId, string.modulesInSeries, mended)
  if (built.fault === 'reversed') return { state: 'refused', code: 'standin-reversed' }
  const open_V = stringOpenVoltage(stringAsBuilt(skyAt(skySeed, at_ms), string, built))
  if (open_V > range.most)
    return { state: 'refused', code: 'standin-rating', value: open_V, unit: 'V', most: range.most }
  const points = sweep(instrument, string, built, skySeed, at_ms)
  const endIrradiance_Wm2 = Math.round(sensorReading('irradiance', skySeed, instrument.id, at_ms + SWEEP_ms))
  return { state: 'swept', samples: samplesOf(points, seedOf(`${partId}:${at_ms}`), at_ms, endIrradiance_Wm2) }
}

function samplesOf(points: readonly CurvePoint[], id: number, at_ms: number, endIrradiance_Wm2: number): FeedSample[] {
  const samples: FeedSample[] = []
  for (let from = 0; from < points.length; from += AT_ONCE) {
    const done = from + AT_ONCE >= points.length
    samples.push({
      quantity: 'iv-curve',
      value: Math.min(from + AT_ONCE, points.length),
      bound: 'exact',
      unit: 'one',
      at: new Date(at_ms + samples.length).toISOString(),
      sweep: {
        id: id.toString(36),
        points: points.slice(from, from + AT_ONCE).map(([voltage, current]): [number, number] => [voltage, current]),
        done,
        ...(done ? { sweep_s: SWEEP_ms / 1000, endIrradiance_Wm2 } : {}),
      },
    })
  }
  return samples
}

/** Voltage against current at one light: the string solved at many currents, and looked up between them. */
function tableOf(string: StringData, built: AsBuilt, skySeed: string, at_ms: number) {
  const asIs = stringAsBuilt(skyAt(skySeed, at_ms), string, built)
  const short_A = stringShortCurrent(asIs)
  // Closer where the curve is flat: near short circuit, and below each ledge.
  const levels = [...new Set(asIs.groups.map(({ photocurrent_A }) => photocurrent_A.toFixed(6)))].map(Number)
  const currents = new Set<number>()
  for (let k = 0; k < TABLE; k++) currents.add((short_A * k) / TABLE)
  for (const level of [...levels, short_A])
    for (let k = 0; k < 40; k++)
      if (level <= short_A * 1.05) currents.add(Math.min(short_A, level * (1 - 0.03 * (k / 40) ** 2)))
  return [...currents]
    .sort((a, b) => b - a)
    .map((current_A) => ({ current_A, voltage_V: stringVoltage(asIs, current_A) }))
}

function sweep(
  instrument: Instrument,
  string: StringData,
  built: AsBuilt,
  skySeed: string,
  at_ms: number,
): CurvePoint[] {
  const table = tableOf(string, built, skySeed, at_ms)
  const light_Wm2 = skyAt(skySeed, at_ms).irradiance_Wm2
  const [open_V, short_A] = [table.at(-1)!.voltage_V, table[0]!.current_A]
  const off = (of: string): number =>
    1 + (Math.max(-0.7, Math.min(0.7, scatter(chance(seedOf(`${instrument.id}:${of}`))) / 3)) * 0.5) / 100
  const [gainV, gainA] = [off('sweep-volts'), off('sweep-amperes')]
  const next = gaussian(seedOf(`${instrument.id}:${at_ms}`))
  const points: CurvePoint[] = []
  for (let k = 0; k < POINTS; k++) {
    const share = k / (POINTS - 1)
    // A tracer that charges a capacitor is quick where the current is high: its points lie closer towards open circuit.
    const voltage_V = open_V * (1 - (1 - share) ** BEND)
    const rate_Vps = (open_V * BEND * (1 - share) ** (BEND - 1)) / (SWEEP_ms / 1000)
    const now_Wm2 = skyAt(skySeed, at_ms + share * SWEEP_ms).irradiance_Wm2
    const current_A = currentAt(table, voltage_V + CAPACITANCE_LAG_s * rate_Vps) + short_A * (now_Wm2 / light_Wm2 - 1)
    points.push([
      Number((voltage_V * gainV + NOISE * 0.2 * open_V * 0.05 * next()).toFixed(VOLT_PLACES)),
      Number((Math.max(0, current_A) * gainA + NOISE * short_A * next()).toFixed(AMPERE_PLACES)),
    ])
  }
  return points
}

function currentAt(table: readonly { current_A: number; voltage_V: number }[], voltage_V: number): number {
  let [low, high] = [0, table.length - 1]
  while (high - low > 1) {
    const middle = (low + high) >> 1
    if (table[middle]!.voltage_V <= voltage_V) low = middle
    else high = middle
  }
  const [a, b] = [table[low]!, table[high]!]
  const wide = b.voltage_V - a.voltage_V
  return wide > 0 ? a.current_A + ((b.current_A - a.current_A) * (voltage_V - a.voltage_V)) / wide : a.current_A
}
