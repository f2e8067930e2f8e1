/** A simulated adapter and tester at a simulated charge point: which figure each question is about, and what is seen. */
import type { PartData } from '@/core/plant/part'
import {
  type Built,
  faultsLeft,
  type Knob,
  LOOKS_AFTER_ms,
  PointMachine,
  PointProtection,
  plugVolts,
  type Shown,
} from './chargePoint'
import type { Bench } from './bench'
import type { Installation } from './installation'
import { chance, seedOf } from './random'
import { type Pressed, shownOn } from './shown'

type Point = { id: string; data: Extract<PartData, { kind: 'charge-point' }> }
type Of = { pair?: string; multiple?: number; angle_deg?: 0 | 180 | null }

export const builtPoint = ({ id, data }: Point, mended: ReadonlySet<string>): Built => ({
  id,
  data,
  faults: faultsLeft(id, mended),
})

/** The turns of the knob that lead to where a question is asked. */
const ways: Readonly<Record<string, readonly Knob[]>> = {
  a: ['A'],
  b: ['A', 'B'],
  c: ['A', 'B', 'C'],
  d: ['A', 'B', 'C', 'D'],
  'd-refused': ['A', 'B', 'C', 'D'],
  'a-again': ['A', 'B', 'C', 'B', 'A'],
  e: ['A', 'B', 'C', 'E'],
}
const LIVE: readonly Knob[] = ways.c!

/** A fresh point brought to where the slot of a test asks. */
export function machineAt(own: Built, step: string, slot: string): PointMachine {
  const machine = new PointMachine(own)
  const state = /-(d-refused|a-again|[a-e])$/.exec(slot)?.[1]
  const way = (state ? ways[state] : undefined) ?? LIVE
  for (const knob of way) machine.turn(knob).wait(LOOKS_AFTER_ms)
  if (step === 'point-pilot-short') machine.turn('E').wait(LOOKS_AFTER_ms)
  if (step === 'point-earth-lost') machine.cutEarth().wait(LOOKS_AFTER_ms)
  return machine
}

const settings: Readonly<Record<string, number>> = { 'cable-13': 13, 'cable-20': 20, 'cable-32': 32, 'cable-63': 63 }
const resistors: Readonly<Record<string, number>> = {
  'cable-13': 1500,
  'cable-20': 680,
  'cable-32': 220,
  'cable-63': 100,
}
/** A duty is asked for with the cable that is set beside it. */
const cableBeside = (slot: string): string => (slot === 'duty-lower' ? 'cable-lower' : 'cable-full')
/** How slowly the ramps of the simulated tester rise. */
const RAMP_ms_per_mA = 60
const DC_RAMP_ms_per_mA = 800
const WAITS_ms = 2000
const DROPS_ms = 60

/** Presses the key of a quantity at the plug of a charge point. */
export function pressAtPlug(bench: Bench, site: Installation, of: Of): Pressed {
  const part = bench.part as Point
  const own = builtPoint(part, bench.mended)
  const { key, setting, at_ms, instrument } = bench
  const show = (value: number): Pressed => shownOn(instrument, key, value, at_ms)
  const machine = machineAt(own, setting.step ?? '', setting.slot)
  const protection = new PointProtection(own)
  const { pair = 'L-N', multiple, angle_deg = 0 } = of
  const polarity = angle_deg === 180 ? 'minus' : 'plus'
  const over = Number.POSITIVE_INFINITY
  switch (key) {
    case 'outlet':
      return show(machine.outletLive ? 1 : 0)
    case 'pilot-voltage':
      return show(machine.level_V)
    case 'pilot-duty': {
      const cable = settings[setting.choices[cableBeside(setting.slot)] ?? ''] ?? part.data.model?.data.cable_A ?? 32
      return show(machine.duty_pct(cable, setting.slot === 'duty-shared' ? chargingWith(bench, part) : 1))
    }
    case 'proximity':
      return show(resistors[setting.choices['cable-full'] ?? ''] ?? resistorOf(part))
    case 'ac-voltage':
      return show(setting.slot.startsWith('earth-volts') ? machine.earth_V : plugVolts(own, pair))
    case 'loop-impedance':
      return loopAt(bench, site, part)
    case 'rcd-time': {
      if (setting.slot === 'plug-ramp-time')
        return show(RAMP_ms_per_mA * protection.ramp_mA(setting.choices['plug-waveform'] === 'wave-pulsating', at_ms))
      const time = protection.trip_ms(multiple ?? 1, angle_deg ?? 0, at_ms)
      return show(time === null || time > WAITS_ms ? over : time)
    }
    case 'rcd-current':
      if (setting.slot.startsWith('plug-smooth')) return show(protection.smooth_mA(polarity, at_ms) ?? over)
      return show(protection.ramp_mA(setting.choices['plug-waveform'] === 'wave-pulsating', at_ms))
    case 'dc-residual-current':
      return show(protection.direct_mA(polarity) ?? over)
    case 'dc-residual-time':
      if (setting.slot.endsWith('-time')) return show(DC_RAMP_ms_per_mA * (protection.direct_mA(polarity) ?? over))
      return show(protection.six_ms(polarity, at_ms) ?? over)
    case 'disconnection-time':
      return show(
        setting.slot === 'pen-time' ? protection.lostPen.time_ms : DROPS_ms + 40 * chance(seedOf(`${at_ms}`))(),
      )
    default:
      return { state: 'refused', code: 'standin-not-here' }
  }
}

