/** Causes which explain a string current that is not as expected. */
import type { StepContext } from '../steps/step'
import { type Cause, causeOf } from '../verdict/cause'
import type { Judgement } from '../verdict/judgement'
import { weatherAt } from '../steps/dc/stringReading'
import { fitOf, ranked } from './fit'

/** Losses by soiling or even shade that are met in practice, per cent [T]. */
const SOILING_PCT = { least: 2, most: 30 }
/** How far an irradiance sensor out of its plane is off in practice, per cent [D]. */
const OUT_OF_PLANE_PCT = 40

export function currentCauses(context: StepContext<'string'>, judgement: Judgement): Cause[] {
  const { rule } = judgement
  if (!rule?.measured || rule.measured.bound !== 'exact' || !rule.expected) return []
  if (judgement.verdict !== 'outside' && judgement.verdict !== 'close') return []
  const weather = weatherAt(context, context.reading.conditions)
  if (!weather) return []
  const { tag } = context.part.data
  const value = rule.measured.value
  const expected = rule.expected.value
  const uncertainty = Math.max(Math.hypot(rule.measured.whisker, rule.expected.uncertainty), expected / 1000)
  const gap_pct = 100 * (value / expected - 1)
  const needed_Wm2 = (weather.irradiance_Wm2 * value) / expected
  const base = { tag, gap_pct, needed_Wm2, irradiance_Wm2: weather.irradiance_Wm2 }
  const make = (code: string, fit: Cause['fit'], predicted: number | null, next: string): Cause =>
    causeOf(code, fit, next, base, { predicted })
  const causes: Cause[] = []
  const light = Math.abs(gap_pct) <= OUT_OF_PLANE_PCT ? 'fits' : 'does-not-fit'
  if (judgement.flags.includes('conditions-apart')) causes.push(make('light-moved', light, null, 'take-both-at-once'))
  if (value < expected) {
    const soiled = -gap_pct >= SOILING_PCT.least && -gap_pct <= SOILING_PCT.most
    causes.push(make('sensor-out-of-plane', light === 'fits' ? 'may-fit' : light, null, 'check-the-sensor-plane'))
    causes.push(make('soiling-or-even-shade', soiled ? 'fits' : 'does-not-fit', null, 'look-along-the-string'))
    causes.push(make('switch-not-closed', value < expected / 20 ? 'fits' : 'does-not-fit', 0, 'close-the-switch'))
  } else {
    causes.push(make('sensor-out-of-plane', light, null, 'check-the-sensor-plane'))
    causes.push(
      make('two-strings-joined', fitOf(value - 2 * expected, 2 * uncertainty), 2 * expected, 'part-the-strings'),
    )
    causes.push(make('edge-of-cloud', light === 'fits' ? 'may-fit' : light, null, 'take-both-at-once'))
  }
  causes.push(
    make('another-module-type', Math.abs(gap_pct) <= 30 ? 'may-fit' : 'does-not-fit', null, 'read-the-data-plate'),
  )
  return ranked(causes)
}
