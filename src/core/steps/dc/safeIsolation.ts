/**
 * Safe isolation before a plug is parted: AC off, DC switch off, and no current on the clamp. The array stays live in
 * daylight; nothing here is ever called dead. Common practice; IEC 62446-1:2016 4 (from memory) asks for safe isolation.
 */
import { readValueOf } from '../../quantity/readValue'
import { atMost } from '../../verdict/compare'
import { decide } from '../../verdict/judgement'
import { checksRuling, hasModules } from '../checks'
import { hold, ruled } from '../holding'
import { figureOf } from '../reading'
import { decisive, numberSlot } from '../slot'
import type { ReadStep } from '../step'
import { exampleSite } from '../worked'

const clamp = numberSlot('clamp-current', 'dc-current', 'A', 3)

export const safeIsolation: ReadStep<'site'> = {
  kind: 'read',
  id: 'safe-isolation',
  order: 'B1',
  appliesTo: 'site',
  where: hasModules,
  sheets: ['pv'],
  station: 'dc-switch',
  tag: 'live-in-daylight',
  slots: [decisive('ac-off', 1), decisive('dc-switch-off', 2), clamp],
  counts: 'latest',
  effects: [{ state: 'isolated', on: 'part', does: 'begin' }],
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
  judge(context) {
    const checks = checksRuling(context, 'rating-plate')
    const { value, source } = context.limit('pv.isolation-current')
    const read = figureOf(context, clamp)
    const current = read
      ? hold(context, {
          step: 'safe-isolation',
          span: read.span,
          text: read.read.text,
          unit: 'A',
          band: atMost(value),
          source,
          limit: { id: 'pv.isolation-current', value },
          line: { code: 'safe-isolation.rule', decimals: 1 },
        })
      : ruled(context, 'not-yet', 'safe-isolation.no-current', { code: 'safe-isolation.no-current', source })
    // Of what is alike the current speaks: it is what somebody is about to interrupt.
    return decide([current, checks])
  },
  example: {
    source: 'handbook 2 B1: no current on the clamp before any connector is parted; common practice, no source',
    part: exampleSite,
    reading: {
      slots: {
        'ac-off': { choice: 'as-it-should' },
        'dc-switch-off': { choice: 'as-it-should' },
        'clamp-current': readValueOf(3.6, 'A', 1),
      },
      conditions: null,
    },
    verdict: 'outside',
  },
}
