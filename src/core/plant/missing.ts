/** What a part lacks that a test or the design check waits for. */
import { fieldsOf, kindOf, type RuledField } from './kinds'
import type { Part, PartData } from './part'

const isValues = (value: unknown): value is Record<string, unknown> => typeof value === 'object' && value !== null

/** What the data has under the name of a field, a dot leading into it; null where nothing is known. */
export function valueAt(data: PartData, id: string): unknown {
  const found = id.split('.').reduce<unknown>((value, name) => (isValues(value) ? value[name] : null), data)
  return found ?? null
}

/** Fields that are wanted and open still, in the order in which they are asked. */
export const missingOf = (data: PartData): readonly RuledField[] =>
  fieldsOf(kindOf(data.kind)).filter((field) => field.wanted && valueAt(data, field.id) === null)

/** Parts in service that lack a figure. How cold a place gets matters to modules only: nobody asks it of a house without. */
export function lackingIn(parts: Iterable<Part>): Part[] {
  const inService = [...parts].filter((one) => !one.retired)
  const hasStrings = inService.some(({ data }) => data.kind === 'string')
  return inService.filter(({ data }) => (data.kind !== 'site' || hasStrings) && missingOf(data).length > 0)
}
