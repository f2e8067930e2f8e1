/** An instrument of the kit as text in fields, and back. */
import '@/words/ac'
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
import { say, sayCode } from '@/words/say'

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
}

/** Ranges as most instruments have them, filled in when a quantity is ticked. */
const usualMost: Record<Measurable, number> = {
  'dc-polarity': 1000,
  'dc-voltage': 1000,
  'dc-current': 20,
  insulation: 999,
  continuity: 200,
  irradiance: 1600,
  'module-back-temperature': 110,
  'air-temperature': 80,
  tilt: 90,
  azimuth: 360,
  'loop-impedance': 2000,
  'fault-current': 20_000,
  'rcd-time': 2000,
  'rcd-current': 1000,
  'earth-resistance': 2000,
  distance: 200,
  'ac-voltage': 500,
  'pilot-voltage': 15,
  'pilot-duty': 100,
  proximity: 5000,
  outlet: 1,
  'dc-residual-current': 10,
  'dc-residual-time': 10_000,
  'disconnection-time': 10_000,
  'iv-curve': 1000,
}
export const measurables = measurableSchema.options

export function kitTexts(tool: Instrument | null): KitTexts {
  const ranges = Object.fromEntries(
    measurables.map((measures): [Measurable, RangeTexts] => {
      const range = tool?.ranges.find((one) => one.measures === measures)
      return [
        measures,
        {
          on: range !== undefined,
          most: String(range?.most ?? usualMost[measures]),
          ofReading: String(range?.accuracy.ofReading_pct ?? 1),
          digits: String(range?.accuracy.digits ?? 2),
          decimals: String(range?.decimals ?? 1),
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
  }
}

const number = (text: string): number => Number(text.trim().replace(',', '.') || Number.NaN)
const leadId = (name: string, k: number): string =>
  `set-${k + 1}-${name.toLowerCase().replace(/[^a-z0-9]+/g, '-')}`.replace(/-+$/, '').slice(0, 20)

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
  })
  if (parsed.success) return { tool: parsed.data }
  return { message: say('kit.cannot-be', { what: String(parsed.error.issues[0]?.path[0] ?? '') }) }
}

/** What an instrument measures, to where and how well, and what it can do besides, in a line each. */
export function rangeLines(tool: Instrument): string[] {
  const ranges = tool.ranges.map(({ measures, most, accuracy }) =>
    say('kit.range', {
      what: sayCode('measures', measures),
      most: `${most} ${unitSpellings[rangeUnits[measures]].written}`.trim(),
      pct: accuracy.ofReading_pct,
      digits: accuracy.digits,
    }),
  )
  return [...ranges, ...(tool.can ?? []).map((ability) => sayCode('need', ability))]
}
