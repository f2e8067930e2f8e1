/**
 * A string's reading on a day without a light meter. Alike strings read within minutes are held against each other, as
 * IEC 62446-1:2016 6.4 and 6.5 do under stable light (from memory); a voltage besides against the light that the strings'
 * own currents tell, and where there is none against what the plate leaves in whatever light. What all strings share is
 * not seen by sisters, and is said so.
 */
import { moduleModel } from '../../pv/stringModel'
import type { StringPart } from '../../plant/part'
import { expectation, type Expectation, spreadOf } from '../../pv/expectation'
import { plateBracket, weatherBy } from '../../pv/workedBack'
import { medianOf } from '../../quantity/median'
import type { Span } from '../../quantity/span'
import { bandAround, compare } from '../../verdict/compare'
import { decide, type Judgement, type Ruling } from '../../verdict/judgement'
import type { Flag } from '../../verdict/verdict'
import type { WorkingLine } from '../../verdict/working'
import type { AsRead, TellsLight } from '../beside'
import { but, hold, notYet, ruled, saying } from '../holding'
import { airOf, type Figure, numberIn, type ReadWithoutLight, whiskerOf } from '../reading'
import type { NumberSlot } from '../slot'
import type { StepContext } from '../step'
import { sisterGroupOf } from './sisterGroup'
import type { Options } from './stringOptions'

/** What of a reading is compared as it was read; null where its light is known, or a bound was read. */
export function asReadOf(part: StringPart, reading: ReadWithoutLight, slot: NumberSlot, per: number): AsRead | null {
  if (reading.conditions) return null
  const read = numberIn(reading, slot.id)
  return read?.bound === 'exact' ? { value: read.value / per, group: sisterGroupOf(part) } : null
}

/** The current of a string that nobody read the light of tells the light of its plane. */
export function lightToldBy(part: StringPart, reading: ReadWithoutLight, slot: NumberSlot): TellsLight | null {
  const read = numberIn(reading, slot.id)
  if (!read || read.bound !== 'exact') return null
  const plane = part.data.arrayId
  if (plane === null) return null
  return { plane, current_A: read.value, uncertainty_A: whiskerOf(reading, [slot], slot, read) }
}

export function judgeWithoutLight(context: StepContext<'string'>, options: Options, figure: Figure): Judgement {
  const bySisters = sistersRuling(context, options, figure)
  const byLight = options.unit === 'V' ? lightRuling(context, options, figure) : null
  const rulings = [bySisters, byLight?.ruling ?? null].filter((one): one is Ruling => one !== null)
  const before = (): WorkingLine[] => byLight?.lines() ?? []
  if (rulings.length === 0) return notYet(context, `${options.step}.alone`, { read: figure.read.text }, before)
  const flags: Flag[] = []
  if (!byLight?.ruling) flags.push('sisters-only')
  if (byLight?.isTold) flags.push('light-worked-back')
  if (byLight?.isWeak) flags.push('weak-conditions')
  return decide(rulings, { flags, before })
}

/** Against alike strings as they were read: with nothing else known, who lies apart is outside. */
export function sistersRuling(
  context: StepContext<'string'>,
  { unit, per, slot }: { unit: 'V' | 'A' | 'W'; per: number; slot: NumberSlot | null },
  { span, read }: Pick<Figure, 'span' | 'read'>,
  limitId: 'pv.sisters' | 'pv.operating' = 'pv.sisters',
): Ruling | null {
  const alike = context.reading.beside?.alike
  if (!alike) return null
  const limit = context.limit(limitId)
  const { others, moved } = alike
  // Of two each is held against the other; of more each against the middle one, itself among them.
  const middle = others.length === 1 ? others[0]! : medianOf([...others, read.value / per])
  // By night nothing flows anywhere: that agrees, and proves nothing.
  if (!(middle > 0)) {
    const line = { code: 'sisters.nothing-there', source: limit.source }
    const nothing = ruled(context, 'not-yet', 'sisters.nothing-there', line, { read: read.text, unit })
    return but(nothing, { isUndecided: true })
  }
  const expected = middle * per
  const gap_pct = 100 * (read.value / expected - 1)
  const decimals = DECIMALS[unit]
  const ruling = pctLine(
    hold(context, {
      step: 'sisters.as-read',
      span,
      text: read.text,
      unit,
      band: bandAround(expected, limit.value, context.limit('close.two-sided').value),
      source: limit.source,
      expected: { value: expected, uncertainty: 0 },
      limit: { id: limitId, value: limit.value },
      line: {
        code: 'sisters.as-read',
        figures: { count: others.length, expected, decimals, allowed_pct: limit.value },
        decimals: 1,
      },
      figures: {
        expected,
        gap_pct: Math.abs(gap_pct),
        allowed_pct: limit.value,
        others: others.length,
        unit,
        decimals,
      },
      ...(slot ? { slots: [slot.id] } : {}),
    }),
    gap_pct,
  )
  const own = read.value / per
  const near = [...others, own].filter((one) => Math.abs(one / middle - 1) <= limit.value / 100)
  const agree = others.length === 1 || near.length > 1
  if (ruling.verdict !== 'outside' && agree) return ruling
  // A current that lies apart while the light moved, or where no two agree, says nothing of its string.
  if (unit !== 'V' && (moved || !agree))
    return but(saying(ruling, moved ? 'sisters.light-moved' : 'sisters.none-agree', {}, 'not-yet'), {
      isUndecided: true,
    })
  if (!agree) return saying(ruling, 'sisters.none-agree', {}, 'outside')
  const side = gap_pct < 0 ? 'below' : 'above'
  return saying(ruling, others.length === 1 ? `sisters.pair-${side}` : `sisters.as-read-${side}`)
}

