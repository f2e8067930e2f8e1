/**
 * Insulation of a string to earth, positive and negative in turn or joined. Sources: IEC 62446-1:2016 6.7 and table 2
 * (from memory); schools of test voltage as handbook 5 names them.
 */
import type { StringPart } from '../plant/part'
import type { PlantIndex } from '../plant/plantIndex'
import { type InsulationTest, insulationBand, insulationTest, lowest, SYSTEM_VOLTAGE_FACTOR } from '../pv/insulation'
import { type ReadValue, readValueOf } from '../quantity/readValue'
import type { Body } from '../record/entry'
import { judge } from '../verdict/judge'
import type { Flag } from '../verdict/verdict'
import type { WorkingLine } from '../verdict/working'
import { plain } from './checks'
import type { Judgement, Slot, Step, StepContext } from './step'
import { choiceIn, numberIn } from './stringReading'
import { exampleString } from './worked'

/** Test voltages as choices: `v500` is 500 V. */
const SETTINGS = ['v250', 'v500', 'v1000', 'v1500'] as const
const settingOf = (choice: string | null): number | null => (choice ? Number(choice.slice(1)) : null)
const WITH_SURGE_V = 250

const slots: readonly Slot[] = [
  {
    kind: 'choice',
    id: 'method',
    measures: null,
    options: ['each-to-earth', 'joined-to-earth'],
    sound: ['each-to-earth', 'joined-to-earth'],
    sticky: true,
    balloon: 1,
  },
  { kind: 'choice', id: 'set-voltage', measures: null, options: SETTINGS, sound: SETTINGS, sticky: true, balloon: 3 },
  {
    kind: 'number',
    id: 'negative-to-earth',
    measures: 'insulation',
    unit: 'Mohm',
    balloon: 1,
    when: { slot: 'method', is: ['each-to-earth'] },
  },
  {
    kind: 'number',
    id: 'positive-to-earth',
    measures: 'insulation',
    unit: 'Mohm',
    balloon: 2,
    when: { slot: 'method', is: ['each-to-earth'] },
  },
  {
    kind: 'number',
    id: 'joined',
    measures: 'insulation',
    unit: 'Mohm',
    balloon: 1,
    when: { slot: 'method', is: ['joined-to-earth'] },
  },
  { kind: 'number', id: 'applied', measures: 'dc-voltage', unit: 'V', balloon: 3, optional: true },
  {
    kind: 'choice',
    id: 'behaviour',
    measures: null,
    options: ['steady', 'risen-to-it', 'wandering'],
    sound: ['steady', 'risen-to-it'],
    auto: 'steady',
    balloon: 3,
  },
  {
    kind: 'choice',
    id: 'surface',
    measures: null,
    options: ['dry', 'damp', 'wet'],
    sound: ['dry', 'damp', 'wet'],
    sticky: true,
    balloon: 4,
  },
  {
    kind: 'choice',
    id: 'surge',
    measures: null,
    options: ['none-there', 'disconnected', 'left-in'],
    sound: ['none-there', 'disconnected', 'left-in'],
    sticky: true,
    balloon: 4,
  },
  {
    kind: 'choice',
    id: 'together',
    measures: null,
    options: ['by-string', 'with-its-group'],
    sound: ['by-string', 'with-its-group'],
    sticky: true,
    optional: true,
    balloon: 2,
  },
]

type Asked = { test: InsulationTest; voc_V: number; working_V: number }

function asked({ part, regime }: StepContext<'string'>): Asked | null {
  const { modulesInSeries, moduleType } = part.data
  const { voc_V, vmp_V, maxSystemVoltage_V } = moduleType.data
  const school = regime.schools['pv.insulation-voltage']
  const string = { voc_V: modulesInSeries * voc_V, working_V: modulesInSeries * vmp_V }
  const test = insulationTest({
    vocStc_V: string.voc_V,
    school,
    workingVoltage_V: string.working_V,
    maxSystemVoltage_V: maxSystemVoltage_V ?? null,
  })
  return test && { test, ...string }
}

/** Surge protection that is left in would conduct: then 250 V is the test, and the record says so. */
function testVoltage(context: StepContext<'string'>, test: InsulationTest, surge: string | null): number {
  return surge === 'left-in' && hasSurge(context.plant)
    ? Math.min(WITH_SURGE_V, test.testVoltage_V)
    : test.testVoltage_V
}
const hasSurge = (plant: PlantIndex): boolean => plant.surgeProtection.length > 0

