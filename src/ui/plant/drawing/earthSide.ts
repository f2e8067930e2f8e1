/** Earth and the AC side: supply, boards as bars, a lane a way, charge points at their ends, the electrode in the ground. */
import type { Part } from '@/core/plant/part'
import type { PartOf } from '@/core/plant/plantIndex'
import { boardsBelow, pointsOn, rootBoards } from '@/core/plant/tree'
import { figure, say } from '@/words/say'
import { optionText } from '../optionText'
import { emptySheet, fitted, type Ground, label, missingRuns, pieceOf, type Run, type Sheet, symbol } from './pieces'

const PITCH = 40
const AT = { left: 15, supply: 48, ring: 110, rcd: 156, bar: 208, child: 128, end: 652 }
/** Ways of boards deep below stand no further in than this. */
const DEEPEST = 390
const POINT_PITCH = 46
const PLACE_HIGH = 30
/** Room beside the first bar: its name above, the supply beneath. */
const LEAST_HIGH = 132

type Outs = ReadonlyMap<string, { x: number; y: number }>
export type EarthSide = Sheet & { foot: number; terminal: { x: number; y: number } | null }

type Drawing = { side: EarthSide; ground: Ground; outs: Outs; risers: number; seen: Set<string> }

export function earthSide(ground: Ground, outs: Outs, top: number): EarthSide {
  const side: EarthSide = { ...emptySheet(), foot: top, terminal: null }
  const { plant } = ground
  const drawing: Drawing = { side, ground, outs, risers: 0, seen: new Set() }
  const roots = rootBoards(plant)
  const supplies = plant.ofKind('supply')
  let y = top
  for (const supply of supplies) {
    y = supplyInto(
      drawing,
      supply,
      roots.filter((one) => plant.supplyOf(one)?.id === supply.id),
      y,
    )
  }
  const fed = new Set(supplies.map((one) => one.id))
  for (const board of roots.filter((one) => !fed.has(plant.supplyOf(one)?.id ?? ''))) {
    const placed = boardInto(drawing, board, AT.bar, y, true)
    y = placed.foot + 16
  }
  y = looseInto(drawing, y)
  side.foot = placesInto(drawing, y)
  return side
}

function supplyInto(
  drawing: Drawing,
  supply: PartOf<'supply'>,
  boards: readonly PartOf<'board'>[],
  top: number,
): number {
  const { side, ground } = drawing
  const { arrangement, phases, nominal_V, declaredZe_ohm: ze } = supply.data
  let y = top
  let middle = top + 86
  let wireFrom: number | null = null
  for (const board of boards) {
    const placed = boardInto(drawing, board, AT.bar, y, true)
    const at = Math.min(placed.top + 86, placed.foot - 30)
    if (wireFrom === null) middle = at
    incomingInto(drawing, board, at, placed.incoming)
    if (wireFrom !== null) side.wires.push({ d: `M${AT.ring} ${wireFrom}V${at}`, style: 'ink', width: 3 })
    wireFrom ??= at
    y = placed.foot + 16
  }
  if (boards.length === 0) y = top + LEAST_HIGH
  side.pieces.push(
    pieceOf({
      ground,
      parts: [supply],
      box: { x: AT.left - 6, y: middle - 44, w: 92, h: 104 },
      shapes: [symbol('supply', AT.supply, middle, 1.1)],
      labels: [
        label(AT.left, middle - 26, [
          {
            text:
              ground.plant.ofKind('supply').length > 1
                ? say('drawing.supply-tag', { tag: supply.data.tag })
                : say('drawing.supply-name'),
            style: 'name',
          },
        ]),
        label(AT.left, middle + 35, [
          { text: say('drawing.supply', { arrangement, phases, volts: nominal_V }), style: 'detail' },
        ]),
        ...(ze === null
          ? []
          : [
              label(AT.left, middle + 53, [
                { text: say('drawing.ze', { ze: figure(ze, 2) }), style: 'detail' as const },
              ]),
            ]),
      ],
    }),
  )
  return y
}

