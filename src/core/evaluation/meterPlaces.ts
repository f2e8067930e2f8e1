/**
 * Where a light meter was set up last, visit by visit: one that was carried to another plane since says nothing of this one.
 */
import type { Part } from '../plant/part'
import type { PlantIndex } from '../plant/plantIndex'
import type { Entry } from '../record/entry'
import { correctedTime } from '../record/order'
import type { Instrument } from '../record/instrument'
import { steps } from '../steps'
import { isRead } from '../steps/step'
import type { EntryIndex } from './entryIndex'

type Move = { at: number; visitId: string; meterId: string | null; arrayId: string }

const placing = steps.filter((step) => isRead(step) && step.placesMeter)
const known = new WeakMap<EntryIndex, readonly Move[]>()

/** Every time that a meter was set up in a plane, oldest first; what was voided was not. */
function movesOf(index: EntryIndex, plant: PlantIndex): readonly Move[] {
  const found = known.get(index)
  if (found) return found
  const moves = plant.ofKind('array').flatMap(({ id }) =>
    placing.flatMap((step) =>
      (index.readings.get(step.id, id) ?? []).flatMap((entry): Move[] => {
        if (index.voids.has(entry.id)) return []
        const { visitId, body } = entry
        return [{ at: correctedTime(entry), visitId, meterId: body.instrument?.id ?? null, arrayId: id }]
      }),
    ),
  )
  moves.sort((a, b) => a.at - b.at)
  known.set(index, moves)
  return moves
}

type At = {
  index: EntryIndex
  plant: PlantIndex
  instruments: readonly Instrument[]
  part: Part
  entry: Entry<'reading'>
  at: number
}

/** With one light meter in the kit nobody need name it: there is no other that it could have been. */
const hasOneMeter = (instruments: readonly Instrument[]): boolean =>
  instruments.filter(({ ranges }) => ranges.some(({ measures }) => measures === 'irradiance')).length <= 1

/** Whether the meter that a reading's light came from was set up in another plane since it was in this part's. */
export function isMeterElsewhere({ index, plant, instruments, part, entry, at }: At): boolean {
  const light = entry.body.conditions?.irradiance
  const array = plant.arrayOf(part)
  if (!light || !array || plant.ofKind('array').length < 2) return false
  const meterId = light.instrument?.id ?? null
  const isSame = (other: string | null): boolean =>
    other === meterId || ((other === null || meterId === null) && hasOneMeter(instruments))
  const last = movesOf(index, plant).findLast(
    (move) => move.at <= at && move.visitId === entry.visitId && isSame(move.meterId),
  )
  return last !== undefined && last.arrayId !== array.id
}
