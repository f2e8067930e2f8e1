/** What the tests of earth and the AC side share: the supply that a part hangs on, and what was read at it. */
import type { Part } from '../../plant/part'
import type { PartOf, PlantIndex } from '../../plant/plantIndex'
import { type Figure, figuresIn, highestOf } from '../reading'
import { choiceSlot, lineSlots, numberSlot } from '../slot'
import type { AnyContext } from '../step'

/** Slots of Ze and of R1+R2: other steps take the highest line of them. */
export const zeSlots = lineSlots('ze', 'loop-impedance', 'ohm', 2, {}, 'PE')
/** Line and protective conductor in a row, or the protective conductor by itself with a long lead back to the board. */
export const PROTECTIVE_ALONE = 'protective-alone'
export const continuityWay = choiceSlot({
  id: 'continuity-way',
  options: ['both-linked', PROTECTIVE_ALONE],
  sticky: true,
  // Nothing said is both of them: earlier readings hold no answer.
  optional: true,
  balloon: 1,
})
export const r1r2Slots = lineSlots('r1r2', 'continuity', 'ohm', 2, {
  when: { slot: continuityWay.id, is: ['', 'both-linked'] },
})
export const r2Slot = numberSlot('r2-alone', 'continuity', 'ohm', 2, {
  when: { slot: continuityWay.id, is: [PROTECTIVE_ALONE] },
  apart: true,
})

/** The supply that a part hangs on, null where there is none or nobody said which. */
export const supplyOf = ({ plant, part }: Pick<AnyContext, 'plant' | 'part'>): PartOf<'supply'> | null =>
  plant.supplyOf(part)

export const isTt = (context: Pick<AnyContext, 'plant' | 'part'>): boolean =>
  supplyOf(context)?.data.arrangement === 'TT'

/** Ze as it was measured, the highest line of it; null where nobody has yet. */
export function measuredZe(context: AnyContext): Figure | null {
  const supply = supplyOf(context)
  const body = supply && context.counted('ze', supply.id)
  if (!body) return null
  const known = zeOf.get(body)
  if (known !== undefined) return known
  const figure = highestOf(figuresIn(body, zeSlots))
  zeOf.set(body, figure)
  return figure
}
/** By its reading, which never changes: every circuit of a supply asks for the same. */
const zeOf = new WeakMap<object, Figure | null>()

/** R1+R2 of a circuit as it was measured, the highest line of it. */
export function measuredR1r2(context: AnyContext): Figure | null {
  const body = context.counted('r1r2', context.part.id)
  return body ? highestOf(figuresIn(body, r1r2Slots)) : null
}

/** Rated residual currents of the devices on the supply of a part. */
export const ratedOn = (plant: PlantIndex, supply: Part | null): number[] =>
  (supply ? plant.rcdsOn(supply) : []).map((one) => one.data.rated_mA)
