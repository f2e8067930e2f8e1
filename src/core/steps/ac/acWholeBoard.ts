/** Insulation of a whole board at once, and how the low circuit on it is found. Source: common practice. */
import { lowestOf, pairVerdict, type Resistance, restOfBoard_Mohm } from '../../circuit/insulation'
import type { PartOf } from '../../plant/plantIndex'
import type { ReadValue } from '../../quantity/readValue'
import { type Cause, causeOf } from '../../verdict/cause'
import type { WorkingLine } from '../../verdict/working'
import { choiceIn, numberIn } from '../reading'
import type { Reading, StepContext } from '../step'

export const WHOLE_BOARD = 'whole-board'
export const BOARD_SLOT = 'board-to-pe'
const STEP = 'ac-insulation'

type Context = StepContext<'circuit'>

export const isWholeBoard = (reading: Pick<Reading, 'slots'>): boolean => choiceIn(reading, 'pairing') === WHOLE_BOARD

/** The other circuits on the board of a circuit. */
export function othersOnBoard({ part, plant }: Context): PartOf<'circuit'>[] {
  const board = plant.boardOf(part)
  return (board ? plant.circuitsOf(board) : []).filter((one) => one.id !== part.id)
}

type Search = {
  board: ReadValue
  /** Read alone since, with the lowest of each. */
  alone: { tag: string; read: Resistance }[]
  /** Tags of those that were not. */
  left: string[]
}

/** How far the search has come: which circuits of the board were read alone. */
function searchOf(context: Context): Search | null {
  const { reading } = context
  const board = numberIn(reading, BOARD_SLOT)
  if (!board || !isWholeBoard(reading)) return null
  const alone: Search['alone'] = []
  const left: string[] = []
  for (const one of [context.part as PartOf<'circuit'>, ...othersOnBoard(context)]) {
    const body = context.counted(STEP, one.id)
    const own = body && !isWholeBoard(body) ? lowestRead(body) : null
    if (own) alone.push({ tag: one.data.tag, read: own })
    else left.push(one.data.tag)
  }
  return { board, alone, left: left.sort((a, b) => a.localeCompare(b, 'en', { numeric: true })) }
}

const lowestRead = (body: Pick<Reading, 'slots'>): Resistance | null =>
  lowestOf(
    Object.values(body.slots).flatMap((value) => ('value' in value && value.unit === 'Mohm' ? [value] : [])),
    0,
  )

export function wholeBoardWorking(context: Context): WorkingLine[] {
  const search = searchOf(context)
  if (!search || search.left.length === 0 || search.alone.length === 0) return []
  const rest = restOfBoard_Mohm(
    search.board.value,
    search.alone.map((one) => one.read),
  )
  const figures = { count: search.left.length, tags: search.left.join(', '), board: search.board.text }
  return [
    rest === null
      ? { code: 'ac-insulation.rest-clear', figures, result: null, source: 'insulation-practice' }
      : {
          code: 'ac-insulation.rest',
          figures,
          result: { value: rest, unit: 'Mohm', decimals: 2 },
          source: 'insulation-practice',
        },
  ]
}

/** Where the low one is: named once it was read alone, else the half of the board to switch off next. */
export function wholeBoardCauses(context: Context, least_Mohm: number): Cause[] {
  const search = searchOf(context)
  if (!search) return []
  const low = search.alone.filter(({ read }) => pairVerdict(read, least_Mohm) === 'outside')
  const found = low.map(({ tag }) => causeOf('low-circuit', 'fits', 'mend-then-board', { tag }))
  const [one, other] = search.left
  if (!one) return found
  if (!other) return [...found, causeOf('low-circuit', 'may-fit', 'read-it-alone', { tag: one })]
  const half = search.left.slice(0, Math.ceil(search.left.length / 2))
  return [
    ...found,
    causeOf('low-among', 'may-fit', 'switch-off-half', { tags: search.left.join(', '), half: half.join(', ') }),
  ]
}
