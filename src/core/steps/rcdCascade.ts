/**
 * Whether a device opens before the one above it in series: by the rule and the bands of the standard, and from the
 * readings of both, at one and the same current. Nobody reads anything here. Sources: IEC 60364-5-53 535.3, IEC 61008-1
 * table 1 (from memory); three times the rated current: common practice.
 */
import type { PartOf } from '../plant/plantIndex'
import {
  discriminateByRule,
  discriminationByBands,
  discriminationByReadings,
  type ReadDiscrimination,
  type TimedTrip,
} from '../rcd/discrimination'
import { tripCurrent_mA } from '../rcd/limits'
import type { Figures, Verdict } from '../verdict/verdict'
import type { WorkingLine } from '../verdict/working'
import { plain } from './checks'
import { deviceOf, tripsIn } from './rcdSlots'
import type { Step, StepContext } from './step'
import { exampleRcd } from './worked'

type Context = StepContext<'rcd'>

const EXAMPLE_UPPER = '00000000-0000-7000-8000-0000000000aa'

/** The trips of a device that count now: alternating, at its rated current and above. */
function timesOf({ counted, regime }: Context, rcd: PartOf<'rcd'>): TimedTrip[] {
  const body = counted('rcd-trips', rcd.id)
  if (!body) return []
  return tripsIn(body).flatMap(({ trip }) =>
    trip.kind === 'time' && trip.multiple !== 0.5 && trip.waveform === 'ac'
      ? [{ current_mA: tripCurrent_mA(rcd.data, trip.multiple, regime.schools['rcd.five']), time: trip.time }]
      : [],
  )
}

type Compared = { upper: PartOf<'rcd'>; byRule: boolean; read: ReadDiscrimination }

function compare(context: Context): Compared | null {
  const upper = context.plant.upstreamOf(context.part)
  if (!upper) return null
  const byRule = discriminateByRule(deviceOf(upper.data), deviceOf(context.part.data))
  return { upper, byRule, read: discriminationByReadings(timesOf(context, upper), timesOf(context, context.part)) }
}

/** What it comes to: a pair that should discriminate and was read otherwise is outside; one that need not is close. */
function verdictOf({ byRule, read }: Compared): { verdict: Verdict; code: string } {
  if (read.holds === false)
    return byRule ? { verdict: 'outside', code: 'read-otherwise' } : { verdict: 'close', code: 'both-open' }
  if (!byRule) return { verdict: 'close', code: read.holds ? 'by-readings-only' : 'both-may-open' }
  return { verdict: 'within', code: read.holds ? 'by-both' : 'by-rule' }
}

const figuresOf = ({ upper, read }: Compared): Figures => ({ upper: upper.data.tag, ...(read.at ?? {}) })

/** From the bands: the current at which the two come closest. */
function bandLine(context: Context, { upper }: Compared): WorkingLine {
  const bands = discriminationByBands(deviceOf(upper.data), deviceOf(context.part.data))
  const margin = (one: (typeof bands)[number]): number =>
    (one.upperLeast_ms ?? Number.POSITIVE_INFINITY) - one.lowerMost_ms
  const closest = bands.reduce((least, one) => (margin(one) < margin(least) ? one : least))
  return {
    code: closest.upperLeast_ms === null ? 'rcd-cascade.bands-below' : 'rcd-cascade.bands',
    figures: {
      upper: upper.data.tag,
      current_mA: closest.current_mA,
      upper_ms: closest.upperLeast_ms ?? 0,
      lower_ms: closest.lowerMost_ms,
    },
    result: null,
    source: 'iec-61008',
  }
}

export const rcdCascade: Step<'rcd'> = {
  id: 'rcd-cascade',
  order: 'E8',
  appliesTo: 'rcd',
  of: (part, plant) => plant.upstreamOf(part) !== null,
  station: 'rcd',
  tag: 'live',
  slots: [],
  needsConditions: false,
  counts: 'latest',
  gates: [],
  cautions: [{ id: 'fault-current-flows', hard: false }],
  hookup: {
    drawing: 'rcd-cascade',
    leads: [
      { balloon: 1, code: 'upper-device' },
      { balloon: 2, code: 'lower-device' },
    ],
  },
  minutes: 0,
  sources: ['iec-60364-535', 'iec-61008', 'rcd-practice'],
  inputs: () => '',
  compute(context) {
    const found = compare(context)
    const { tag } = context.part.data
    if (!found) return plain('not-yet', { code: 'rcd-cascade.no-upper', figures: { tag } })
    const { verdict, code } = verdictOf(found)
    return plain(verdict, { code: `rcd-cascade.${code}`, figures: { tag, ...figuresOf(found) } })
  },
  judge: (context) => rcdCascade.compute!(context),
  working(context) {
    const found = compare(context)
    if (!found) return []
    const { read, byRule, upper } = found
    const lines: WorkingLine[] = [
      {
        code: byRule ? 'rcd-cascade.rule-met' : 'rcd-cascade.rule-not-met',
        figures: {
          upper: upper.data.tag,
          upper_mA: upper.data.rated_mA,
          own_mA: context.part.data.rated_mA,
        },
        result: null,
        source: 'iec-60364-535',
        decides: true,
      },
      bandLine(context, found),
    ]
    if (read.at)
      lines.push({
        code: read.holds ? 'rcd-cascade.read' : 'rcd-cascade.read-fails',
        figures: { upper: upper.data.tag, ...read.at },
        result: null,
        source: 'rcd-practice',
        decides: true,
      })
    return lines
  },
  example: {
    source: 'common practice, no source: a selective 100 mA main above a general 30 mA device is the usual TT board',
    named: { id: EXAMPLE_UPPER, data: { ...exampleRcd, tag: 'RCD0', delay: 'selective', rated_mA: 100 } },
    part: { ...exampleRcd, upstreamId: EXAMPLE_UPPER },
    reading: null,
    verdict: 'within',
  },
}
