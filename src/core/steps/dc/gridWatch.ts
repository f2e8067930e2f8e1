/**
 * An inverter on the network: its protection is set as the network asks, and once mains is back it waits as long as it
 * must, by the clock. How long that is the network says: it stands on the plant. Source: common practice; the figure is
 * the network's.
 */
import { readValueOf } from '../../quantity/readValue'
import { atLeast } from '../../verdict/compare'
import { decide, type Ruling } from '../../verdict/judgement'
import { checksRuling } from '../checks'
import { hold, ruled } from '../holding'
import { figureOf } from '../reading'
import { check, numberSlot } from '../slot'
import type { AnyContext, ReadStep, StepContext } from '../step'

const waited = numberSlot('reconnect-wait', null, 's', 2)

function waitRuling(context: StepContext<'inverter'>): Ruling[] {
  const figure = figureOf(context, waited)
  if (!figure) return []
  const least_s = context.part.data.reconnect_s ?? null
  if (least_s === null) {
    const line = { code: 'grid-watch.no-limit', source: 'network-rules' } as const
    return [ruled(context, 'not-yet', 'grid-watch.no-limit', line, { read: figure.read.text })]
  }
  return [
    hold(context, {
      step: 'grid-watch',
      span: figure.span,
      text: figure.read.text,
      unit: 's',
      band: atLeast(least_s),
      source: 'network-rules',
      limit: { id: 'pv.reconnect', value: least_s },
      line: { code: 'grid-watch.least', decimals: 0 },
      slots: [waited.id],
    }),
  ]
}

export const gridWatch: ReadStep<'inverter'> = {
  kind: 'read',
  id: 'grid-watch',
  order: 'B16',
  appliesTo: 'inverter',
  station: 'inverter',
  tag: 'live',
  slots: [check('protection-set', 1), check('protection-shown', 1), waited],
  counts: 'latest',
  gates: [{ id: 'inverter-runs', hard: false, waitsFor: 'reconnect', until: 'done' }],
  cautions: [{ id: 'only-who-may-set', hard: true }],
  hookup: {
    drawing: 'grid-watch',
    leads: [
      { balloon: 1, code: 'inverter-display' },
      { balloon: 2, code: 'clock-from-mains-back' },
    ],
  },
  minutes: 3,
  sources: ['network-rules'],
  judge: (context) => decide([...waitRuling(context), checksRuling(context as unknown as AnyContext, 'network-rules')]),
  example: {
    source:
      'common practice, no source: an inverter that comes back sooner than its network allows is set for another one',
    part: { kind: 'inverter', tag: 'INV', maxInput_V: 1000, reconnect_s: 60 },
    reading: {
      slots: {
        'protection-set': { choice: 'as-it-should' },
        'protection-shown': { choice: 'as-it-should' },
        'reconnect-wait': readValueOf(24, 's', 0),
      },
      conditions: null,
    },
    verdict: 'outside',
  },
}