/** How many points behind the load limit of one charge when all of them do. */
const chargingWith = ({ others }: Bench, { data }: Point): number =>
  others.filter((one) => one.data.kind === 'charge-point' && one.data.load?.group === data.load?.group).length

/** What the resistor of a fixed cable is. */
const resistorOf = ({ data }: Point): number => {
  const cable_A = data.model?.data.cable_A ?? 32
  const code = Object.keys(settings).find((one) => settings[one] === cable_A)
  return resistors[code ?? 'cable-32']!
}

/** The loop through the adapter; a detector of direct current opens on any mode but its own. */
function loopAt(bench: Bench, site: Installation, point: Point): Pressed {
  const circuit = bench.others.find((one) => one.id === point.data.circuitId)
  if (circuit?.data.kind !== 'circuit') return { state: 'refused', code: 'standin-not-here' }
  const mode = bench.setting.choices['plug-loop-mode']
  if (mode !== 'dc-safe' && point.data.model?.data.dcDetector)
    return { state: 'refused', code: 'standin-tripped', rcd: point.data.tag }
  const noise = 0.02 * chance(seedOf(`${bench.instrument.id}:plug:${bench.at_ms}`))()
  const loop = site.zs_ohm({ id: circuit.id, data: circuit.data }, '')
  return shownOn(bench.instrument, bench.key, loop + noise, bench.at_ms)
}

/** What somebody in front of a simulated point would see or feel, where a question is for their own eyes. */
export type Seen =
  | { what: 'shows'; shown: Shown; words: string; after_s: number | null }
  | { what: 'plug'; held: boolean }
  | { what: 'lamp'; lit: boolean }
  | { what: 'again'; tries: boolean }
  | { what: 'pen'; opens: 'all' | 'live-only' }
  | { what: 'clock'; right: boolean }

/** Null where there is nothing to see for that question. */
export function seenAt(point: Point, mended: ReadonlySet<string>, step: string, slot: string): Seen | null {
  const own = builtPoint(point, mended)
  const machine = machineAt(own, step, slot)
  if (slot.startsWith('shown-') || slot === 'fault-sign') {
    const shown = machine.shows
    const words = shown === 'nothing' ? '' : (point.data.model?.data.shows[shown] ?? '')
    return { what: 'shows', shown, words, after_s: shown === 'charging' ? machine.closes_ms / 1000 : null }
  }
  if (slot === 'plug-lock') return { what: 'plug', held: new PointMachine(own).turn('B').plugHeld }
  if (slot.startsWith('pad-')) return { what: 'lamp', lit: machine.earth_V > LAMP_V }
  if (slot === 'afterwards') return { what: 'again', tries: machine.triesAgain }
  if (slot === 'pen-opened') return { what: 'pen', opens: new PointProtection(own).lostPen.opens }
  if (slot === 'clock-set') return { what: 'clock', right: !own.faults.includes('clock-unset') }
  return null
}
/** From here on the lamp of a touch pad is lit, V. */
const LAMP_V = 50
