/**
 * What one kind of part says of itself, once: its data with bounds, what is asked of it and what of that is printed, what
 * it hangs on, where it stands on the line. Plant index, forms, buttons, line, schedule and certificate read it here.
 */
import { z } from 'zod'
import type { Station } from '../stations'

/** What the company enters once and every part has a copy of. */
export type Library = 'module' | 'charge-point'

export type PartField = {
  /** Name in the data; a dot leads into what is null as long as nothing of it is known: `conductor.length_m`. */
  id: string
  /** Code of its label. */
  label: string
  /** The kind of part that it names; where nobody said which, the only one there is, or none. */
  names?: { kind: string; else: 'only' | 'none' }
  /** What holds where the data leaves it away: it came later. */
  usual?: string | number
  /** What a yes and a no are called. */
  yesNo?: readonly [string, string]
  /** It holds a copy from one of the company's libraries: a module, a model of charge point. */
  library?: Library
  /** Asked only while another field of the part says so; what nobody said is empty. */
  when?: { field: string; is: readonly string[] }
  /** A test or the design check waits for it: a part that lacks it is drawn in pencil. */
  wanted?: true
  /** A particular: no test waits for it, and the sheets that print it ask for it before somebody signs. */
  on?: readonly Sheet[]
  /** Printed on the certificate's table of such parts: by its own label, by another, with what follows it, or only where it is not as usual. */
  prints?: true | { label?: string; with?: string; unusual?: true }
}

/** What a record is made of, by the side of the plant: each stands alone where there is only the one. */
export type Sheet = 'pv' | 'electrical'

/** Where a new part belongs before anybody says so, and what it is like. */
export type Near = { arrayId: string | null; boardId: string | null; phases?: 1 | 3; like?: object | null }

type Schema = z.ZodObject<{ kind: z.ZodLiteral<string> }>

export type PartDescriptor<S extends Schema> = {
  schema: S
  /** The site as a whole, the side of the sun, or earth and the AC side. */
  side: 'site' | 'dc' | 'ac'
  /** Where it stands on the line, null where it does not. */
  station: Station | null
  /** What the tag of a new one begins with; null where no button adds it. */
  prefix: string | null
  /** Has a schedule of results, a row a part: which of several. */
  scheduled?: number
  /** All its tests are printed side by side, a column a part. */
  hasSheet?: true
  fields: readonly PartField[]
  /** A new one, before anything of it was read. */
  blank(tag: string, near: Near): z.infer<S>
}

export const kindIn = (schema: Schema): string => schema.shape.kind.value

/** What a field takes, as its schema says. */
export type FieldRule = {
  takes: 'tag' | 'text' | 'date' | 'number' | 'choice' | 'yes-no' | 'part' | 'library'
  optional: boolean
  /** What a text that was left away is in the data. */
  empty: '' | null
  options: readonly (string | number)[]
  /** It is a figure, though only some are offered. */
  isNumber: boolean
  whole: boolean
  least: number | null
  most: number | null
  /** So many characters a text may have, null where it is no text. */
  longest: number | null
  /** The bound itself is outside. */
  above: boolean
  below: boolean
}

type Json = {
  type?: string | string[]
  format?: string
  enum?: (string | number)[]
  const?: string | number
  anyOf?: Json[]
  minimum?: number
  maximum?: number
  maxLength?: number
  exclusiveMinimum?: number
  exclusiveMaximum?: number
}

const isOf = ({ type }: Json, name: string): boolean => (Array.isArray(type) ? type.includes(name) : type === name)

/** The schema of a field, by its name; @throws Error where the data has none of that name. */
function schemaOf(schema: z.ZodObject, id: string): z.ZodType {
  const [first, ...rest] = id.split('.')
  const own = schema.shape[first!] as z.ZodType | undefined
  if (!own) throw new Error(`schemaOf: expected a field of the part, got ${id}`)
  if (rest.length === 0) return own
  let inner: z.ZodType = own
  while (inner instanceof z.ZodOptional || inner instanceof z.ZodNullable) inner = inner.unwrap() as z.ZodType
  return schemaOf(inner as z.ZodObject, rest.join('.'))
}

function takesOf({ id, names, library }: PartField, known: readonly Json[], isOffered: boolean): FieldRule['takes'] {
  const isAny = (...types: readonly string[]): boolean => known.some((one) => types.some((type) => isOf(one, type)))
  if (id === 'tag') return 'tag'
  if (library) return 'library'
  if (names) return 'part'
  if (isAny('boolean')) return 'yes-no'
  if (isOffered) return 'choice'
  if (known.some(({ format }) => format === 'date')) return 'date'
  return isAny('number', 'integer') ? 'number' : 'text'
}

/** What a field takes: bounds, options and whether it may stay empty are read off the schema, and stand nowhere else. */
export function ruleOf({ schema }: Pick<PartDescriptor<Schema>, 'schema'>, field: PartField): FieldRule {
  const own = schemaOf(schema, field.id)
  const json = z.toJSONSchema(own, { io: 'input' }) as Json
  const all = (json.anyOf ?? [json]).flatMap((one) => one.anyOf ?? [one])
  const known = all.filter((one) => one.type !== 'null')
  const options = known.flatMap((one) => one.enum ?? (one.const === undefined ? [] : [one.const]))
  const number = known.find((one) => isOf(one, 'number') || isOf(one, 'integer'))
  const isText = known.some((one) => isOf(one, 'string'))
  return {
    takes: takesOf(field, known, options.length > 0),
    optional:
      field.usual === undefined &&
      (own.safeParse(null).success || (isText && own.safeParse('').success) || field.id.includes('.')),
    empty: own.safeParse(null).success ? null : '',
    options,
    isNumber: options.length > 0 && options.every((one) => typeof one === 'number'),
    whole: number !== undefined && isOf(number, 'integer'),
    least: number?.minimum ?? number?.exclusiveMinimum ?? null,
    most: number?.maximum ?? number?.exclusiveMaximum ?? null,
    longest: known.find(({ maxLength }) => maxLength !== undefined)?.maxLength ?? null,
    above: number?.exclusiveMinimum !== undefined,
    below: number?.exclusiveMaximum !== undefined,
  }
}
