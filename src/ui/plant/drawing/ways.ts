/** A way of a board: its number, its device, its cable, and at its end what it feeds. */
import type { PartOf } from '@/core/plant/plantIndex'
import { pointsOn } from '@/core/plant/tree'
import { conductorWords, deviceWords } from '@/words/circuit'
import { say } from '@/words/say'
import { optionText } from '../optionText'
import { AT, type Drawing, PITCH, POINT_PITCH, rcdText } from './earthFrame'
import { fitted, type Ground, label, missingRuns, pieceOf, type Run, symbol } from './pieces'

function wayRuns({ data }: PartOf<'circuit'>, rcd: PartOf<'rcd'> | null): Run[] {
  const length =
    data.length_m === null ? '' : `${data.layout === 'ring' ? `${optionText('ring')} ` : ''}${data.length_m} m`
  const detail = [deviceWords(data), rcd ? rcdText(rcd) : '', conductorWords(data), length].filter(Boolean).join(', ')
  return [
    { text: data.feeds || say('plant.circuit-unnamed'), style: 'name' },
    ...(detail ? [{ text: detail, style: 'detail' as const }] : []),
  ]
}

/** One way: its number, its device, its cable; at its end what it feeds. */
export function wayInto(
  drawing: Drawing,
  way: PartOf<'circuit'>,
  x: number,
  y: number,
  rcd: PartOf<'rcd'> | null,
): number {
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
