/** The side of the sun: arrays as headings, a lane a string, and what stands on the wire as far as the inverter. */
import type { Part, PartKind } from '@/core/plant/part'
import type { PartOf } from '@/core/plant/plantIndex'
import { figure, partName, say } from '@/words/say'
import { type Lane, lanesOf } from './lanes'
import {
  addTo,
  emptySheet,
  fitted,
  type Ground,
  label,
  missingRuns,
  type Piece,
  pieceOf,
  type Run,
  type Sheet,
  symbol,
} from './pieces'
import {
  AT,
  CHAIN_WIDE,
  INVERTER_LEAST,
  INVERTER_WIDE,
  MOST_RAILS,
  PITCH,
  PLACE_HIGH,
  type Placed,
  rangeOf,
  type SunSide,
} from './sunFrame'
import { combinerInto, inverterBox, inverterInto, invertersOf, runsOf, surgesInto, switchInto } from './throughs'

export function sunSide(ground: Ground): SunSide {
  const side: SunSide = { ...emptySheet(), foot: 0, outs: new Map(), bonds: [] }
  const lanes: Placed[] = []
  siteInto(side, ground)
  let y = 48
  const { plant } = ground
  const loose = plant.ofKind('string').filter((one) => plant.arrayOf(one) === null)
  for (const array of plant.ofKind('array')) y = arrayInto(side, ground, lanes, array, y)
  if (loose.length > 0) y = lanesInto(side, ground, lanes, null, lanesOf(loose, plant, ground.opened), y + 30)
  lanesDrawn(side, ground, lanes)
  const runs = runsOf(lanes, (lane) => invertersOf(ground, lane))
  for (const run of runs) inverterInto(side, ground, run)
  const columnFoot = Math.max(
    0,
    ...side.pieces.filter((one) => one.kind === 'inverter').map(({ box }) => box.y + box.h),
  )
  const shown = new Set(runs.flatMap(({ parts }) => parts.map((one) => one.id)))
  y = looseInto(side, ground, Math.max(y, columnFoot) + 8, shown)
  side.foot = placesInto(side, ground, y)
  if (side.pieces.some((one) => one.kind === 'array'))
    side.wires.push({ d: `M${AT.bus} 42V${Math.max(60, y - 12)}`, style: 'light' })
  return side
}

function siteInto(side: SunSide, ground: Ground): void {
  const { site } = ground.plant
  if (!site) return
  const { lowestTemperature_C: lowest, highestCellTemperature_C: hottest } = site.data
  // Nobody said how cold it gets: drawn as something that is not known.
  const isOpen = lowest === null || hottest === null
  const told = say('drawing.site-is', {
    lowest: lowest === null ? '?' : figure(lowest, 0),
    hottest: hottest === null ? '?' : figure(hottest, 0),
  })
  side.pieces.push({
    ...pieceOf({
      ground,
      parts: [site],
      box: { x: 10, y: 2, w: 260, h: 44 },
      shapes: [symbol('sun', AT.sun, 24, 0.86)],
      labels: [
        label(60, 20, [{ text: say('drawing.site'), style: 'name' }]),
        label(60, 38, [{ text: told, style: isOpen ? 'missing' : 'detail' }]),
      ],
    }),
    isPencil: isOpen,
  })
}

function arrayInto(side: SunSide, ground: Ground, lanes: Placed[], array: PartOf<'array'>, top: number): number {
  const { plant } = ground
  const y = top + 24
  const { tag, tilt_deg: tilt, azimuth_deg: azimuth } = array.data
  side.wires.push({ d: `M${AT.bus} ${y - 6}H${AT.left + 2}`, style: 'light' })
  side.bonds.push(y + 6)
  side.pieces.push(
    pieceOf({
      ground,
      parts: [array],
      box: { x: AT.left, y: y - 20, w: 460, h: 32 },
      shapes: [symbol('array', 60, y - 4, 0.62)],
      labels: [
        label(84, y + 1, [
          { text: tag, style: 'name' },
          { text: say('drawing.array', { tilt, azimuth }), style: 'detail' },
        ]),
      ],
    }),
  )
  const afterRails = railsInto(side, ground, array, y + 10)
  const own = lanesOf(plant.stringsOf(array), plant, ground.opened)
  return lanesInto(side, ground, lanes, array, own, afterRails)
}

