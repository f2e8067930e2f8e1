/** A data plate as it is typed: text in every field, coefficients in per cent or in the plate's own units. */
import '@/words/plant'
import { type ModuleData, moduleDataSchema } from '@/core/pv/moduleData'
import { parseReading } from '@/core/quantity/parseReading'
import type { Unit } from '@/core/quantity/unit'
import { say, sayCode, type WordKey } from '@/words/say'

export const plateFields = [
  { key: 'pmax_W', unit: 'W', needed: true },
  { key: 'voc_V', unit: 'V', needed: true },
  { key: 'isc_A', unit: 'A', needed: true },
  { key: 'vmp_V', unit: 'V', needed: true },
  { key: 'imp_A', unit: 'A', needed: true },
  { key: 'cellsInSeries', unit: 'one', needed: true },
  { key: 'alpha_pctPerK', unit: 'pct', needed: true },
  { key: 'beta_pctPerK', unit: 'pct', needed: true },
  { key: 'gamma_pctPerK', unit: 'pct', needed: true },
  { key: 'noct_C', unit: 'degC', needed: false },
  { key: 'maxSystemVoltage_V', unit: 'V', needed: false },
  { key: 'maxSeriesFuse_A', unit: 'A', needed: false },
  { key: 'tolerance_pct', unit: 'pct', needed: false },
  { key: 'vocIscTolerance_pct', unit: 'pct', needed: false },
  { key: 'bifacialGain_pct', unit: 'pct', needed: false },
] as const satisfies readonly { key: keyof ModuleData; unit: Unit; needed: boolean }[]

export type PlateKey = (typeof plateFields)[number]['key']
export type PlateTexts = Partial<Record<PlateKey, string>>
export type PlateRead = { data: ModuleData | null; messages: Partial<Record<PlateKey, string>> }

/** A type as its plate would be typed. */
export const plateOf = (data: ModuleData): PlateTexts =>
  Object.fromEntries(
    plateFields.flatMap(({ key }) => {
      const value = data[key]
      return value === undefined ? [] : [[key, String(value)]]
    }),
  )

/** A type with its plate put right: what no plate says stays as it was. */
export function corrected(before: ModuleData | undefined, plate: ModuleData): ModuleData {
  const onPlate: ReadonlySet<string> = new Set(plateFields.map(({ key }) => key))
  const rest = Object.entries(before ?? {}).filter(([key]) => !onPlate.has(key))
  return { ...Object.fromEntries(rest), ...plate }
}

/** Coefficients that a plate gives per kelvin in its own unit, with the rated value that turns them into per cent. */
const coefficients: Partial<Record<PlateKey, { rated: PlateKey; suffix: RegExp; factor: number }>> = {
  alpha_pctPerK: { rated: 'isc_A', suffix: /\s*m?A(\/K|\/°C)?$/i, factor: 1e-3 },
  beta_pctPerK: { rated: 'voc_V', suffix: /\s*m?V(\/K|\/°C)?$/i, factor: 1e-3 },
  gamma_pctPerK: { rated: 'pmax_W', suffix: /\s*W(\/K|\/°C)?$/i, factor: 1 },
}

/** Reads what was typed: every field that cannot be read gets its own sentence. */
export function readPlate(texts: PlateTexts): PlateRead {
  const values: Partial<Record<PlateKey, number>> = {}
  const messages: PlateRead['messages'] = {}
  for (const { key, unit, needed } of plateFields) {
    const text = texts[key]?.trim() ?? ''
    if (text === '') {
      if (needed) messages[key] = say('plant.needed')
      continue
    }
    const read = readField(key, text, unit, texts)
    if (typeof read === 'number') values[key] = read
    else messages[key] = read.why
  }
  if (Object.keys(messages).length > 0) return { data: null, messages }
  const parsed = moduleDataSchema.safeParse(values)
  if (parsed.success) return { data: parsed.data, messages }
  for (const issue of parsed.error.issues) {
    const key = issue.path[0] as PlateKey
    messages[key] ??=
      issue.code === 'custom' || issue.message.includes('coefficient')
        ? `${issue.message}.`
        : say('plant.out-of-reach', { what: say(`plate.${key}` as WordKey) })
  }
  return { data: null, messages }
}

function readField(key: PlateKey, text: string, unit: Unit, texts: PlateTexts): number | { why: string } {
  const plain = text.replace(/\s*%?\s*\/\s*(K|°C)$/i, '').replace(/\s*%$/, '')
  const own = coefficients[key]
  if (own?.suffix.test(text)) {
    const figures = parseReading(text.replace(own.suffix, ''), 'one')
    const ratedUnit = plateFields.find((field) => field.key === own.rated)!.unit
    const rated = parseReading(texts[own.rated] ?? '', ratedUnit)
    if (figures.state !== 'read' || rated.state !== 'read' || rated.reading.value === 0)
      return { why: say('plant.rated-first', { what: say(`plate.${own.rated}` as WordKey) }) }
    const isMilli = /m[AV]/.test(text)
    return (100 * figures.reading.value * (isMilli ? own.factor : 1)) / rated.reading.value
  }
  const parsed = parseReading(plain, unit)
  if (parsed.state === 'read' && parsed.reading.bound === 'exact') return parsed.reading.value
  if (parsed.state === 'ask') {
    const [decimal, thousand] = parsed.choices
    return {
      why: say('refused.thousand-or-decimal', {
        text,
        decimal: String(decimal.value),
        thousand: String(thousand.value),
      }),
    }
  }
  return {
    why:
      parsed.state === 'refused'
        ? sayCode('refused', parsed.code, { text, unit })
        : say('refused.not-a-number', { text }),
  }
}
