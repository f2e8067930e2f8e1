/**
 * Resistance of an earth electrode: by fall of potential at up to three places of the potential spike, or by a curve of
 * more places. The loop has a test of its own. Sources: BS 7671:2018 411.5.3 and table 41.5, BS 7430, IEEE 81 (from
 * memory); spread: common practice; what lies in the ground: house rules 14 and 15.
 */
import type { ElectrodeFinding, ElectrodeJudged } from '../../earth/electrode'
import { awayFrom, KEEP_OFF_m, placeAt, runsAlong } from '../../earth/garden'
import { readValueOf } from '../../quantity/readValue'
import { type Span, standingFor } from '../../quantity/span'
import { type Cause, causeOf } from '../../verdict/cause'
import { atMost } from '../../verdict/compare'
import { decide, type Judgement, type Ruling } from '../../verdict/judgement'
import type { Decided, Figures, Finding } from '../../verdict/verdict'
import { deadGate } from '../gates'
import { but, hold, notYet, ruled } from '../holding'
import { choiceIn, numberIn } from '../reading'
import type { ReadStep, StateEffect } from '../step'
import { exampleElectrode, exampleRcd, exampleSupply } from '../worked'
import { clearBearing, electrodePictures, sharesOf } from './electrodePictures'
import {
  type ElectrodeContext,
  electrodeSlots,
  rodsInSlot,
  isLoop,
  judgedElectrode,
  leadOffSlot,
  longLeadSlot,
  loopSlot,
  resistanceRead,
} from './electrodeSlots'
import { planLines, singleLines, soilLines, sumLines } from './electrodeWorking'

/** The way to the current spike, null while it is not known whole. */
function wayOf({ reading }: ElectrodeContext): { bearing_deg: number; distance_m: number } | null {
  const bearing = numberIn(reading, 'spike-bearing')
  const distance = numberIn(reading, 'spike-distance')
  return bearing && distance && !isLoop(reading) ? { bearing_deg: bearing.value, distance_m: distance.value } : null
}

/** A spike that would be driven on or beside something buried: said before anybody drives it. */
function spikeOnService(context: ElectrodeContext): Finding | null {
  const way = wayOf(context)
  if (!way) return null
  for (const share of sharesOf(context)) {
    const at = placeAt(way.bearing_deg, share * way.distance_m)
    for (const { data } of context.plant.servicesOf(context.part)) {
      const away_m = awayFrom(data, at)
      if (away_m >= KEEP_OFF_m) continue
      const figures = { service: data.tag, at_m: share * way.distance_m, away_m, least_m: KEEP_OFF_m }
      return { code: 'electrode.spike-on-service', figures }
    }
  }
  return null
}

/** Metal in the ground beside the way carries part of the current: the reading is of both. */
function alongMetal(context: ElectrodeContext): Ruling | null {
  const way = wayOf(context)
  const spoiling =
    way && context.plant.servicesOf(context.part).find(({ data }) => data.material === 'metal' && runsAlong(data, way))
  if (!spoiling) return null
  const best = clearBearing(context)
  const code = best === null ? 'electrode.along-metal' : 'electrode.along-metal-turn'
  const figures = { service: spoiling.data.tag, best: best ?? 0 }
  return ruled(context, 'close', code, { code: 'electrode.along-metal', figures, source: 'house-along' }, figures)
}

const decimalsOf = (span: Span): number => (standingFor(span) < 100 ? 1 : 0)

/** Each limit by itself: the least of them decides among those alike. */
function againstLimits(context: ElectrodeContext, found: ElectrodeJudged, figures: Figures): Ruling[] {
  const touch = context.limit('earth.touch-voltage')
  return [...found.limits]
    .sort((a, b) => a.limit_ohm - b.limit_ohm)
    .map(({ limit_ohm, ratedResidualCurrent_mA, band }) =>
      hold(context, {
        step: 'electrode',
        span: found.value,
        text: standingFor(found.value).toFixed(decimalsOf(found.value)),
        unit: 'ohm',
        scale: 'log',
        band,
        source: touch.source,
        limit: { id: 'earth.ra', value: limit_ohm },
        line: {
          code: 'electrode.limit',
          figures: { rated_mA: ratedResidualCurrent_mA, touch_V: touch.value },
          decimals: 0,
        },
        figures,
      }),
    )
}