const DECIMALS = { V: 1, A: 2, W: 0 } as const

/** The line tells how far apart it lies; the limit stands in its words. */
const pctLine = (ruling: Ruling, gap_pct: number): Ruling => ({
  verdict: ruling.verdict,
  finding: ruling.finding,
  line: { ...ruling.line, result: { value: gap_pct, unit: 'pct', decimals: 1, signed: true } },
  rule: ruling.rule ?? null,
  limit: ruling.limit ? { ...ruling.limit, unit: 'pct' } : null,
  ...(ruling.isUndecided ? { isUndecided: true } : {}),
  ...(ruling.slots ? { slots: ruling.slots } : {}),
})

type ByLight = { ruling: Ruling | null; isTold: boolean; isWeak: boolean; lines(): WorkingLine[] }

/** A voltage against the light that was worked back, or against what the plate leaves in any light. */
function lightRuling(context: StepContext<'string'>, options: Options, figure: Figure): ByLight {
  const module = context.part.data.moduleType.data
  const light = context.reading.beside?.light ?? null
  const air = airOf(context.reading)
  const weather = light && weatherBy(light, air, module)
  const expected = weather
    ? expectation(options.modelled, weather, spreadOf(module))
    : plateBracket(options.modelled, air, module)
  const limit = context.limit('pv.expectation.estimated')
  const band = bandAround(expected.value, limit.value, context.limit('close.two-sided').value)
  const span = inBracket(figure.span, expected)
  const step = light ? 'by-light' : 'by-plate'
  const { value } = figure.read
  const gap_pct = 100 * (value / expected.value - 1)
  const figures = {
    expected: expected.value,
    off: expected.uncertainty,
    light_Wm2: light?.irradiance_Wm2 ?? 0,
    gap_pct: Math.abs(gap_pct),
    allowed_pct: limit.value,
    unit: options.unit,
  }
  const held = hold(context, {
    step,
    span,
    text: figure.read.text,
    unit: options.unit,
    band,
    source: limit.source,
    expected,
    limit: { id: 'pv.expectation.estimated', value: limit.value },
    line: { code: `${step}.band`, figures: { expected: expected.value, allowed_pct: limit.value }, decimals: 1 },
    figures,
    slots: [options.slot.id],
  })
  const isDecided = compare(span, band).where !== 'undecided'
  const told = held.verdict === 'outside' ? saying(held, `${step}.${gap_pct < 0 ? 'below' : 'above'}`) : held
  const shown: Ruling = {
    ...pctLine(told, gap_pct),
    rule: { ...held.rule!, measured: { value, bound: 'exact', whisker: figure.span.whisker, text: figure.read.text } },
  }
  return {
    ruling: isDecided ? shown : null,
    isTold: light !== null,
    isWeak: 2 * expected.uncertainty > (expected.value * limit.value) / 100,
    lines: () => linesOfLight(context, expected, isDecided),
  }
}

/** What is read, and what the expectation leaves open, as one span: outside is what no light in the bracket explains. */
function inBracket(span: Span, { uncertainty }: Expectation): Span {
  if (span.bound !== 'exact') return span
  return { least: span.least - uncertainty, most: span.most + uncertainty, bound: 'between', whisker: span.whisker }
}

function linesOfLight(context: StepContext<'string'>, expected: Expectation, isDecided: boolean): WorkingLine[] {
  const light = context.reading.beside?.light ?? null
  const air = airOf(context.reading)
  const known = { code: context.reading.air ? 'air.read' : 'air.unread', figures: { off_K: air.uncertainty_K } }
  const lines: WorkingLine[] = [
    { ...known, result: { value: air.value_C, unit: 'degC', decimals: 0 }, source: 'house-without-light' },
  ]
  if (light)
    lines.push({
      code: 'light.worked-back',
      figures: { count: light.count, off_Wm2: light.uncertainty_Wm2 },
      result: { value: light.irradiance_Wm2, unit: 'Wm2', decimals: 0 },
      source: 'house-without-light',
    })
  lines.push({
    code: light ? 'by-light.expected' : 'by-plate.expected',
    figures: { modules: context.part.data.modulesInSeries, off: expected.uncertainty },
    result: { value: expected.value, unit: 'V', decimals: 1 },
    source: moduleModel(context.part.data.moduleType.data).method === 'de-soto' ? 'de-soto' : 'rating-plate',
  })
  if (!isDecided) lines.push({ code: 'by-light.open', figures: {}, result: null, source: null })
  return lines
}
