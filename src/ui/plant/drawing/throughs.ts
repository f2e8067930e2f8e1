/** What several lanes go through on their way: combiners, switches, surge protection, inverters. */
import type { Part } from '@/core/plant/part'
import type { PartOf } from '@/core/plant/plantIndex'
import { say } from '@/words/say'
import { type Box, fitted, type Ground, label, missingRuns, pieceOf, type Run, symbol } from './pieces'
import { AT, INVERTER_LEAST, INVERTER_WIDE, type Placed, rangeOf, type SunSide } from './sunFrame'

export type Through<T> = { parts: readonly T[]; lanes: readonly Placed[] }
/** Neighbouring lanes that go through the same parts. */
export function runsOf<T extends Part>(
  lanes: readonly Placed[],
  through: (lane: Placed) => readonly (T | null)[],
): Through<T>[] {
  const runs: { key: string; parts: readonly T[]; lanes: Placed[] }[] = []
  for (const lane of lanes) {
    const parts = through(lane).filter((one) => one !== null)
    const key = parts.map((one) => one.id).join()
    const last = runs.at(-1)
    if (last && last.key === key && key !== '') last.lanes.push(lane)
    else runs.push({ key, parts, lanes: [lane] })
  }
  return runs.filter((run) => run.parts.length > 0)
}

/** Inverters that a lane goes to, each once. */
export function invertersOf({ plant }: Ground, lane: Placed): PartOf<'inverter'>[] {
  const found = new Map<string, PartOf<'inverter'>>()
  for (const one of lane.strings) {
    const inverter = plant.inverterOf(one)
    if (inverter) found.set(inverter.id, inverter)
  }
  return [...found.values()]
}

const middleOf = (lanes: readonly Placed[]): number => (lanes[0]!.y + lanes.at(-1)!.y) / 2

export function combinerInto(side: SunSide, ground: Ground, { parts, lanes }: Through<PartOf<'combiner'>>): void {
  const [combiner] = parts as [PartOf<'combiner'>]
  const [top, foot] = [lanes[0]!.y - 18, lanes.at(-1)!.y + 18]
  const isMore = lanes.some((one) => one.isMore)
  side.pieces.push(
    pieceOf({
      ground,
      parts: [combiner],
      box: { x: AT.combiner - 20, y: top - 2, w: 40, h: foot - top + 20 },
      shapes: [{ is: 'combiner', x: AT.combiner, top, foot }],
      labels: isMore ? [] : [label(AT.combiner, foot + 14, [{ text: combiner.data.tag, style: 'detail' }], 'middle')],
    }),
  )
}

export function switchInto(side: SunSide, ground: Ground, { parts, lanes }: Through<PartOf<'dc-switch'>>): void {
  const [own] = parts as [PartOf<'dc-switch'>]
  const [top, foot] = [lanes[0]!.y, lanes.at(-1)!.y]
  const { rating_A } = own.data
  const text =
    rating_A === null
      ? [{ text: own.data.tag, style: 'detail' as const }, ...missingRuns(own)]
      : [{ text: `${own.data.tag}, ${rating_A} A`, style: 'detail' as const }]
  if (lanes.length > 1) side.wires.push({ d: `M${AT.sw} ${top - 7}V${foot - 9}`, style: 'gang' })
  side.pieces.push(
    pieceOf({
      ground,
      parts: [own],
      box: { x: AT.sw - 26, y: top - 22, w: 54, h: foot - top + 46 },
      shapes: lanes.map(({ y }) => symbol('switch', AT.sw, y)),
      labels: [label(AT.sw + 28, foot + 20, fitted(text, 200), 'end')],
      mark: { x: AT.sw - 34, y: foot + 15 },
    }),
  )
}

/** Surge protection hangs on the wire before the inverter; nothing says on which, so on the last. */
export function surgesInto(side: SunSide, ground: Ground, lanes: readonly Placed[]): void {
  const last = lanes.at(-1)
  if (!last) return
  const own = ground.plant.ofKind('surge-protection')
  own.slice(0, MOST_SURGES).forEach((surge, k) => {
    const x = AT.surge + 76 - k * 4
    const y = (lanes[lanes.length - 1 - k] ?? last).y + 22
    side.wires.push({ d: `M${x} ${y - 18}V${y - 10}`, style: 'ink', width: 2 })
    side.pieces.push(
      pieceOf({
        ground,
        parts: [surge],
        box: { x: x - 12, y: y - 12, w: 30 + surge.data.tag.length * 7, h: 24 },
        shapes: [symbol('surge-protection', x, y, 0.8)],
        labels: [label(x + 12, y + 8, [{ text: surge.data.tag, style: 'detail' }])],
      }),
    )
  })
}
const MOST_SURGES = 3

export function inverterInto(side: SunSide, ground: Ground, { parts, lanes }: Through<PartOf<'inverter'>>): void {
  const middle = middleOf(lanes)
  const high = Math.max(INVERTER_LEAST, lanes.at(-1)!.y - lanes[0]!.y + 40)
  const box = { x: AT.inverter, y: middle - high / 2, w: INVERTER_WIDE, h: high }
  const inputs = lanes.filter((lane) => !lane.isMore).map((lane) => ({ y: lane.y, text: inputOf(lane) }))
  inverterBox(side, ground, parts, box, inputs)
}

/** The input that all of a lane go to; none where they differ. */
export function inputOf({ strings }: Placed): string {
  const [first, ...others] = strings.map((one) => one.data.input ?? '')
  return others.every((one) => one === first) ? (first ?? '') : ''
}

export function inverterBox(
  side: SunSide,
  ground: Ground,
  parts: readonly PartOf<'inverter'>[],
  box: Box,
  inputs: readonly { y: number; text: string }[],
): void {
  const [first] = parts as [PartOf<'inverter'>]
  const many = parts.length > 1
  const about: Run[] = many
    ? [{ text: say('drawing.count-alike', { count: parts.length }), style: 'detail' }]
    : missingRuns(first)
  side.pieces.push(
    pieceOf({
      ground,
      parts,
      box,
      shapes: [{ is: 'inverter', box, inputs, sheets: many ? 2 : 0 }],
      labels: [label(box.x, box.y - 7, [{ text: first.data.tag, style: 'name' }, ...fitted(about, 90)])],
      mark: { x: box.x + box.w - 4, y: box.y + 4 },
      ...(many
        ? { fold: `inverters ${first.id}`, name: say('drawing.alike', { range: rangeOf(parts), count: parts.length }) }
        : {}),
    }),
  )
  for (const one of parts) if (!side.outs.has(one.id)) side.outs.set(one.id, { x: box.x + box.w, y: box.y + box.h / 2 })
}