/** Rails and frames of an array, in one row: each by its tag, many as one. */
function railsInto(side: SunSide, ground: Ground, array: PartOf<'array'>, top: number): number {
  const rails = ground.plant.ofKind('row').filter((one) => ground.plant.arrayOf(one)?.id === array.id)
  if (rails.length === 0) return top
  const fold = `rails ${array.id}`
  const isFolded = rails.length > MOST_RAILS && !ground.opened.has(fold)
  const list = isFolded ? [rails] : rails.map((one) => [one])
  let x = AT.chain
  let y = top + 12
  for (const own of list) {
    const text = own.length > 1 ? rangeOf(own) : own[0]!.data.tag
    const runs: Run[] = [{ text, style: 'detail' }]
    const w = 34 + text.length * 8
    if (x + w > AT.inverter - 10) {
      x = AT.chain
      y += 28
    }
    side.pieces.push(
      pieceOf({
        ground,
        parts: own,
        box: { x, y: y - 12, w, h: 26 },
        shapes: [{ is: 'line', d: `M${x + 4} ${y}h20`, width: 3 }],
        labels: [label(x + 30, y + 5, runs)],
        ...(own.length > 1 ? { fold, name: say('drawing.alike', { range: text, count: own.length }) } : {}),
      }),
    )
    x += w + 6
  }
  return y + 14
}

/** The lanes of an array get their height; under them stands what may come. */
function lanesInto(
  side: SunSide,
  ground: Ground,
  lanes: Placed[],
  array: PartOf<'array'> | null,
  own: readonly Lane[],
  top: number,
): number {
  let y = top + 22
  for (const lane of own) {
    lanes.push({ ...lane, y, array })
    // A stack says beneath it what it stands for.
    y += lane.strings.length > 1 ? PITCH + 12 : PITCH
  }
  if (!array || !ground.canWrite) return y - 12
  const at = ground.plant.arrayOf(ground.plant.parts.get(ground.selected ?? '') ?? array)?.id
  const place = (kind: 'string' | 'row', x: number, w: number): void => {
    side.places.push({
      key: `${kind} of ${array.id}`,
      at: array.id,
      kinds: [kind],
      box: { x, y: y - 18, w, h: PLACE_HIGH },
      isRing: false,
    })
  }
  place('string', AT.chain, 161)
  if (at === array.id) place('row', AT.chain + 171, 90)
  return y + 18
}

function lanesDrawn(side: SunSide, ground: Ground, lanes: readonly Placed[]): void {
  for (const lane of lanes) laneInto(side, ground, lane)
  for (const run of runsOf(lanes, (lane) => [ground.plant.combinerOf(lane.strings[0]!)]))
    combinerInto(side, ground, run)
  for (const run of runsOf(lanes, (lane) => [ground.plant.switchOf(lane.strings[0]!)])) switchInto(side, ground, run)
  surgesInto(side, ground, lanes)
  if (!ground.canWrite) return
  for (const lane of lanes) ringInto(side, ground, lane)
}

function laneInto(side: SunSide, ground: Ground, lane: Placed): void {
  const { strings, y, isMore, fold } = lane
  const [first] = strings as [Placed['strings'][number]]
  const count = first.data.modulesInSeries
  const isStack = strings.length > 1
  const range = isStack ? rangeOf(strings) : ''
  const runs: Run[] = [
    {
      text: isMore
        ? say('drawing.more', { range, count: strings.length })
        : say('drawing.alike', { range, count: strings.length }),
      style: 'detail',
    },
  ]
  side.wires.push({ d: pair(AT.chain + chainWide(count), AT.inverter, y), style: 'pair' })
  side.pieces.push(
    pieceOf({
      ground,
      parts: strings,
      box: { x: AT.left, y: y - 20, w: 270, h: isStack ? 52 : 40 },
      shapes: [{ is: 'chain', x: AT.chain, y, modules: count, sheets: isStack ? (isMore ? 3 : 2) : 0 }],
      labels: [
        label(AT.tag, y + 6, [{ text: first.data.tag, style: 'big' }], 'end'),
        label(AT.count, y + 5.5, [{ text: String(count), style: 'name' }], 'middle'),
        ...(isStack ? [label(AT.chain, y + 26, runs)] : []),
      ],
      mark: { x: AT.chain + CHAIN_WIDE / 2, y },
      fold,
      name: isStack ? say('drawing.alike', { range, count: strings.length }) : partName(first),
    }),
  )
}

const chainWide = (modules: number): number => Math.min(9, CHAIN_WIDE / modules) * modules
const pair = (from: number, to: number, y: number): string => `M${from} ${y - 3.5}H${to}M${from} ${y + 3.5}H${to}`

