/**
 * The design check before anything is connected, one step for each danger. Nobody reads anything: each verdict follows
 * from the plant. Sources: IEC 60364-7-712 and IEC 62548 (from memory).
 */
import { STC_TEMPERATURE_C } from '../../pv/constants'
import {
  atMost,
  carriedBy,
  type Circuit,
  coldFactor,
  coldVoltage,
  dimensioningIsc_A,
  nextRating,
  workingVoltage,
} from '../../pv/ratings'
import { temperatureFactor } from '../../pv/temperatureFactor'
import type { Measurable } from '../../record/instrument'
import type { SourceId } from '../../regime/sources'
import type { Judgement } from '../../verdict/judgement'
import type { WorkingLine } from '../../verdict/working'
import { hidesItsCells } from '../../plant/moduleElectronics'
import type { PlantIndex } from '../../plant/plantIndex'
import type { ComputedStep, Order, PartIn, StepContext, WorkedExample } from '../step'
import { exampleModule, exampleSite } from '../worked'
import { byWeather, type Checked, checksOf, circuitsOf, factorsOf, judgeDesign } from './designCircuits'

type Danger = {
  id: string
  order: Order
  ids: readonly string[]
  decimals: number
  /** What is said where the plant has nothing to hold the strings against. */
  nothing: string
  /** Whose plates are held against one another, as the drawing numbers them. */
  plates: readonly string[]
  sources: readonly SourceId[]
  sum(context: StepContext<'array'>, circuit: Circuit): WorkingLine[]
  example: Omit<WorkedExample, 'reading' | 'part'>
  /** Asked only where a string's own modules decide it: behind converters they do not. */
  ofCells?: true
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
const strings = (arrayId: string, count: number, modulesInSeries: number, isc_A = 9.6) =>
  Array.from({ length: count }, (_, k) => ({
    kind: 'string' as const,
    tag: `${k + 1}`,
    arrayId,
    modulesInSeries,
    moduleType: { ...moduleType, data: { ...moduleType.data, isc_A, imp_A: isc_A - 0.5 } },
    input: 'A',
  }))

function coldSum(context: StepContext<'array'>, circuit: Circuit): WorkingLine[] {
  const ceiling_V = circuit.converters?.most_V
  if (ceiling_V) return [heldAt('design.converters', ceiling_V, 'V')]
  const { module, modulesInSeries: modules, lowestTemperature_C: lowest_C, school } = circuit
  const flat = context.limit('pv.cold-flat').value
  const factor = coldFactor(school, module.beta_pctPerK, lowest_C, flat) ?? temperatureFactor(lowest_C) ?? flat
  const value = coldVoltage(circuit, factorsOf(context))
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

/** What converters hold, as their maker says. */
const heldAt = (code: string, value: number, unit: 'V' | 'A', figures: WorkingLine['figures'] = {}): WorkingLine => ({
  code,
  figures,
  result: { value, unit, decimals: unit === 'V' ? 0 : 1 },
  source: 'rating-plate',
})

function trackerSum({ models }: StepContext<'array'>, circuit: Circuit): WorkingLine[] {
  const model = models.of(circuit.module as never)
  return [circuit.lowestTemperature_C, circuit.highestCellTemperature_C].map((cell_C) => ({
    code: 'design.working-voltage',
    figures: { modules: circuit.modulesInSeries, cell_C },
    result: { value: workingVoltage(circuit, model, cell_C), unit: 'V', decimals: 1 },
    source: 'de-soto',
  }))
}

function currentSum(context: StepContext<'array'>, circuit: Circuit): WorkingLine[] {
  const factor = context.limit('pv.current-factor').value
  const { module, stringsInParallel: parallel, converters } = circuit
  if (converters) {
    const { most_A } = converters
    return most_A === null ? [] : [heldAt('design.carried-converters', parallel * most_A, 'A', { parallel, most_A })]
  }
  const isc_A = dimensioningIsc_A(module)
  const carried_A = factor * parallel * isc_A
  const next_A = nextRating(carried_A)
  return [
    ...backLight(module),
    {
      code: 'design.carried',
      figures: { factor, parallel, isc_A },
      result: { value: carried_A, unit: 'A', decimals: 1 },
      source: 'iec-60364-712',
    },
    ...(next_A === null
      ? []
      : [
          {
            code: 'design.next-size',
            figures: {},
            result: { value: next_A, unit: 'A' as const, decimals: 0 },
            source: 'iec-60059' as const,
          },
        ]),
  ]
}

/** Light on the back, where the module takes it. */
function backLight({ isc_A, bifacialGain_pct }: Circuit['module']): WorkingLine[] {
  if (!bifacialGain_pct) return []
  const value = dimensioningIsc_A({ isc_A, bifacialGain_pct })
  const figures = { isc_A, gain_pct: bifacialGain_pct }
  return [{ code: 'design.back-light', figures, result: { value, unit: 'A', decimals: 2 }, source: 'iec-62548' }]
}

function fuseSum(context: StepContext<'array'>, circuit: Circuit): WorkingLine[] {
  const { current, fuseLow, fuseHigh } = factorsOf(context)
  const { module, stringsInParallel: parallel } = circuit
  const isc_A = dimensioningIsc_A(module)
  return [
    ...backLight(module),
    {
      code: 'design.reverse',
      figures: { parallel, factor: current, isc_A },
      result: { value: (parallel - 1) * current * isc_A, unit: 'A', decimals: 1 },
      source: 'iec-62548',
    },
    {
      code: 'design.fuse-from',
      figures: { factor: fuseLow, isc_A },
      result: { value: fuseLow * isc_A, unit: 'A', decimals: 1 },
      source: 'iec-62548',
    },
    {
      code: 'design.fuse-to',
      figures: { factor: fuseHigh, isc_A, module_A: module.maxSeriesFuse_A ?? 0 },
      result: {
        value: Math.min(fuseHigh * isc_A, module.maxSeriesFuse_A ?? Number.POSITIVE_INFINITY),
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
  const factors = factorsOf(context)
  return circuitsOf(context).flatMap(({ tag, circuit, unclear }) => {
    const checks = [
      atMost('kit-voltage', 'V', coldVoltage(circuit, factors), kitInput(context, 'dc-voltage')),
      atMost('kit-current', 'A', carriedBy(circuit, 1, factors), kitInput(context, 'dc-current')),
    ]
    // A quantity that nothing in the kit measures is compared with nothing.
    return checks
      .filter((check) => check.limit !== null)
      .map((check): Checked => byWeather({ tag, circuit, check, unclear: null }, unclear))
  })
}

function surgeChecks(context: StepContext<'array'>): Checked[] {
  const factors = factorsOf(context)
  return circuitsOf(context).flatMap(({ tag, circuit, unclear }) =>
    context.plant.surgeProtection.map((surge): Checked => {
      const check = atMost('voc-cold-surge', 'V', coldVoltage(circuit, factors), surge.data.ratedVoltage_V)
      return byWeather({ tag, circuit, check, unclear: null }, unclear)
    }),
  )
}

/** What of a danger's checks is asked for, as one judgement. */
const judgeChecks = (danger: Danger, context: StepContext<'array'>, isAsked: (one: Checked) => boolean): Judgement =>
  judgeDesign(
    [...checksOf(context, danger.ids), ...(danger.more?.(context) ?? [])].filter(isAsked),
    danger.decimals,
    { code: danger.nothing, tag: context.part.data.tag },
    ({ circuit }) => danger.sum(context, circuit),
  )

/** An array without strings, or with one whose modules have no converters. */
function hasCellsAlone(array: PartIn<'array'>, plant: PlantIndex): boolean {
  const strings = plant.stringsOf(array)
  return strings.length === 0 || strings.some((string) => !hidesItsCells(string))
}

function designStep(danger: Danger): ComputedStep<'array'> {
  return {
    kind: 'computed',
    id: danger.id,
    order: danger.order,
    appliesTo: 'array',
    ...(danger.ofCells ? { of: hasCellsAlone } : {}),
    station: 'modules',
    tag: 'live-in-daylight',
    gates: [],
    cautions: [{ id: 'before-connecting', hard: false }],
    hookup: { drawing: danger.id, leads: danger.plates.map((code, k) => ({ balloon: k + 1, code })) },
    minutes: 0,
    sources: danger.sources,
    judge: (context) => judgeChecks(danger, context, () => true),
    example: { ...danger.example, part: exampleArray, reading: null },
  }
}

const dangers: readonly Danger[] = [
  {
    id: 'design-voltage',
    order: 'A2',
    ids: ['voc-cold-inverter', 'voc-cold-switch', 'voc-cold-module', 'voc-cold-fuse'],
    decimals: 0,
    nothing: 'design.no-strings',
    plates: ['string-plate', 'switch-plate', 'inverter-plate'],
    sources: ['iec-60364-712', 'temperature-table'],
    sum: coldSum,
    more: surgeChecks,
    example: {
      source: 'computed: 24 * 37.40 V * (1 + 0.0031 * 35) is 995 V, past a 950 V inverter and under 1000 V modules',
      others: (id) => [exampleSite, ...strings(id, 1, 24), { kind: 'inverter', tag: 'INV', maxInput_V: 950 }],
      verdict: 'outside',
    },
  },
  {
    id: 'design-tracker',
    ofCells: true,
    order: 'A3',
    ids: ['vmp-cold-tracker', 'vmp-hot-tracker'],
    decimals: 0,
    nothing: 'design.no-inverter',
    plates: ['string-plate', 'inverter-plate'],
    sources: ['de-soto', 'iec-60364-712'],
    sum: trackerSum,
    example: {
      source: 'computed: eight modules of 31 V work below 248 V when hot, under a window that begins at 300 V',
      others: (id) => [
        exampleSite,
        ...strings(id, 1, 8),
        { kind: 'inverter', tag: 'INV', maxInput_V: 1000, trackerMin_V: 300, trackerMax_V: 800 },
      ],
      verdict: 'outside',
    },
  },
  {
    id: 'design-current',
    order: 'A4',
    ids: ['isc-switch', 'isc-inverter', 'isc-cable'],
    decimals: 1,
    nothing: 'design.no-switch',
    plates: ['string-plate', 'switch-plate', 'inverter-plate'],
    sources: ['iec-60364-712', 'iec-60059'],
    sum: currentSum,
    example: {
      source: 'computed: 1.25 * 13.2 A is 16.5 A, more than a 16 A switch carries',
      others: (id) => [
        ...strings(id, 1, 10, 13.2),
        { kind: 'dc-switch', tag: 'DC1', ratedVoltage_V: 1000, rating_A: 16 },
      ],
      verdict: 'outside',
    },
  },
  {
    id: 'design-fuses',
    ofCells: true,
    order: 'A5',
    ids: ['fuse-needed', 'fuse-range'],
    decimals: 1,
    nothing: 'design.no-strings',
    plates: ['string-plate', 'fuse-plate'],
    sources: ['iec-62548', 'iec-60364-712'],
    sum: fuseSum,
    example: {
      source: 'IEC 62548 (from memory): (3 - 1) * 1.25 * 9.6 A is 24 A, above the module’s 15 A: fuses are needed',
      others: (id) => strings(id, 3, 10),
      verdict: 'outside',
    },
  },
  {
    id: 'design-kit',
    order: 'A6',
    ids: [],
    decimals: 1,
    nothing: 'design.no-kit',
    plates: ['string-plate', 'tester-plate'],
    sources: ['rating-plate', 'iec-60364-712'],
    sum: coldSum,
    more: kitChecks,
    example: {
      source:
        'handbook 2 A: a string above the tester’s input limit is a hard stop; with no kit there is nothing to compare',
      others: (id) => strings(id, 1, 10),
      verdict: 'not-yet',
    },
  },
]

export const designSteps: readonly ComputedStep<'array'>[] = dangers.map(designStep)

/** What the design check says of one string of its array by itself, step by step. */
export const designOfString = (
  context: StepContext<'array'>,
  stringId: string,
): { step: string; judgement: Judgement }[] =>
  dangers.map((danger) => {
    const own = circuitsOf(context).find(({ ids }) => ids.has(stringId))?.circuit
    return { step: danger.id, judgement: judgeChecks(danger, context, ({ circuit }) => circuit === own) }
  })
