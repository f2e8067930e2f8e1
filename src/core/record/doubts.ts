/** What is refused, and what is asked about, before a reading is kept. The same check stands at every door. */
import type { Part } from '../plant/part'
import { emptyPlant } from '../plant/plantIndex'
import { refuseConditions } from '../pv/conditions'
import { ModelCache } from '../pv/stringModel'
import type { Regime } from '../regime/regime'
import type { AnyStep, Slot } from '../steps/step'
import type { Figures } from '../verdict/verdict'
import type { Body } from './entry'

export type Refusal = { state: 'refused'; code: string; slot: string | null; figures: Figures }
export type Doubt = { state: 'ask'; code: string; slot: string; figures: Figures }
export type ReadingCheck = { state: 'fine' } | Refusal | Doubt

/** Ratios to the expected value [D, house rule 6]: between `slip` limits the decimal point has probably slipped. */
const RATIO = { absurd: 13, slipLow: 7, tenthHigh: 1 / 7, tenthLow: 1 / 13, farOff: 2 }
const models = new ModelCache()

/**
 * Looks at a reading before it is kept: a wrong slot, negative figures and absurd ones are refused; a slipped decimal
 * point and values far off are asked about, and kept once confirmed.
 */
export function checkReading(step: AnyStep, part: Part, regime: Regime, body: Body<'reading'>): ReadingCheck {
  const refuse = (code: string, slot: string | null, figures: Figures = {}): Refusal => ({
    state: 'refused',
    code,
    slot,
    figures: { tag: part.data.tag, ...figures },
  })
  const known = new Map<string, Slot>(step.slots.map((slot: Slot) => [slot.id, slot]))
  for (const [id, value] of Object.entries(body.slots)) {
    const slot = known.get(id)
    if (!slot) return refuse('slot-unknown', id)
    if (slot.only && !slot.only(part.data, regime)) return refuse('slot-not-here', id, { slot: id })
    if (slot.kind === 'choice') {
      // Lead sets belong to the kit: any mark of one will do.
      const isKnown = 'choice' in value && (slot.from !== undefined || slot.options.includes(value.choice))
      if (!isKnown) return refuse('choice-unknown', id)
      continue
    }
    if (!('value' in value)) return refuse('number-wanted', id)
    if (value.unit !== slot.unit) return refuse('unit-of-slot', id, { unit: slot.unit, given: value.unit })
    if (value.value < 0) return refuse(`negative-${slot.measures}`, id, { value: value.value, unit: slot.unit })
    if (slot.measures === 'rcd-time' && value.value === 0) return refuse('no-time', id)
  }
  if (Object.keys(body.slots).length === 0) return refuse('empty', null)
  if (body.conditions) {
    const code = refuseConditions(body.conditions)
    if (code) {
      const { irradiance, cell } = body.conditions
      return refuse(code, null, { irradiance: irradiance.read.value, temperature: cell.read.value })
    }
  }
  const doubt = step.doubt?.(body)
  if (doubt && !body.confirmed.includes(doubt.code))
    return { state: 'ask', ...doubt, figures: { tag: part.data.tag, ...doubt.figures } }
  return compareWithExpected(step, part, regime, body)
}

function compareWithExpected(step: AnyStep, part: Part, regime: Regime, body: Body<'reading'>): ReadingCheck {
  // What an instrument shows has its point where it belongs; a resistance may be anything but a slip of it.
  const byConditions = step.needsConditions
  if (!step.expect || (!byConditions && body.how !== 'typed')) return { state: 'fine' }
  const slot = step.slots.find((one: Slot) => one.kind === 'number' && one.id in body.slots)
  const read = slot ? body.slots[slot.id] : undefined
  if (!slot || !read || !('value' in read) || read.bound !== 'exact') return { state: 'fine' }
  const expected = step.expect(
    { part, plant: emptyPlant, instruments: [], regime, models, counted: () => null },
    body.conditions,
  )?.value
  if (!expected) return { state: 'fine' }
  const ratio = read.value / expected
  const figures = {
    tag: part.data.tag,
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
