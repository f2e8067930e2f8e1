/** What the drawing of a plant is made of: pieces that are parts, wires between them, and places where a part may come. */
import type { AddedKind } from '@/core/plant/additions'
import { missingOf } from '@/core/plant/missing'
import type { Part, PartKind } from '@/core/plant/part'
import type { PlantIndex } from '@/core/plant/plantIndex'
import { type Verdict, worst } from '@/core/verdict/verdict'
import { partName } from '@/words/say'
import { labelOf } from '../partForm'

export type Box = { x: number; y: number; w: number; h: number }
export type Run = { text: string; style: 'name' | 'detail' | 'number' | 'big' | 'missing' }
export type Label = { x: number; y: number; anchor: 'start' | 'middle' | 'end'; runs: readonly Run[] }
export type SymbolName =
  | 'sun'
  | 'array'
  | 'surge-protection'
  | 'switch'
  | 'supply'
  | 'rcd'
  | 'breaker'
  | 'breaker-with-rcd'
  | 'charge-point'
  | 'inverter'
  | 'board'
  | 'electrode'
export type Shape =
  | { is: 'symbol'; name: SymbolName; x: number; y: number; scale?: number }
  | { is: 'chain'; x: number; y: number; modules: number; sheets: number }
  | { is: 'inverter'; box: Box; inputs: readonly { y: number; text: string }[]; sheets: number }
  | { is: 'combiner'; x: number; top: number; foot: number }
  | { is: 'bar'; x: number; top: number; foot: number; width: number }
  | { is: 'rod'; x: number; y: number }
  | { is: 'line'; d: string; width: number }

/** One part, or several alike that are drawn as one. */
export type Piece = {
  key: string
  ids: readonly string[]
  kind: PartKind
  name: string
  box: Box
  shapes: readonly Shape[]
  labels: readonly Label[]
  /** A figure is missing. */
  isPencil: boolean
  /** Stands in the drawing and is not kept yet. */
  isDraft: boolean
  trouble: { verdict: Verdict; x: number; y: number } | null
  /** A fold that opens in place. */
  fold: string | null
}
export type WireStyle = 'ink' | 'pair' | 'bond' | 'light' | 'gang' | 'pencil' | 'may'
export type Wire = { d: string; style: WireStyle; width?: number }
/** Where a part may come: an outline with its name, or a ring on a wire that opens the list of what fits there. */
export type Place = {
  key: string
  at: string | null
  kinds: readonly AddedKind[]
  box: Box
  isRing: boolean
  /** How what may come looks, where there is room. */
  sign?: Shape
}
export type Sheet = { pieces: Piece[]; wires: Wire[]; places: Place[] }

/** What a side is drawn from. */
export type Ground = {
  plant: PlantIndex
  /** Folds that somebody opened. */
  opened: ReadonlySet<string>
  troubles: ReadonlyMap<string, Verdict>
  drafts: ReadonlySet<string>
  selected: string | null
  canWrite: boolean
}

export const emptySheet = (): Sheet => ({ pieces: [], wires: [], places: [] })
export const addTo = (sheet: Sheet, other: Sheet): void => {
  sheet.pieces.push(...other.pieces)
  sheet.wires.push(...other.wires)
  sheet.places.push(...other.places)
}

const wide: Record<Run['style'], number> = { name: 8, detail: 6.7, number: 8.2, big: 10.5, missing: 6.7 }
/** About how wide a text is: the layout runs without a page. */
export const widthOf = (runs: readonly Run[]): number =>
  runs.reduce((sum, { text, style }, k) => sum + text.length * wide[style] + (k > 0 ? 8 : 0), 0)

/** The runs as far as there is room; what is cut ends in an ellipsis. */
export function fitted(runs: readonly Run[], room: number): Run[] {
  const kept: Run[] = []
  let left = room
  for (const run of runs) {
    const own = widthOf([run])
    if (own <= left) {
      kept.push(run)
      left -= own + 8
      continue
    }
    const text = shortened(run, Math.floor(left / wide[run.style]))
    if (text) kept.push({ ...run, text })
    break
  }
  return kept
}

/** What a part lacks, by name: "length ?". */
export function missingRuns(part: Part): Run[] {
  const [first] = missingOf(part.data)
  return first ? [{ text: `${labelOf(first).split(',')[0]!.toLowerCase()} ?`, style: 'missing' }] : []
}

/** A name ends in an ellipsis; of figures those that have no room are left away whole. */
function shortened({ text, style }: Run, places: number): string {
  if (style !== 'detail') return places > 4 ? `${text.slice(0, places - 1).trimEnd()}…` : ''
  const comma = text.slice(0, places + 1).lastIndexOf(', ')
  return comma > 0 ? text.slice(0, comma) : ''
}

type Make = {
  ground: Ground
  parts: readonly Part[]
  box: Box
  shapes: readonly Shape[]
  labels?: readonly Label[]
  mark?: { x: number; y: number }
  fold?: string | null
  name?: string
}

/** A piece of one part, or of several alike. */
export function pieceOf({ ground, parts, box, shapes, labels = [], mark, fold = null, name }: Make): Piece {
  const [first] = parts as [Part]
  // Of several alike the worst is told: a fold hides nothing.
  const troubles = parts.flatMap((one) => ground.troubles.get(one.id) ?? [])
  const verdict = troubles.length > 0 ? worst(troubles) : null
  return {
    key: fold ?? first.id,
    ids: parts.map((one) => one.id),
    kind: first.data.kind,
    name: name ?? partName(first),
    box,
    shapes,
    labels,
    isPencil: parts.some((one) => missingOf(one.data).length > 0),
    isDraft: parts.every((one) => ground.drafts.has(one.id)),
    trouble: verdict ? { verdict, ...(mark ?? { x: box.x + box.w - 12, y: box.y + 12 }) } : null,
    fold,
  }
}

export const symbol = (name: SymbolName, x: number, y: number, scale = 1): Shape => ({
  is: 'symbol',
  name,
  x,
  y,
  scale,
})
export const label = (x: number, y: number, runs: readonly Run[], anchor: Label['anchor'] = 'start'): Label => ({
  x,
  y,
  anchor,
  runs,
})