/** From the supply to a board: the devices that everything on it goes through. */
function incomingInto(
  { side, ground }: Drawing,
  board: PartOf<'board'>,
  y: number,
  rcds: readonly PartOf<'rcd'>[],
): void {
  side.wires.push({ d: `M${AT.supply + 33} ${y}H${AT.bar}`, style: 'ink', width: 3 })
  rcds.forEach((rcd, k) => {
    const at = y + k * 4
    side.pieces.push(
      pieceOf({
        ground,
        parts: [rcd],
        box: { x: AT.rcd - 36, y: at - 44, w: 78, h: 90 },
        shapes: [symbol('rcd', AT.rcd, at)],
        labels: [
          label(AT.rcd, at - 26, [{ text: rcd.data.tag, style: 'name' }], 'middle'),
          label(AT.rcd + 38, at + 35, [{ text: rcdText(rcd), style: 'detail' }], 'end'),
        ],
        mark: { x: AT.rcd + 18, y: at - 18 },
      }),
    )
  })
  if (rcds.length === 0 && ground.canWrite)
    side.places.push({
      key: `before ${board.id}`,
      at: board.id,
      kinds: ['rcd'],
      box: { x: AT.rcd - 22, y: y - 22, w: 44, h: 44 },
      isRing: true,
    })
}

const rcdText = ({ data }: PartOf<'rcd'>): string =>
  `${data.delay === 'general' ? '' : `${say('drawing.delay.selective')}, `}${figure(data.rated_mA, 0)} mA`

/** Which devices stand where on a board: before all its ways, before some of them, or in one. */
function devicesOf(board: PartOf<'board'>, { plant }: Ground) {
  const ways = plant.circuitsOf(board)
  const own = plant.ofKind('rcd').filter((one) => plant.boardOf(one)?.id === board.id)
  const chains = new Map(ways.map((way) => [way.id, new Set(plant.rcdsOf(way).map((one) => one.id))]))
  const isCombined = (one: PartOf<'rcd'>): boolean => one.data.form === 'rcbo'
  const behind = (one: PartOf<'rcd'>) => ways.filter((way) => chains.get(way.id)!.has(one.id))
  const nearest = (one: PartOf<'rcd'>) => ways.filter((way) => plant.rcdsOf(way)[0]?.id === one.id)
  const incoming = own.filter((one) => !isCombined(one) && behind(one).length === ways.length)
  const rest = own.filter((one) => !incoming.includes(one))
  const inWay = new Map(rest.flatMap((one) => (nearest(one).length === 1 ? [[nearest(one)[0]!.id, one] as const] : [])))
  const groups = rest.filter((one) => nearest(one).length > 1).map((rcd) => ({ rcd, ways: nearest(rcd) }))
  const taken = new Set([...groups.flatMap((group) => group.ways.map((way) => way.id))])
  const idle = rest.filter((one) => nearest(one).length === 0)
  return { incoming, groups, inWay, idle, direct: ways.filter((way) => !taken.has(way.id)) }
}

type PlacedBoard = { top: number; foot: number; incoming: readonly PartOf<'rcd'>[] }

