/**
 * What an assessor looks for besides readings: whose installation it is, who answers for it, what it is made of. No test
 * waits for any of it; what the sheets of this plant print is asked for before somebody signs, and never made up.
 * Sources: BS 7671 appendix 6 and IEC 62446-1:2016 clause 4 (from memory).
 */
import { fieldsOf, kindOf, type RuledField } from '../plant/kinds'
import type { Sheet } from '../plant/kinds/descriptor'
import { valueAt } from '../plant/missing'
import type { Part } from '../plant/part'
import type { PlantIndex } from '../plant/plantIndex'
import type { Finding } from '../verdict/verdict'
import type { Evaluation } from './types'

/** The sheets that a plant calls for; of one that is empty as yet, the sun's. */
export function sheetsOf(plant: PlantIndex): ReadonlySet<Sheet> {
  const sheets = new Set<Sheet>()
  if (plant.hasAcSide) sheets.add('electrical')
  if (plant.ofKind('string').length > 0 || !plant.hasAcSide) sheets.add('pv')
  return sheets
}

/** The particulars of a part that these sheets print, as far as another of its fields does not make them idle. */
export const particularsOf = (part: Part, sheets: ReadonlySet<Sheet>): readonly RuledField[] =>
  fieldsOf(kindOf(part.data.kind)).filter(
    ({ on, when }) =>
      on?.some((sheet) => sheets.has(sheet)) &&
      (!when || when.is.includes(String(valueAt(part.data, when.field) ?? ''))),
  )

export const isOpenField = (part: Part, { id }: RuledField): boolean => {
  const value = valueAt(part.data, id)
  return value === null || value === ''
}

export type Lacking = { part: Part; fields: readonly RuledField[] }

/** Particulars that nobody entered, part by part in the order of the plant. */
export function lackingParticulars({ plant }: Evaluation): Lacking[] {
  const sheets = sheetsOf(plant)
  return [...plant.parts.values()].flatMap((part) => {
    if (part.retired) return []
    const fields = particularsOf(part, sheets).filter((field) => isOpenField(part, field))
    return fields.length > 0 ? [{ part, fields }] : []
  })
}

/**
 * Days that cannot be: built after it was read, inspected again before it was.
 * @param dayOf the day of an instant at the site, as 2026-03-07.
 */
export function strangeDays({ plant, steps }: Evaluation, dayOf: (at_ms: number) => string): Finding[] {
  const site = plant.site?.data
  const times = steps.flatMap(({ readings }) => readings.map(({ at }) => at))
  if (!site || times.length === 0) return []
  const last = dayOf(times.reduce((latest, at) => Math.max(latest, at)))
  const found: Finding[] = []
  if (site.installedOn && site.installedOn > last)
    found.push({ code: 'particulars.built-after', figures: { day: site.installedOn, last } })
  if (site.nextOn && site.nextOn <= last)
    found.push({ code: 'particulars.next-before', figures: { day: site.nextOn, last } })
  return found
}
