/**
 * Nulling the test leads: their resistance with the clips joined is taken off. It belongs to that set of leads and to
 * this visit; changing or extending the leads cancels it. Source: IEC 61557-4 (from memory); common practice.
 */
import { readValueOf } from '../quantity/readValue'
import { plain } from './checks'
import { leadSetSlot } from './leadSetSlot'
import type { Slot, Step } from './step'
import { choiceIn, numberIn } from './stringReading'
import { exampleSite } from './worked'

/** What a nulled set may still show, ohm: one last digit of a usual tester [D]. */
export const NULLED_ohm = 0.02

const slots: readonly Slot[] = [
  leadSetSlot,
  { kind: 'number', id: 'nulled', measures: 'continuity', unit: 'ohm', balloon: 1 },
]

export const leadNull: Step<'site'> = {
  id: 'lead-null',
  order: 'A7',
  appliesTo: 'site',
  station: 'modules',
  tag: 'dead',
  slots,
  nulls: true,
  needsConditions: false,
  counts: 'latest',
  gates: [],
  cautions: [{ id: 'null-belongs-to-leads', hard: false }],
  hookup: { drawing: 'leads-joined', leads: [{ balloon: 1, code: 'clips-joined' }] },
  minutes: 1,
  sources: ['continuity-practice'],
  inputs: () => '',
  judge(_, reading) {
    const read = numberIn(reading, 'nulled')
    const set = choiceIn(reading, 'lead-set')
    if (!read || !set) return plain('not-yet', { code: 'lead-null.not-yet', figures: {} })
    const verdict = read.bound === 'more-than' || read.value > NULLED_ohm ? 'outside' : 'within'
    return plain(verdict, { code: `lead-null.${verdict}`, figures: { read: read.text, most: NULLED_ohm } })
  },
  working: () => [
    {
      code: 'lead-null.rule',
      figures: {},
      result: { value: NULLED_ohm, unit: 'ohm', decimals: 2 },
      source: 'continuity-practice',
      decides: true,
    },
  ],
  example: {
    source: 'common practice, no source: a nulled set of leads shows nothing with its clips joined',
    part: exampleSite,
    reading: { slots: { 'lead-set': { choice: 'set-a' }, nulled: readValueOf(0, 'ohm', 2) }, conditions: null },
    verdict: 'within',
  },
}
