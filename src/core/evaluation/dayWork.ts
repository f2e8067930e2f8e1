/** What is left of the sheet, cut into pieces that one person does in one go: what each waits for, and for which light. */
import type { Part } from '../plant/part'
import type { PlantIndex } from '../plant/plantIndex'
import { type AnyStep, isRead, wantsConditions } from '../steps/step'
import { subjectsOf } from './subjects'
import type { StepEvaluation } from './types'
import { LEAD_CHANGE_min, type Walk, wiring } from './walk'

/** One test on one part, with the time for bringing the leads there. */
export type Unit = { one: StepEvaluation; minutes: number; isLeadChange: boolean }

/** Pieces that have something in common, by their place in the sheet, in its order. */
export type Line = readonly number[]

export type Piece = {
  id: string
  /** Its place in the sheet. */
  index: number
  /** The test that it is, or null where it is all that one part asks for. */
  step: AnyStep | null
  part: Part | null
  units: Unit[]
  /** The plane whose light it wants, and whose light meter; null where any light will do. */
  arrayId: string | null
  /** Of these all that stand before it in the sheet must be over first. */
  waitsFor: readonly Line[]
  /** Nothing on site can open it: what it waits for is not in the plant. */
  isShut: boolean
}

/** Whether a test has to do with light in a plane: it is read under it, or sets the meter up there. */
const wantsLight = ({ step, part }: StepEvaluation): boolean =>
  wantsConditions(step, part) || (isRead(step) && step.placesMeter === true)

/** What is left to do, in the order of the sheet: what wants light is kept apart for each plane. */
export function piecesOf(walk: Walk, plant: PlantIndex): Piece[] {
  const pieces = walk.groups.flatMap(({ id, step, part, steps }) => {
    const left = steps.filter((one) => !one.done && isRead(one.step))
    const byPlane = new Map<string | null, StepEvaluation[]>()
    for (const one of left) {
      const plane = wantsLight(one) ? (plant.arrayOf(one.part)?.id ?? null) : null
      byPlane.set(plane, [...(byPlane.get(plane) ?? []), one])
    }
    return [...byPlane].map(([arrayId, own]) => ({
      id: arrayId ? `${id} ${arrayId}` : id,
      step,
      part,
      units: unitsOf(own),
      arrayId,
    }))
  })
  return inOrder(pieces, plant)
}

function unitsOf(steps: readonly StepEvaluation[]): Unit[] {
  return steps.map((one, k) => {
    const isLeadChange = k === 0 || wiring(one) !== wiring(steps[k - 1]!)
    return {
      one,
      isLeadChange,
      minutes: (isRead(one.step) ? one.step.minutes : 0) + (isLeadChange ? LEAD_CHANGE_min : 0),
    }
  })
}

type Bare = Omit<Piece, 'index' | 'waitsFor' | 'isShut'>

/** Records are closed when all else is over. */
const LAST_CHAPTER = 'G'

/** Who does a test, and who needs, begins and ends a state of a place: each by its place in the sheet. */
class Lines {
  private readonly known = new Map<string, number[]>()
  add(key: string, index: number): void {
    const line = this.known.get(key)
    if (!line) this.known.set(key, [index])
    else if (line.at(-1) !== index) line.push(index)
  }
  of(key: string): Line | undefined {
    return this.known.get(key)
  }
}

type Does = 'needs' | 'begin' | 'end'
const keyOf = (does: Does | 'tests', what: string, placeId: string): string => `${does} ${what} ${placeId}`

/**
 * The order that nobody may turn: a gate's test comes first; a state is begun when all that ends it is over (plugs are
 * locked after the last test that parts them), and ended when all that needs it is (nothing is switched on before the
 * dead tests).
 */
function inOrder(pieces: readonly Bare[], plant: PlantIndex): Piece[] {
  const lines = new Lines()
  const asked = pieces.map(({ units }, index) => {
    const own = new Set<string>()
    const shut = units.map(({ one }) => wantsOf(one, plant, index, lines, own)).includes(true)
    return { own, isShut: shut }
  })
  const everything = pieces.map((_, index) => index)
  return pieces.map((piece, index) => {
    const { own, isShut } = asked[index]!
    const isLast = piece.units.some(({ one }) => one.step.order.startsWith(LAST_CHAPTER))
    return {
      ...piece,
      index,
      isShut,
      waitsFor: isLast ? [everything] : [...own].flatMap((key) => [lines.of(key) ?? []]),
    }
  })
}

/** Notes what a test does and needs, and of whom it wants to come after; true where it can never be begun. */
function wantsOf(
  { step, part }: StepEvaluation,
  plant: PlantIndex,
  index: number,
  lines: Lines,
  own: Set<string>,
): boolean {
  let isShut = false
  lines.add(keyOf('tests', step.id, part.id), index)
  for (const gate of step.gates) {
    if (gate.only && !gate.only(part, plant)) continue
    const { parts, lacks } = subjectsOf(gate.on ?? 'part', part, plant)
    if (gate.hard && lacks) isShut = true
    for (const { id } of parts) {
      own.add('state' in gate ? keyOf('begin', gate.state, id) : keyOf('tests', gate.waitsFor, id))
      if ('state' in gate) lines.add(keyOf('needs', gate.state, id), index)
    }
  }
  for (const { state, on, does } of isRead(step) ? (step.effects ?? []) : [])
    for (const { id } of subjectsOf(on, part, plant).parts) {
      lines.add(keyOf(does, state, id), index)
      own.add(keyOf(does === 'begin' ? 'end' : 'needs', state, id))
    }
  return isShut
}

export const minutesOf = (units: readonly Unit[]): number => units.reduce((sum, one) => sum + one.minutes, 0)
export const changesOf = (units: readonly Unit[]): number => units.filter((one) => one.isLeadChange).length
