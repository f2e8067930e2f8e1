/** What entries keep of the instruments that they name, taken from the kit itself and never from whoever sends them. */
import { measuredBy } from '../steps/measuredBy'
import { measuredIn } from '../steps/reading'
import { type AnyStep, slotsOf } from '../steps/step'
import type { Body, Conditions, EntryBody } from './entry'
import { copyForReading, type Instrument, type InstrumentCopy, type Measurable } from './instrument'

/** The copy that a reading of a step keeps of an instrument; null where it does not measure what the reading was taken for. */
export function copyFor(step: AnyStep, slots: Body<'reading'>['slots'], tool: Instrument): InstrumentCopy | null {
  const own = slotsOf(step)
  const measures = measuredIn(own, { slots }) ?? measuredBy(step)
  const also = own.flatMap((slot) => (slot.id in slots && slot.measures ? [slot.measures] : []))
  return measures ? copyForReading(tool, measures, also) : null
}

type Kit = ReadonlyMap<string, Instrument>
type Named = Pick<InstrumentCopy, 'id'> | null

/** Ids of the instruments that an entry names. */
export function instrumentsNamed(body: EntryBody): string[] {
  const conditions = body.kind === 'reading' || body.kind === 'conditions' ? body.conditions : null
  const named: (Named | undefined)[] = [conditions?.irradiance.instrument, conditions?.cell.instrument]
  if (body.kind === 'reading') named.push(body.instrument, body.air?.instrument)
  return [...new Set(named.flatMap((one) => (one ? [one.id] : [])))]
}

/**
 * The entry's body with every instrument's copy as the kit has it: its calibration, its accuracy, whether it is simulated.
 *
 * @param kit every instrument that the body names.
 */
export function withKitCopies(body: EntryBody, step: AnyStep | null, kit: Kit): EntryBody {
  if (body.kind === 'conditions') return { ...body, conditions: lightWithCopies(body.conditions, kit) }
  if (body.kind !== 'reading') return body
  const tool = body.instrument && kit.get(body.instrument.id)
  const conditions = body.conditions && lightWithCopies(body.conditions, kit)
  const { air } = body
  const known = {
    ...body,
    conditions,
    ...(air ? { air: { ...air, instrument: copied(air.instrument, 'air-temperature', kit) } } : {}),
  }
  if (!tool || !step) return known
  return { ...known, instrument: copyFor(step, body.slots, tool) ?? withoutRange(tool) }
}

const WARMTH: Record<Conditions['cell']['way'], Measurable> = {
  back: 'module-back-temperature',
  air: 'air-temperature',
  voltage: 'dc-voltage',
}

function lightWithCopies(conditions: Conditions, kit: Kit): Conditions {
  const { irradiance, cell } = conditions
  return {
    ...conditions,
    irradiance: { ...irradiance, instrument: copied(irradiance.instrument, 'irradiance', kit) },
    cell: { ...cell, instrument: copied(cell.instrument, WARMTH[cell.way], kit) },
  }
}

function copied(named: InstrumentCopy | null, measures: Measurable, kit: Kit): InstrumentCopy | null {
  const tool = named && kit.get(named.id)
  return tool ? (copyForReading(tool, measures) ?? withoutRange(tool)) : named
}

/** An instrument that was named for what it does not measure: it stays named, and nothing is known of its accuracy. */
const withoutRange = ({ id, tag, name, calibrationDue, standIn }: Instrument): InstrumentCopy => ({
  id,
  tag,
  name,
  calibrationDue,
  standIn,
  accuracy: null,
  most: null,
})
