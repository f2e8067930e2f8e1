/** What is asked of a string's insulation: test voltage and least, by school and by table, alone or with its group. */
import type { StringPart } from '../../plant/part'
import { type InsulationTest, insulationTest } from '../../pv/insulation'
import { choiceIn } from '../reading'
import type { Reading, StepContext } from '../step'

/** What surge protection that is left in bears. It is the way of the AC rules: on the DC side close at best. */
export const WITH_SURGE_V = 250

export type InsulationAsked = { test: InsulationTest; byTable: InsulationTest | null; voc_V: number; working_V: number }

/** What is asked of a string: by the regime's school, and by the standard's own table. */
export function insulationAsked({ part, regime }: StepContext<'string'>): InsulationAsked | null {
  const { modulesInSeries, moduleType } = part.data
  const { voc_V, vmp_V, maxSystemVoltage_V } = moduleType.data
  const school = regime.schools['pv.insulation-voltage']
  const string = { voc_V: modulesInSeries * voc_V, working_V: modulesInSeries * vmp_V }
  const ask = {
    vocStc_V: string.voc_V,
    workingVoltage_V: string.working_V,
    maxSystemVoltage_V: maxSystemVoltage_V ?? null,
  }
  const test = insulationTest({ ...ask, school })
  return test && { test, byTable: insulationTest({ ...ask, school: 'table' }), ...string }
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
