/** A company's own regime: a copy with other figures or schools, for a reason. Versions never change. */
import { z } from 'zod'
import { type LimitId, limitIds, type Regime, regimeSchema, schoolIds, schoolOptions } from './regime'
import { shippedRegimes } from './shipped'

const schools = z.partialRecord(z.enum(schoolIds as [string, ...string[]]), z.string().max(40))

export const regimeChangeSchema = z.strictObject({
  from: z.strictObject({ id: z.string().max(60), version: z.number().int().min(1) }),
  name: z.string().trim().min(3).max(120),
  /** Only figures that differ. Units stay as they are. */
  limits: z.partialRecord(z.enum(limitIds), z.number()),
  schools,
  reason: z.string().trim().min(3).max(500),
})
export type RegimeChange = z.infer<typeof regimeChangeSchema>

export type ChangedRegime =
  | { state: 'made'; regime: Regime }
  | { state: 'refused'; code: 'regime-unknown' | 'regime-unchanged' | 'regime-name-taken' }
  | { state: 'refused'; code: 'limit-out-of-reach'; limit: LimitId; value: number; from: number; to: number }
  | { state: 'refused'; code: 'school-unknown'; school: string }

/** How far a figure may be from what ships: ten times and a tenth are slips of the decimal point [D]. */
const REACH = 10

const isShipped = (id: string): boolean => shippedRegimes.some((one) => one.id === id)

/** An id from a name: lower-case letters, figures and dashes. */
function idOf(name: string): string {
  const plain = name
    .normalize('NFKD')
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '')
    .slice(0, 60)
  return plain.length >= 3 ? plain : `own-${plain || 'regime'}`
}

/**
 * The next version of a company's own regime, or the first of a copy of one that ships.
 *
 * @param known every version there is.
 * @param by name of the supervisor, kept and printed with the reason.
 */
export function changeRegime(known: readonly Regime[], change: RegimeChange, by: string): ChangedRegime {
  const from = known.find((one) => one.id === change.from.id && one.version === change.from.version)
  if (!from) return { state: 'refused', code: 'regime-unknown' }
  const limits = { ...from.limits }
  for (const id of limitIds) {
    const value = change.limits[id]
    const own = from.limits[id]
    if (value === undefined || value === own?.value) continue
    const base = own ?? shippedRegimes[0]!.limits[id]!
    const shipped = shippedRegimes[0]!.limits[id]!.value
    const [low, high] = [shipped / REACH, shipped * REACH]
    if (!(value >= low && value <= high))
      return { state: 'refused', code: 'limit-out-of-reach', limit: id, value, from: low, to: high }
    limits[id] = { ...base, value, source: 'company' }
  }
  const chosen: Record<string, string> = { ...from.schools }
  for (const school of schoolIds) {
    const option = change.schools[school]
    if (option === undefined) continue
    if (!(schoolOptions[school] as readonly string[]).includes(option))
      return { state: 'refused', code: 'school-unknown', school }
    chosen[school] = option
  }
  const isSame = limitIds.every((id) => limits[id]?.value === from.limits[id]?.value)
  if (isSame && schoolIds.every((id) => chosen[id] === from.schools[id]))
    return { state: 'refused', code: 'regime-unchanged' }
  const goesOn = !isShipped(from.id) && change.name === from.name
  const id = goesOn ? from.id : idOf(change.name)
  const versions = known.filter((one) => one.id === id).map((one) => one.version)
  if (!goesOn && versions.length > 0) return { state: 'refused', code: 'regime-name-taken' }
  const regime = regimeSchema.parse({
    id,
    version: 1 + Math.max(0, ...versions),
    name: change.name,
    limits,
    schools: chosen,
    changed: { from: `${from.name}, ${from.version}`.slice(0, 80), reason: change.reason, by: by.slice(0, 80) },
  })
  return { state: 'made', regime }
}
