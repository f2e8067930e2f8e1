/**
 * The design check before anything is connected, one step for each danger. Nobody reads anything: each verdict follows
 * from the plant. Sources: IEC 60364-7-712 and IEC 62548 (from memory).
 */
import { STC_TEMPERATURE_C } from '../pv/constants'
import { type Circuit, coldFactor, coldVoltage, workingVoltage } from '../pv/ratings'
import { temperatureFactor } from '../pv/temperatureFactor'
import type { Measurable } from '../record/instrument'
import type { SourceId } from '../regime/sources'
import type { WorkingLine } from '../verdict/working'
import { type Checked, checksOf, circuitsOf, decidingOf, factorsOf, judgeDesign } from './designCircuits'
import type { Step, StepContext, WorkedExample } from './step'
import { exampleModule } from './worked'

type Order = Step['order']
type Danger = {
  id: string
  order: Order
  ids: readonly string[]
  decimals: number
  /** Whose plates are held against one another, as the drawing numbers them. */
  plates: readonly string[]
  sources: readonly SourceId[]
  sum(context: StepContext<'array'>, circuit: Circuit): WorkingLine[]
  example: Omit<WorkedExample, 'reading' | 'part'>
  /** Checks beyond those of the circuit itself. */
  more?(context: StepContext<'array'>): Checked[]
}

const exampleArray = { kind: 'array', tag: 'South', tilt_deg: 35, azimuth_deg: 170, mounting: 'open-rack' } as const
const moduleType = {
  id: '00000000-0000-7000-8000-000000000001',
  make: 'Example',
  name: 'Sixty',
  data: { ...exampleModule, maxSystemVoltage_V: 1000, maxSeriesFuse_A: 15 },
}
const strings = (arrayId: string, count: number, modulesInSeries: number, isc_A = 8.8) =>
  Array.from({ length: count }, (_, k) => ({
    kind: 'string' as const,
    tag: `${k + 1}`,
    arrayId,
    modulesInSeries,
    moduleType: { ...moduleType, data: { ...moduleType.data, isc_A, imp_A: isc_A - 0.6 } },
    input: 'A',
  }))

function coldSum({ regime }: StepContext<'array'>, circuit: Circuit): WorkingLine[] {
  const { module, modulesInSeries: modules, lowestTemperature_C: lowest_C, school } = circuit
  const flat = regime.limits['pv.cold-flat'].value
  const factor = coldFactor(school, module.beta_pctPerK, lowest_C, flat) ?? temperatureFactor(lowest_C) ?? flat
  const value = coldVoltage(circuit, factorsOf(regime))
  if (value === null) return []
  return [
    {
      code: `design.cold-${school}`,
      figures: {
        modules,
        voc_V: module.voc_V,
        beta_pctPerK: module.beta_pctPerK ?? 0,
        lowest_C,
        factor,
        stc_C: STC_TEMPERATURE_C,
      },
      result: { value, unit: 'V', decimals: 1 },
      source: school === 'table' ? 'temperature-table' : school === 'beta' ? 'iec-60364-712' : 'rating-plate',
    },
  ]
}

function trackerSum({ models }: StepContext<'array'>, circuit: Circuit): WorkingLine[] {
  const model = models.of(circuit.module as never)
  return [circuit.lowestTemperature_C, circuit.highestCellTemperature_C].map((cell_C) => ({
    code: 'design.working-voltage',
    figures: { modules: circuit.modulesInSeries, cell_C },
    result: { value: workingVoltage(circuit, model, cell_C), unit: 'V', decimals: 1 },
    source: 'de-soto',
  }))
}

function currentSum({ regime }: StepContext<'array'>, circuit: Circuit): WorkingLine[] {
  const factor = regime.limits['pv.current-factor'].value
  const { module, stringsInParallel: parallel } = circuit
  return [
    {
      code: 'design.carried',
      figures: { factor, parallel, isc_A: module.isc_A },
      result: { value: factor * parallel * module.isc_A, unit: 'A', decimals: 1 },
      source: 'iec-60364-712',
    },
  ]
}

