/**
 * Nulling the test leads: their resistance with the clips joined is taken off. It belongs to that set of leads and to
 * this visit; changing or extending the leads cancels it. Source: IEC 61557-4 (from memory); common practice.
 */
import { readValueOf } from '../../quantity/readValue'
import { atMost } from '../../verdict/compare'
import { decide } from '../../verdict/judgement'
import { hold, notYet } from '../holding'
import { figureOf } from '../reading'
import { leadSetSlot, numberSlot } from '../slot'
import type { ReadStep } from '../step'
import { exampleSite } from '../worked'

/** What a nulled set may still show, ohm: as much as a joint, and more than a tester's last digits [D]. */
export const NULLED_ohm = 0.05

const nulled = numberSlot('nulled', 'continuity', 'ohm', 1)

export const leadNull: ReadStep<'site'> = {
  kind: 'read',
  id: 'lead-null',
  order: 'A7',
  appliesTo: 'site',
  station: 'modules',
  tag: 'dead',
  slots: [leadSetSlot, nulled],
  nulls: true,
  counts: 'latest',
  effects: [{ state: 'nulled', on: 'part', does: 'begin' }],
  gates: [],
  cautions: [{ id: 'null-belongs-to-leads', hard: false }],
  hookup: { drawing: 'leads-joined', leads: [{ balloon: 1, code: 'clips-joined' }] },
  minutes: 1,
  sources: ['continuity-practice'],
  judge(context) {
    const read = figureOf(context, nulled)
    if (!read) return notYet(context, 'lead-null.not-yet')
    return decide([
      hold(context, {
        step: 'lead-null',
        span: read.span,
        text: read.read.text,
        unit: 'ohm',
        band: atMost(NULLED_ohm),
        source: 'continuity-practice',
        limit: { id: 'ac.nulled', value: NULLED_ohm },
        line: { code: 'lead-null.rule', decimals: 2 },
      }),
    ])
  },
  example: {
    source: 'common practice, no source: a nulled set of leads shows nothing with its clips joined',
    part: exampleSite,
    reading: { slots: { 'lead-set': { choice: 'set-a' }, nulled: readValueOf(0, 'ohm', 2) }, conditions: null },
    verdict: 'within',
  },
}
