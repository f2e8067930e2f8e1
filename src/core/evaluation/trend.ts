/** Readings of one part over days and months: an electrode settles, soil dries and freezes. */
import type { TrendPicture } from '../steps/picture'
import { choiceIn, numberIn } from '../steps/reading'
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
  const isAlike = (one: ReadingEvaluation): boolean => {
    const hasSame = (slots: readonly string[]): boolean => setUpOf(one, slots) === setUpOf(newest.reading, slots)
    const { besides } = trend
    const isSpoilt = besides && [one, newest.reading].some(({ judgement }) => besides.where(judgement))
    return hasSame(trend.same) && (!isSpoilt || hasSame(besides.slots))
  }
  const points = read.map(({ reading, value }) => point(reading, value, trend, isAlike(reading), counting))
  return {
    kind: 'trend',
    unit: newest.value.unit,
    decimals: newest.value.decimals,
    limit: counting?.judgement.rule?.band.high ?? null,
    change: changeOf(points),
    points,
  }
}

/** How the newest lies to the one before it that was set up alike; null where there is none, or nothing to divide by. */
function changeOf(points: TrendPicture['points']): TrendPicture['change'] {
  const [before, newest] = points.filter((one) => one.alike).slice(-2)
  return before && newest && before.value > 0
    ? {
        percent: 100 * (newest.value / before.value - 1),
        sinceAt: before.at,
        counts: before.count !== null && newest.count !== null ? [before.count, newest.count] : null,
      }
    : null
}

function point(
  reading: ReadingEvaluation,
  { value }: Standing,
  { note, count }: { note: string | null; count?: string },
  alike: boolean,
  counting: ReadingEvaluation | null,
): TrendPicture['points'][number] {
  const { at, verdict, entry } = reading
  return {
    at,
    value,
    verdict,
    note: note && choiceIn(entry.body, note),
    count: count === undefined ? null : (numberIn(entry.body, count)?.value ?? null),
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
