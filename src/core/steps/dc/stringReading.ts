/** What the voltage and the current of a string share: expectation, band, flags and referral. */
import { type Weather, weatherOf } from '../../pv/conditions'
import { STC_IRRADIANCE_Wm2, STC_TEMPERATURE_C } from '../../pv/constants'
import { type Expectation, expectation, spreadOf } from '../../pv/expectation'
import type { ModuleModel } from '../../pv/stringModel'
import type { Limit, LimitId } from '../../regime/regime'
import { type Band, bandAround, type Compared, compare } from '../../verdict/compare'
import type { Judgement, RuleData } from '../../verdict/judgement'
import type { Decided, Finding, Flag } from '../../verdict/verdict'
import type { WorkingLine } from '../../verdict/working'
import { closeness, notYet } from '../holding'
import { type Figure, figureOf, measuredOf } from '../reading'
import type { AnyContext, Reading, StepContext } from '../step'
import type { Modelled, Options } from './stringOptions'
import { judgeWithoutLight } from './withoutLight'
import { againstExpectation } from './workingShared'

/** Which of the two bands holds: the tight one only where the cell temperature was measured. */
export function bandLimit(context: AnyContext, weather: Weather): Limit & { id: LimitId } {
  const id = weather.way === 'air' ? 'pv.expectation.estimated' : 'pv.expectation.measured'
  return { id, ...context.limit(id) }
}

export function modelOf(context: StepContext<'string'>): ModuleModel {
  return context.models.of(context.part.data.moduleType.data)
}

export function weatherAt(context: StepContext<'string'>, conditions: Reading['conditions']): Weather | null {
  return conditions ? weatherOf(conditions, context.part.data.moduleType.data) : null
}

export function expectAt(context: StepContext<'string'>, modelled: Modelled): Expectation | null {
  const weather = weatherAt(context, context.reading.conditions)
  return weather ? expectation(modelled, weather, spreadOf(context.part.data.moduleType.data)) : null
}

/**
 * A judged string reading. A job holds tens of thousands of them and few are looked at, so all but the verdict is worked
 * out when it is asked for.
 */
class StringJudgement implements Judgement {
  /** The latest stays: of a shape of which none is left an engine forgets the code that it made for it (decision 20). */
  static latest: StringJudgement | null = null
  readonly verdict: Decided
  readonly flags: Flag[]
  readonly comparable: number | null
  private readonly compared: Compared
  private readonly limit: Limit & { id: LimitId }
  private readonly closeShare_pct: number

  constructor(
    private readonly context: StepContext<'string'>,
    private readonly options: Options,
    private readonly figure: Figure,
    private readonly weather: Weather,
    private readonly expected: Expectation,
  ) {
    this.limit = bandLimit(context, weather)
    this.closeShare_pct = context.limit('close.two-sided').value
    this.compared = compare(figure.span, this.band())
    this.verdict = this.compared.verdict
    this.flags = stringFlags(context, weather, expected, this.limit.value, options.unit)
    this.comparable = this.isExact ? (figure.read.value * this.stc()) / expected.value / options.per : null
    StringJudgement.latest = this
  }

  private get isExact(): boolean {
    return this.figure.read.bound === 'exact'
  }

  private band(): Band {
    return bandAround(this.expected.value, this.limit.value, this.closeShare_pct)
  }

  private stc(): number {
    return this.options.modelled(STC_IRRADIANCE_Wm2, STC_TEMPERATURE_C)
  }

  get isUndecided(): boolean {
    return this.compared.where === 'undecided'
  }

  get finding(): Finding {
    const { step, unit } = this.options
    const { read, span } = this.figure
    const gap = read.value - this.expected.value
    const side = gap < 0 ? 'below' : 'above'
    // Near the limit by its band it says so; where only the whisker reaches it, that is what makes it close.
    const kind = this.compared.closeBy === 'whisker' ? 'within' : this.verdict
    const also = this.compared.closeBy === 'whisker' ? closeness(this.compared, span.whisker, unit) : undefined
    return {
      code: this.isExact ? `${step}.${kind}-${side}` : `${step}.bound-${this.verdict}`,
      figures: {
        read: read.text,
        unit,
        expected: this.expected.value,
        gap: Math.abs(gap),
        gap_pct: Math.abs((100 * gap) / this.expected.value),
        allowed_pct: this.limit.value,
        tag: this.context.part.data.tag,
      },
      ...(also ? { also } : {}),
    }
  }

  get rule(): RuleData {
    return {
      unit: this.options.unit,
      scale: 'linear',
      measured: measuredOf(this.figure.span, this.figure.read.text),
      expected: this.expected,
      band: this.band(),
      source: this.limit.source,
    }
  }

  get referred(): Judgement['referred'] {
    if (!this.isExact) return null
    const stc = this.stc()
    const value = (this.figure.read.value * stc) / this.expected.value
    return { value, unit: this.options.unit, difference_pct: 100 * (value / stc - 1) }
  }

  ofSlot(slot: string): ReturnType<Judgement['ofSlot']> {
    return slot === this.figure.slot.id ? { verdict: this.verdict, rule: this.rule } : null
  }

  get limits(): Judgement['limits'] {
    const { id, value, unit, source } = this.limit
    return [{ id, value, unit, source }]
  }

  get lines(): readonly WorkingLine[] {
    return [
      ...this.options.sum(this.weather),
      ...againstExpectation({
        ...this.options,
        modules: this.context.part.data.modulesInSeries,
        figure: this.figure,
        instrument: this.context.reading.instrument,
        weather: this.weather,
        expected: this.expected,
        limit: this.limit,
        band: this.band(),
        compared: this.compared,
        stc: this.stc(),
      }),
    ]
  }
}

/** Judges a string's reading against what the model expects at the reading's own light and warmth. */
export function judgeString(context: StepContext<'string'>, options: Options): Judgement {
  const figure = figureOf(context, options.slot)
  const weather = weatherAt(context, context.reading.conditions)
  if (!weather && figure && !context.reading.conditions) return judgeWithoutLight(context, options, figure)
  if (!weather) return notYet(context, `${options.step}.${figure ? 'no-conditions' : 'no-reading'}`)
  if (!figure) return notYet(context, `${options.step}.no-reading`, {}, () => options.sum(weather))
  return new StringJudgement(
    context,
    options,
    figure,
    weather,
    expectation(options.modelled, weather, spreadOf(context.part.data.moduleType.data)),
  )
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
  if (unit === 'A' && weather.irradiance_Wm2 < context.limit('pv.least-light').value) flags.push('weak-light')
  if (weather.way === 'air') flags.push('estimated-temperature')
  if (modelOf(context).method !== 'de-soto') flags.push('fallback-model')
  return flags
}
