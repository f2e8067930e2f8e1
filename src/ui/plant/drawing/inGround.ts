/** What lies in the ground: electrodes, and pipes and cables near them. */
import type { Part } from '@/core/plant/part'
import type { PartOf } from '@/core/plant/plantIndex'
import { figure, say } from '@/words/say'
import { optionText } from '../optionText'
import { emptySheet, fitted, type Ground, label, missingRuns, pieceOf, type Sheet } from './pieces'

const PLACE_HIGH = 30
const GROUND_COLUMN = 160
const COLUMNS = 4

/** Electrodes and what runs near them, in the ground. */
export function inGround(
  ground: Ground,
  terminal: { x: number; y: number },
  surface: number,
): Sheet & { foot: number } {
  const sheet = { ...emptySheet(), foot: surface + 32 }
  const { plant } = ground
  const electrodes = plant.ofKind('electrode')
  const all: Part[] = [...electrodes, ...plant.ofKind('buried-service')]
  const rowOf = (k: number): number => Math.floor(k / COLUMNS)
  all.forEach((one, k) => {
    const x = 48 + (k % COLUMNS) * GROUND_COLUMN
    const y = surface + rowOf(k) * 44
    sheet.pieces.push(inGroundOne(ground, one, x, y))
    sheet.foot = y + 40
    if (one.data.kind === 'electrode' && rowOf(k) === 0)
      sheet.wires.push({ d: `M${terminal.x} ${surface - 10}H${x}V${surface - 6}`, style: 'bond' })
  })
  if (!ground.canWrite) return sheet
  const at = electrodes.at(-1)?.id ?? null
  // Two places want the room of two.
  const k = all.length % COLUMNS === COLUMNS - 1 ? all.length + 1 : all.length
  let x = 30 + (k % COLUMNS) * GROUND_COLUMN
  const y = surface + rowOf(k) * 44 + 8
  for (const [kind, w] of [['electrode', 100], ...(at ? [['buried-service', 126] as const] : [])] as const) {
    sheet.places.push({
      key: `new ${kind}`,
      at: kind === 'buried-service' ? at : null,
      kinds: [kind],
      box: { x, y, w, h: PLACE_HIGH },
      isRing: false,
    })
    x += w + 8
  }
  sheet.foot = Math.max(sheet.foot, y + PLACE_HIGH + 10)
  return sheet
}

function inGroundOne(ground: Ground, part: Part, x: number, y: number) {
  const isElectrode = part.data.kind === 'electrode'
  const about =
    part.data.kind === 'electrode'
      ? electrodeText(part.data)
      : part.data.kind === 'buried-service'
        ? optionText(part.data.what)
        : ''
  const rods = part.data.kind === 'electrode' ? Math.min(part.data.rods ?? 1, 3) : 0
  const shapes = isElectrode
    ? Array.from({ length: rods }, (_, k) => ({ is: 'rod' as const, x: x + k * 12, y: y - 6 }))
    : [{ is: 'line' as const, d: `M${x - 14} ${y + 14}h30M${x - 14} ${y + 20}h30`, width: 2 }]
  return pieceOf({
    ground,
    parts: [part],
    box: { x: x - 18, y: y - 8, w: GROUND_COLUMN - 8, h: 44 },
    shapes,
    labels: [
      label(
        x + Math.max(1, rods) * 12 + 6,
        y + 26,
        fitted(
          [{ text: part.data.tag, style: 'name' }, { text: about, style: 'detail' }, ...missingRuns(part)],
          GROUND_COLUMN - 44,
        ),
      ),
    ],
  })
}

function electrodeText({ rods, length_m, form }: PartOf<'electrode'>['data']): string {
  if (rods === null) return ''
  const what = form === undefined || form === 'rods' ? say('drawing.rods', { rods }) : `${rods} ${optionText(form)}`
  return length_m === null ? what : say('drawing.each', { what, length: figure(length_m, 1) })
}
