/** Readings of one part over days and months: an electrode settles, soil dries and freezes. */
import type { TrendPicture } from '../steps/picture'
import { choiceIn } from '../steps/reading'
import { isRead, type Standing } from '../steps/step'
import type { ReadingEvaluation, StepEvaluation } from './types'

/** The readings of a step over time, null where it keeps no trend or was read once. What was voided is no reading. */
export function trendOf({ step, readings, counting }: StepEvaluation): TrendPicture | null {
  if (!isRead(step) || !step.trend || !step.standing) return null
  const { trend, standing } = step
  const read = readings.flatMap((reading) => {
    const value = reading.ended?.by === 'void' ? null : standing(reading.entry.body)
    return value ? [{ reading, value }] : []
  })
  const newest = read.at(-1)
  if (!newest || read.length < 2) return null
  const setUp = setUpOf(newest.reading, trend.same)
  return {
    kind: 'trend',
    unit: newest.value.unit,
    decimals: newest.value.decimals,
    limit: counting?.judgement.rule?.band.high ?? null,
    points: read.map(({ reading, value }) =>
      point(reading, value, trend.note, setUpOf(reading, trend.same) === setUp, counting),
    ),
  }
}

function point(
  reading: ReadingEvaluation,
  { value }: Standing,
  note: string | null,
  alike: boolean,
  counting: ReadingEvaluation | null,
): TrendPicture['points'][number] {
  const { at, verdict, entry } = reading
  return {
    at,
    value,
    verdict,
    note: note && choiceIn(entry.body, note),
    alike,
    counts: reading === counting,
  }
}

/** How a reading was set up, as one text: two that are alike can be compared. */
const setUpOf = ({ entry }: ReadingEvaluation, slots: readonly string[]): string =>
  JSON.stringify(
    slots.map((id) => {
      const value = entry.body.slots[id]
      if (value === undefined || 'curve' in value) return null
      return 'choice' in value ? value.choice : value.value
    }),
  )
