/** Curves of a file as readings: which string each belongs to, and why some cannot be taken. */
import '@/words/curve'
import { curveOf } from '@/core/curve/curveValue'
import type { FileCurve } from '@/core/curve/curveFile'
import { type CurveFeatures, featuresOf } from '@/core/curve/features'
import { checkBody } from '@/core/evaluate'
import type { Evaluation, StepEvaluation } from '@/core/evaluation/types'
import { readValueOf } from '@/core/quantity/readValue'
import { type Body, type Conditions, READING_VERSION } from '@/core/record/entry'
import { copyForReading, type Instrument } from '@/core/record/instrument'
import { isRead } from '@/core/steps/step'
import { say, sayCode } from '@/words/say'
import { cutText } from '../shell/cutText'

export type CurveRow = {
  key: number
  curve: FileCurve
  features: CurveFeatures | null
  /** Why it cannot be taken, in words; null where it can. */
  refused: string | null
}

/** Every curve with what it shows. */
export const rowsOf = (curves: readonly FileCurve[], from = 0): CurveRow[] =>
  curves.map((curve, k) => {
    const key = from + k
    const features = featuresOf(curve.points)
    return typeof features === 'string'
      ? { key, curve, features: null, refused: sayCode('curve', `refused-${features}`) }
      : { key, curve, features, refused: null }
  })

/** Letters and figures of a name, without what stands before a number: "STR-04" and "4" are one. */
const bare = (name: string): string => name.toLowerCase().replace(/[^a-z0-9]/g, '')
const number = (name: string): string => /(\d+)\D*$/.exec(name)?.[1]?.replace(/^0+(?=\d)/, '') ?? ''

/**
 * Which string each curve is of, by its name: as it is written, else by its number where only one has it. A memory that
 * was given to a string before goes to it again.
 */
export function stringsFor(
  rows: readonly CurveRow[],
  steps: readonly StepEvaluation[],
  before: Readonly<Record<string, string>>,
): (string | null)[] {
  const taken = new Set<string>()
  return rows.map(({ curve: { name } }) => {
    const free = steps.filter(({ part }) => !taken.has(part.id))
    const byNumber = free.filter(({ part }) => number(name) !== '' && number(part.data.tag) === number(name))
    const found =
      free.find(({ part }) => part.data.tag === before[name]) ??
      free.find(({ part }) => bare(name) !== '' && bare(part.data.tag) === bare(name)) ??
      (byNumber.length === 1 ? byNumber[0] : undefined)
    if (!found) return null
    taken.add(found.part.id)
    return found.part.id
  })
}

/** Light and warmth as the file has them, else those of now. A temperature in a file of curves is that of the cells. */
export function conditionsOf({ irradiance_Wm2, temperature_C }: FileCurve, now: Conditions | null): Conditions | null {
  if (irradiance_Wm2 === null || temperature_C === null) return now
  return {
    irradiance: { read: readValueOf(irradiance_Wm2, 'Wm2', 0), instrument: null },
    cell: { way: 'back', read: readValueOf(temperature_C, 'degC', 1), mounting: 'insulated-back', instrument: null },
    at: new Date(now ? Date.parse(now.at) : Date.now()).toISOString(),
    how: 'file',
  }
}

/** What a curve is kept as on a string. */
export function bodyFor(
  one: StepEvaluation,
  { curve }: CurveRow,
  tool: Instrument | null,
  now: Conditions | null,
): Body<'reading'> {
  const memory = cutText(curve.name.trim(), 40)
  return {
    kind: 'reading',
    v: READING_VERSION,
    slots: { curve: { curve: curveOf(curve.points, memory ? { memory } : {}) } },
    conditions: conditionsOf(curve, now),
    how: 'file',
    instrument: tool && copyForReading(tool, 'iv-curve'),
    place: 'plugs',
    plantRevision: one.part.revision,
    confirmed: [],
    note: null,
  }
}

/** Why a curve cannot be kept on its string, or is no curve of it; null where it can. */
export function refusalOn(
  evaluation: Evaluation,
  one: StepEvaluation,
  row: CurveRow,
  body: Body<'reading'>,
): string | null {
  if (row.refused) return row.refused
  if (!isRead(one.step)) return null
  const { check } = checkBody(evaluation, { step: one.step, part: one.part }, body)
  if (check.state === 'refused') return sayCode('refused', check.code, check.figures)
  return looksSwapped(one, row) ? say('curve.refused-columns-swapped') : null
}

/** What is called volts comes to the string's amperes, and the other way round. */
function looksSwapped({ part: { data } }: StepEvaluation, { features }: CurveRow): boolean {
  if (data.kind !== 'string' || !features) return false
  const { voc_V, isc_A } = data.moduleType.data
  const volts = data.modulesInSeries * voc_V
  return features.voc_V < 2 * isc_A && features.isc_A > volts / 3
}
