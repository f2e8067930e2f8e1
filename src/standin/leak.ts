/**
 * The way to earth of a simulated string: its modules in parallel and, on a few strings, one damp plug. The voltages to
 * earth that it leaves follow from the voltmeter's own way to earth, by Kirchhoff's law; nothing here is the tester's formula.
 */
import type { StringData } from '@/core/plant/part'
import { chance, seedOf } from './random'

/** Strings in a hundred that were built with a leak. */
const LEAKS = 6
/** Of those, how many wander: the plug moves in the wind. */
const WANDERS = 0.5
/** Input resistance of the simulated voltmeter, Mohm. */
export const INPUT_Mohm = 10

export type Leak = {
  /** After how many modules from the positive end; 0 is the positive plug. */
  afterModule: number
  resistance_Mohm: number
  wanders: boolean
}
export type WayToEarth = { sound_Mohm: number; leak: Leak | null }

export function hasLeak(partId: string): boolean {
  return 100 * chance(seedOf(`${partId}:insulation`))() < LEAKS
}

/** How a string stands to earth. Wet its modules leak more, and so does the plug. */
export function wayToEarth(
  partId: string,
  { modulesInSeries }: StringData,
  mended: boolean,
  surface: string | undefined,
): WayToEarth {
  const next = chance(seedOf(`${partId}:insulation`))
  const sound_Mohm = (2500 + 6500 * next()) / modulesInSeries
  const resistance_Mohm = 0.2 + 0.5 * next()
  const afterModule = Math.round(modulesInSeries * next())
  const wanders = next() < WANDERS
  const wet = surface === 'wet' ? 0.6 : 1
  const leak = hasLeak(partId) && !mended ? { afterModule, resistance_Mohm: resistance_Mohm * wet, wanders } : null
  return { sound_Mohm: sound_Mohm * wet, leak }
}

/** Insulation of a piece of a string from one module to another, Mohm. */
export function insulationOf({ sound_Mohm, leak }: WayToEarth, modules: number, from: number, to: number): number {
  const own_Mohm = (sound_Mohm * modules) / Math.max(1, to - from)
  const isIn = leak !== null && leak.afterModule >= from && leak.afterModule <= to
  return isIn ? 1 / (1 / own_Mohm + 1 / leak.resistance_Mohm) : own_Mohm
}

/**
 * What the voltmeter shows from one end of a floating string to earth, V: current flows from the place of the leak through
 * it and back through the meter. Modules by themselves leak evenly, as if in the middle.
 */
export function voltageToEarth(
  { sound_Mohm, leak }: WayToEarth,
  modules: number,
  voc_V: number,
  end: 'plus' | 'minus',
): number {
  const ways = [
    { share: 0.5, ohm: sound_Mohm },
    ...(leak ? [{ share: leak.afterModule / modules, ohm: leak.resistance_Mohm }] : []),
  ]
  // Each way to earth is a source of its own height behind its resistance; the meter's input is the load.
  const height = (share: number): number => voc_V * (end === 'plus' ? share : 1 - share)
  const driven = ways.reduce((sum, { share, ohm }) => sum + height(share) / ohm, 0)
  const open = ways.reduce((sum, { ohm }) => sum + 1 / ohm, 0)
  return driven / (open + 1 / INPUT_Mohm)
}
