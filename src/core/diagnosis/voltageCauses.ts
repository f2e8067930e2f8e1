/** Causes which explain a string voltage that is not as expected. The gap often names the fault (handbook 3). */
import { electronicsOf, hidesItsCells } from '../plant/moduleElectronics'
import type { StepContext } from '../steps/step'
import { type Cause, causeOf } from '../verdict/cause'
import type { Judgement } from '../verdict/judgement'
import { modelOf, weatherAt } from '../steps/dc/stringReading'
import { findRoot } from '../pv/findRoot'
import { fitOf, ranked } from './fit'

/** Cell groups, each with its bypass diode, in a usual module. Common practice, no source. */
export const GROUPS_PER_MODULE = 3
/** The hottest cells that are still believable on a roof, degC [D]. */
const HOTTEST_CELL_C = 90
/** How far a cell sensor may be off before the cause is unlikely, K [D]. */
const BELIEVABLE_SENSOR_ERROR_K = 15
const COLDEST_CELL_C = -40

export function voltageCauses(context: StepContext<'string'>, judgement: Judgement): Cause[] {
  const { rule } = judgement
  if (!rule?.measured || rule.measured.bound !== 'exact' || !rule.expected) return []
  if (judgement.verdict !== 'outside' && judgement.verdict !== 'close') return []
  if (hidesItsCells(context.part)) return heldCauses(context, rule.measured.value)
  const { modulesInSeries: modules, tag } = context.part.data
  const value = rule.measured.value
  const expected = rule.expected.value
  const uncertainty = Math.max(Math.hypot(rule.measured.whisker, rule.expected.uncertainty), expected / 1000)
  const perModule = expected / modules

  const cause = (code: string, predicted: number, figures: Cause['figures'], next: string): Cause =>
    causeOf(
      code,
      fitOf(value - predicted, uncertainty),
      next,
      { tag, modules, predicted, predicted_pct: 100 * (predicted / expected - 1), ...figures },
      { predicted, nextFigures: { tag, modules, ...figures } },
    )
  const missing = Math.round((expected - value) / perModule)
  const causes: Cause[] = []
  if (missing >= 1 && missing < modules) {
    causes.push(cause('modules-missing', expected - missing * perModule, { count: missing }, 'count-the-modules'))
    if (missing === 2) {
      causes.push(cause('module-reversed', expected - 2 * perModule, { count: 1 }, 'find-the-reversed-module'))
    }
  }
  if (missing <= -1) {
    causes.push(cause('modules-extra', expected - missing * perModule, { count: -missing }, 'count-the-modules'))
  }
  if (value < expected) {
    const groups = Math.max(1, Math.round(((expected - value) / perModule) * GROUPS_PER_MODULE))
    const groupsInAll = modules * GROUPS_PER_MODULE
    if (groups < groupsInAll) {
      const predicted = expected * (1 - groups / groupsInAll)
      causes.push(cause('groups-bypassed', predicted, { count: groups, groups: groupsInAll }, 'sweep-a-curve'))
    }
    if (missing === 0) {
      causes.push(cause('module-missing-at-all', expected - perModule, { count: 1 }, 'count-the-modules'))
    }
  }
  const held = electronicsOf(context.part)?.held_V
  if (held) causes.push(cause('still-held', modules * held, {}, 'release-by-sheet'))
  const sensor = cellSensorCause(context, value, tag)
  if (sensor) causes.push(sensor)
  return ranked(causes)
}

/** What explains the volts of a string that its converters hold down. */
function heldCauses({ part }: StepContext<'string'>, value: number): Cause[] {
  const { modulesInSeries: modules, tag } = part.data
  const each_V = electronicsOf(part)?.held_V
  if (!each_V) return []
  const lacking = modules - Math.round(value / each_V)
  const figures = { tag, modules, each_V, count: Math.abs(lacking) }
  if (lacking === 0) return []
  if (lacking > 0)
    return [
      causeOf('converter-dead', 'fits', 'find-the-dead-converter', figures),
      causeOf('modules-missing', 'fits', 'count-the-modules', figures),
    ]
  const isFree = value > 2 * modules * each_V
  return [
    causeOf('not-held', isFree ? 'fits' : 'does-not-fit', 'hold-back-by-sheet', figures),
    causeOf('modules-extra', isFree ? 'does-not-fit' : 'fits', 'count-the-modules', figures),
  ]
}

/** The cell temperature at which the string would be sound: a sensor that has come off reads the air. */
function cellSensorCause(context: StepContext<'string'>, value: number, tag: string): Cause | null {
  const weather = weatherAt(context, context.reading.conditions)
  if (!weather) return null
  const model = modelOf(context)
  const { modulesInSeries: modules } = context.part.data
  const needed_C = findRoot(
    (temperature) => modules * model.voc_V(weather.irradiance_Wm2, temperature) - value,
    COLDEST_CELL_C,
    HOTTEST_CELL_C * 2,
  )
  if (needed_C === null) return null
  const off_K = Math.abs(needed_C - weather.cell.value_C)
  const believable = needed_C <= HOTTEST_CELL_C && off_K <= BELIEVABLE_SENSOR_ERROR_K
  const figures = { tag, modules, needed_C, cell_C: weather.cell.value_C }
  return causeOf(
    needed_C > weather.cell.value_C ? 'cells-hotter' : 'cells-cooler',
    believable ? (off_K <= weather.cell.uncertainty_K ? 'fits' : 'may-fit') : 'does-not-fit',
    'check-the-cell-sensor',
    figures,
  )
}
