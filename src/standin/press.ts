/** Presses a key of a simulated instrument that is connected to a part of the plant: what it shows, or why it refuses. */
import type { PartData, StringData } from '@/core/plant/part'
import type { FeedSample } from '@/core/record/feed'
import type { Instrument, Measurable } from '@/core/record/instrument'
import type { Connected, Setting } from './bench'
import { pressOnInstallation } from './installationTester'
import { chance, seedOf } from './random'
import { type Pressed, shownOn } from './shown'
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

/** Rows and strings in a hundred that were built with a fault. */
const POOR_JOINTS = 8
const LEAKS = 6
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
  return 100 * chance(seedOf(`${partId}:${what}`))() >= (what === 'insulation' ? LEAKS : POOR_JOINTS)
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

/** Leakage of all modules in parallel; a few strings have a damp plug. It rises while the array charges, up to what is shown last. */
function insulation(
  instrument: Instrument,
  partId: string,
  string: StringData,
  at_ms: number,
  { mended }: Connection,
): Pressed {
  const next = chance(seedOf(`${partId}:insulation`))
  const leaks = !wasBuiltSound('insulation', partId) && !mended
  const sound_Mohm = (2500 + 6500 * next()) / string.modulesInSeries
  const value = leaks ? 0.2 + 0.5 * next() : Math.min(sound_Mohm, 2 * INSULATION_MOST_Mohm)
  const last = shownOn(instrument, 'insulation', value, at_ms)
  if (last.state !== 'shown') return last
  const rising = Array.from({ length: HELD_s }, (_, s): FeedSample[] => {
    const share = 1 - (1 - AT_ONCE) * Math.exp(-s / CHARGES_s)
    const shown = shownOn(instrument, 'insulation', value * share, at_ms - (HELD_s - s) * 1000)
    return shown.state === 'shown' ? [shown.sample] : []
  })
  return { state: 'swept', samples: [...rising.flat(), last.sample] }
}
