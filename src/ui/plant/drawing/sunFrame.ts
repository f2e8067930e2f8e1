/** Where things stand on the side of the sun, and what is drawn so far. */
import type { Part } from '@/core/plant/part'
import type { PartOf } from '@/core/plant/plantIndex'
import { say } from '@/words/say'
import type { Lane } from './lanes'
import type { Sheet } from './pieces'

export const PITCH = 42
export const AT = {
  sun: 34,
  bus: 34,
  bond: 14,
  left: 44,
  tag: 72,
  chain: 86,
  count: 294,
  combiner: 350,
  surge: 404,
  sw: 440,
  inverter: 520,
}
export const CHAIN_WIDE = 178
export const INVERTER_WIDE = 84
export const INVERTER_LEAST = 56
export const PLACE_HIGH = 32
export const MOST_RAILS = 8

export type Placed = Lane & { y: number; array: PartOf<'array'> | null }
/** Where an inverter's alternating current leaves, and how far down the side reaches. */
export type SunSide = Sheet & { foot: number; outs: Map<string, { x: number; y: number }>; bonds: number[] }

export const rangeOf = (parts: readonly Part[]): string =>
  say('drawing.range', { first: parts[0]!.data.tag, last: parts.at(-1)!.data.tag })
