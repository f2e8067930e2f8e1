/**
 * Safe isolation before a plug is parted: AC off, DC switch off, and no current on the clamp. The array stays live in
 * daylight; nothing here is ever called dead. Common practice; IEC 62446-1:2016 4 (from memory) asks for safe isolation.
 */
import { readValueOf } from '../quantity/readValue'
import { readingUncertainty } from '../quantity/uncertainty'
import { type Band, judge } from '../verdict/judge'
import { check, checksSay, plain, hasModules } from './checks'
import type { Slot, Step } from './step'
import { numberIn } from './stringReading'
import { exampleSite } from './worked'

const slots: readonly Slot[] = [
  check('ac-off', 1),
  check('dc-switch-off', 2),
  { kind: 'number', id: 'clamp-current', measures: 'dc-current', unit: 'A', balloon: 3 },
]

export const safeIsolation: Step<'site'> = {
  id: 'safe-isolation',
  order: 'B1',
  appliesTo: 'site',
  where: hasModules,
  station: 'dc-switch',
  tag: 'live-in-daylight',
  slots,
  needsConditions: false,
  counts: 'latest',
  gates: [],
  cautions: [
    { id: 'never-part-under-load', hard: true },
    { id: 'not-dead', hard: false },
  ],
  hookup: {
    drawing: 'isolation',
    leads: [
      { balloon: 1, code: 'ac-switch' },
      { balloon: 2, code: 'dc-switch' },
      { balloon: 3, code: 'clamp-each-string' },
    ],
  },
  minutes: 4,
  sources: ['house-clamp', 'rating-plate'],
  inputs: () => '',
  judge({ regime, part }, reading) {
    const said = checksSay(slots, reading)
    const read = numberIn(reading, 'clamp-current')
    if (said.verdict !== 'within') return plain(said.verdict, { code: said.code, figures: said.figures })
    if (!read) return plain('not-yet', { code: 'safe-isolation.no-current', figures: {} })
    const { value, unit, source } = regime.limits['pv.isolation-current']
    const band: Band = { low: null, high: value, closeLow: null, closeHigh: null }
    const whisker = readingUncertainty(read, reading.instrument?.accuracy ?? null)
    const { verdict } = judge(read, band, 0)
    return {
      ...plain(verdict, {
        code: `safe-isolation.${verdict}`,
        figures: { read: read.text, limit: value, tag: part.data.tag },
      }),
      rule: {
        unit: 'A',
        scale: 'linear',
        measured: { value: read.value, bound: read.bound, whisker, text: read.text },
        expected: null,
        band,
        source,
      },
      limits: [{ id: 'pv.isolation-current', value, unit, source }],
    }
  },
  working: ({ regime }) => [
    {
      code: 'safe-isolation.rule',
      figures: {},
      result: { value: regime.limits['pv.isolation-current'].value, unit: 'A', decimals: 1 },
      source: regime.limits['pv.isolation-current'].source,
      decides: true,
    },
  ],
  example: {
    source: 'handbook 2 B1: no current on the clamp before any connector is parted; common practice, no source',
    part: exampleSite,
    reading: {
      slots: {
        'ac-off': { choice: 'as-it-should' },
        'dc-switch-off': { choice: 'as-it-should' },
        'clamp-current': readValueOf(4.2, 'A', 1),
      },
      conditions: null,
    },
    verdict: 'outside',
  },
}
