/**
 * Several points behind one load limit: what each allows while all the others charge, and what they allow together.
 * Sources: IEC 61851-1:2017 annex A (from memory); that the sum is held to the limit by pilots: common practice.
 */
import { readValueOf } from '../../quantity/readValue'
import { type Span, sumOf, widened } from '../../quantity/span'
import type { PartOf, PlantIndex } from '../../plant/plantIndex'
import { decide, type Ruling } from '../../verdict/judgement'
import type { WorkingLine } from '../../verdict/working'
import { hold, notYet, ruled, saying } from '../holding'
import { choiceIn, figureOf } from '../reading'
import { choiceSlot, numberSlot, type Slot } from '../slot'
import type { ComputedStep, Reading, ReadStep } from '../step'
import { bandUpTo, STEADY_pct, slopeAt, toldBy, withoutCurrent } from './codedCurrent'
import { examplePoint, exampleServed } from './example'
import { atPoint, type PointContext } from './point'

type Point = PartOf<'charge-point'>

const exampleSharer = { ...examplePoint, load: { group: 'Yard', limit_A: 40 } }

const others = choiceSlot({
  id: 'others-charging',
  options: ['others-all', 'others-some'],
  sound: ['others-all'],
  balloon: 1,
})
const duty = numberSlot('duty-shared', 'pilot-duty', 'pct', 2)
const slots: readonly Slot[] = [others, duty]

/** What a point may allow by itself, A; null where nobody knows its model. */
const alone_A = ({ data }: Point): number | null =>
  data.model && Math.min(data.model.data.rated_A, data.setTo_A ?? data.model.data.rated_A)

/** The limit that they share, A: the smallest that anybody entered; null where nobody did. */
function limitOf(sharers: readonly Point[]): number | null {
  const known = sharers.flatMap(({ data }) => data.load?.limit_A ?? [])
  return known.length > 0 ? Math.min(...known) : null
}

/** Whether points behind one limit could draw more than it together, or nobody can say that they could not. */
function mustShare(point: Point, plant: PlantIndex): boolean {
  const sharers = plant.sharersOf(point)
  if (sharers.length < 2) return false
  const limit_A = limitOf(sharers)
  const most_A = sharers.reduce((sum, one) => sum + (alone_A(one) ?? Number.POSITIVE_INFINITY), 0)
  return limit_A === null || most_A > limit_A
}

/** What a kept reading says of a point's share; null where it says nothing that can be added up. */
function shareIn(context: PointContext, reading: Reading): Span | null {
  const figure = figureOf({ ...context, reading, slots }, duty)
  if (!figure || choiceIn(reading, others.id) !== 'others-all') return null
  if (isSteady(figure.read)) return { least: 0, most: 0, bound: 'exact', whisker: 0 }
  const told = toldBy(figure)
  return told.what === 'current' ? told.current : null
}
const isSteady = ({ value, bound }: { value: number; bound: string }): boolean =>
  bound === 'exact' && value >= STEADY_pct && value <= 100

/** How far a pilot may code above what it stands for, A. */
const slackAt = (context: PointContext, { least }: Span): number =>
  least === 0 ? 0 : context.limit('point.duty').value * slopeAt(least)

function ownRuling(context: PointContext, limit_A: number, text: string): Ruling {
  const source = 'iec-61851-pilot'
  const line = { code: 'point-current.codes', figures: { duty: text }, source } as const
  const figure = figureOf(context, duty)!
  const figures = { duty: text, limit_A, group: context.part.data.load?.group ?? '' }
  if (isSteady(figure.read)) return ruled(context, 'within', 'point-share.waits', line, figures)
  const told = toldBy(figure)
  if (told.what !== 'current') {
    const { verdict, code } = withoutCurrent(told.what)
    return ruled(context, verdict, code, line, figures)
  }
  const { current } = told
  const slack_A = slackAt(context, current)
  return hold(context, {
    step: 'point-share',
    span: current,
    text: current.least.toFixed(1),
    unit: 'A',
    band: bandUpTo(limit_A, slack_A),
    source,
    limit: { id: 'point.shared', value: limit_A + slack_A },
    line: { code: 'point-share.own', figures: { duty: text, limit_A }, decimals: 1 },
    figures,
  })
}

