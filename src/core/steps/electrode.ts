/**
 * Resistance of an earth electrode: by fall of potential at up to three places of the potential spike, or by the loop
 * with the electrode's own conductor as return. Sources: BS 7671:2018 411.5.3 and table 41.5, BS 7430, IEEE 81 (from
 * memory); spread: common practice.
 */
import { type ElectrodeFinding, type ElectrodeJudged, judgeElectrode } from '../earth/electrode'
import { probePlaces } from '../earth/fallOfPotential'
import { MOST_RODS, rodsInLine_ohm, soilFrom } from '../earth/rods'
import { readValueOf } from '../quantity/readValue'
import type { Body } from '../record/entry'
import type { WorkingLine } from '../verdict/working'
import { choiceSlot, deadGate, judgeMeasured, notYet, numberSlot, ratedOf, readingsIn, saying } from './acShared'
import type { Cause, NumberSlot, Slot, Step, StepContext } from './step'
import { choiceIn, numberIn } from './stringReading'
import { exampleElectrode, exampleRcd } from './worked'

const byProbes = { slot: 'electrode-method', is: ['three-lead'] }
const byLoop = { slot: 'electrode-method', is: ['loop-method'] }
const probeSlots: readonly NumberSlot[] = [
  numberSlot('re-1', 'earth-resistance', 'ohm', 3, { when: byProbes }),
  numberSlot('re-2', 'earth-resistance', 'ohm', 3, { when: byProbes, optional: true }),
  numberSlot('re-3', 'earth-resistance', 'ohm', 3, { when: byProbes, optional: true }),
]
const loopSlots: readonly NumberSlot[] = [
  numberSlot('re-loop', 'loop-impedance', 'ohm', 3, { when: byLoop }),
  numberSlot('re-lead', 'continuity', 'ohm', 3, { when: byLoop, optional: true }),
]
const slots: readonly Slot[] = [
  choiceSlot({ id: 'electrode-method', options: ['three-lead', 'loop-method'], sticky: true, balloon: 2 }),
  choiceSlot({
    id: 'electrode-lead',
    options: ['taken-off', 'still-connected'],
    sound: ['taken-off'],
    sticky: true,
    balloon: 1,
  }),
  ...probeSlots,
  ...loopSlots,
  numberSlot('spike-distance', 'distance', 'm', 2, { when: byProbes, optional: true }),
  choiceSlot({
    id: 'soil',
    options: ['soil-dry', 'soil-damp', 'soil-frozen'],
    sticky: true,
    optional: true,
    balloon: 2,
  }),
]

function judged(context: StepContext<'electrode'>, reading: Pick<Body<'reading'>, 'slots'>): ElectrodeJudged | null {
  const { limits, schools } = context.regime
  const isLoop = choiceIn(reading, 'electrode-method') === 'loop-method'
  const read = isLoop ? numberIn(reading, 're-loop') : null
  const readings_ohm = isLoop
    ? read
      ? [read.value]
      : []
    : [...readingsIn(reading, probeSlots).values()].map((one) => one.value)
  if (readings_ohm.length === 0) return null
  return judgeElectrode({
    readings_ohm,
    leads_ohm: isLoop ? (numberIn(reading, 're-lead')?.value ?? 0) : 0,
    method: isLoop ? 'loop' : 'three-lead',
    ratedResidualCurrents_mA: [...new Set(ratedOf(context.plant.ofKind('rcd')))],
    spreadSchool: schools['earth.spread-rule'],
    touch_V: limits['earth.touch-voltage'].value,
    spread_pct: limits['earth.spread'].value,
    unstable_ohm: limits['earth.unstable'].value,
  })
}

/** What further rods would bring in this soil, from what the ones there are read. */
function planLines({ part }: StepContext<'electrode'>, mean_ohm: number): WorkingLine[] {
  const { rods, length_m, diameter_mm, spacing_m } = part.data
  if (rods === null || length_m === null || diameter_mm === null || rods >= MOST_RODS || mean_ohm <= 0) return []
  const size = { length_m, diameter_m: diameter_mm / 1000 }
  const spacing = spacing_m ?? length_m
  const soil = soilFrom(size, rods, spacing, mean_ohm)
  return [rods + 1, rods + 2].flatMap((count): WorkingLine[] =>
    count > MOST_RODS
      ? []
      : [
          {
            code: 'electrode.further-rods',
            figures: { count, spacing_m: spacing, soil },
            result: {
              value: rodsInLine_ohm({ ...size, resistivity_ohm_m: soil }, count, spacing),
              unit: 'ohm',
              decimals: 1,
            },
            source: 'bs7430-rods',
          },
        ],
  )
}

/** RA as a reading of this electrode comes to, ohm; null without one. */
export const electrodeResistance = (
  context: StepContext<'electrode'>,
  reading: Pick<Body<'reading'>, 'slots'>,
): number | null => judged(context, reading)?.mean_ohm ?? null

const trapOf: NonNullable<Step<'electrode'>['trap']> = (context, reading) =>
  choiceIn(reading, 'electrode-lead') === 'still-connected'
    ? { code: 'electrode.still-connected', figures: { tag: context.part.data.tag } }
    : null

