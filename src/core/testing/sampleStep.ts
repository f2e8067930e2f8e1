/** A test of the trade that nobody asked for: what a new step must bring, and that nothing else need know of it. */
import { readValueOf } from '../quantity/readValue'
import { readingUncertainty } from '../quantity/uncertainty'
import { plain } from '../steps/checks'
import type { Step } from '../steps/step'
import { numberIn } from '../steps/stringReading'
import { type Band, judge } from '../verdict/judge'

const LEAST_Nm = 4
const band: Band = { low: LEAST_Nm, high: null, closeLow: null, closeHigh: null }

export const sampleStep: Step<'dc-switch'> = {
  id: 'terminal-pull',
  order: 'B12',
  appliesTo: 'dc-switch',
  station: 'dc-switch',
  tag: 'dead',
  slots: [{ kind: 'number', id: 'pull', measures: 'dc-voltage', unit: 'V', balloon: 1 }],
  needsConditions: false,
  counts: 'latest',
  gates: [{ id: 'isolated', hard: true, waitsFor: 'safe-isolation', until: 'done', on: 'site' }],
  cautions: [{ id: 'not-dead', hard: true }],
  hookup: { drawing: 'sample-terminal', leads: [{ balloon: 1, code: 'sample-terminal' }] },
  minutes: 1,
  sources: ['rating-plate'],
  inputs: () => '',
  judge({ part }, reading) {
    const read = numberIn(reading, 'pull')
    if (!read) return plain('not-yet', { code: 'terminal-pull.not-yet', figures: {} })
    const whisker = readingUncertainty(read, null)
    const { verdict } = judge(read, band, whisker)
    return {
      ...plain(verdict, { code: `terminal-pull.${verdict}`, figures: { read: read.text, tag: part.data.tag } }),
      rule: {
        unit: 'V',
        scale: 'linear',
        measured: { value: read.value, bound: read.bound, whisker, text: read.text },
        expected: null,
        band,
        source: 'rating-plate',
      },
    }
  },
  working: () => [
    {
      code: 'terminal-pull.rule',
      figures: {},
      result: { value: LEAST_Nm, unit: 'V', decimals: 0 },
      source: 'rating-plate',
      decides: true,
    },
  ],
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
  'finding.terminal-pull.not-yet': 'Nothing pulled yet.',
  'finding.terminal-pull.within': '{read} holds at {tag}.',
  'finding.terminal-pull.outside': '{read} came loose at {tag}.',
  'finding.terminal-pull.close': '{read} nearly came loose at {tag}.',
  'working.terminal-pull.rule': 'At least',
}
