/**
 * What a string's insulation is read against: one earth, each rail row in turn where rows are apart, frame and earth
 * where frames are not earthed. Source: IEC 62446-1:2016 6.7 (from memory).
 */
import type { Ruling } from '../../verdict/judgement'
import { ruled } from '../holding'
import { choiceIn, figuresOf } from '../reading'
import { choiceSlot, type NumberSlot, numberSlot, type When } from '../slot'
import type { StepContext } from '../step'

type Context = StepContext<'string'>

const EACH_ROW = 'each-row'
const FRAME_AND_EARTH = 'frame-and-earth'

/** Nothing said is one earth: earlier readings hold no answer. */
export const againstSlot = choiceSlot({
  id: 'against',
  options: ['one-earth', EACH_ROW, FRAME_AND_EARTH],
  sticky: true,
  optional: true,
  balloon: 4,
})
export const notByRow: When = { slot: againstSlot.id, is: ['', 'one-earth', FRAME_AND_EARTH] }

/** More rows than these on one plane are entered as several planes. */
const MOST_ROWS = 12
/** The lower of both ways, or joined, to each row; how many there are the plant says. */
export const rowSlots: readonly NumberSlot[] = Array.from({ length: MOST_ROWS }, (_, k) =>
  numberSlot(`row-${k + 1}`, 'insulation', 'Mohm', 4, {
    when: { slot: againstSlot.id, is: [EACH_ROW] },
    ...(k === 0 ? {} : { optional: true }),
  }),
)
/** Where frames are not earthed the first figures are to the frame. */
export const earthSlot = numberSlot('to-earth-terminal', 'insulation', 'Mohm', 4, {
  when: { slot: againstSlot.id, is: [FRAME_AND_EARTH] },
})

/** What is missing of a reading against metalwork that is not on one earth. */
export function earthRulings(context: Context): Ruling[] {
  const array = context.plant.arrayOf(context.part)
  const frames = array?.data.frames ?? 'bonded'
  const against = choiceIn(context.reading, againstSlot.id)
  const missing = (code: string, figures: Record<string, number | string> = {}): Ruling[] => [
    ruled(
      context,
      'not-yet',
      `pv-insulation.${code}`,
      { code: `pv-insulation.${code}`, figures, source: 'iec-62446-insulation' },
      { array: array?.data.tag ?? '', ...figures },
    ),
  ]
  if (frames === 'apart' && against !== EACH_ROW) return missing('rails-apart')
  if (frames === 'unearthed' && against !== FRAME_AND_EARTH) return missing('frames-unearthed')
  if (against !== EACH_ROW) return []
  const rows = array ? context.plant.ofKind('row').filter(({ data }) => data.arrayId === array.id).length : 0
  const read = figuresOf(context, rowSlots).length
  if (rows === 0) return missing('rows-unknown')
  if (rows > MOST_ROWS) return missing('rows-too-many', { rows, most: MOST_ROWS })
  return read < rows ? missing('rows-missing', { rows, read }) : []
}