/** Where nobody measured the way, the places are drawn on one of this length, m [D]. */
const USUAL_WAY_m = 30

/** What is said first where several things are to be said. */
const order: readonly ElectrodeFinding[] = [
  'no-reading',
  'no-device',
  'spread-wide',
  'single-reading',
  'may-not-be-stable',
]

export const electrode: Step<'electrode'> = {
  id: 'electrode',
  order: 'D1',
  appliesTo: 'electrode',
  station: 'electrode',
  tag: 'dead',
  slots,
  stands: 'mean',
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
  sources: ['bs7671-electrode', 'electrode-practice', 'ieee-81'],
  inputs: () => '',
  trap: trapOf,
  judge(context, reading) {
    const found = judged(context, reading)
    if (!found) return notYet('electrode.no-reading', context)
    const least = Math.min(...found.limits.map((one) => one.limit_ohm))
    const figures = { mean: found.mean_ohm, spread: found.spread_pct ?? 0 }
    if (!Number.isFinite(least)) return notYet('electrode.no-device', context, figures)
    const decimals = found.mean_ohm < 100 ? 1 : 0
    const bound = judgeMeasured(context, {
      step: 'electrode',
      read: readValueOf(found.mean_ohm, 'ohm', decimals),
      reading,
      unit: 'ohm',
      scale: 'log',
      band: {
        low: null,
        high: least,
        closeLow: null,
        closeHigh: Math.min(least, context.regime.limits['earth.unstable'].value),
      },
      source: 'bs7671-electrode',
      limit: { id: 'earth.ra', value: least },
      figures,
    })
    const trapped = trapOf(context, reading)
    if (trapped) return saying(bound, trapped.code, {}, 'not-yet')
    const first = order.find((one) => found.findings.includes(one))
    if (first && found.verdict !== 'outside') return saying(bound, `electrode.${first}`, {}, found.verdict)
    return { ...bound, verdict: found.verdict, finding: { ...bound.finding, code: `electrode.${found.verdict}` } }
  },
  working(context, reading) {
    const found = judged(context, reading)
    const { limits, schools } = context.regime
    const distance = numberIn(reading, 'spike-distance')
    const lines: WorkingLine[] = []
    if (distance) {
      const school = schools['earth.probe']
      const [at, before, beyond] = probePlaces(school, distance.value)
      lines.push({
        code: `electrode.places-${school}`,
        figures: { distance_m: distance.value, before, beyond },
        result: { value: at, unit: 'm', decimals: 1 },
        source: 'ieee-81',
      })
    }
    if (found) {
      const lead = numberIn(reading, 're-lead')
      lines.push({
        code: lead ? 'electrode.less-lead' : 'electrode.mean',
        figures: { lead_ohm: lead?.value ?? 0, count: readingsIn(reading, probeSlots).size },
        result: { value: found.mean_ohm, unit: 'ohm', decimals: 1 },
        source: 'electrode-practice',
      })
      if (found.spread_pct !== null)
        lines.push({
          code: `electrode.spread-${schools['earth.spread-rule']}`,
          figures: { allowed_pct: limits['earth.spread'].value },
          result: { value: found.spread_pct, unit: 'pct', decimals: 1 },
          source: 'electrode-practice',
        })
      for (const { ratedResidualCurrent_mA, limit_ohm } of found.limits)
        lines.push({
          code: 'electrode.limit',
          figures: { rated_mA: ratedResidualCurrent_mA, touch_V: limits['earth.touch-voltage'].value },
          result: { value: limit_ohm, unit: 'ohm', decimals: 0 },
          source: 'bs7671-electrode',
          decides: true,
        })
    }
    return found ? [...lines, ...planLines(context, found.mean_ohm)] : lines
  },
  picture(context, reading) {
    const { limits, schools } = context.regime
    const distance = numberIn(reading, 'spike-distance')?.value ?? null
    const way = distance ?? USUAL_WAY_m
    const found = judged(context, reading)
    return {
      kind: 'spikes',
      distance_m: distance,
      places: probePlaces(schools['earth.probe'], way).map((at, k) => ({
        share: at / way,
        read_ohm: numberIn(reading, probeSlots[k]!.id)?.value ?? null,
      })),
      mean_ohm: found?.mean_ohm ?? null,
      spread_pct: limits['earth.spread'].value,
    }
  },
  causes(context, _, judgement) {
    if (judgement.verdict === 'within') return []
    const figures = { tag: context.part.data.tag }
    const spread: Cause[] = judgement.finding.code.endsWith('spread-wide')
      ? [
          {
            code: 'spikes-too-near',
            figures,
            fit: 'fits',
            predicted: null,
            next: { code: 'current-spike-farther', figures },
          },
        ]
      : []
    return [
      ...spread,
      { code: 'dry-soil', figures, fit: 'may-fit', predicted: null, next: { code: 'deeper-or-another-rod', figures } },
      {
        code: 'electrode-clamp-loose',
        figures,
        fit: 'may-fit',
        predicted: null,
        next: { code: 'clean-the-clamp', figures },
      },
    ]
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
