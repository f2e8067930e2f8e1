/**
 * The current that the pilot allows, by its duty: never more than the smallest of cable, point and load limit, at the
 * full rating and at one step lower. Source: IEC 61851-1:2017 annexes A and B (from memory).
 */
import { cableBy, cableCodes } from '../../pilot/proximity'
import { readValueOf } from '../../quantity/readValue'
import { causeOf } from '../../verdict/cause'
import { decide, type Ruling } from '../../verdict/judgement'
import type { WorkingLine } from '../../verdict/working'
import { hold, notYet, ruled } from '../holding'
import { choiceIn, figureOf } from '../reading'
import { choiceSlot, type NumberSlot, numberSlot, type Slot } from '../slot'
import type { ReadStep } from '../step'
import { bandUpTo, STEADY_pct, slopeAt, toldBy, withoutCurrent } from './codedCurrent'
import { examplePoint, exampleServed } from './example'
import { plugPanel } from './plugPanel'
import { atPoint, hasSocket, modelOf, type PointContext } from './point'

const settings = cableCodes.map((code) => ({ id: `cable-${code.current_A}`, code }))
const settingSlot = (id: string) =>
  choiceSlot({ id, options: settings.map((one) => one.id), balloon: 1, only: hasSocket })

/** One setting of the cable and the duty that follows it. */
type Pair = { cable: string; duty: NumberSlot }
const duty = (id: string, rest: Partial<NumberSlot> = {}): NumberSlot => numberSlot(id, 'pilot-duty', 'pct', 2, rest)
const full: Pair = { cable: 'cable-full', duty: duty('duty-full') }
const lower: Pair = { cable: 'cable-lower', duty: duty('duty-lower', { only: hasSocket }) }
const resistor = numberSlot('plug-resistor', 'proximity', 'ohm', 3, { optional: true })

const slots: readonly Slot[] = [settingSlot(full.cable), full.duty, settingSlot(lower.cable), lower.duty, resistor]

type Most = { what: 'cable' | 'point' | 'set' | 'limit'; current_A: number }

/** What the cable carries: by the adapter's setting, or the fixed one. A single-phase 63 A code stands for 70 A. */
function cableOf(context: PointContext, { cable }: Pair): number | null {
  const model = modelOf(context)
  if (!model) return null
  if (model.outlet === 'tethered') return model.cable_A
  const chosen = settings.find((one) => one.id === choiceIn(context.reading, cable))
  if (!chosen) return null
  return model.phases === 1 ? chosen.code.currentSinglePhase_A : chosen.code.current_A
}

/** All that bounds the current, the smallest first; empty where the cable or the model is not known. */
function bounds(context: PointContext, pair: Pair): Most[] {
  const model = modelOf(context)
  const cable_A = cableOf(context, pair)
  if (!model || cable_A === null) return []
  const { setTo_A, load } = context.part.data
  const all: Most[] = [
    { what: 'cable', current_A: cable_A },
    { what: 'point', current_A: model.rated_A },
    ...(setTo_A === null ? [] : [{ what: 'set', current_A: setTo_A } as const]),
    ...(load?.limit_A == null ? [] : [{ what: 'limit', current_A: load.limit_A } as const]),
  ]
  return all.sort((a, b) => a.current_A - b.current_A)
}

function rulingOf(context: PointContext, pair: Pair): Ruling[] {
  const figure = figureOf(context, pair.duty)
  if (!figure) return []
  const source = 'iec-61851-pilot'
  const duty_pct = figure.read.text
  const line = { code: 'point-current.codes', figures: { duty: duty_pct }, source } as const
  const told = toldBy(figure)
  if (told.what !== 'current') {
    const { verdict, code } = withoutCurrent(told.what)
    return [ruled(context, verdict, code, line, { duty: duty_pct })]
  }
  const { current } = told
  const [least] = bounds(context, pair)
  if (!least) return [ruled(context, 'not-yet', 'point-current.no-model', line, { duty: duty_pct })]
  const slack_pct = context.limit('point.duty').value
  // A point may be off by as much in its duty as the standard leaves it: above the current itself it is said.
  const slack_A = slack_pct * slopeAt(current.least)
  const figures = { duty: duty_pct, least_A: least.current_A, what: least.what }
  return [
    hold(context, {
      step: 'point-current',
      span: current,
      text: current.least.toFixed(1),
      unit: 'A',
      band: bandUpTo(least.current_A, slack_A),
      source,
      limit: { id: 'point.current', value: least.current_A + slack_A },
      line: { code: 'point-current.most', figures: { ...figures, slack_pct }, decimals: 1 },
      figures,
    }),
  ]
}

