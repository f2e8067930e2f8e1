/** Presses a key of a simulated instrument that is connected to a part of the plant: what it shows, or why it refuses. */
import type { PartData, StringData } from '@/core/plant/part'
import type { FeedSample } from '@/core/record/feed'
import type { Instrument, Measurable } from '@/core/record/instrument'
import type { Connected, Setting } from './bench'
import { pressOnInstallation } from './installationTester'
import { hasLeak, insulationOf, voltageToEarth, wayToEarth } from './leak'
import { chance, seedOf } from './random'
import { asBuilt, stringUnder } from './roof'
import { type Pressed, shownOn } from './shown'
import { skyAt } from './sky'
import { pressTester } from './stringTester'
import { pressTracer } from './tracer'

export type Connection = {
  /** The inverter runs and the string works at its maximum power. */
  loaded?: boolean
  /** Somebody put right what was wrong with this part since it was built. */
  mended?: boolean
  /** False where the leads were not nulled in this visit: their own resistance stands in what is shown. */
  nulled?: boolean
  /** Which slot it is pressed for, and how the test was set up. */
  setting?: Setting
  /** Every part of the plant, for what hangs together; parts of it that were mended. */
  others?: readonly Connected[]
  mendedParts?: ReadonlySet<string>
}

/** Rows in a hundred that were built with a poor joint. */
const POOR_JOINTS = 8
const TO_EARTH: ReadonlySet<string> = new Set(['plus-volts', 'minus-volts'])
const INSULATION_MOST_Mohm = 999
/** What a reel of test lead has by itself, ohm. */
const LEADS_ohm = 0.42
const COPPER_ohm_mm2_per_m = 0.01724

export function pressStandIn(
  instrument: Instrument,
  key: Measurable,
  part: Connected,
  skySeed: string,
  at_ms: number,
  connection: Connection = {},
): Pressed {
  const { data } = part
  if (data.kind === 'string') {
    if (key === 'iv-curve') return pressTracer(instrument, part.id, data, skySeed, at_ms, connection.mended)
    if (key === 'insulation') return insulation(instrument, part.id, data, at_ms, connection)
    if (key === 'dc-voltage' && TO_EARTH.has(connection.setting?.slot ?? ''))
      return toEarth(instrument, { id: part.id, data }, skySeed, at_ms, connection)
    if (key === 'dc-polarity' || key === 'dc-voltage' || key === 'dc-current')
      return pressTester(instrument, key, part.id, data, skySeed, at_ms, connection)
  }
  if (key === 'continuity' && data.kind === 'row')
    return shownOn(instrument, key, rowResistance(part.id, data, connection) + leadsOf(connection), at_ms)
  // Clips joined after nulling, and the clamp on an isolated string: next to nothing.
  if (data.kind === 'site' && (key === 'continuity' || key === 'dc-current'))
    return shownOn(instrument, key, 0.004 + 0.003 * chance(seedOf(`${part.id}:${at_ms}`))(), at_ms)
  return pressOnInstallation({
    instrument,
    key,
    part,
    others: connection.others ?? [part],
    mended: connection.mendedParts ?? new Set(connection.mended ? [part.id] : []),
    nulled: connection.nulled ?? true,
    setting: connection.setting ?? { slot: '', choices: {} },
    at_ms,
  })
}

/** Whether a part's insulation or bonding was built without a fault; the part's id is the seed. */
export function wasBuiltSound(what: 'insulation' | 'bonding', partId: string): boolean {
  return what === 'insulation' ? !hasLeak(partId) : 100 * chance(seedOf(`${partId}:bonding`))() >= POOR_JOINTS
}

const leadsOf = ({ nulled = true }: Connection): number => (nulled ? 0 : LEADS_ohm)

/** Conductor and joints as built; a few rows have a joint that was never tightened. */
function rowResistance(partId: string, row: Extract<PartData, { kind: 'row' }>, { mended }: Connection): number {
  const next = chance(seedOf(`${partId}:bonding`))
  const { length_m, area_mm2, joints } = row.conductor ?? { length_m: 18, area_mm2: 6, joints: 4 }
  const isPoor = !wasBuiltSound('bonding', partId) && !mended
  const copper = (COPPER_ohm_mm2_per_m * length_m) / area_mm2
  return copper + joints * (0.01 + 0.03 * next()) + (isPoor ? 1.5 + 4 * next() : 0)
}

/** So long the test voltage is held, a figure a second; the array charges with this time constant. */
const HELD_s = 9
const CHARGES_s = 2.5
/** What it shows at once, of what it comes to. */
const AT_ONCE = 0.3
/** How a plug that moves goes, second by second, of what is shown last. */
const WANDERING = [1.4, 0.6, 1.8, 0.9, 0.5, 1.5, 0.8, 1.7, 1.1]

/** Which modules a tester is connected to: all, or the half of a string that was parted. */
function pieceOf({ slot, figures }: Setting, modules: number): [number, number] {
  const opened = figures?.['opened-after'] ?? modules
  return slot === 'minus-half' ? [opened, modules] : slot === 'plus-half' ? [0, opened] : [0, modules]
}

/** Leakage of all modules in parallel; a few strings have a damp plug. It rises while the array charges, up to what is shown last. */
function insulation(
  instrument: Instrument,
  partId: string,
  string: StringData,
  at_ms: number,
  { mended = false, setting = { slot: '', choices: {} } }: Connection,
): Pressed {
  const modules = string.modulesInSeries
  const way = wayToEarth(partId, string, mended, setting.choices.surface)
  const [from, to] = pieceOf(setting, modules)
  const value = Math.min(insulationOf(way, modules, from, to), 2 * INSULATION_MOST_Mohm)
  const last = shownOn(instrument, 'insulation', value, at_ms)
  if (last.state !== 'shown') return last
  const wanders = way.leak?.wanders === true && value < 2 * way.leak.resistance_Mohm
  const rising = Array.from({ length: HELD_s }, (_, s): FeedSample[] => {
    const share = wanders ? WANDERING[s]! : 1 - (1 - AT_ONCE) * Math.exp(-s / CHARGES_s)
    const shown = shownOn(instrument, 'insulation', value * share, at_ms - (HELD_s - s) * 1000)
    return shown.state === 'shown' ? [shown.sample] : []
  })
  return { state: 'swept', samples: [...rising.flat(), last.sample] }
}

/** Volts from one end of a floating string to earth, by what leaks. */
function toEarth(
  instrument: Instrument,
  part: Connected & { data: StringData },
  skySeed: string,
  at_ms: number,
  { mended = false, setting = { slot: '', choices: {} } }: Connection,
): Pressed {
  const { id, data } = part
  const sky = skyAt(skySeed, at_ms)
  const { voltage_V } = stringUnder(sky, data, asBuilt(id, data.modulesInSeries, mended))
  const way = wayToEarth(id, data, mended, setting.choices.surface)
  const end = setting.slot === 'plus-volts' ? 'plus' : 'minus'
  const volts_V = voltageToEarth(way, data.modulesInSeries, Math.abs(voltage_V), end)
  return shownOn(instrument, 'dc-voltage', volts_V, at_ms)
}
