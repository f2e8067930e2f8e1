/** The sum behind the test voltage of a string's insulation: system voltage, school, what it was lowered or limited to. */
import { SYSTEM_VOLTAGE_FACTOR } from '../../pv/insulation'
import { convertersOf, electronicsOf } from '../../plant/moduleElectronics'
import type { WorkingLine } from '../../verdict/working'
import type { StepContext } from '../step'
import { byGroup, departs, groupOf, hasSurge, type InsulationAsked, powerOf_kW, WITH_SURGE_V } from './insulationAsked'

/** Whose limit brought the test voltage down: the modules', or that of the electronics on them. */
function loweredBy({ part }: StepContext<'string'>): { code: string; most_V: number } {
  const modules_V = part.data.moduleType.data.maxSystemVoltage_V ?? Number.POSITIVE_INFINITY
  const electronics_V = electronicsOf(part)?.insulation_V ?? Number.POSITIVE_INFINITY
  return electronics_V < modules_V
    ? { code: 'lowered-electronics', most_V: electronics_V }
    : { code: 'lowered', most_V: modules_V }
}

export function insulationSum(context: StepContext<'string'>, ask: InsulationAsked): WorkingLine[] {
  const school = context.regime.schools['pv.insulation-voltage']
  const source = school === 'table' ? 'iec-62446-insulation' : 'insulation-practice'
  const { modulesInSeries: modules, moduleType } = context.part.data
  const { testVoltage_V, loweredFrom_V } = ask.test
  const ceiling_V = convertersOf(context.part)?.most_V
  const volts = (code: string, value: number, figures: WorkingLine['figures'] = {}): WorkingLine => ({
    code: `pv-insulation.${code}`,
    figures,
    result: { value, unit: 'V', decimals: 0 },
    source,
  })
  const lines: WorkingLine[] = [
    school === 'twice'
      ? ask.readUnderLoad
        ? volts('working-read', 2 * ask.working_V, { read: ask.readUnderLoad })
        : volts('working', 2 * ask.working_V, { modules, vmp_V: moduleType.data.vmp_V })
      : ceiling_V
        ? volts('system-converted', SYSTEM_VOLTAGE_FACTOR * ask.voc_V, { factor: SYSTEM_VOLTAGE_FACTOR, ceiling_V })
        : volts('system', SYSTEM_VOLTAGE_FACTOR * ask.voc_V, {
            factor: SYSTEM_VOLTAGE_FACTOR,
            modules,
            voc_V: moduleType.data.voc_V,
          }),
    volts(`school-${school}`, loweredFrom_V ?? testVoltage_V),
  ]
  if (loweredFrom_V !== null) {
    const { code, most_V } = loweredBy(context)
    lines.push(volts(code, testVoltage_V, { most_V }))
  }
  if (departs(ask))
    lines.push({
      ...volts('departs', ask.byTable!.testVoltage_V, { least: ask.byTable!.minimum_Mohm }),
      source: 'iec-62446-insulation',
    })
  if (hasSurge(context))
    lines.push({ ...volts('surge', Math.min(WITH_SURGE_V, testVoltage_V)), source: 'bs7671-insulation' })
  if (byGroup(context.reading)) {
    const group = groupOf(context)
    const { value, source: from } = context.limit('pv.insulation-group')
    lines.push({
      code: 'pv-insulation.group',
      figures: { count: group.length, most_kW: value },
      result: { value: powerOf_kW(group), unit: 'kW', decimals: 1 },
      source: from,
    })
  }
  return lines
}
