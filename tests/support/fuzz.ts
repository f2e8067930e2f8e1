/** Bodies that nobody meant: values of a schema, and values that were right once, changed in places nobody chose. */
import { z } from 'zod'

/** Random, and the same for the same seed: what fails is found again. */
export class Dice {
  constructor(private state: number) {}
  /** At least 0 and below 1. */
  share(): number {
    this.state = (this.state + 0x6d2b79f5) | 0
    let t = Math.imul(this.state ^ (this.state >>> 15), 1 | this.state)
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296
  }
  below = (n: number): number => Math.floor(this.share() * n)
  one = <T>(from: readonly T[]): T => from[this.below(from.length)]!
  chance = (share: number): boolean => this.share() < share
}

/** What doors have fallen over somewhere: each is JSON, or becomes so. */
const NASTY: readonly unknown[] = [
  null,
  true,
  0,
  -0,
  -1,
  1e308,
  5e-324,
  2 ** 53,
  0.1,
  '',
  ' ',
  '\u0000',
  '\uD800',
  '\uFEFF',
  '‮text',
  '💡'.repeat(300),
  'x'.repeat(5000),
  "'; DROP TABLE entry; --",
  '<script>alert(1)</script>',
  '#{7*7}',
  '../../etc/passwd',
  '=1+1',
  '1e999',
  'NaN',
  '>1,234',
  '2026-02-30T00:00:00.000Z',
  '9999-12-31T23:59:59.999Z',
  '0000-00-00',
  '00000000-0000-0000-0000-000000000000',
  [],
  [[[[[[[[]]]]]]]],
  {},
  { __proto__x: 1 },
  { constructor: { prototype: {} } },
  { toString: 1 },
]

type Json = z.core.JSONSchema.JSONSchema

/** The shape of a body as JSON Schema, from the schema by which a door reads it. */
export const shapeOf = (schema: z.ZodType): Json =>
  z.toJSONSchema(schema, { unrepresentable: 'any', io: 'input' }) as Json

const TEXTS: Readonly<Record<string, (dice: Dice) => string>> = {
  uuid: (dice) => `01900000-0000-7000-8000-${String(dice.below(1e9)).padStart(12, '0')}`,
  'date-time': (dice) => new Date(Date.UTC(2026, dice.below(12), 1 + dice.below(28), dice.below(24))).toISOString(),
  date: (dice) => new Date(Date.UTC(2026, dice.below(12), 1 + dice.below(28))).toISOString().slice(0, 10),
  email: (dice) => `fuzz.${dice.below(1e9)}@test.invalid`,
}

/** A value as the schema wants it, mostly: patterns are not solved. */
export function sampleOf(schema: Json, dice: Dice, root: Json = schema, depth = 0): unknown {
  const { $ref, anyOf, oneOf, allOf, enum: choices, type } = schema as Json & { $ref?: string }
  if ($ref) {
    const found = $ref === '#' ? root : root.$defs?.[$ref.split('/').at(-1)!]
    return found && depth < 12 ? sampleOf(found as Json, dice, root, depth + 1) : null
  }
  if ('const' in schema) return schema.const
  if (choices) return dice.one(choices)
  const ways = (anyOf ?? oneOf) as Json[] | undefined
  if (ways) return sampleOf(dice.one(ways), dice, root, depth + 1)
  if (allOf) return Object.assign({}, ...(allOf as Json[]).map((one) => sampleOf(one, dice, root, depth + 1)))
  switch (type) {
    case 'object':
      return objectOf(schema, dice, root, depth)
    case 'array': {
      const items = (schema.items ?? {}) as Json
      const fixed = schema.prefixItems as Json[] | undefined
      if (fixed) return fixed.map((one) => sampleOf(one, dice, root, depth + 1))
      const least = schema.minItems ?? 0
      return Array.from({ length: least + dice.below(3) }, () => sampleOf(items, dice, root, depth + 1))
    }
    case 'string':
      return TEXTS[schema.format ?? '']?.(dice) ?? textOf(schema, dice)
    case 'integer':
      return Math.round(numberOf(schema, dice))
    case 'number':
      return numberOf(schema, dice)
    case 'boolean':
      return dice.chance(0.5)
    default:
      return null
  }
}

