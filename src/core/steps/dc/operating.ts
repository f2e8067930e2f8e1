/**
 * Operating voltage, current and power of each string under equal light: alike strings agree within 5 %. Common
 * practice, no source; the expectation is the De Soto model's maximum power.
 */
import { STC_IRRADIANCE_Wm2, STC_TEMPERATURE_C } from '../../pv/constants'
import { readValueOf } from '../../quantity/readValue'
import type { Span } from '../../quantity/span'
import { bandAround } from '../../verdict/compare'
import { decide, type Judgement } from '../../verdict/judgement'
import type { Flag } from '../../verdict/verdict'
import type { WorkingLine } from '../../verdict/working'
import { but, hold, notYet } from '../holding'
import { type Figure, figureOf, numberIn, workedOut } from '../reading'
import { choiceSlot, numberSlot } from '../slot'
import type { ReadStep, StepContext } from '../step'
import { exampleConditions, exampleString } from '../worked'
import { sisterGroupOf } from './sisterGroup'
import { modelOf, weatherAt } from './stringReading'
import { sistersRuling } from './withoutLight'

const current = numberSlot('current', 'dc-current', 'A', 1)
/** Who has a clamp alone compares by current: the strings are each other's meter. */
const readBy = choiceSlot({
  id: 'read-by',
  options: ['clamp-and-volts', 'clamp-alone'],
  sticky: true,
  optional: true,
  balloon: 2,
})
const voltage = numberSlot('voltage', 'dc-voltage', 'V', 2, {
  when: { slot: 'read-by', is: ['', 'clamp-and-volts'] },
})

function powerAt(context: StepContext<'string'>, irradiance_Wm2: number, cell_C: number): number {
  const { modulesInSeries } = context.part.data
  return modulesInSeries * modelOf(context).maximumPower(irradiance_Wm2, cell_C).pmax_W
}

/** Volts times amperes, with the uncertainty of both; a bound of one of them makes it a bound. */
function product(volts: Span, amperes: Span): Span {
  const relative = Math.hypot(volts.whisker / volts.least, amperes.whisker / amperes.least)
  const exact = volts.bound === 'exact' && amperes.bound === 'exact'
  const least = volts.least * amperes.least
  return {
    least,
    most: volts.most * amperes.most,
    bound: exact
      ? 'exact'
      : volts.bound === amperes.bound || amperes.bound === 'exact'
        ? volts.bound
        : volts.bound === 'exact'
          ? amperes.bound
          : 'between',
    whisker: exact && Number.isFinite(relative) ? least * relative : 0,
  }
}

/** Without light, or with a clamp alone: alike strings under load at one time carry alike. */
function besideSisters(context: StepContext<'string'>, amperes: Figure, volts: Figure | null): Judgement {
  const power_W = volts && volts.read.value * amperes.read.value
  const ruling =
    volts && power_W !== null
      ? sistersRuling(
          context,
          { unit: 'W', per: context.part.data.modulesInSeries, slot: null },
          { span: product(volts.span, amperes.span), read: workedOut(power_W, 'W', 0) },
          'pv.operating',
        )
      : sistersRuling(context, { unit: 'A', per: 1, slot: current }, amperes, 'pv.operating')
  if (!ruling) return notYet(context, 'operating.alone', { read: amperes.read.text })
  return decide([ruling], { flags: ['sisters-only'] })
}

