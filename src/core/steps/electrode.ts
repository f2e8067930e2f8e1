/**
 * Resistance of an earth electrode: by fall of potential at up to three places of the potential spike, by a curve of
 * more places, or by the loop with the electrode's own conductor as return. Sources: BS 7671:2018 411.5.3 and table
 * 41.5, BS 7430, IEEE 81 (from memory); spread: common practice; what lies in the ground: house rules 14 and 15.
 */
import type { ElectrodeFinding, ElectrodeJudged } from '../earth/electrode'
import { awayFrom, KEEP_OFF_m, placeAt, runsAlong } from '../earth/garden'
import { readValueOf } from '../quantity/readValue'
import type { Body } from '../record/entry'
import type { Finding } from '../verdict/verdict'
import { deadGate, judgeMeasured, notYet, saying } from './acShared'
import { clearBearing, electrodePictures, sharesOf } from './electrodePictures'
import {
  type ElectrodeContext,
  electrodeSlots,
  isLoop,
  judgedElectrode,
  type Reading,
  resistanceRead,
} from './electrodeSlots'
import { electrodeWorking } from './electrodeWorking'
import type { Cause, Judgement, Step } from './step'
import { choiceIn, numberIn } from './stringReading'
import { exampleElectrode, exampleRcd } from './worked'

/** The way to the current spike, null while it is not known whole. */
function wayOf(reading: Reading): { bearing_deg: number; distance_m: number } | null {
  const bearing = numberIn(reading, 'spike-bearing')
  const distance = numberIn(reading, 'spike-distance')
  return bearing && distance && !isLoop(reading) ? { bearing_deg: bearing.value, distance_m: distance.value } : null
}

/** A spike that would be driven on or beside something buried: said before anybody drives it. */
function spikeOnService(context: ElectrodeContext, reading: Reading): Finding | null {
  const way = wayOf(reading)
  if (!way) return null
  for (const share of sharesOf(context, reading)) {
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
function alongMetal(context: ElectrodeContext, reading: Reading): Finding | null {
  const way = wayOf(reading)
  if (!way) return null
  const spoiling = context.plant
    .servicesOf(context.part)
    .find(({ data }) => data.material === 'metal' && runsAlong(data, way))
  if (!spoiling) return null
  const best = clearBearing(context, reading)
  const code = best === null ? 'electrode.along-metal' : 'electrode.along-metal-turn'
  return { code, figures: { service: spoiling.data.tag, best: best ?? 0 } }
}

const trapOf: NonNullable<Step<'electrode'>['trap']> = (context, reading) =>
  choiceIn(reading, 'electrode-lead') === 'still-connected'
    ? { code: 'electrode.still-connected', figures: { tag: context.part.data.tag } }
    : spikeOnService(context, reading)

/** What is said first where several things are to be said. */
const order: readonly ElectrodeFinding[] = [
  'no-reading',
  'no-device',
  'spread-wide',
  'single-reading',
  'too-good',
  'may-not-be-stable',
]

/** The mean against the least of the limits, before anything else is said of it. */
function againstLimit(context: ElectrodeContext, reading: Body<'reading'>, found: ElectrodeJudged): Judgement {
  const least = Math.min(...found.limits.map((one) => one.limit_ohm))
  const unstable = context.regime.limits['earth.unstable'].value
  return judgeMeasured(context, {
    step: 'electrode',
    read: readValueOf(found.mean_ohm, 'ohm', found.mean_ohm < 100 ? 1 : 0),
    reading,
    unit: 'ohm',
    scale: 'log',
    band: { low: null, high: least, closeLow: null, closeHigh: Math.min(least, unstable) },
    source: 'bs7671-electrode',
    limit: { id: 'earth.ra', value: least },
    figures: figuresOf(context, reading, found),
  })
}

const figuresOf = ({ part }: ElectrodeContext, reading: Reading, { mean_ohm, spread_pct }: ElectrodeJudged) => {
  const single = numberIn(reading, 're-single')?.value ?? 0
  const rods = part.data.rods ?? 1
  return { mean: mean_ohm, spread: spread_pct ?? 0, single, rods, best: single / rods }
}

export const electrode: Step<'electrode'> = {
  id: 'electrode',
  order: 'D1',
  appliesTo: 'electrode',
  station: 'electrode',
  tag: 'dead',
  slots: electrodeSlots,
  needsConditions: false,
  counts: 'latest',
  gates: [deadGate],
  cautions: [
    { id: 'electrode-lead-off', hard: true },
    { id: 'buried-services', hard: false },
    { id: 'nobody-touches-spikes', hard: false },
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
  inputs: ({ data }) => JSON.stringify([data.form ?? 'rods', data.rods]),
  trap: trapOf,
  judge(context, reading) {
    const found = judgedElectrode(context, reading)
    const trapped = trapOf(context, reading)
    if (!found)
      return trapped ? notYet(trapped.code, context, trapped.figures) : notYet('electrode.no-reading', context)
    if (found.limits.length === 0) return notYet('electrode.no-device', context, figuresOf(context, reading, found))
    const bound = againstLimit(context, reading, found)
    if (trapped) return saying(bound, trapped.code, trapped.figures, 'not-yet')
    if (found.verdict === 'outside') return saying(bound, 'electrode.outside', {}, 'outside')
    const first = order.find((one) => found.findings.includes(one))
    if (first === 'spread-wide' || first === 'no-reading') return saying(bound, `electrode.${first}`, {}, found.verdict)
    const along = alongMetal(context, reading)
    if (along) return saying(bound, along.code, along.figures, 'close')
    return saying(bound, `electrode.${first ?? found.verdict}`, {}, found.verdict)
  },
  working: electrodeWorking,
  pictures: electrodePictures,
  planner: 'rods',
  trend: { same: ['electrode-method', 'spike-distance', 'spike-bearing'], note: 'soil' },
  causes(context, _, judgement) {
    if (judgement.verdict === 'within') return []
    return causesOf(judgement.finding.code, context.part.data.tag)
  },
  example: {
    source: 'common practice, no source: 16.1, 15.5 and 16.1 ohm come to 15.9, 3.8 % apart',
    part: exampleElectrode,
    others: () => [exampleRcd],
    reading: {
      slots: {
        'electrode-method': { choice: 'three-lead' },
        'electrode-lead': { choice: 'taken-off' },
        're-1': readValueOf(16.1, 'ohm', 1),
        're-2': readValueOf(15.5, 'ohm', 1),
        're-3': readValueOf(16.1, 'ohm', 1),
      },
      conditions: null,
    },
    verdict: 'within',
  },
}

function causesOf(finding: string, tag: string): Cause[] {
  const figures = { tag }
  const cause = (code: string, fit: Cause['fit'], next: string): Cause => ({
    code,
    figures,
    fit,
    predicted: null,
    next: { code: next, figures },
  })
  if (finding === 'electrode.too-good')
    return [
      cause('still-joined', 'may-fit', 'look-for-second-path'),
      cause('better-soil-below', 'may-fit', 'read-each-rod'),
    ]
  if (finding.startsWith('electrode.along-metal')) return [cause('metal-carries', 'fits', 'turn-the-spikes')]
  return [
    ...(finding === 'electrode.spread-wide' ? [cause('spikes-too-near', 'fits', 'current-spike-farther')] : []),
    cause('dry-soil', 'may-fit', 'deeper-or-another-rod'),
    cause('electrode-clamp-loose', 'may-fit', 'clean-the-clamp'),
  ]
}
