/** Insulation of a whole board at once, and how the low circuit on it is found. Source: common practice. */
import { restOfBoard_Mohm } from '../circuit/insulation'
import { lowest, type Resistance } from '../pv/insulation'
import type { PartOf } from '../plant/plantIndex'
import type { ReadValue } from '../quantity/readValue'
import type { Body } from '../record/entry'
import type { WorkingLine } from '../verdict/working'
import type { Cause, StepContext } from './step'
import { choiceIn, numberIn } from './stringReading'

export const WHOLE_BOARD = 'whole-board'
export const BOARD_SLOT = 'board-to-pe'
const STEP = 'ac-insulation'

type Context = StepContext<'circuit'>
type Reading = Pick<Body<'reading'>, 'slots'>

export const isWholeBoard = (reading: Reading): boolean => choiceIn(reading, 'pairing') === WHOLE_BOARD

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
function searchOf(context: Context, reading: Reading): Search | null {
  const board = numberIn(reading, BOARD_SLOT)
  if (!board || !isWholeBoard(reading)) return null
  const alone: Search['alone'] = []
  const left: string[] = []
  for (const one of [context.part as PartOf<'circuit'>, ...othersOnBoard(context)]) {
    const body = context.counted(STEP, one.id)
    const own = body && !isWholeBoard(body) ? lowestOf(body) : null
    if (own) alone.push({ tag: one.data.tag, read: own })
    else left.push(one.data.tag)
  }
  return { board, alone, left: left.sort((a, b) => a.localeCompare(b, 'en', { numeric: true })) }
}

const lowestOf = (body: Reading): Resistance | null =>
  lowest(Object.values(body.slots).flatMap((value) => ('value' in value && value.unit === 'Mohm' ? [value] : [])))

export function wholeBoardWorking(context: Context, reading: Reading): WorkingLine[] {
  const search = searchOf(context, reading)
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
export function wholeBoardCauses(context: Context, reading: Reading, least_Mohm: number): Cause[] {
  const search = searchOf(context, reading)
  if (!search) return []
  const low = search.alone.filter(({ read }) => read.bound !== 'more-than' && read.value < least_Mohm)
  const cause = (code: string, fit: Cause['fit'], next: string, figures: Record<string, string>): Cause => ({
    code,
    figures,
    fit,
    predicted: null,
    next: { code: next, figures },
  })
  const found = low.map(({ tag }) => cause('low-circuit', 'fits', 'mend-then-board', { tag }))
  const [one, other] = search.left
  if (!one) return found
  if (!other) return [...found, cause('low-circuit', 'may-fit', 'read-it-alone', { tag: one })]
  const half = search.left.slice(0, Math.ceil(search.left.length / 2))
  return [
    ...found,
    cause('low-among', 'may-fit', 'switch-off-half', { tags: search.left.join(', '), half: half.join(', ') }),
  ]
}
