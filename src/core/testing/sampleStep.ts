/** A test of the trade that nobody asked for: what a new step must bring, and that nothing else need know of it. */
import { readValueOf } from '../quantity/readValue'
import { isolatedGate } from '../steps/gates'
import { hold, notYet } from '../steps/holding'
import { figureOf } from '../steps/reading'
import { numberSlot } from '../steps/slot'
import type { ReadStep } from '../steps/step'
import { atLeast } from '../verdict/compare'
import { decide } from '../verdict/judgement'

const LEAST_Nm = 4
const pull = numberSlot('pull', 'dc-voltage', 'V', 1)

export const sampleStep: ReadStep<'dc-switch'> = {
  kind: 'read',
  id: 'terminal-pull',
  order: 'B13',
  appliesTo: 'dc-switch',
  station: 'dc-switch',
  tag: 'dead',
  slots: [pull],
  counts: 'latest',
  gates: [isolatedGate],
  cautions: [{ id: 'not-dead', hard: true }],
  hookup: { drawing: 'sample-terminal', leads: [{ balloon: 1, code: 'sample-terminal' }] },
  minutes: 1,
  sources: ['rating-plate'],
  judge(context) {
    const read = figureOf(context, pull)
    if (!read) return notYet(context, 'terminal-pull.no-reading')
    const limit = { id: 'terminal-pull', value: LEAST_Nm }
    const line = { code: 'terminal-pull.rule', decimals: 0 }
    const { span, read: shown } = read
    const held = { step: 'terminal-pull', span, text: shown.text, unit: 'V', band: atLeast(LEAST_Nm) } as const
    return decide([hold(context, { ...held, source: 'rating-plate', limit, line })])
  },
  example: {
    source: 'invented for this test: nothing in the trade',
    part: { kind: 'dc-switch', tag: 'DC1', ratedVoltage_V: 1000, rating_A: 32 },
    reading: { slots: { pull: readValueOf(6, 'V', 0) }, conditions: null },
    verdict: 'within',
  },
}

export const sampleWords = {
  'step.terminal-pull.title': 'Pull at the terminals, switch {tag}',
  'step.terminal-pull.short': 'Terminal pull',
  'step.terminal-pull.about': 'A sample step.',
  'slot.pull': 'Pull',
  'lead.sample-terminal': 'terminal',
  'finding.terminal-pull.no-reading': 'Nothing pulled yet.',
  'finding.terminal-pull.not-yet': '{read} decides nothing.',
  'finding.terminal-pull.within': '{read} holds at {tag}.',
  'finding.terminal-pull.outside': '{read} came loose at {tag}.',
  'finding.terminal-pull.close': '{read} nearly came loose at {tag}.',
  'working.terminal-pull.rule': 'At least',
}
