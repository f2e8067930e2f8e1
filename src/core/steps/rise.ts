/** A figure that was watched while it was read: insulation that rises as the array charges, stands, or wanders. */
import type { Watched } from '../quantity/watched'
import type { SlotValue } from '../record/entry'
import type { RiseLine, RisePicture } from './picture'
import type { NumberSlot } from './slot'
import type { Reading } from './step'

/** Within so much of its lowest a figure stands; of its way so much may go back while it rises (house rule 21). */
const STANDS_PCT = 5
const BACK_SHARE = 0.1

/** How a figure went. Nothing is judged by it: whether it is steady is answered by whoever watched. */
export function courseOf(points: Watched): RiseLine['course'] {
  const values = points.map(([, value]) => value)
  const [lowest, highest] = [Math.min(...values), Math.max(...values)]
  if (highest <= lowest * (1 + STANDS_PCT / 100)) return 'stands'
  const steps = values.slice(1).map((value, k) => value - values[k]!)
  const up = steps.reduce((sum, one) => sum + Math.max(0, one), 0)
  const down = steps.reduce((sum, one) => sum + Math.max(0, -one), 0)
  if (down <= BACK_SHARE * up) return 'rises'
  return up <= BACK_SHARE * down ? 'falls' : 'wanders'
}

const watchedIn = (value: SlotValue | undefined): Watched | null =>
  value && 'watched' in value ? (value.watched ?? null) : null

/** What was watched of a reading, a line for each slot; no picture where nothing was. */
export function risePictures(reading: Reading, slots: readonly NumberSlot[], least: number | null): RisePicture[] {
  const lines = slots.flatMap((slot): RiseLine[] => {
    const points = watchedIn(reading.slots[slot.id])
    if (!points) return []
    const values = points.map(([, value]) => value)
    const [lowest, highest] = [Math.min(...values), Math.max(...values)]
    return [{ slot: slot.id, points, lowest, highest, last: values.at(-1)!, course: courseOf(points) }]
  })
  const [first] = slots
  return lines.length > 0 && first ? [{ kind: 'rise', unit: first.unit, least, lines }] : []
}
