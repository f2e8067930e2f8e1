/**
 * Whether a device opens before the one above it in series: by the rule and the bands of the standard, and from the
 * readings of both, at one and the same current. Nobody reads anything here. Sources: IEC 60364-5-53 535.3, IEC 61008-1
 * table 1 (from memory); three times the rated current: common practice.
 */
import type { PartOf } from '../../plant/plantIndex'
import {
  discriminateByRule,
  discriminationByBands,
  discriminationByReadings,
  type ReadDiscrimination,
  type TimedTrip,
} from '../../rcd/discrimination'
import { tripCurrent_mA } from '../../rcd/limits'
import type { Decided, Figures } from '../../verdict/verdict'
import type { WorkingLine } from '../../verdict/working'
import { decide, type Ruling } from '../../verdict/judgement'
import { but, notYet, ruled } from '../holding'
import { deviceOf, tripsIn } from './rcdSlots'
import type { ComputedStep, StepContext } from '../step'
import { exampleRcd } from '../worked'

type Context = StepContext<'rcd'>

const EXAMPLE_UPPER = '00000000-0000-7000-8000-0000000000aa'

/** The trips of a device that count now: alternating, at its rated current and above. */
function timesOf({ counted, regime }: Context, rcd: PartOf<'rcd'>): TimedTrip[] {
  const body = counted('rcd-trips', rcd.id)
  if (!body) return []
  return tripsIn(body).flatMap(({ trip }) =>
    trip.kind === 'time' && trip.multiple !== 0.5 && trip.waveform === 'ac'
      ? [
          {
            current_mA: tripCurrent_mA(rcd.data, trip.multiple, regime.schools['rcd.five'], trip.waveform),
            time: trip.time,
          },
        ]
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
function verdictOf({ byRule, read }: Compared): { verdict: Decided; code: string } {
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

/** The rule, met or not, as the line of the working. */
function ruleLine({ part }: Context, { upper, byRule }: Compared): Ruling['line'] {
  return {
    code: byRule ? 'rcd-cascade.rule-met' : 'rcd-cascade.rule-not-met',
    figures: { upper: upper.data.tag, upper_mA: upper.data.rated_mA, own_mA: part.data.rated_mA },
    result: null,
    source: 'iec-60364-535',
  }
}

/** What both were read to be, at one and the same current; null where that decides nothing. */
const readLine = ({ upper, read }: Compared): Ruling['line'] | null =>
  read.at && {
    code: read.holds ? 'rcd-cascade.read' : 'rcd-cascade.read-fails',
    figures: { upper: upper.data.tag, ...read.at },
    result: null,
    source: 'rcd-practice',
  }

export const rcdCascade: ComputedStep<'rcd'> = {
  kind: 'computed',
  id: 'rcd-cascade',
  order: 'E12',
  appliesTo: 'rcd',
  of: (part, plant) => plant.upstreamOf(part) !== null,
  station: 'rcd',
  tag: 'live',
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
  judge(context) {
    const found = compare(context)
    if (!found) return notYet(context, 'rcd-cascade.no-upper')
    const { verdict, code } = verdictOf(found)
    const byReadings = readLine(found)
    const rule = ruleLine(context, found)
    // Readings that speak against the rule decide; else the rule does.
    const line = found.read.holds === false && byReadings ? byReadings : rule
    const own = ruled(context, verdict, `rcd-cascade.${code}`, { code: line.code, source: null }, figuresOf(found))
    const ruling = but(own, { line })
    return decide([ruling], {
      before: () => (line === rule ? [] : [rule]),
      after: () => [bandLine(context, found), ...(byReadings && line === rule ? [byReadings] : [])],
    })
  },
  example: {
    source: 'common practice, no source: a selective 100 mA main above a general 30 mA device is the usual TT board',
    named: { id: EXAMPLE_UPPER, data: { ...exampleRcd, tag: 'RCD0', delay: 'selective', rated_mA: 100 } },
    part: { ...exampleRcd, upstreamId: EXAMPLE_UPPER },
    reading: null,
    verdict: 'within',
  },
}