/** The readings of the method that was chosen; every one of them must be there. */
function readings(reading: Pick<Body<'reading'>, 'slots'>): ReadValue[] | null {
  const ids =
    choiceIn(reading, 'method') === 'joined-to-earth' ? ['joined'] : ['negative-to-earth', 'positive-to-earth']
  const found = ids.map((id) => numberIn(reading, id)).filter((one) => one !== null)
  return found.length === ids.length ? found : null
}

/** The strings that are tested as one: those of its combiner, else of its array. */
function groupOf({ part, plant }: StepContext<'string'>): readonly StringPart[] {
  const combiner = plant.ofKind('combiner').find((one) => one.id === part.data.combinerId)
  const whole = combiner ?? plant.arrayOf(part)
  return whole ? plant.stringsOf(whole) : [part]
}

const byGroup = (reading: Pick<Body<'reading'>, 'slots'>): boolean => choiceIn(reading, 'together') === 'with-its-group'

const powerOf_kW = (strings: readonly StringPart[]): number =>
  strings.reduce((sum, one) => sum + one.data.modulesInSeries * one.data.moduleType.data.pmax_W, 0) / 1000

function judgeInsulation(context: StepContext<'string'>, reading: Body<'reading'>): Judgement {
  const { tag } = context.part.data
  const ask = asked(context)
  if (!ask) return plain('not-yet', { code: 'pv-insulation.no-step', figures: { tag } })
  const list = readings(reading)
  const set_V = settingOf(choiceIn(reading, 'set-voltage'))
  if (!list || set_V === null) return plain('not-yet', { code: 'pv-insulation.no-reading', figures: { tag } })
  const most_kW = context.regime.limits['pv.insulation-group'].value
  const group_kW = powerOf_kW(groupOf(context))
  if (byGroup(reading) && group_kW > most_kW)
    return plain('not-yet', { code: 'pv-insulation.group-too-large', figures: { group_kW, most_kW, tag } })
  const surge = choiceIn(reading, 'surge')
  const wanted_V = testVoltage(context, ask.test, surge)
  const least = ask.test.minimum_Mohm
  const band = insulationBand(least, context.regime.limits['close.insulation'].value)
  const counting = lowest(list)!
  const where = judge(counting, band, 0)
  const source =
    context.regime.schools['pv.insulation-voltage'] === 'table' ? 'iec-62446-insulation' : 'insulation-practice'
  const wanders = choiceIn(reading, 'behaviour') === 'wandering'
  const tooLow = set_V < wanted_V && where.verdict !== 'outside'
  const verdict = wanders ? 'outside' : tooLow ? 'not-yet' : where.verdict
  const code = wanders ? 'wanders' : tooLow ? 'too-low-voltage' : verdict
  const flags: Flag[] = []
  if (ask.test.loweredFrom_V !== null) flags.push('test-voltage-lowered')
  if (surge === 'left-in') flags.push('surge-left-in')
  if (choiceIn(reading, 'surface') !== 'dry') flags.push('damp-surface')
  return {
    ...plain(verdict, {
      code: `pv-insulation.${code}`,
      figures: { read: counting.text, least, set_V, wanted_V, tag },
    }),
    flags,
    rule: {
      unit: 'Mohm',
      scale: 'log',
      measured: { value: counting.value, bound: counting.bound, whisker: 0, text: counting.text },
      expected: null,
      band,
      source,
    },
    limits: [{ id: 'pv.insulation', value: least, unit: 'Mohm', source }],
  }
}