/** A board as a bar with its ways, those behind a common device first on a bar of their own, then the boards it feeds. */
function boardInto(drawing: Drawing, board: PartOf<'board'>, x: number, top: number, isRoot: boolean): PlacedBoard {
  const { side, ground, seen } = drawing
  seen.add(board.id)
  const { plant, canWrite } = ground
  const { incoming, groups, inWay, idle, direct } = devicesOf(board, ground)
  let y = top + 14
  const below = boardsBelow(board, plant).filter((one) => !seen.has(one.id))
  // A board that only feeds others, or whose name stands beside it, needs room of its own.
  const first = y
  for (const way of direct) y = wayInto(drawing, way, x, y, inWay.get(way.id) ?? null)
  for (const { rcd, ways } of groups) y = groupInto(drawing, rcd, ways, x, y + 6)
  for (const rcd of isRoot ? idle : [...incoming, ...idle]) y = idleInto(drawing, rcd, x, y)
  if (canWrite) y = boardPlaces(drawing, board, x, y)
  if (isRoot) y = Math.max(y, first + LEAST_HIGH - 20)
  let barFoot = y - 8
  for (const child of below) {
    const childX = Math.min(DEEPEST, x + AT.child)
    const feed = y + 6
    side.wires.push({ d: `M${x} ${feed}H${childX}V${feed + 24}`, style: 'ink', width: 2.4 })
    barFoot = feed
    y = boardInto(drawing, child, childX, feed + 18, false).foot + 10
  }
  const { tag, name } = board.data
  const count = plant.circuitsOf(board).length
  side.pieces.push(
    pieceOf({
      ground,
      parts: [board],
      box: { x: x - 120, y: top - 4, w: 126, h: 44 },
      shapes: [{ is: 'bar', x, top, foot: barFoot, width: 6 }],
      labels: [
        label(
          x - 12,
          top + 14,
          fitted([{ text: name ? `${tag} ${name}` : tag, style: 'name' }], isRoot ? 186 : 118),
          'end',
        ),
        label(x - 12, top + 32, [{ text: say('drawing.circuits', { count }), style: 'detail' }], 'end'),
      ],
      mark: { x: x - 8, y: top },
    }),
  )
  if (isRoot && side.terminal === null) side.terminal = { x, y: barFoot }
  return { top, foot: y, incoming: isRoot ? incoming : [] }
}

/** A device before several ways: a bar of its own behind it. */
function groupInto(
  drawing: Drawing,
  rcd: PartOf<'rcd'>,
  ways: readonly PartOf<'circuit'>[],
  x: number,
  top: number,
): number {
  const { side, ground } = drawing
  const barX = x + 104
  let y = top + 16
  const first = y
  for (const way of ways) y = wayInto(drawing, way, barX, y, null)
  const last = y - PITCH
  side.wires.push({ d: `M${x} ${first}H${barX}`, style: 'ink', width: 2.6 })
  side.pieces.push(
    pieceOf({
      ground,
      parts: [rcd],
      box: { x: x + 8, y: first - 24, w: 90, h: 64 },
      shapes: [
        symbol('rcd', x + 52, first),
        { is: 'bar', x: barX, top: first - 8, foot: Math.max(first + 10, last + 8), width: 4 },
      ],
      labels: [label(x + 52, first + 33, [{ text: `${rcd.data.tag}, ${rcdText(rcd)}`, style: 'detail' }], 'middle')],
      mark: { x: x + 70, y: first - 18 },
    }),
  )
  return y + 4
}

/** A device behind which no way stands yet. */
function idleInto({ side, ground }: Drawing, rcd: PartOf<'rcd'>, x: number, y: number): number {
  side.wires.push({ d: `M${x} ${y + 8}H${x + 27}`, style: 'pencil' })
  side.pieces.push(
    pieceOf({
      ground,
      parts: [rcd],
      box: { x: x + 20, y: y - 14, w: 190, h: 44 },
      shapes: [symbol('rcd', x + 44, y + 8)],
      labels: [
        label(x + 70, y + 13, [
          { text: rcd.data.tag, style: 'name' },
          { text: rcdText(rcd), style: 'detail' },
        ]),
      ],
    }),
  )
  return y + 48
}

function wayRuns({ data }: PartOf<'circuit'>, rcd: PartOf<'rcd'> | null): Run[] {
  const device = data.device ? `${data.device}${data.rating_A ?? ''}` : ''
  const areas =
    data.line_mm2 === null ? '' : `${data.line_mm2}${data.protective_mm2 === null ? '' : `/${data.protective_mm2}`} mm²`
  const length =
    data.length_m === null ? '' : `${data.layout === 'ring' ? `${optionText('ring')} ` : ''}${data.length_m} m`
  const detail = [device, rcd ? rcdText(rcd) : '', areas, length].filter(Boolean).join(', ')
  return [
    { text: data.feeds || say('plant.circuit-unnamed'), style: 'name' },
    ...(detail ? [{ text: detail, style: 'detail' as const }] : []),
  ]
}

