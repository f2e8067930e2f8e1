/** What is asked of a string's insulation: test voltage and least, by school and by table, alone or with its group. */
import { convertersOf, electronicsOf } from '../../plant/moduleElectronics'
import type { StringPart } from '../../plant/part'
import { type InsulationTest, insulationTest } from '../../pv/insulation'
import { choiceIn, numberIn } from '../reading'
import { numberSlot } from '../slot'
import type { Reading, StepContext } from '../step'

/** Test voltages as choices: `v500` is 500 V. */
export const SETTINGS = ['v250', 'v500', 'v1000', 'v1500'] as const
export const settingOf = (choice: string | null): number | null => (choice ? Number(choice.slice(1)) : null)

/** What surge protection that is left in bears. It is the way of the AC rules: on the DC side close at best. */
export const WITH_SURGE_V = 250

export type InsulationAsked = {
  test: InsulationTest
  byTable: InsulationTest | null
  voc_V: number
  /** Of the modules at their maximum-power point, or as it was read under load. */
  working_V: number
  /** The voltage under load as somebody read it, null where the plate stands in. */
  readUnderLoad: string | null
}

/** Asked where the test voltage goes by it: what the string was just read at under load. */
export const workingVolts = numberSlot('working-volts', 'dc-voltage', 'V', 2, {
  optional: true,
  only: (_, { schools }) => schools['pv.insulation-voltage'] === 'twice',
})

/** Less than this share of the plate's is no voltage of that string under load: a test by it would prove too little. */
const LEAST_SHARE = 0.6

/** A voltage under load that cannot be the string's, with what its plate says; null where it can, or none was read. */
export function strangeWorkingVolts({
  part,
  reading,
}: StepContext<'string'>): { read: string; plate_V: number } | null {
  const read = numberIn(reading, workingVolts.id)
  const { modulesInSeries, moduleType } = part.data
  const plate_V = modulesInSeries * moduleType.data.vmp_V
  const isOf = read?.bound === 'exact' && read.value >= LEAST_SHARE * plate_V
  return read && !isOf ? { read: read.text, plate_V } : null
}

const lower = (a: number | null, b: number | null): number | null =>
  a === null || b === null ? (a ?? b) : Math.min(a, b)

/** What is asked of a string: by the regime's school, and by the standard's own table. */
export function insulationAsked(context: StepContext<'string'>): InsulationAsked | null {
  const { part, regime, reading } = context
  const { modulesInSeries, moduleType } = part.data
  const { voc_V, vmp_V, maxSystemVoltage_V } = moduleType.data
  const school = regime.schools['pv.insulation-voltage']
  const load = school === 'twice' && !strangeWorkingVolts(context) ? numberIn(reading, workingVolts.id) : null
  const electronics = electronicsOf(part)
  const string = {
    voc_V: convertersOf(part)?.most_V ?? modulesInSeries * voc_V,
    working_V: load?.value ?? modulesInSeries * vmp_V,
  }
  const ask = {
    vocStc_V: string.voc_V,
    workingVoltage_V: string.working_V,
    maxSystemVoltage_V: lower(maxSystemVoltage_V ?? null, electronics?.insulation_V ?? null),
  }
  const test = insulationTest({ ...ask, school })
  const byTable = insulationTest({ ...ask, school: 'table' })
  return test && { test, byTable, ...string, readUnderLoad: load?.text ?? null }
}

/** Whether a school asks for less than the standard's table. */
export const departs = ({ test, byTable }: InsulationAsked): boolean =>
  byTable !== null && (test.testVoltage_V < byTable.testVoltage_V || test.minimum_Mohm < byTable.minimum_Mohm)

export const hasSurge = ({ plant }: StepContext<'string'>): boolean => plant.surgeProtection.length > 0
/** The strings that are tested as one: those of its combiner, else of its array. */
export function groupOf({ part, plant }: StepContext<'string'>): readonly StringPart[] {
  const whole = plant.combinerOf(part) ?? plant.arrayOf(part)
  return whole ? plant.stringsOf(whole) : [part]
}

export const byGroup = (reading: Pick<Reading, 'slots'>): boolean => choiceIn(reading, 'together') === 'with-its-group'

export const powerOf_kW = (strings: readonly StringPart[]): number =>
  strings.reduce((sum, one) => sum + one.data.modulesInSeries * one.data.moduleType.data.pmax_W, 0) / 1000
