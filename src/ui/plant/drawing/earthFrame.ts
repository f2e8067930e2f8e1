/** Where things stand on the side of earth, and what is drawn so far. */
import type { PartOf } from '@/core/plant/plantIndex'
import { figure, say } from '@/words/say'
import type { Ground, Sheet } from './pieces'

export const PITCH = 40
export const AT = { left: 15, supply: 48, ring: 110, rcd: 156, bar: 208, child: 128, end: 652 }
/** Ways of boards deep below stand no further in than this. */
export const DEEPEST = 390
export const POINT_PITCH = 46
export const PLACE_HIGH = 30
/** Room beside the first bar: its name above, the supply beneath. */
export const LEAST_HIGH = 132

export type Outs = ReadonlyMap<string, { x: number; y: number }>
export type EarthSide = Sheet & { foot: number; terminal: { x: number; y: number } | null }

export type Drawing = { side: EarthSide; ground: Ground; outs: Outs; risers: number; seen: Set<string> }

export const rcdText = ({ data }: PartOf<'rcd'>): string =>
  `${data.delay === 'general' ? '' : `${say('drawing.delay.selective')}, `}${figure(data.rated_mA, 0)} mA`