/** One way: its number, its device, its cable; at its end what it feeds. */
function wayInto(drawing: Drawing, way: PartOf<'circuit'>, x: number, y: number, rcd: PartOf<'rcd'> | null): number {
  const { side, ground } = drawing
  const { plant } = ground
  const points = pointsOn(way, plant)
  const inverters = plant.ofKind('inverter').filter((one) => plant.circuitOfInverter(one)?.id === way.id)
  const isDraft = ground.drafts.has(way.id)
  const end = points.length > 0 ? AT.end - 34 : inverters.length > 0 ? AT.end - 90 : AT.end
  const missing = missingRuns(way)
  const style = isDraft ? 'may' : missing.length > 0 ? 'pencil' : 'ink'
  side.wires.push({ d: `M${x} ${y}H${end}`, style, width: 2.4 })
  const isPhased = way.data.phases === 3
  const room = end - (x + 76) - 4
  side.pieces.push(
    pieceOf({
      ground,
      parts: [way],
      box: { x: x + 5, y: y - 27, w: end - x - 8, h: 36 },
      shapes: [
        symbol(rcd ? 'breaker-with-rcd' : 'breaker', x + 42, y),
        ...(isPhased ? [{ is: 'line' as const, d: phases(x + 66, y), width: 1.6 }] : []),
        ...(points.length + inverters.length === 0
          ? [{ is: 'line' as const, d: `M${end} ${y - 6}v12`, width: 2.4 }]
          : []),
      ],
      labels: [
        label(x + 12, y - 7, [{ text: way.data.tag, style: 'number' }]),
        label(x + 76, y - 8, fitted([...wayRuns(way, rcd), ...missing], room)),
      ],
      mark: { x: end - 10, y: y - 12 },
    }),
  )
  if (rcd) rcdOfWay(drawing, rcd, x, y)
  for (const one of inverters) toInverter(drawing, one, end, y)
  for (const [k, point] of points.entries()) pointInto(drawing, point, end, y + k * POINT_PITCH)
  return y + PITCH + Math.max(0, points.length - 1) * POINT_PITCH + (points.length > 0 ? 12 : 0)
}

const phases = (x: number, y: number): string => `M${x - 7} ${y + 5}l6-10M${x - 2} ${y + 5}l6-10M${x + 3} ${y + 5}l6-10`

/** A device in one with the breaker of a way is a part of its own: it is found on the ring of the symbol. */
function rcdOfWay({ side, ground }: Drawing, rcd: PartOf<'rcd'>, x: number, y: number): void {
  side.pieces.push(
    pieceOf({
      ground,
      parts: [rcd],
      box: { x: x + 54, y: y - 12, w: 24, h: 24 },
      shapes: [],
      mark: { x: x + 70, y: y - 14 },
    }),
  )
}

const MOST_RISERS = 3

/** From an inverter down to its way; where there are many, by name. */
function toInverter(drawing: Drawing, inverter: PartOf<'inverter'>, end: number, y: number): void {
  const { side, outs } = drawing
  const out = outs.get(inverter.id)
  const k = drawing.risers++
  if (out && k < MOST_RISERS) {
    const x = AT.end - 22 + k * 14
    side.wires.push({ d: `M${out.x} ${out.y}H${x}V${y}H${end}`, style: 'ink', width: 3 })
    return
  }
  side.wires.push({ d: `M${end} ${y}h10`, style: 'ink', width: 2.4 })
  side.pieces.push(endLabel(drawing.ground, inverter, end, y))
}

/** At the end of a way stands the inverter that feeds in there, by its tag. */
const endLabel = (ground: Ground, inverter: PartOf<'inverter'>, end: number, y: number) => ({
  ...pieceOf({
    ground,
    parts: [inverter],
    box: { x: end + 10, y: y - 14, w: 80, h: 28 },
    shapes: [],
    labels: [label(end + 14, y + 5, [{ text: inverter.data.tag, style: 'name' }])],
  }),
  key: `end ${inverter.id}`,
})