export const operating: ReadStep<'string'> = {
  kind: 'read',
  id: 'operating',
  order: 'B15',
  appliesTo: 'string',
  station: 'strings',
  tag: 'live',
  slots: [current, voltage, readBy],
  needsConditions: true,
  counts: 'latest',
  gates: [
    { id: 'inverter-runs', hard: false, waitsFor: 'reconnect', until: 'done', on: 'inverter' },
    { id: 'sensors-in-plane', hard: false, waitsFor: 'sensors', until: 'done', on: 'array' },
  ],
  cautions: [
    { id: 'tees-with-switch-off', hard: true },
    { id: 'clamp-only', hard: false },
  ],
  hookup: {
    drawing: 'operating-clamp',
    leads: [
      { balloon: 1, code: 'clamp-on-string' },
      { balloon: 2, code: 'tees' },
    ],
  },
  minutes: 2,
  sources: ['operating-practice', 'de-soto'],
  mendingTouches: ['pv-polarity', 'pv-voc', 'pv-isc', 'pv-insulation', 'plugs-locked'],
  judge(context) {
    const volts = figureOf(context, voltage)
    const amperes = figureOf(context, current)
    if (!amperes) return notYet(context, 'operating.no-reading')
    if (!volts || !context.reading.conditions) return besideSisters(context, amperes, volts)
    const weather = weatherAt(context, context.reading.conditions)
    if (!weather) return notYet(context, 'operating.no-conditions')
    const { irradiance_Wm2, cell } = weather
    const span = product(volts.span, amperes.span)
    const power_W = volts.read.value * amperes.read.value
    const expected_W = powerAt(context, irradiance_Wm2, cell.value_C)
    const stc_W = powerAt(context, STC_IRRADIANCE_Wm2, STC_TEMPERATURE_C)
    const limit = context.limit('pv.expectation.estimated')
    const gap_pct = 100 * (power_W / expected_W - 1)
    const ruling = hold(context, {
      step: 'operating',
      span,
      text: power_W.toFixed(0),
      unit: 'W',
      band: bandAround(expected_W, limit.value, context.limit('close.two-sided').value),
      source: limit.source,
      expected: { value: expected_W, uncertainty: 0 },
      limit: { id: limit.unit === 'pct' ? 'pv.expectation.estimated' : 'pv.operating', value: limit.value },
      line: { code: 'operating.band', decimals: 0 },
      figures: { power_W, expected_W, gap_pct: Math.abs(gap_pct), off_pct: gap_pct },
    })
    // An inverter may hold a string back: away from the expectation is a question, and sisters decide.
    const verdict = ruling.verdict === 'outside' ? 'close' : ruling.verdict
    const code =
      verdict === 'not-yet' ? 'not-yet' : ruling.verdict === 'within' ? 'within' : gap_pct < 0 ? 'below' : 'above'
    const isExact = span.bound === 'exact'
    const flags: Flag[] = irradiance_Wm2 < context.limit('pv.least-light').value ? ['weak-light'] : []
    const told = but(ruling, {
      verdict,
      finding: { ...ruling.finding, code: `operating.${code}` },
      line: { ...ruling.line, result: { value: limit.value, unit: 'pct' as const, decimals: 0 } },
      limit: { id: 'pv.expectation.estimated', ...limit },
    })
    return decide([told], {
      flags,
      comparable: isExact ? (power_W * stc_W) / expected_W / context.part.data.modulesInSeries : null,
      referred: isExact ? { value: (power_W * stc_W) / expected_W, unit: 'W', difference_pct: gap_pct } : null,
      before: (): WorkingLine[] => [
        {
          code: 'operating.model',
          figures: { modules: context.part.data.modulesInSeries, irradiance_Wm2, cell_C: cell.value_C },
          result: { value: expected_W, unit: 'W', decimals: 0 },
          source: 'de-soto',
        },
        {
          code: 'operating.power',
          figures: { volts: volts.read.value, amperes: amperes.read.value },
          result: { value: power_W, unit: 'W', decimals: 0 },
          source: null,
        },
      ],
    })
  },
  sisterGroup: sisterGroupOf,
  compared: 'percent',
  asRead(part, reading) {
    const amperes = numberIn(reading, current.id)
    const volts = numberIn(reading, voltage.id)
    if (amperes?.bound !== 'exact' || (volts && reading.conditions)) return null
    if (!volts) return { value: amperes.value, group: `${sisterGroupOf(part)}|A` }
    if (volts.bound !== 'exact') return null
    return { value: (amperes.value * volts.value) / part.data.modulesInSeries, group: `${sisterGroupOf(part)}|W` }
  },
  sisterLimit: 'pv.operating',
  example: {
    source: 'computed: 11 modules of 282 W at full light and 25 degC give 3103 W; 341 V and 9.10 A are 3103 W',
    part: exampleString(11),
    reading: {
      slots: { voltage: readValueOf(341, 'V', 0), current: readValueOf(9.1, 'A', 2) },
      conditions: exampleConditions(1000, 25),
    },
    verdict: 'within',
  },
}