/** What a contract asks of it, beside what its devices need; without any device it is all that it is held against. */
function againstTarget(context: ElectrodeContext, found: ElectrodeJudged, figures: Figures): Ruling[] {
  const target_ohm = context.part.data.target_ohm ?? null
  if (target_ohm === null) return []
  return [
    hold(context, {
      step: 'electrode.target',
      span: found.value,
      text: standingFor(found.value).toFixed(decimalsOf(found.value)),
      unit: 'ohm',
      scale: 'log',
      band: atMost(target_ohm),
      source: 'company',
      limit: { id: 'earth.target', value: target_ohm },
      line: { code: 'electrode.target', decimals: 1 },
      figures,
    }),
  ]
}

/** What else is to be said, and what it makes of the verdict at least. */
const says: readonly [ElectrodeFinding, Decided | null][] = [
  ['no-reading', 'not-yet'],
  ['no-device', 'not-yet'],
  ['spread-wide', 'not-yet'],
  ['single-reading', 'close'],
  ['too-good', 'close'],
]

function findingRulings(context: ElectrodeContext, found: ElectrodeJudged, figures: Figures): Ruling[] {
  const { value: allowed_pct } = context.limit('earth.spread')
  return says.flatMap(([finding, verdict]) => {
    if (!found.findings.includes(finding) || !verdict) return []
    // It is held against its target: no device is wanted for a verdict.
    if (finding === 'no-device' && context.part.data.target_ohm) return []
    const line = {
      code: `electrode.${finding}`,
      figures: { ...figures, allowed_pct },
      source: 'electrode-practice',
    } as const
    return [ruled(context, verdict, `electrode.${finding}`, line, figures)]
  })
}

/** The one judgement of an electrode, however it was read. */
export function judgeElectrodeStep(context: ElectrodeContext): Judgement {
  const found = judgedElectrode(context)
  if (!found) return notYet(context, 'electrode.no-reading')
  const single = numberIn(context.reading, 're-single')?.value ?? 0
  const rods = context.part.data.rods ?? 1
  const figures = { mean: standingFor(found.value), spread: found.spread_pct ?? 0, single, rods, best: single / rods }
  const limits = againstLimits(context, found, figures)
  // Above what may dry out it is close by that, and says so.
  const unstable = found.findings.includes('may-not-be-stable')
  const told = limits.map((one) =>
    unstable && one.verdict === 'close'
      ? but(one, { finding: { ...one.finding, code: 'electrode.may-not-be-stable' } })
      : one,
  )
  const along = alongMetal(context)
  const target = againstTarget(context, found, figures)
  return decide([...findingRulings(context, found, figures), ...(along ? [along] : []), ...told, ...target], {
    rule: told[0]?.rule ?? target[0]?.rule ?? null,
    before: () => [...sumLines(context, found), ...soilLines(context), ...singleLines(context)],
    after: () => planLines(context, standingFor(found.value)),
  })
}

/** Whichever way it is read, its conductor is off until somebody puts it back. */
const comesOff: StateEffect = {
  state: 'electrode-on',
  on: 'part',
  does: 'end',
  when: (reading) => choiceIn(reading, leadOffSlot.id) === 'taken-off',
}

export const electrode: ReadStep<'electrode'> = {
  kind: 'read',
  id: 'electrode',
  order: 'D1',
  appliesTo: 'electrode',
  of: ({ data }) => data.testedBy !== 'loop',
  station: 'electrode',
  protects: true,
  tag: 'dead',
  slots: electrodeSlots,
  counts: 'latest',
  effects: [comesOff],
  gates: [deadGate],
  cautions: [
    { id: 'electrode-lead-off', hard: true },
    { id: 'buried-services', hard: true },
    { id: 'nobody-touches-spikes', hard: false },
    { id: 'highest-range-first', hard: false },
  ],
  hookup: {
    drawing: 'electrode-spikes',
    leads: [
      { balloon: 1, code: 'electrode-lead' },
      { balloon: 2, code: 'current-spike' },
      { balloon: 3, code: 'potential-spike' },
    ],
  },
  minutes: 12,
  sources: ['bs7671-electrode', 'electrode-practice', 'ieee-81', 'house-keep-off', 'house-along'],
  standing: (reading) => {
    const value = resistanceRead(reading)
    return value === null ? null : { value, unit: 'ohm', decimals: value < 100 ? 1 : 0 }
  },
  trap: (context) =>
    choiceIn(context.reading, leadOffSlot.id) === 'still-connected'
      ? { code: 'electrode.still-connected', figures: { tag: context.part.data.tag } }
      : spikeOnService(context),
  judge: judgeElectrodeStep,
  pictures: electrodePictures,
  planner: 'rods',
  // Another bearing is another way of setting it up only where metal lies along one of them.
  trend: {
    same: ['electrode-method', 'spike-distance'],
    note: 'soil',
    count: rodsInSlot.id,
    besides: {
      slots: ['spike-bearing'],
      where: ({ lines }) => lines.some(({ code }) => code === 'electrode.along-metal'),
    },
  },
  causes: (context, judgement) =>
    judgement.verdict === 'within' ? [] : causesOf(judgement.finding.code, context.part.data.tag),
  example: {
    source: 'computed: 42.0, 41.2 and 43.1 ohm come to 42.1, 4.5 % apart',
    part: exampleElectrode,
    others: () => [exampleRcd, exampleSupply],
    reading: {
      slots: {
        'electrode-method': { choice: 'three-lead' },
        'electrode-lead': { choice: 'taken-off' },
        're-1': readValueOf(42, 'ohm', 1),
        're-2': readValueOf(41.2, 'ohm', 1),
        're-3': readValueOf(43.1, 'ohm', 1),
      },
      conditions: null,
    },
    verdict: 'within',
  },
}

