/**
 * Volts of a supply that is on: each line to neutral and to earth within what a network may deliver, neutral near earth.
 * Sources: IEC 60038, EN 50160 (from memory); 50 V: IEC 60364-4-41 (from memory).
 */
import { atMost, type Band } from '../../verdict/compare'
import type { Ruling } from '../../verdict/judgement'
import { hold, ruled } from '../holding'
import type { Figure } from '../reading'
import type { AnyContext } from '../step'

/** A line's volts within what a network may deliver. @param step first word of its sentences */
export function supplyVolts(context: AnyContext, { slot, span, read }: Figure, step: string): Ruling {
  const [low_pct, high] = [context.limit('ac.supply-low').value, context.limit('ac.supply-high')]
  const nominal_V = context.plant.supplyOf(context.part)?.data.nominal_V ?? null
  const pair = slot.of!.pair!
  const line = { code: 'supply-volts', figures: { low_pct, high_pct: high.value }, source: high.source }
  if (nominal_V === null) return ruled(context, 'not-yet', `${step}.no-supply`, line, { read: read.text })
  const band: Band = {
    low: nominal_V * (1 - low_pct / 100),
    high: nominal_V * (1 + high.value / 100),
    closeLow: null,
    closeHigh: null,
  }
  return hold(context, {
    step,
    span,
    text: read.text,
    unit: 'V',
    band,
    source: high.source,
    limit: { id: 'ac.supply-high', value: band.high! },
    line: { ...line, decimals: 0 },
    figures: { pair, low: band.low! },
    slots: [slot.id],
  })
}

/** What may stand against earth: neutral, or metalwork while a device is tried. @param code of its line of the working */
export function touchVolts(context: AnyContext, { slot, span, read }: Figure, step: string, code: string): Ruling {
  const touch = context.limit('earth.touch-voltage')
  return hold(context, {
    step,
    span,
    text: read.text,
    unit: 'V',
    band: atMost(touch.value),
    source: touch.source,
    limit: { id: 'earth.touch-voltage', value: touch.value },
    line: { code, decimals: 0 },
    slots: [slot.id],
  })
}