function objectOf(schema: Json, dice: Dice, root: Json, depth: number): Record<string, unknown> {
  const required = new Set(schema.required ?? [])
  const made: Record<string, unknown> = {}
  for (const [key, inner] of Object.entries(schema.properties ?? {}))
    if (required.has(key) || dice.chance(0.5)) made[key] = sampleOf(inner as Json, dice, root, depth + 1)
  const others = schema.additionalProperties
  if (others && typeof others === 'object' && dice.chance(0.7))
    made[dice.one(['a', 'b', 'lv'])] = sampleOf(others as Json, dice, root, depth + 1)
  return made
}

function numberOf(schema: Json, dice: Dice): number {
  const least = Number(schema.minimum ?? schema.exclusiveMinimum ?? -1000)
  const most = Number(schema.maximum ?? schema.exclusiveMaximum ?? least + 2000)
  return least + dice.share() * (most - least)
}

function textOf(schema: Json, dice: Dice): string {
  const least = schema.minLength ?? 0
  const most = Math.min(schema.maxLength ?? 12, least + 12)
  const letters = 'abcdefghij 0123456789.-'
  return Array.from({ length: least + dice.below(Math.max(1, most - least)) }, () => dice.one([...letters])).join('')
}

/** The same with one place of it changed; what was given stays as it is. */
export function mutated(value: unknown, dice: Dice): unknown {
  if (Array.isArray(value) && value.length > 0 && dice.chance(0.85)) {
    const k = dice.below(value.length)
    if (dice.chance(0.1)) return value.filter((_, n) => n !== k)
    if (dice.chance(0.1)) return [...value, value[k]]
    return value.map((one, n) => (n === k ? mutated(one, dice) : one))
  }
  if (value !== null && typeof value === 'object' && Object.keys(value).length > 0 && dice.chance(0.9)) {
    const entries = Object.entries(value)
    const k = dice.below(entries.length)
    if (dice.chance(0.1)) return Object.fromEntries(entries.filter((_, n) => n !== k))
    if (dice.chance(0.05)) return { ...value, [dice.one(['extra', '__proto__', 'constructor', ''])]: dice.one(NASTY) }
    return Object.fromEntries(entries.map(([key, one], n) => [key, n === k ? mutated(one, dice) : one]))
  }
  if (typeof value === 'string' && value !== '' && dice.chance(0.4)) return mutatedText(value, dice)
  if (typeof value === 'number' && dice.chance(0.4))
    return value * dice.one([-1, 10, 0.1, 1e9, 1e-9]) + dice.one([0, 0.5])
  return dice.one(NASTY)
}

/** A text with a piece cut, doubled, moved or replaced. */
export function mutatedText(text: string, dice: Dice): string {
  const [a, b] = [dice.below(text.length + 1), dice.below(text.length + 1)].sort((x, y) => x - y) as [number, number]
  const piece = text.slice(a, b)
  switch (dice.below(6)) {
    case 0:
      return text.slice(0, a) + text.slice(b)
    case 1:
      return text.slice(0, b) + piece + text.slice(b)
    case 2:
      return text.slice(0, a)
    case 3:
      return (
        text.slice(0, a) +
        dice.one([',', ';', '\t', '\n', '"', '\u0000', '\uD800', 'é', '-', '1e400', '%']) +
        text.slice(a)
      )
    case 4:
      return text.slice(0, a) + String.fromCharCode(dice.below(0xffff)) + text.slice(a + 1)
    default:
      return text.replaceAll(dice.one([',', '.', ';', '\n', '1']), dice.one(['', ',', ';', '\t', '-', '9']))
  }
}