function pointInto({ side, ground }: Drawing, point: PartOf<'charge-point'>, end: number, y: number): void {
  const { model, tag, place } = point.data
  const about: Run[] = model
    ? [
        {
          text: say('drawing.point', { rated: model.data.rated_A, outlet: optionText(model.data.outlet) }),
          style: 'detail',
        },
      ]
    : missingRuns(point)
  side.pieces.push(
    pieceOf({
      ground,
      parts: [point],
      box: { x: end - 150, y: y + 4, w: 184, h: 26 },
      shapes: [symbol('charge-point', end + 13, y)],
      labels: [
        label(
          end - 6,
          y + 20,
          fitted([{ text: place ? `${tag} ${place}` : tag, style: 'detail' }, ...about], 240),
          'end',
        ),
      ],
      mark: { x: end + 30, y: y - 16 },
    }),
  )
}

function boardPlaces({ side }: Drawing, board: PartOf<'board'>, x: number, y: number): number {
  let at = x + 22
  side.wires.push({ d: `M${x + 3} ${y}H${at}`, style: 'may' })
  const hasRoom = x < AT.bar + AT.child + 1
  const named = hasRoom
    ? ([
        ['circuit', 88],
        ['charge-point', 130],
      ] as const)
    : ([['circuit', 88]] as const)
  for (const [kind, w] of named) {
    side.places.push({
      key: `${kind} on ${board.id}`,
      at: board.id,
      kinds: [kind],
      box: { x: at, y: y - 13, w, h: PLACE_HIGH },
      isRing: false,
    })
    at += w + 8
  }
  const box = { x: at, y: y - 20, w: 44, h: 44 }
  side.places.push({
    key: `more on ${board.id}`,
    at: board.id,
    kinds: hasRoom ? ['rcd', 'board'] : ['charge-point', 'rcd', 'board'],
    box,
    isRing: true,
  })
  return y + 30
}

/** What is entered and hangs on no board or circuit yet. */
function looseInto(drawing: Drawing, top: number): number {
  const { ground, side } = drawing
  const { plant } = ground
  let y = top
  for (const way of plant.circuitsOfNoBoard) y = wayInto(drawing, way, AT.bar, y + 14, null) - 14
  const loose: Part[] = [
    ...plant.ofKind('rcd').filter((one) => plant.boardOf(one) === null),
    ...plant.ofKind('charge-point').filter((one) => plant.circuitOfPoint(one) === null),
  ]
  loose.forEach((one, k) => {
    const x = AT.left + 24 + (k % 3) * 210
    if (k % 3 === 0) y += k === 0 ? 30 : 56
    side.pieces.push(
      pieceOf({
        ground,
        parts: [one],
        box: { x: x - 24, y: y - 24, w: 200, h: 48 },
        shapes: [symbol(one.data.kind === 'rcd' ? 'rcd' : 'charge-point', x, y)],
        labels: [label(x + 30, y + 5, fitted([{ text: one.data.tag, style: 'name' }, ...missingRuns(one)], 140))],
      }),
    )
  })
  return y + (loose.length > 0 ? 40 : 0)
}

/** A side that has nothing yet begins with a supply or a board. */
function placesInto({ side, ground }: Drawing, y: number): number {
  const { plant, canWrite } = ground
  if (!canWrite) return y
  const wanted = [
    ...(plant.ofKind('supply').length === 0 ? ([['supply', 92]] as const) : []),
    ...(plant.ofKind('board').length === 0 ? ([['board', 84]] as const) : []),
  ]
  if (wanted.length === 0) return y
  let x = AT.left
  for (const [kind, w] of wanted) {
    side.places.push({
      key: `new ${kind}`,
      at: null,
      kinds: [kind],
      box: { x, y: y + 4, w, h: PLACE_HIGH },
      isRing: false,
    })
    x += w + 10
  }
  return y + PLACE_HIGH + 12
}
