/** The fields of a part as text, and how what was typed becomes its data. What is asked stands in the part's own kind. */
import '@/words/everyTest'
import '@/words/plant'
import { type ModuleType, tagSchema } from '@/core/plant/basics'
import type { ChargePointModel } from '@/core/plant/chargePointModel'
import { fieldsOf, kindOf, type RuledField } from '@/core/plant/kinds'
import type { Near } from '@/core/plant/kinds/descriptor'
import { valueAt } from '@/core/plant/missing'
import { type Part, type PartData, type PartKind, partDataSchema } from '@/core/plant/part'
import { say, type WordKey } from '@/words/say'
import { z } from 'zod'

export const labelOf = (field: { label: string }): string => say(`plant.${field.label}` as WordKey)
export const fieldsOfKind = (kind: PartKind): readonly RuledField[] => fieldsOf(kindOf(kind))

/** What a part can have a copy of, by the library it stands in. */
export type Libraries = { module: readonly ModuleType[]; 'charge-point': readonly ChargePointModel[] }
export const noLibraries: Libraries = { module: [], 'charge-point': [] }

export type Texts = Record<string, string>
type Values = Record<string, unknown>
const isValues = (value: unknown): value is Values => typeof value === 'object' && value !== null

function textOf(field: RuledField, data: PartData): string {
  const value = valueAt(data, field.id)
  // A copy from a library is told by its id.
  if (field.rule.takes === 'library') return isValues(value) ? String(value.id) : ''
  if (value === null || value === undefined)
    return field.usual === undefined || field.id.includes('.') ? '' : String(field.usual)
  return typeof value === 'boolean' ? field.yesNo![value ? 0 : 1] : String(value)
}

/** The part's data as its fields show it. */
export const textsOf = (data: PartData): Texts =>
  Object.fromEntries(fieldsOfKind(data.kind).map((field) => [field.id, textOf(field, data)]))

/** Kinds that a button adds; a string is made of a module type, and the site is there. */
export type AddedKind = Exclude<PartKind, 'string' | 'site'>

export const newPart = (kind: AddedKind, tag: string, near: Near = { arrayId: null, boardId: null }): PartData =>
  kindOf(kind).blank(tag, near)

/** What was typed as data, or one sentence and the field that it is about. */
export type ReadPart = { data: PartData } | { message: string; field: string }

/** Reads the fields of a part: its data, or one sentence on the first that cannot be read. */
export function readPart(before: PartData, texts: Texts, libraries: Libraries = noLibraries): ReadPart {
  const fields = fieldsOfKind(before.kind)
  const values: Values = {}
  for (const field of fields) {
    const typed = (texts[field.id] ?? '').trim()
    // Whoever chooses nothing else keeps the copy, also where the library is out of reach.
    const isKept = field.library !== undefined && typed === textOf(field, before)
    const read = isKept ? { value: valueAt(before, field.id) } : readTyped(field, typed, libraries)
    if ('message' in read) return { ...read, field: field.id }
    put(values, field.id, read.value)
  }
  for (const inner of innerOf(fields)) {
    const own = fields.filter((field) => field.id.startsWith(`${inner}.`))
    if (own.every((field) => (texts[field.id] ?? '').trim() === '')) values[inner] = null
    else Object.assign(values[inner] as Values, usualIn(own, values[inner] as Values))
  }
  const parsed = partDataSchema.safeParse({ ...before, ...values })
  if (parsed.success) return { data: parsed.data }
  const at = parsed.error.issues[0]?.path.join('.') ?? ''
  const field = fields.find((one) => one.id === at)
  const isOpen = field !== undefined && (texts[field.id] ?? '').trim() === ''
  if (isOpen) return { message: say('plant.missing', { what: labelOf(field) }), field: at }
  return { message: say('plant.cannot-be', { what: field ? labelOf(field) : at }), field: at }
}

/**
 * What was typed in one field as the part's data. Where another field cannot be read, this one is kept all the same.
 *
 * @returns `lacks`: whether something else still stands against it.
 */