function insulationWorking(
  context: StepContext<'string'>,
  reading: Pick<Body<'reading'>, 'slots' | 'conditions' | 'instrument'>,
): WorkingLine[] {
  const ask = asked(context)
  if (!ask) return []
  const school = context.regime.schools['pv.insulation-voltage']
  const source = school === 'table' ? 'iec-62446-insulation' : 'insulation-practice'
  const { modulesInSeries: modules, moduleType } = context.part.data
  const lines: WorkingLine[] = [
    school === 'twice'
      ? {
          code: 'pv-insulation.working',
          figures: { modules, vmp_V: moduleType.data.vmp_V },
          result: { value: 2 * ask.working_V, unit: 'V', decimals: 0 },
          source,
        }
      : {
          code: 'pv-insulation.system',
          figures: { factor: SYSTEM_VOLTAGE_FACTOR, modules, voc_V: moduleType.data.voc_V },
          result: { value: SYSTEM_VOLTAGE_FACTOR * ask.voc_V, unit: 'V', decimals: 0 },
          source,
        },
    {
      code: `pv-insulation.school-${school}`,
      figures: {},
      result: { value: ask.test.loweredFrom_V ?? ask.test.testVoltage_V, unit: 'V', decimals: 0 },
      source,
    },
  ]
  if (ask.test.loweredFrom_V !== null) {
    lines.push({
      code: 'pv-insulation.lowered',
      figures: { most_V: moduleType.data.maxSystemVoltage_V ?? 0 },
      result: { value: ask.test.testVoltage_V, unit: 'V', decimals: 0 },
      source,
    })
  }
  if (hasSurge(context.plant)) {
    lines.push({
      code: 'pv-insulation.surge',
      figures: {},
      result: { value: Math.min(WITH_SURGE_V, ask.test.testVoltage_V), unit: 'V', decimals: 0 },
      source: 'iec-62446-insulation',
    })
  }
  if (byGroup(reading)) {
    const group = groupOf(context)
    const { value, source: from } = context.regime.limits['pv.insulation-group']
    lines.push({
      code: 'pv-insulation.group',
      figures: { count: group.length, most_kW: value },
      result: { value: powerOf_kW(group), unit: 'kW', decimals: 1 },
      source: from,
    })
  }
  lines.push({
    code: 'pv-insulation.least',
    figures: {},
    result: { value: ask.test.minimum_Mohm, unit: 'Mohm', decimals: 1 },
    source,
    decides: true,
  })
  const list = readings(reading)
  const counting = list && lowest(list)
  if (counting?.bound === 'exact' && list!.length > 1) {
    lines.push({
      code: 'pv-insulation.lowest',
      figures: { a: list![0]!.text, b: list![1]!.text },
      result: { value: counting.value, unit: 'Mohm', decimals: 1 },
      source: null,
    })
  }
  return lines
}

export const pvInsulation: Step<'string'> = {
  id: 'pv-insulation',
  order: 'B8',
  appliesTo: 'string',
  station: 'strings',
  tag: 'live-in-daylight',
  slots,
  needsConditions: false,
  counts: 'worst',
  gates: [
    { id: 'reversed-polarity', hard: true, waitsFor: 'pv-polarity', until: 'not-outside' },
    { id: 'voltage-before-insulation', hard: false, waitsFor: 'pv-voc', until: 'done' },
  ],
  cautions: [
    { id: 'nobody-touches', hard: true },
    { id: 'warn-others', hard: true },
    { id: 'discharge-after', hard: false },
    { id: 'not-dead', hard: false },
  ],
  hookup: {
    drawing: 'insulation-to-frame',
    leads: [
      { balloon: 1, code: 'minus-first' },
      { balloon: 2, code: 'then-plus' },
      { balloon: 3, code: 'insulation-tester' },
      { balloon: 4, code: 'frame-or-rail' },
    ],
  },
  minutes: 4,
  sources: ['iec-62446-insulation', 'insulation-practice'],
  inputs: (part) => {
    const { voc_V, vmp_V, maxSystemVoltage_V } = part.data.moduleType.data
    return `${part.data.modulesInSeries}|${voc_V}|${vmp_V}|${maxSystemVoltage_V ?? ''}`
  },
  sharedWith: (context, reading) =>
    byGroup(reading) ? groupOf(context).filter((one) => one.id !== context.part.id) : [],
  judge: judgeInsulation,
  working: insulationWorking,
  causes(context, reading, judgement) {
    if (judgement.verdict !== 'outside' && judgement.verdict !== 'close') return []
    const figures = { tag: context.part.data.tag }
    const damp = choiceIn(reading, 'surface') !== 'dry'
    const minus = numberIn(reading, 'negative-to-earth')
    const plus = numberIn(reading, 'positive-to-earth')
    const side = minus && plus && minus.value < plus.value ? 'damp-plug-minus' : 'damp-plug-plus'
    return [
      {
        code: side,
        figures,
        fit: damp ? 'fits' : 'may-fit',
        predicted: null,
        next: { code: 'dry-and-halve', figures },
      },
      { code: 'cable-pinched', figures, fit: 'may-fit', predicted: null, next: { code: 'find-the-fault', figures } },
      {
        code: 'surge-protection-in',
        figures,
        fit: choiceIn(reading, 'surge') === 'left-in' ? 'fits' : 'does-not-fit',
        predicted: null,
        next: { code: 'take-surge-out', figures },
      },
    ]
  },
  example: {
    source: 'handbook 17 [T]: Riso 900 Mohm at 500 V, risen to it, is within; 8 modules of 36.85 V, system 368.5 V',
    part: exampleString(8),
    reading: {
      slots: {
        method: { choice: 'joined-to-earth' },
        'set-voltage': { choice: 'v500' },
        joined: readValueOf(900, 'Mohm', 0),
        behaviour: { choice: 'risen-to-it' },
        surface: { choice: 'dry' },
        surge: { choice: 'none-there' },
      },
      conditions: null,
    },
    verdict: 'within',
  },
}
