/** Boards as a tree: what feeds what, and how far the tests of each have come. */
import type { Part } from '../plant/part'
import type { PartOf, PlantIndex } from '../plant/plantIndex'
import { isRead } from '../steps/step'
import { type Verdict, worst } from '../verdict/verdict'
import type { Evaluation, StepEvaluation } from './types'

export type BoardState = {
  part: PartOf<'board'>
  /** How many boards lie between it and the origin. */
  depth: number
  parentId: string | null
  /** The worst of its own tests and of its circuits' and devices'; null where nothing is asked. */
  verdict: Verdict | null
  /** What to open next: the first that is not done, else the first. */
  next: StepEvaluation | null
}

/** The board on which a part stands, null where it stands on none. */
export function boardIdOf(part: Part, plant: PlantIndex): string | null {
  if (part.data.kind === 'board') return part.id
  if (part.data.kind === 'charge-point') {
    const circuit = plant.circuitOfPoint(part as PartOf<'charge-point'>)
    return circuit && boardIdOf(circuit, plant)
  }
  const isOn = part.data.kind === 'circuit' || part.data.kind === 'rcd'
  return isOn ? (plant.boardOf(part as PartOf<'circuit'>)?.id ?? null) : null
}

/** All boards from the origin outwards, those of one depth by tag. A ring of boards, entered by mistake, ends where it began. */
export function boardsOf({ plant, steps }: Evaluation): BoardState[] {
  const boards = plant.ofKind('board')
  const byId = new Map(boards.map((board) => [board.id, board]))
  const own = new Map<string, StepEvaluation[]>()
  for (const one of steps) {
    const id = boardIdOf(one.part, plant)
    if (!id) continue
    const known = own.get(id)
    if (known) known.push(one)
    else own.set(id, [one])
  }
  const depthOf = (board: PartOf<'board'>): number => {
    const seen = new Set<string>()
    let depth = 0
    for (let one = board; one.data.boardId && byId.has(one.data.boardId) && !seen.has(one.id); depth++) {
      seen.add(one.id)
      one = byId.get(one.data.boardId)!
    }
    return depth
  }
  return boards
    .map((part): BoardState => {
      const mine = own.get(part.id) ?? []
      const parentId = part.data.boardId && byId.has(part.data.boardId) ? part.data.boardId : null
      return {
        part,
        depth: depthOf(part),
        parentId,
        verdict: mine.length === 0 ? null : worst(mine.map((one) => one.verdict)),
        next: mine.find((one) => !one.done && isRead(one.step)) ?? mine[0] ?? null,
      }
    })
    .sort((a, b) => a.depth - b.depth)
}
