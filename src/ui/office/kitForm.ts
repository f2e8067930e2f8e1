/** An instrument of the kit as text in fields, and back. */
import '@/words/everyTest'
import '@/words/office'
import { v7 as uuid } from 'uuid'
import { rangeUnits } from '@/core/record/feed'
import {
  type Ability,
  type Instrument,
  instrumentSchema,
  type Measurable,
  measurableSchema,
} from '@/core/record/instrument'
import { unitSpellings } from '@/core/quantity/unit'
import type { RuleData } from '@/core/verdict/judgement'
import { quantity, say, sayCode } from '@/words/say'

export type RangeTexts = { on: boolean; most: string; ofReading: string; digits: string; decimals: string }
export type KitTexts = {
  id: string
  tag: string
  name: string
  serial: string
  due: string
  leads: string
  ranges: Record<Measurable, RangeTexts>
  can: readonly Ability[]
  /** How long it waits at half the rated current, ms; empty where nobody knows. */
  halfWait: string
  /** The joining switch: volts and amperes; both empty where there is none. */
  joins_V: string
  joins_A: string
}

export const measurables = measurableSchema.options

const textOf = (value: number | undefined): string => (value === undefined ? '' : String(value))

export function kitTexts(tool: Instrument | null): KitTexts {
  const ranges = Object.fromEntries(
    measurables.map((measures): [Measurable, RangeTexts] => {
      const range = tool?.ranges.find((one) => one.measures === measures)
      return [
        measures,
        {
          on: range !== undefined,
          // Nothing is filled in that nobody read in the manual.
          most: textOf(range?.most),
          ofReading: textOf(range?.accuracy.ofReading_pct),
          digits: textOf(range?.accuracy.digits),
          decimals: textOf(range?.decimals),
        },
      ]
    }),
  ) as KitTexts['ranges']
  return {
    id: tool?.id ?? uuid(),
    tag: tool?.tag ?? '',
    name: tool?.name ?? '',
    serial: tool?.serial ?? '',
    due: tool?.calibrationDue ?? '',
    leads: (tool?.leadSets ?? []).map((one) => one.name).join(', '),
    ranges,
    can: tool?.can ?? [],
    halfWait: textOf(tool?.halfWait_ms),
    joins_V: textOf(tool?.joining?.most_V),
    joins_A: textOf(tool?.joining?.most_A),
  }
}

const number = (text: string): number => Number(text.trim().replace(',', '.') || Number.NaN)
const leadId = (name: string, k: number): string =>
  `set-${k + 1}-${name.toLowerCase().replace(/[^a-z0-9]+/g, '-')}`.replace(/-+$/, '').slice(0, 20)

/** Under which words a field stands in the form. */
const fieldWords: Record<string, string> = {
  calibrationDue: 'due',
  leadSets: 'lead-sets',
  can: 'can',
  joining: 'joining',
}

/** The instrument, or one sentence on what cannot be read. */
export function readKit(texts: KitTexts, before: Instrument | null): { tool: Instrument } | { message: string } {
  if (!texts.tag.trim() || !texts.name.trim()) return { message: say('kit.needs') }
  const ranges: Instrument['ranges'] = []
  for (const measures of measurables) {
    const range = texts.ranges[measures]
    if (!range.on) continue
    const read = {
      measures,
      most: number(range.most),
      accuracy: { ofReading_pct: number(range.ofReading), digits: number(range.digits) },
      decimals: number(range.decimals),
    }
    const sound =
      read.most > 0 &&
      read.accuracy.ofReading_pct >= 0 &&
      read.accuracy.digits >= 0 &&
      Number.isInteger(read.decimals) &&
      read.decimals >= 0
    if (!sound) return { message: say('kit.range-bad', { what: sayCode('measures', measures) }) }
    ranges.push(read)
  }
  if (ranges.length === 0) return { message: say('kit.measures-nothing') }
  const names = texts.leads
    .split(',')
    .map((one) => one.trim())
    .filter(Boolean)
  // A lead set keeps its mark as long as it keeps its name: nulls of this visit belong to it.
  const leadSets = names.map(
    (name, k) => before?.leadSets?.find((one) => one.name === name) ?? { id: leadId(name, k), name },
  )
  const joins = texts.joins_V.trim() !== '' || texts.joins_A.trim() !== ''
  const parsed = instrumentSchema.safeParse({
    id: texts.id,
    tag: texts.tag.trim(),
    name: texts.name.trim(),
    serial: texts.serial.trim(),
    calibrationDue: texts.due.trim() || null,
    standIn: before?.standIn ?? false,
    ranges,
    ...(leadSets.length > 0 ? { leadSets } : {}),
    ...(texts.can.length > 0 ? { can: [...texts.can] } : {}),
    ...(joins ? { joining: { most_V: number(texts.joins_V), most_A: number(texts.joins_A) } } : {}),
    ...(texts.halfWait ? { halfWait_ms: Number(texts.halfWait) } : {}),
  })
  if (parsed.success) return { tool: parsed.data }
  const field = String(parsed.error.issues[0]?.path[0] ?? '')
  return { message: say('kit.cannot-be', { what: sayCode('kit', fieldWords[field] ?? field) }) }
}

/** What an instrument measures, in one line. */
export const measuredNames = (tool: Instrument): string =>
  [
    ...tool.ranges.map(({ measures }) => sayCode('measures', measures)),
    ...(tool.can ?? []).map((ability) => sayCode('need', ability)),
  ].join(', ')

type Range = Instrument['ranges'][number]

/** Polarity, or whether an outlet is live, is shown and not measured: no figure stands for it. */
export const isFigure = ({ accuracy }: Range): boolean => accuracy.ofReading_pct > 0 || accuracy.digits > 0

/** How far a range goes and how well, as its manual says it. */
export const rangeText = ({ measures, most, accuracy }: Range): string =>
  say('kit.range', {
    most: quantity(most, rangeUnits[measures], Number.isInteger(most) ? 0 : 2),
    pct: accuracy.ofReading_pct,
    digits: accuracy.digits,
  })

/** A range as a rule: allowed up to its highest value, which is its limit. */
export const ruleOfRange = ({ measures, most }: Range): RuleData => ({
  unit: rangeUnits[measures],
  scale: 'linear',
  measured: null,
  expected: { value: 0, uncertainty: 0 },
  band: { low: null, high: most, closeLow: null, closeHigh: null },
  source: 'rating-plate',
})

/** The unit that stands beside the highest value of a range. */
export const unitOf = (measures: Measurable): string => unitSpellings[rangeUnits[measures]].written
