/** A model of charge point as its form holds it, and how that becomes its data. */
import '@/words/everyTest'
import {
  builtInRcds,
  type ChargePointData,
  type ChargePointModel,
  chargePointModelSchema,
  outlets,
  shownStates,
} from '@/core/plant/chargePointModel'
import { CODED_A } from '@/core/pilot/duty'
import { say } from '@/words/say'

/** What the form's fields hold; a number field that nobody filled holds nothing. */
export type ModelValues = {
  make: string
  name: string
  phases: 1 | 3
  rated_A: number | null
  outlet: (typeof outlets)[number]
  cable_A: number | null
  rcdType: (typeof builtInRcds)[number] | 'none'
  rcdRated_mA: number | null
  dcDetector: boolean
  penDevice: boolean
  faultSign: boolean
  reset: string
  ready_s: number | null
} & ChargePointData['shows']

export const blankModel: ModelValues = {
  make: '',
  name: '',
  phases: 1,
  rated_A: null,
  outlet: 'socket',
  cable_A: null,
  rcdType: 'none',
  rcdRated_mA: null,
  dcDetector: true,
  penDevice: false,
  faultSign: true,
  reset: '',
  ready_s: null,
  ready: '',
  waiting: '',
  charging: '',
  fault: '',
}

export type ModelField = keyof ModelValues
export type ModelRead = { model: ChargePointModel } | { messages: Partial<Record<ModelField, string>> }

const linesOf = (text: string): string[] =>
  text
    .split('\n')
    .map((line) => line.trim())
    .filter((line) => line !== '')

/** The sentence of a field that its schema refuses. */
function messageOf(field: ModelField, values: ModelValues): string {
  const value = values[field]
  if (value === null || value === '') return say('model.needed')
  if (field === 'rated_A' || field === 'cable_A')
    return say('model.rating-range', { from: CODED_A.least, to: CODED_A.most })
  if (field === 'rcdRated_mA') return say('model.rated-range')
  if (field === 'ready_s') return say('model.ready-range', { most: 600 })
  if (field === 'reset') return say('model.too-many-lines', { most: 6 })
  return say('plant.cannot-be', { what: say(`model.${field}`) })
}

/** Reads the form: the model, or a sentence at each field that cannot be. */
export function readModel(values: ModelValues, id: string): ModelRead {
  const { make, name, rcdType, reset, ready, waiting, charging, fault, ...plain } = values
  const hasRcd = rcdType !== 'none'
  const parsed = chargePointModelSchema.safeParse({
    id,
    make,
    name,
    data: {
      ...plain,
      cable_A: plain.outlet === 'tethered' ? plain.cable_A : null,
      rcdType: hasRcd ? rcdType : null,
      rcdRated_mA: hasRcd ? plain.rcdRated_mA : null,
      reset: linesOf(reset),
      shows: { ready, waiting, charging, fault },
    },
  })
  if (parsed.success) return { model: parsed.data }
  const messages: Partial<Record<ModelField, string>> = {}
  for (const { path } of parsed.error.issues) {
    const named = path.filter((one): one is string => typeof one === 'string')
    const field = named.findLast((one) => one in values) as ModelField | undefined
    if (field) messages[field] ??= messageOf(field, values)
  }
  return { messages }
}

export const modelChoices = {
  outlet: outlets,
  rcdType: ['none', ...builtInRcds] as const,
  shows: shownStates,
}
