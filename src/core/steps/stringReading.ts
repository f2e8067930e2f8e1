/** What the voltage and the current of a string share: expectation, band, flags and referral. */
import type { StringPart } from '../plant/part'
import { type Weather, weatherOf } from '../pv/conditions'
import { STC_IRRADIANCE_Wm2, STC_TEMPERATURE_C } from '../pv/constants'
import { type Expectation, expectation } from '../pv/expectation'
import type { ModuleModel } from '../pv/stringModel'
import type { ReadValue } from '../quantity/readValue'
import { readingUncertainty } from '../quantity/uncertainty'
import type { Body } from '../record/entry'
import type { Regime } from '../regime/regime'
import { type Band, bandAround, type Judged, judge } from '../verdict/judge'
import type { Finding, Flag, Verdict } from '../verdict/verdict'
import type { Judgement, RuleData, StepContext } from './step'

export type Modelled = (irradiance_Wm2: number, cellTemperature_C: number) => number

/** Which of the two bands holds: the tight one only where the cell temperature was measured. */
export function bandLimit(regime: Regime, weather: Weather) {
  const id = weather.way === 'air' ? 'pv.expectation.estimated' : 'pv.expectation.measured'
  return { id, ...regime.limits[id] }
}

export function numberIn(reading: Pick<Body<'reading'>, 'slots'>, slot: string): ReadValue | null {
  const value = reading.slots[slot]
  return value && 'text' in value ? value : null
}

export function choiceIn(reading: Pick<Body<'reading'>, 'slots'>, slot: string): string | null {
  const value = reading.slots[slot]
  return value && 'choice' in value ? value.choice : null
}

export function modelOf(context: StepContext<'string'>): ModuleModel {
  return context.models.of(context.part.data.moduleType.data)
}

export function weatherAt(context: StepContext<'string'>, conditions: Body<'reading'>['conditions']): Weather | null {
  return conditions ? weatherOf(conditions, context.part.data.moduleType.data) : null
}

export function expectAt(
  context: StepContext<'string'>,
  modelled: Modelled,
  conditions: Body<'reading'>['conditions'],
): Expectation | null {
  const weather = weatherAt(context, conditions)
  return weather ? expectation(modelled, weather) : null
}

/** What a string's judgement takes from its part. */
export function stringInputs(part: StringPart): string {
  return `${part.data.modulesInSeries}|${JSON.stringify(part.data.moduleType.data)}`
}

const sisterGroups = new WeakMap<StringPart['data'], string>()

/** Strings of one array and one kind of module are sisters. */
export function sisterGroupOf(part: StringPart): string {
  let group = sisterGroups.get(part.data)
  if (group === undefined) {
    const { data } = part.data.moduleType
    group = `${part.data.arrayId}|${data.voc_V}|${data.isc_A}|${data.beta_pctPerK}|${data.alpha_pctPerK}`
    sisterGroups.set(part.data, group)
  }
  return group
}

type Options = {
  step: string
  slot: string
  unit: 'V' | 'A'
  modelled: Modelled
  /** What makes readings of unlike strings comparable: modules in series for volts, 1 for amperes. */
  per: number
}

const undecided = (code: string): Judgement => ({
  verdict: 'not-yet',
  finding: { code, figures: {} },
  flags: [],
  rule: null,
  comparable: null,
  referred: null,
  limits: [],
})

/**
 * A judged string reading. A job holds tens of thousands of them and few are looked at, so all but the verdict is worked
 * out when it is asked for.
 */
class StringJudgement implements Judgement {
  readonly verdict: Verdict
  readonly flags: Flag[]
  readonly comparable: number | null
  private readonly where: Judged

  constructor(
    private readonly context: StepContext<'string'>,
    private readonly options: Options,
    private readonly read: ReadValue,
    private readonly weather: Weather,
    private readonly expected: Expectation,
    private readonly whisker: number,
  ) {
    const limit = bandLimit(context.regime, weather)
    this.where = judge(read, this.band(limit.value), whisker)
    this.verdict = this.where.verdict
    this.flags = stringFlags(context, weather, expected, limit.value, options.unit)
    this.comparable = read.bound === 'exact' ? (read.value * this.stc()) / expected.value / options.per : null
  }

  private band(allowed_pct: number): Band {
    return bandAround(this.expected.value, allowed_pct, this.context.regime.limits['close.two-sided'].value)
  }

  private stc(): number {
    return this.options.modelled(STC_IRRADIANCE_Wm2, STC_TEMPERATURE_C)
  }

  get finding(): Finding {
    const { step, unit } = this.options
    const gap = this.read.value - this.expected.value
    const code =
      this.read.bound === 'exact'
        ? `${step}.${this.verdict}-${gap < 0 ? 'below' : 'above'}`
        : `${step}.bound-${this.verdict}`
    return {
      code,
      figures: {
        read: this.read.text,
        unit,
        expected: this.expected.value,
        gap: Math.abs(gap),
        gap_pct: Math.abs((100 * gap) / this.expected.value),
        allowed_pct: bandLimit(this.context.regime, this.weather).value,
        tag: this.context.part.data.tag,
      },
    }
  }

  get rule(): RuleData {
    const { value, bound, text } = this.read
    const limit = bandLimit(this.context.regime, this.weather)
    return {
      unit: this.options.unit,
      scale: 'linear',
      measured: { value, bound, whisker: this.whisker, text },
      expected: this.expected,
      band: this.band(limit.value),
      source: limit.source,
    }
  }

  get referred(): Judgement['referred'] {
    if (this.read.bound !== 'exact') return null
    const stc = this.stc()
    const value = (this.read.value * stc) / this.expected.value
    return { value, unit: this.options.unit, difference_pct: 100 * (value / stc - 1) }
  }

  get limits(): Judgement['limits'] {
    const { id, value, unit, source } = bandLimit(this.context.regime, this.weather)
    return [{ id, value, unit, source }]
  }
}

/** Judges a string's reading against what the model expects at the reading's own light and warmth. */
export function judgeString(context: StepContext<'string'>, reading: Body<'reading'>, options: Options): Judgement {
  const read = numberIn(reading, options.slot)
  if (!read) return undecided(`${options.step}.no-reading`)
  const weather = weatherAt(context, reading.conditions)
  if (!weather) return undecided(`${options.step}.no-conditions`)
  const whisker = readingUncertainty(read, reading.instrument?.accuracy ?? null)
  return new StringJudgement(context, options, read, weather, expectation(options.modelled, weather), whisker)
}

function stringFlags(
  context: StepContext<'string'>,
  weather: Weather,
  expected: Expectation,
  allowed_pct: number,
  unit: 'V' | 'A',
): Flag[] {
  const flags: Flag[] = []
  // The bracket is 2 U wide, the allowed band 2 * allowed: weak where it is wider than half of that.
  if (2 * expected.uncertainty > (expected.value * allowed_pct) / 100) flags.push('weak-conditions')
  if (unit === 'A' && weather.irradiance_Wm2 < context.regime.limits['pv.least-light'].value) flags.push('weak-light')
  if (weather.way === 'air') flags.push('estimated-temperature')
  if (modelOf(context).method !== 'de-soto') flags.push('fallback-model')
  return flags
}