function fuseSum({ regime }: StepContext<'array'>, circuit: Circuit): WorkingLine[] {
  const { current, fuseLow, fuseHigh } = factorsOf(regime)
  const { module, stringsInParallel: parallel } = circuit
  return [
    {
      code: 'design.reverse',
      figures: { parallel, factor: current, isc_A: module.isc_A },
      result: { value: (parallel - 1) * current * module.isc_A, unit: 'A', decimals: 1 },
      source: 'iec-62548',
    },
    {
      code: 'design.fuse-from',
      figures: { factor: fuseLow, isc_A: module.isc_A },
      result: { value: fuseLow * module.isc_A, unit: 'A', decimals: 1 },
      source: 'iec-62548',
    },
    {
      code: 'design.fuse-to',
      figures: { factor: fuseHigh, isc_A: module.isc_A, module_A: module.maxSeriesFuse_A ?? 0 },
      result: {
        value: Math.min(fuseHigh * module.isc_A, module.maxSeriesFuse_A ?? Number.POSITIVE_INFINITY),
        unit: 'A',
        decimals: 1,
      },
      source: 'iec-62548',
    },
  ]
}

/** The highest input of the kit for a quantity, null where nothing measures it. */
function kitInput({ instruments }: StepContext<'array'>, measures: Measurable): number | null {
  const most = instruments.flatMap((one) => one.ranges.filter((range) => range.measures === measures))
  return most.length === 0 ? null : Math.max(...most.map((range) => range.most))
}

/** The instruments' own limits against what a string can deliver: volts in the cold, amperes at a cloud's edge. */
function kitChecks(context: StepContext<'array'>): Checked[] {
  const factors = factorsOf(context.regime)
  return circuitsOf(context).flatMap(({ tag, circuit }) => {
    const wanted = [
      {
        id: 'kit-voltage',
        unit: 'V' as const,
        value: coldVoltage(circuit, factors),
        high: kitInput(context, 'dc-voltage'),
      },
      {
        id: 'kit-current',
        unit: 'A' as const,
        value: factors.current * circuit.module.isc_A,
        high: kitInput(context, 'dc-current'),
      },
    ]
    return wanted
      .filter((one) => one.value !== null && one.high !== null)
      .map(({ id, unit, value, high }) => {
        const verdict = value! > high! ? 'outside' : value === high ? 'close' : 'within'
        return { tag, circuit, check: { id, unit, value, limit: high, low: null, high, verdict } } satisfies Checked
      })
  })
}

function surgeChecks(context: StepContext<'array'>): Checked[] {
  const factors = factorsOf(context.regime)
  return circuitsOf(context).flatMap(({ tag, circuit }) =>
    context.plant.surgeProtection.map((surge) => {
      const value = coldVoltage(circuit, factors)
      const high = surge.data.ratedVoltage_V
      const verdict =
        value === null || high === null ? 'not-yet' : value > high ? 'outside' : value === high ? 'close' : 'within'
      const check = { id: 'voc-cold-surge', unit: 'V' as const, value, limit: high, low: null, high, verdict } as const
      return { tag, circuit, check }
    }),
  )
}

