/** The way from the electrode to the current spike, and what was read in each place of the potential spike. */
import type { SpikesPicture } from '@/core/steps/picture'
import { figure, say } from '@/words/say'
import { type Drawing, dot, line, type Node, words } from './node'

const WIDE = 344
const HIGH = 196
const FROM = 24
const TO = WIDE - 30
const GROUND = 118
/** Readings stand above the ground, this high at twice the mean. */
const TALL = 92
/** Up to so many places are told in words; of a curve every other one. */
const FEW = 3

export function spikesDrawing(picture: SpikesPicture): Drawing {
  const { distance_m, places, mean_ohm } = picture
  const away = distance_m === null ? '' : `, ${say('picture.away', { distance: distance_m })}`
  return {
    name: 'spikes',
    wide: WIDE,
    high: HIGH,
    label: say('picture.spikes', { places: places.length }),
    nodes: [
      ...(mean_ohm === null ? [] : picture.true_share === null ? mean(picture, mean_ohm) : curve(picture, mean_ohm)),
      line(`M4 ${GROUND}H${WIDE - 4}`, 'ink', 2),
      line(`M${FROM} ${GROUND - 8}v34M${TO} ${GROUND - 8}v22`, 'ink', 5),
      ...places.flatMap((place, k) => placeNodes(picture, place, k)),
      words(4, HIGH - 6, say('picture.electrode')),
      words(WIDE - 4, HIGH - 6, `${say('picture.current-spike')}${away}`, 'end'),
    ],
  }
}

const x = (share: number): number => FROM + share * (TO - FROM)
const y = (ohm: number, mean_ohm: number): number => GROUND - Math.max(0, Math.min(1, ohm / (2 * mean_ohm))) * TALL

/** The mean as a chain line, and how far readings may lie from it. */
function mean({ spread_pct }: SpikesPicture, mean_ohm: number): Node[] {
  const middle = y(mean_ohm, mean_ohm)
  const half = (GROUND - middle) * (spread_pct / 200)
  return [
    {
      tag: 'rect',
      attrs: { x: FROM, y: middle - half, width: TO - FROM, height: 2 * half, fill: 'var(--within-tint)' },
    },
    line(`M${FROM} ${middle}H${TO}`, 'ink', 1.8, '11 3 2.5 3'),
    words(FROM, 14, say('picture.mean', { mean: mean_ohm, spread: spread_pct / 2 })),
  ]
}

/** Even soil as a chain line, and the place at which the curve is read off. */
function curve({ even_soil, true_share }: SpikesPicture, mean_ohm: number): Node[] {
  const path = even_soil.map(({ share, read_ohm }, k) => `${k === 0 ? 'M' : 'L'}${x(share)} ${y(read_ohm, mean_ohm)}`)
  const at = x(true_share!)
  return [
    ...(path.length > 0 ? [line(path.join(''), 'ink', 1.8, '11 3 2.5 3')] : []),
    line(`M${at} 20V${GROUND}`, 'pencil', 1.4, '3 3'),
    words(at, 14, say('picture.read-off', { value: mean_ohm }), 'middle'),
  ]
}

function placeNodes(picture: SpikesPicture, { share, read_ohm }: SpikesPicture['places'][number], k: number): Node[] {
  const { distance_m, places, mean_ohm } = picture
  const isRead = read_ohm !== null
  const told =
    distance_m === null ? `${figure(share * 100, 0)} %` : say('picture.away', { distance: share * distance_m })
  const isTold = places.length <= FEW || k % 2 === 0
  // Three places lie close together: the first stands above the other two.
  const low = places.length <= FEW && k > 0 ? 46 : 30
  return [
    line(`M${x(share)} ${GROUND - 6}v18`, isRead ? 'ink' : 'pencil', 4, isRead ? '' : '3 3'),
    ...(isRead && mean_ohm ? [dot(x(share), y(read_ohm, mean_ohm), 6)] : []),
    ...(isTold ? [words(x(share), GROUND + low, told, 'middle')] : []),
  ]
}
