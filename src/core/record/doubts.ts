/** What is refused, and what is asked about, before a reading is kept. The same check stands at every door. */
import { featuresIn } from '../curve/curveValue'
import { isAirInReach, refuseConditions } from '../pv/conditions'
import { refuseAsShown } from '../quantity/asShown'
import { orLacking } from '../regime/lacking'
import { CHECK_BAD, CHECK_OPTIONS, isSlotAsked, LEAST_WORDS, type Slot } from '../steps/slot'
import { type AnyReadStep, isAskedOf, type StepContext, wantsConditions } from '../steps/step'
import type { Figures } from '../verdict/verdict'
import type { Body, ReadingVersion } from './entry'

export type Refusal = { state: 'refused'; code: string; slot: string | null; figures: Figures }
export type Doubt = { state: 'ask'; code: string; slot: string; figures: Figures }
export type ReadingCheck = { state: 'fine' } | Refusal | Doubt

/** Ratios to the expected value [D, house rule 6]: between `slip` limits the decimal point has probably slipped. */
const RATIO = { absurd: 13, slipLow: 7, tenthHigh: 1 / 7, tenthLow: 1 / 13, farOff: 2 }

/**
 * Looks at a reading before it is kept: a wrong slot, negative figures and absurd ones are refused; a slipped decimal
 * point and values far off are asked about, and kept once confirmed.
 *
 * @param context of the real plant, with this reading in it.
 */
export function checkReading(step: AnyReadStep, context: StepContext, body: Body<'reading'>): ReadingCheck {
  const { part, regime } = context
  const refuse = (code: string, slot: string | null, figures: Figures = {}): Refusal => ({
    state: 'refused',
    code,
    slot,
    figures: { tag: part.data.tag, ...figures },
  })
  if (!isAskedOf(step, part, context.plant, regime)) return refuse('step-not-asked', null, { step: step.id })
  const known = new Map<string, Slot>(step.slots.map((slot) => [slot.id, slot]))
  for (const [id, value] of Object.entries(body.slots)) {
    const slot = known.get(id)
    if (!slot) return refuse('slot-unknown', id)
    if (!isSlotAsked(slot, context)) return refuse('slot-not-here', id, { slot: id })
    if (slot.kind === 'curve') {
      const why = 'curve' in value ? featuresIn(value.curve) : 'not-numbers'
      if (typeof why === 'string') return refuse(`curve-${why}`, id)
      continue
    }
    if (slot.kind !== 'number') {
      const code = 'choice' in value ? refusedAnswer(slot, value, body.v) : 'choice-unknown'
      if (code) return refuse(code, id, { slot: id })
      continue
    }
    if (!('value' in value)) return refuse('number-wanted', id)
    if (!Number.isFinite(value.value)) return refuse('number-wanted', id)
    const unlike = refuseAsShown(value, slot.unit)
    if (unlike) return refuse(unlike, id, { unit: slot.unit, given: value.unit, text: value.text, value: value.value })
    if (value.value < 0) return refuse(`negative-${slot.measures}`, id, { value: value.value, unit: slot.unit })
    if (slot.measures === 'rcd-time' && value.value === 0) return refuse('no-time', id)
  }
  if (Object.keys(body.slots).length === 0) return refuse('empty', null)
  if (body.conditions) {
    const module = part.data.kind === 'string' ? part.data.moduleType.data : null
    const code = refuseConditions(body.conditions, module)
    if (code) {
      const { irradiance, cell } = body.conditions
      return refuse(code, null, { irradiance: irradiance.read.value, temperature: cell.read.value })
    }
  }
  if (body.air) {
    const { read } = body.air
    const unlike = refuseAsShown(read, 'degC')
    if (unlike === 'unit-of-slot') return refuse('conditions-unit', null)
    if (unlike) return refuse('conditions-text', null)
    if (!isAirInReach(read.value)) return refuse('air-out-of-reach', null, { temperature: read.value })
  }
  const doubt = step.doubt?.(body)
  if (doubt && !body.confirmed.includes(doubt.code))
    return { state: 'ask', ...doubt, figures: { tag: part.data.tag, ...doubt.figures } }
  return compareWithExpected(step, context, body)
}

/** Why an answer cannot stand; null where it can. Lead sets belong to the kit: any mark of one will do. */
function refusedAnswer(
  slot: Exclude<Slot, { kind: 'number' | 'curve' }>,
  value: { choice: string; note?: string | undefined },
  v: ReadingVersion,
): string | null {
  if (slot.kind === 'lead-set') return null
  const options: readonly string[] = slot.kind === 'check' ? CHECK_OPTIONS : slot.options
  if (!options.includes(value.choice)) return 'choice-unknown'
  if (slot.kind === 'choice' && v > 1 && slot.retired?.includes(value.choice)) return 'choice-retired'
  const wordless = slot.kind === 'check' && value.choice === CHECK_BAD && (value.note ?? '').trim().length < LEAST_WORDS
  return wordless ? 'words-wanted' : null
}

/** What the step expects here; nothing where its regime lacks a figure for it. */
const expectedIn = (step: AnyReadStep, context: StepContext): number | null =>
  orLacking(
    () => step.expect?.(context)?.value ?? null,
    () => null,
  )

function compareWithExpected(step: AnyReadStep, context: StepContext, body: Body<'reading'>): ReadingCheck {
  // What an instrument shows has its point where it belongs; a resistance may be anything but a slip of it.
  const byConditions = wantsConditions(step, context.part)
  if (!step.expect) return { state: 'fine' }
  const slot = step.slots.find((one) => one.kind === 'number' && one.id in body.slots)
  const read = slot ? body.slots[slot.id] : undefined
  if (!slot || !read || !('value' in read) || read.bound !== 'exact') return { state: 'fine' }
  if (!byConditions && (read.how ?? body.how) !== 'typed') return { state: 'fine' }
  const expected = expectedIn(step, context)
  if (!expected) return { state: 'fine' }
  const ratio = read.value / expected
  const figures = {
    tag: context.part.data.tag,
    read: read.text,
    unit: slot.kind === 'number' ? slot.unit : 'one',
    expected,
    ratio,
  }
  if (!byConditions) return slipOfPoint(ratio, slot.id, figures, body.confirmed)
  if (ratio > RATIO.absurd) return { state: 'refused', code: 'absurd', slot: slot.id, figures }
  const code =
    ratio >= RATIO.slipLow
      ? 'ten-times'
      : ratio > RATIO.farOff
        ? 'far-off'
        : ratio >= RATIO.tenthLow && ratio <= RATIO.tenthHigh
          ? 'a-tenth'
          : null
  if (!code || body.confirmed.includes(code)) return { state: 'fine' }
  return { state: 'ask', code, slot: slot.id, figures }
}

/** Where anything may be read, only ten times or a tenth of the expected is asked about, and what is farther still. */
function slipOfPoint(ratio: number, slot: string, figures: Figures, confirmed: readonly string[]): ReadingCheck {
  const isTenth = ratio >= RATIO.tenthLow && ratio <= RATIO.tenthHigh
  const code = ratio > RATIO.absurd ? 'far-above' : ratio >= RATIO.slipLow ? 'slip-up' : isTenth ? 'slip-down' : null
  return code && !confirmed.includes(code) ? { state: 'ask', code, slot, figures } : { state: 'fine' }
}