export function readField(
  before: PartData,
  texts: Texts,
  id: string,
  libraries: Libraries,
): { data: PartData; lacks: boolean } | { message: string; field: string } {
  const whole = readPart(before, texts, libraries)
  if ('data' in whole) return { ...whole, lacks: false }
  if (whole.field === id) return whole
  const alone = readPart(before, { ...textsOf(before), [id]: texts[id] ?? '' }, libraries)
  return 'data' in alone ? { ...alone, lacks: true } : whole
}

/** The texts after the part was changed: what somebody is typing stays as it is typed, the rest is what holds now. */
export function textsAfter(texts: Texts, before: PartData, now: PartData): Texts {
  const [old, next] = [textsOf(before), textsOf(now)]
  return Object.fromEntries(Object.keys(next).map((id) => [id, texts[id] === old[id] ? next[id]! : (texts[id] ?? '')]))
}

/** Names of what is null as long as nothing of it is known. */
const innerOf = (fields: readonly RuledField[]): string[] => [
  ...new Set(fields.flatMap(({ id }) => (id.includes('.') ? [id.slice(0, id.indexOf('.'))] : []))),
]

function put(values: Values, id: string, value: unknown): void {
  const [first, inner] = id.split('.') as [string, string | undefined]
  if (inner === undefined) values[first] = value
  else values[first] = { ...(values[first] as Values | undefined), [inner]: value }
}

const usualIn = (fields: readonly RuledField[], known: Values): Values =>
  Object.fromEntries(
    fields.flatMap(({ id, usual }) => {
      const name = id.slice(id.indexOf('.') + 1)
      return usual !== undefined && known[name] === null ? [[name, usual]] : []
    }),
  )

type ReadTyped = { value: unknown } | { message: string }

function readTyped(field: RuledField, typed: string, libraries: Libraries): ReadTyped {
  const { rule } = field
  // Words may be left away: they are empty then, and not unknown.
  if (typed === '' && rule.takes === 'text') return { value: rule.empty }
  if (typed === '')
    return rule.optional || field.id.includes('.')
      ? { value: null }
      : { message: say('plant.missing', { what: labelOf(field) }) }
  switch (rule.takes) {
    case 'tag':
      return tagSchema.safeParse(typed).success ? { value: typed } : { message: say('plant.tag-bad', { tag: typed }) }
    case 'choice':
      return { value: rule.options.find((one) => String(one) === typed) ?? null }
    case 'yes-no':
      return { value: typed === field.yesNo![0] }
    case 'library':
      return { value: libraries[field.library!].find((one) => one.id === typed) }
    case 'number':
      return readNumber(field, typed)
    case 'date':
      return z.iso.date().safeParse(typed).success
        ? { value: typed }
        : { message: say('plant.not-a-day', { what: labelOf(field), typed: typed.slice(0, 20) }) }
    default:
      return readWords(field, typed)
  }
}

function readWords(field: RuledField, typed: string): ReadTyped {
  const { longest: most } = field.rule
  if (most === null || typed.length <= most) return { value: typed }
  return { message: say('plant.too-long', { what: labelOf(field), length: typed.length, most }) }
}

function readNumber(field: RuledField, typed: string): ReadTyped {
  const { least, most, above, below, whole } = field.rule
  const value = Number(typed.replace(',', '.'))
  const fitsLeast = least === null || (above ? value > least : value >= least)
  const fitsMost = most === null || (below ? value < most : value <= most)
  if (fitsLeast && fitsMost && (!whole || Number.isInteger(value))) return { value }
  const key = whole ? 'plant.not-whole' : above ? 'plant.not-above' : below ? 'plant.not-below' : 'plant.not-between'
  return { message: say(key, { typed, what: labelOf(field), from: least ?? 0, to: most ?? 0 }) }
}

/** A part of the same kind in service that carries a tag already, null where none does. */
export function tagTaken(parts: Iterable<Part>, kind: PartKind, wanted: string, exceptId: string | null): Part | null {
  for (const part of parts) {
    if (part.id === exceptId || part.retired || part.data.kind !== kind) continue
    if (part.data.tag.toLowerCase() === wanted.trim().toLowerCase()) return part
  }
  return null
}