export const pointShare: ReadStep<'charge-point'> = {
  ...atPoint,
  id: 'point-share',
  order: 'F7',
  of: mustShare,
  slots,
  stands: 'highest',
  kit: () => ['pilot-duty'],
  cautions: [{ id: 'outlet-becomes-live', hard: true }],
  hookup: {
    drawing: 'point-share',
    leads: [
      { balloon: 1, code: 'others-charging' },
      { balloon: 2, code: 'pilot-duty' },
    ],
  },
  minutes: 4,
  sources: ['iec-61851-pilot', 'point-practice'],
  mendingTouches: ['point-current'],
  trap: ({ reading, part }) =>
    choiceIn(reading, others.id) === 'others-some'
      ? { code: 'point-share.some-idle', figures: { tag: part.data.tag } }
      : null,
  judge(context) {
    const sharers = context.plant.sharersOf(context.part)
    const limit_A = limitOf(sharers)
    const group = context.part.data.load?.group ?? ''
    if (limit_A === null) return notYet(context, 'point-share.no-limit', { group })
    const figure = figureOf(context, duty)
    if (!figure) return notYet(context, 'point-share.no-reading', { group, limit_A })
    return decide([ownRuling(context, limit_A, figure.read.text)])
  },
  example: {
    source: 'IEC 61851-1:2017 annex A (from memory): 35 % codes 21 A; whoever shares a limit of 40 A has that at most',
    part: exampleSharer,
    others: () => [{ ...exampleSharer, tag: 'CP2' }],
    named: exampleServed,
    reading: {
      slots: { 'others-charging': { choice: 'others-all' }, 'duty-shared': readValueOf(35, 'pct', 1) },
      conditions: null,
    },
    verdict: 'within',
  },
}

/** Whether all that they take adds up on one line: each on the only one, or each on all three. */
const isOneLine = ({ part, plant }: PointContext, sharers: readonly Point[]): boolean =>
  plant.supplyOf(part)?.data.phases === 1 || sharers.every(({ data }) => data.model?.data.phases === 3)

/** Points on unlike lines do not add up: too much for one line is not too much for three. */
const onLines = (ruling: Ruling): Ruling => saying(ruling, 'point-load.lines', {}, 'not-yet')

/** A point's share as a line of the sum. */
const shareLine = ({ data }: Point, { least }: Span): WorkingLine => ({
  code: 'point-load.share',
  figures: { point: data.tag },
  result: { value: least, unit: 'A', decimals: 1 },
  source: 'iec-61851-pilot',
})

export const pointLoad: ComputedStep<'charge-point'> = {
  kind: 'computed',
  id: 'point-load',
  order: 'F8',
  appliesTo: 'charge-point',
  /** Once for all that share: it hangs on the first of them. */
  of: (part, plant) => mustShare(part, plant) && plant.sharersOf(part)[0]!.id === part.id,
  station: 'charge-point',
  tag: 'live',
  gates: [],
  cautions: [{ id: 'rules-are-not-all', hard: false }],
  hookup: { drawing: 'point-load', leads: [{ balloon: 1, code: 'shared-limit' }] },
  minutes: 0,
  sources: ['iec-61851-pilot', 'point-practice'],
  judge(context) {
    const sharers = context.plant.sharersOf(context.part)
    const group = context.part.data.load?.group ?? ''
    const limit_A = limitOf(sharers)
    if (limit_A === null) return notYet(context, 'point-share.no-limit', { group })
    const shares = sharers.map((point) => {
      const body = context.counted('point-share', point.id)
      return { point, share: body && shareIn(context, body) }
    })
    const unread = shares.filter(({ share }) => share === null).map(({ point }) => point.data.tag)
    if (unread.length > 0) return notYet(context, 'point-load.unread', { group, points: unread.join(', ') })
    const known = shares.map(({ share }) => share!)
    // One adapter reads them all, so what it is off by is in each of them.
    const whisker = known.reduce((sum, one) => sum + one.whisker, 0)
    const together = widened(sumOf(known), whisker)
    const slack_A = known.reduce((sum, one) => sum + slackAt(context, one), 0)
    const ruling = hold(context, {
      step: 'point-load',
      span: together,
      text: together.least.toFixed(1),
      unit: 'A',
      band: bandUpTo(limit_A, slack_A),
      source: 'point-practice',
      limit: { id: 'point.shared', value: limit_A + slack_A },
      line: { code: 'point-load.sum', figures: { group, limit_A }, decimals: 1 },
      figures: { group, limit_A, count: sharers.length },
    })
    const said = ruling.verdict === 'outside' && !isOneLine(context, sharers) ? onLines(ruling) : ruling
    return decide([said], { before: () => shares.map(({ point, share }) => shareLine(point, share!)) })
  },
  example: {
    source: 'common practice, no source: without a reading of any share nobody knows the sum',
    part: exampleSharer,
    others: () => [{ ...exampleSharer, tag: 'CP2' }],
    named: exampleServed,
    reading: null,
    verdict: 'not-yet',
  },
}