/**
 * The loop as a way to read an electrode: from the incoming line to the electrode's conductor, live, with Ze and one
 * disconnection for both. It holds the source's electrode and the line too, and so reads on the safe side.
 */
export const electrodeLoop: ReadStep<'electrode'> = {
  kind: 'read',
  id: 'electrode-loop',
  order: 'E3',
  appliesTo: 'electrode',
  of: ({ data }) => data.testedBy === 'loop',
  station: 'electrode',
  protects: true,
  tag: 'live',
  slots: [leadOffSlot, loopSlot, longLeadSlot],
  counts: 'latest',
  effects: [comesOff],
  gates: [deadGate],
  cautions: [
    { id: 'all-dead-downstream', hard: true },
    { id: 'finger-guarded', hard: true },
    { id: 'fault-current-flows', hard: true },
    { id: 'ahead-of-every-rcd', hard: false },
  ],
  hookup: {
    drawing: 'electrode-loop',
    leads: [
      { balloon: 1, code: 'electrode-lead' },
      { balloon: 2, code: 'incoming-line' },
      { balloon: 3, code: 'long-lead' },
    ],
  },
  minutes: 4,
  sources: ['bs7671-electrode', 'electrode-practice'],
  standing: electrode.standing!,
  trap: ({ part, reading }) =>
    choiceIn(reading, leadOffSlot.id) === 'still-connected'
      ? { code: 'electrode.still-connected', figures: { tag: part.data.tag } }
      : null,
  judge: judgeElectrodeStep,
  planner: 'rods',
  trend: { same: [], note: null },
  causes: (context, judgement) =>
    judgement.verdict === 'within' ? [] : causesOf(judgement.finding.code, context.part.data.tag),
  example: {
    source: 'computed: a loop of 61.4 ohm less 0.9 ohm of its own lead is 60.5 ohm, under 1667 ohm at 30 mA',
    part: { ...exampleElectrode, testedBy: 'loop' },
    others: () => [exampleRcd, { ...exampleSupply, arrangement: 'TT', declaredZe_ohm: null }],
    reading: {
      slots: {
        'electrode-lead': { choice: 'taken-off' },
        're-loop': readValueOf(61.4, 'ohm', 1),
        're-lead': readValueOf(0.9, 'ohm', 1),
      },
      conditions: null,
    },
    verdict: 'within',
  },
}

function causesOf(finding: string, tag: string): Cause[] {
  const figures = { tag }
  if (finding === 'electrode.too-good')
    return [
      causeOf('still-joined', 'may-fit', 'look-for-second-path', figures),
      causeOf('better-soil-below', 'may-fit', 'read-each-rod', figures),
    ]
  if (finding.startsWith('electrode.along-metal')) return [causeOf('metal-carries', 'fits', 'turn-the-spikes', figures)]
  return [
    ...(finding === 'electrode.spread-wide'
      ? [
          causeOf('spikes-too-near', 'fits', 'current-spike-farther', figures),
          causeOf('spike-contact', 'may-fit', 'wet-the-spikes', figures),
        ]
      : []),
    causeOf('dry-soil', 'may-fit', 'deeper-or-another-rod', figures),
    causeOf('electrode-clamp-loose', 'may-fit', 'clean-the-clamp', figures),
  ]
}
