/** Earth and the AC side: supply, boards as bars, a lane a way, charge points at their ends, the electrode in the ground. */
import type { Part } from '@/core/plant/part'
import type { PartOf } from '@/core/plant/plantIndex'
import { boardsBelow, rootBoards } from '@/core/plant/tree'
import { figure, say } from '@/words/say'
import {
  AT,
  DEEPEST,
  type Drawing,
  type EarthSide,
  LEAST_HIGH,
  type Outs,
  PITCH,
  PLACE_HIGH,
  rcdText,
} from './earthFrame'
import { emptySheet, fitted, type Ground, label, missingRuns, pieceOf, symbol } from './pieces'
import { wayInto } from './ways'

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