/** The resistor in the plug against the cable that it stands for. */
function resistorRuling(context: PointContext): Ruling[] {
  const figure = figureOf(context, resistor)
  if (!figure) return []
  const source = 'iec-61851-proximity'
  const line = { code: 'point-current.resistor', figures: { read: figure.read.text }, source } as const
  const code = figure.span.bound === 'exact' ? cableBy(figure.read.value) : null
  if (!code) return [ruled(context, 'not-yet', 'point-current.resistor-between', line, { read: figure.read.text })]
  const cable_A = cableOf(context, full)
  if (cable_A === null)
    return [ruled(context, 'not-yet', 'point-current.resistor-alone', line, { read: figure.read.text })]
  const coded_A = modelOf(context)?.phases === 1 ? code.currentSinglePhase_A : code.current_A
  const figures = { read: figure.read.text, coded_A, cable_A }
  return [
    coded_A > cable_A
      ? ruled(context, 'outside', 'point-current.resistor-too-much', line, figures)
      : ruled(context, 'within', 'point-current.resistor-fits', line, figures),
  ]
}

/** What bounds the current besides the cable: the full rating is proved by a cable that carries it, and one step lower by one that does not. */
function withoutCable(context: PointContext): number | null {
  const others = bounds(context, full).filter(({ what }) => what !== 'cable')
  return others[0]?.current_A ?? null
}

/** Both settings of the cable prove what they are made for, as far as there is such a cable. */
function settingRulings(context: PointContext): Ruling[] {
  const own_A = withoutCable(context)
  const [full_A, lower_A] = [cableOf(context, full), cableOf(context, lower)]
  if (!hasSocket(context.part.data) || own_A === null) return []
  const line = { code: 'point-current.settings', figures: { own_A }, source: 'point-practice' } as const
  const isFull = full_A === null || full_A >= own_A
  const isLower = lower_A === null || lower_A < own_A || own_A <= LEAST_CABLE_A
  const [code, cable_A] = !isFull ? ['not-full', full_A] : !isLower ? ['not-lower', lower_A] : [null, 0]
  return code === null
    ? []
    : [ruled(context, 'not-yet', `point-current.${code}`, line, { cable_A: cable_A ?? 0, own_A })]
}
/** No cable carries less than this: a point that is set lower is bounded by its setting alone. */
const LEAST_CABLE_A = Math.min(...cableCodes.map((code) => code.current_A))

/** The same setting twice proves one current and no second. */
function isSameTwice({ reading, part }: PointContext): boolean {
  const first = choiceIn(reading, full.cable)
  return part.data.model?.data.outlet === 'socket' && first !== null && first === choiceIn(reading, lower.cable)
}

function boundLines(context: PointContext): WorkingLine[] {
  return bounds(context, full).map(({ what, current_A }) => ({
    code: `point-current.bound-${what}`,
    figures: {},
    result: { value: current_A, unit: 'A', decimals: 0 },
    source: what === 'cable' ? 'iec-61851-proximity' : 'point-practice',
  }))
}

export const pointCurrent: ReadStep<'charge-point'> = {
  ...atPoint,
  id: 'point-current',
  order: 'F6',
  slots,
  stands: 'highest',
  panel: (context, verdictOf) => plugPanel('point-current', context, verdictOf),
  kit: () => ['pilot-duty'],
  // What is set anew changes what it takes beside the others.
  mendingTouches: ['point-share'],
  cautions: [{ id: 'outlet-becomes-live', hard: true }],
  hookup: {
    drawing: 'point-current',
    leads: [
      { balloon: 1, code: 'cable-knob' },
      { balloon: 2, code: 'pilot-duty' },
      { balloon: 3, code: 'plug-resistor' },
    ],
  },
  minutes: 3,
  sources: ['iec-61851-pilot', 'iec-61851-proximity', 'point-practice'],
  trap: (context) =>
    isSameTwice(context) ? { code: 'point-current.same-twice', figures: { tag: context.part.data.tag } } : null,
  judge(context) {
    const rulings = [...rulingOf(context, full), ...rulingOf(context, lower), ...resistorRuling(context)]
    if (rulings.length === 0) return notYet(context, 'point-current.no-reading')
    return decide([...rulings, ...settingRulings(context)], { before: () => boundLines(context) })
  },
  causes(context, judgement) {
    const figures = { tag: context.part.data.tag }
    const isStill = [full, lower].some(({ duty: slot }) => (figureOf(context, slot)?.read.value ?? 0) >= STEADY_pct)
    if (judgement.finding.code !== 'point-current.codes-nothing' || !isStill) return []
    return [
      causeOf('knob-in-a', 'may-fit', 'knob-to-b-or-c', figures),
      causeOf('point-not-released', 'may-fit', 'see-pin-and-limit', figures),
    ]
  },
  example: {
    source: 'IEC 61851-1:2017 annex A (from memory): 40 % codes 24 A; a cable of 20 A is less',
    part: examplePoint,
    named: exampleServed,
    reading: {
      slots: { 'cable-full': { choice: 'cable-20' }, 'duty-full': readValueOf(40, 'pct', 1) },
      conditions: null,
    },
    verdict: 'outside',
  },
}