/** A ring on the wire of the lane that is open: what may come on its way to the inverter. */
function ringInto(side: SunSide, ground: Ground, lane: Placed): void {
  const { plant } = ground
  const own = lane.strings.find((one) => one.id === ground.selected) ?? (lane.strings.length === 1 ? null : undefined)
  const [first] = lane.strings as [Placed['strings'][number]]
  const hasSwitch = plant.switchOf(first) !== null
  const isOpen = own !== null && own !== undefined
  if (!isOpen && (hasSwitch || plant.ofKind('dc-switch').length > 0)) return
  const kinds = [
    ...(hasSwitch && !isOpen ? [] : (['dc-switch'] as const)),
    ...(plant.combinerOf(first) ? [] : (['combiner'] as const)),
    'surge-protection' as const,
  ]
  // Where nothing is yet one ring is enough.
  if (!isOpen && lane.y !== firstY(side)) return
  side.places.push({
    key: `wire of ${first.id}`,
    at: first.id,
    kinds,
    box: { x: (hasSwitch ? AT.surge - 4 : AT.sw) - 22, y: lane.y - 22, w: 44, h: 44 },
    isRing: true,
  })
}
const firstY = (side: SunSide): number =>
  Math.min(...side.pieces.filter((one) => one.kind === 'string').map((one) => one.box.y + 20))

/** What is entered and hangs on nothing yet: in a row of its own, so that nothing is ever out of sight. */
function looseInto(side: SunSide, ground: Ground, top: number, shownInverters: ReadonlySet<string>): number {
  const { plant } = ground
  const drawn = new Set(side.pieces.flatMap((one) => one.ids))
  let y = top
  const waiting = plant.ofKind('inverter').filter((one) => !shownInverters.has(one.id))
  waiting.forEach((one, k) => {
    const x = AT.inverter - (k % 4) * 110
    if (k % 4 === 0) y += k === 0 ? 20 : INVERTER_LEAST + 34
    inverterBox(side, ground, [one], { x, y, w: INVERTER_WIDE, h: INVERTER_LEAST }, [])
  })
  if (waiting.length > 0) y += INVERTER_LEAST + 12
  const kinds: readonly PartKind[] = ['combiner', 'dc-switch', 'surge-protection', 'row']
  const others = kinds.flatMap((kind): Part[] => [...plant.ofKind(kind)].filter((one) => !drawn.has(one.id)))
  if (others.length === 0) return y
  y += 30
  others.forEach((one, k) => {
    const x = AT.chain + (k % 4) * 120
    if (k > 0 && k % 4 === 0) y += 56
    side.pieces.push(looseOne(ground, one, x, y))
  })
  return y + 34
}

function looseOne(ground: Ground, part: Part, x: number, y: number): Piece {
  const { kind, tag } = part.data
  const shapes =
    kind === 'combiner'
      ? [{ is: 'combiner' as const, x, top: y - 18, foot: y + 18 }]
      : kind === 'row'
        ? [{ is: 'line' as const, d: `M${x - 16} ${y}h32`, width: 3 }]
        : [symbol(kind === 'dc-switch' ? 'switch' : 'surge-protection', x, y)]
  return pieceOf({
    ground,
    parts: [part],
    box: { x: x - 26, y: y - 22, w: 110, h: 46 },
    shapes,
    labels: [label(x + 24, y + 5, fitted([{ text: tag, style: 'detail' }, ...missingRuns(part)], 84))],
  })
}

/** Under all: a further array, a further inverter, and what the side has none of yet. */
function placesInto(side: SunSide, ground: Ground, y: number): number {
  const { plant } = ground
  if (!ground.canWrite) return y
  const place = (kind: 'array' | 'inverter' | 'surge-protection', x: number, w: number, at: string | null): void => {
    side.places.push({ key: `new ${kind}`, at, kinds: [kind], box: { x, y: y + 2, w, h: PLACE_HIGH }, isRing: false })
  }
  place('array', AT.left, 161, null)
  const hasLanes = plant.ofKind('string').length > 0
  if (hasLanes && plant.ofKind('surge-protection').length === 0) place('surge-protection', 316, 148, null)
  if (hasLanes || plant.ofKind('inverter').length > 0) place('inverter', AT.inverter, 92, null)
  return y + PLACE_HIGH + 10
}

/** The bonding of the arrays runs down the left to the main terminal. */
export const bondsOf = (side: SunSide, terminal: { x: number; y: number } | null): Sheet => {
  const sheet = emptySheet()
  const [first] = side.bonds
  if (first === undefined || !terminal) return sheet
  const { x: to, y: foot } = terminal
  addTo(sheet, {
    ...emptySheet(),
    wires: [
      { d: `M${AT.bond} ${first}V${foot}H${to}`, style: 'bond' },
      ...side.bonds.map((y): Sheet['wires'][number] => ({ d: `M${AT.bond} ${y}H${AT.left}`, style: 'bond' })),
    ],
  })
  return sheet
}
