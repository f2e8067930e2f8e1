/**
 * Rules of a charge point's plant, before anybody drives out: its protection against residual and direct current, its
 * circuit and breaker, its earth. Source: BS 7671:2018+A2 722.311, 722.411.4.1, 722.531.3 (from memory).
 */
import type { ChargePointData } from '../../plant/chargePointModel'
import type { PartOf } from '../../plant/plantIndex'
import { decide, type Ruling } from '../../verdict/judgement'
import type { Decided, Figures } from '../../verdict/verdict'
import { notYet, ruled } from '../holding'
import type { ComputedStep } from '../step'
import { examplePoint, exampleServed } from './example'
import { circuitOf, deviceAt, modelOf, type PointContext } from './point'

const MOST_mA = 30

const rule = (context: PointContext, verdict: Decided, what: string, figures: Figures = {}): Ruling =>
  ruled(
    context,
    verdict,
    `point-design.${what}`,
    { code: `point-design.${lineOf(what)}`, source: what.startsWith('earth') ? 'bs7671-point-earth' : 'bs7671-point' },
    figures,
  )
/** Sentences of one rule share its line. */
const lineOf = (what: string): string => what.split('.')[0]!

/** 30 mA at each point, and something that sees smooth direct current. */
function protection(context: PointContext, model: ChargePointData): Ruling[] {
  const device = deviceAt(context)
  if (!device) return [rule(context, 'not-yet', 'rcd.missing')]
  const { rated_mA, type } = device.rcd
  const figures = { device: device.tag, type, rated_mA }
  const isSmall = rated_mA <= MOST_mA
  const seesDc = type === 'B' || (type !== 'AC' && model.dcDetector)
  return [
    rule(context, isSmall ? 'within' : 'outside', isSmall ? 'rcd.small' : 'rcd.too-large', figures),
    rule(context, seesDc ? 'within' : 'outside', seesDc ? 'dc.seen' : 'dc.unseen', figures),
  ]
}

/** The current that the point may draw: its rating, or what it is set to. */
const drawn_A = ({ part }: PointContext, model: ChargePointData): number => part.data.setTo_A ?? model.rated_A

/** A circuit of its own, its breaker no smaller than what the point draws. */
function circuitRules(context: PointContext, model: ChargePointData, circuit: PartOf<'circuit'>): Ruling[] {
  const others = context.plant
    .ofKind('charge-point')
    .filter((one) => one.id !== context.part.id && context.plant.circuitOfPoint(one)?.id === circuit.id)
  const { rating_A, tag } = circuit.data
  const figures = { circuit: tag, rating_A: rating_A ?? 0, draws_A: drawn_A(context, model) }
  const own = others.length === 0 ? 'own.alone' : 'own.shared'
  const breaker =
    rating_A === null ? 'breaker.unknown' : rating_A < drawn_A(context, model) ? 'breaker.small' : 'breaker.fits'
  const verdicts: Record<string, Decided> = {
    'own.alone': 'within',
    'own.shared': 'outside',
    'breaker.unknown': 'not-yet',
    'breaker.small': 'outside',
    'breaker.fits': 'within',
  }
  return [own, breaker].map((what) =>
    rule(context, verdicts[what]!, what, { ...figures, other: others[0]?.data.tag ?? '' }),
  )
}

/** Where neutral and earth of the supply are one, something must hold when they are lost. */
function earthRules(context: PointContext): Ruling[] {
  const { earthing } = context.part.data
  const arrangement = context.plant.supplyOf(context.part)?.data.arrangement ?? null
  if (arrangement === null) return [rule(context, 'not-yet', 'earth.no-supply')]
  if (earthing === null) return [rule(context, 'not-yet', 'earth.not-said')]
  if (earthing === 'own-electrode' && context.plant.ofKind('electrode').length === 0)
    return [rule(context, 'not-yet', 'earth.no-electrode')]
  const isCombined = arrangement === 'TN-C-S'
  // The national rules ask for it; elsewhere it is worth a second look.
  const isAsked = context.regime.schools.cites === 'national'
  if (isCombined && earthing === 'of-supply')
    return [rule(context, isAsked ? 'outside' : 'close', 'earth.unprotected', { arrangement })]
  if (earthing === 'device-inside' && context.part.data.model?.data.penDevice === false)
    return [rule(context, 'outside', 'earth.no-device-inside')]
  return [rule(context, 'within', 'earth.kept', { arrangement })]
}

export const pointDesign: ComputedStep<'charge-point'> = {
  kind: 'computed',
  id: 'point-design',
  order: 'A8',
  appliesTo: 'charge-point',
  station: 'charge-point',
  tag: 'dead',
  gates: [],
  cautions: [{ id: 'rules-are-not-all', hard: false }],
  hookup: { drawing: 'point-design', leads: [{ balloon: 1, code: 'point-plate' }] },
  minutes: 0,
  sources: ['bs7671-point', 'bs7671-point-earth'],
  judge(context) {
    const model = modelOf(context)
    if (!model) return notYet(context, 'point-design.no-model')
    const circuit = circuitOf(context)
    if (!circuit) return notYet(context, 'point-design.no-circuit')
    return decide([...protection(context, model), ...circuitRules(context, model, circuit), ...earthRules(context)])
  },
  example: {
    source: 'BS 7671:2018+A2 722.411.4.1 (from memory): without a supply entered nobody knows how it is earthed',
    part: examplePoint,
    named: exampleServed,
    reading: null,
    verdict: 'not-yet',
  },
}