function designStep(danger: Danger): Step<'array'> {
  const checks = (context: StepContext<'array'>): Checked[] => [
    ...checksOf(context, danger.ids),
    ...(danger.more?.(context) ?? []),
  ]
  return {
    id: danger.id,
    order: danger.order,
    appliesTo: 'array',
    station: 'modules',
    tag: 'live-in-daylight',
    slots: [],
    needsConditions: false,
    counts: 'latest',
    gates: [],
    cautions: [{ id: 'before-connecting', hard: false }],
    hookup: { drawing: danger.id, leads: danger.plates.map((code, k) => ({ balloon: k + 1, code })) },
    minutes: 0,
    sources: danger.sources,
    inputs: () => '',
    compute: (context) => judgeDesign(checks(context), danger.decimals),
    judge: (context) => judgeDesign(checks(context), danger.decimals),
    working(context) {
      const list = checks(context)
      const deciding = decidingOf(list)
      if (!deciding) return []
      return [
        ...danger.sum(context, deciding.circuit),
        ...list
          .filter((one) => one.circuit === deciding.circuit && one.check.limit !== null)
          .map(({ check, tag }) => ({
            code: 'design.limit',
            figures: { what: check.id, tag, verdict: check.verdict },
            result: { value: check.limit!, unit: check.unit, decimals: danger.decimals },
            source: null,
            decides: check === deciding.check,
          })),
      ]
    },
    example: { ...danger.example, part: exampleArray, reading: null },
  }
}

export const designSteps: readonly Step<'array'>[] = [
  designStep({
    id: 'design-voltage',
    order: 'A2',
    ids: ['voc-cold-inverter', 'voc-cold-switch', 'voc-cold-module', 'voc-cold-fuse'],
    decimals: 0,
    plates: ['string-plate', 'switch-plate', 'inverter-plate'],
    sources: ['iec-60364-712', 'temperature-table'],
    sum: coldSum,
    more: surgeChecks,
    example: {
      source: 'computed: 24 * 36.85 V * (1 + 0.0034 * 35) is 990 V, past a 950 V inverter and under 1000 V modules',
      others: (id) => [...strings(id, 1, 24), { kind: 'inverter', tag: 'INV', maxInput_V: 950 }],
      verdict: 'outside',
    },
  }),
  designStep({
    id: 'design-tracker',
    order: 'A3',
    ids: ['vmp-cold-tracker', 'vmp-hot-tracker'],
    decimals: 0,
    plates: ['string-plate', 'inverter-plate'],
    sources: ['de-soto', 'iec-60364-712'],
    sum: trackerSum,
    example: {
      source: 'computed: eight modules of 30 V work below 240 V when hot, under a window that begins at 300 V',
      others: (id) => [
        ...strings(id, 1, 8),
        { kind: 'inverter', tag: 'INV', maxInput_V: 1000, trackerMin_V: 300, trackerMax_V: 800 },
      ],
      verdict: 'outside',
    },
  }),
  designStep({
    id: 'design-current',
    order: 'A4',
    ids: ['isc-switch', 'isc-inverter'],
    decimals: 1,
    plates: ['string-plate', 'switch-plate', 'inverter-plate'],
    sources: ['iec-60364-712'],
    sum: currentSum,
    example: {
      source: 'handbook 17 [T]: 14 A gives 17.5 A, so a 20 A switch, not 16 A',
      others: (id) => [
        ...strings(id, 1, 10, 14),
        { kind: 'dc-switch', tag: 'DC1', ratedVoltage_V: 1000, rating_A: 16 },
      ],
      verdict: 'outside',
    },
  }),
  designStep({
    id: 'design-fuses',
    order: 'A5',
    ids: ['fuse-needed', 'fuse-range'],
    decimals: 1,
    plates: ['string-plate', 'fuse-plate'],
    sources: ['iec-62548', 'iec-60364-712'],
    sum: fuseSum,
    example: {
      source: 'IEC 62548 (from memory): (3 - 1) * 1.25 * 8.8 A is 22 A, above the module’s 15 A: fuses are needed',
      others: (id) => strings(id, 3, 10),
      verdict: 'outside',
    },
  }),
  designStep({
    id: 'design-kit',
    order: 'A6',
    ids: [],
    decimals: 1,
    plates: ['string-plate', 'tester-plate'],
    sources: ['rating-plate', 'iec-60364-712'],
    sum: coldSum,
    more: kitChecks,
    example: {
      source: 'handbook 2 A: a string above the tester’s input limit is a hard stop; none in the kit, nothing to check',
      others: (id) => strings(id, 1, 10),
      verdict: 'within',
    },
  }),
]
