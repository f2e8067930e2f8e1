/** Every kind of part there is, in the order in which a plant lists them: from the sun to earth. */
import { array } from './array'
import { board } from './board'
import { buriedService } from './buriedService'
import { chargePoint } from './chargePoint'
import { circuit } from './circuit'
import { combiner } from './combiner'
import { dcSwitch } from './dcSwitch'
import { type FieldRule, type PartField, ruleOf } from './descriptor'
import { electrode } from './electrode'
import { inverter } from './inverter'
import { rcd } from './rcd'
import { row } from './row'
import { site } from './site'
import { string } from './string'
import { supply } from './supply'
import { surgeProtection } from './surgeProtection'

export const kinds = [
  site,
  array,
  string,
  row,
  combiner,
  surgeProtection,
  dcSwitch,
  inverter,
  supply,
  board,
  rcd,
  circuit,
  chargePoint,
  electrode,
  buriedService,
] as const
export type Kind = (typeof kinds)[number]

const byName = new Map<string, Kind>(kinds.map((one) => [one.schema.shape.kind.value, one]))

/** What a kind of part says of itself. @throws Error where there is none of that name. */
export function kindOf(name: string): Kind {
  const found = byName.get(name)
  if (!found) throw new Error(`kindOf: expected a kind of part, got ${name}`)
  return found
}
export const nameOf = (kind: Kind): Kind['schema']['shape']['kind']['value'] => kind.schema.shape.kind.value

export type RuledField = PartField & { rule: FieldRule }
const fields = new Map<Kind, readonly RuledField[]>()

/** What is asked of a kind of part, each with what it takes. */
export function fieldsOf(kind: Kind): readonly RuledField[] {
  const known = fields.get(kind) ?? kind.fields.map((field) => ({ ...field, rule: ruleOf(kind, field) }))
  fields.set(kind, known)
  return known
}

const hanging = new Map<string, ReadonlyMap<string, PartField['names']>>(
  kinds.map((kind) => [nameOf(kind), new Map(kind.fields.map((field) => [field.id, field.names]))]),
)

/** What a field of a kind of part names. @throws Error where it names nothing. */
export function namedBy(kind: string, field: string): NonNullable<PartField['names']> {
  const found = hanging.get(kind)?.get(field)
  if (!found) throw new Error(`namedBy: expected a field that names a part, got ${kind} ${field}`)
  return found
}
