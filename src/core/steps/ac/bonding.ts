/**
 * Earthing and main bonding conductors: each read from end to end with one end taken off, so that no pipe helps, against
 * its own copper and its two joints; and how thick it has to be. Supplementary bonds are read between the parts that they
 * join, against 4 mm2. Sources: BS 7671:2018 411.3.1.2, 415.2, 544.1, 544.2 and 643.2 (from
 * memory); IEC 60228 (from memory).
 */
import { conductor_mohmPerM } from '../../circuit/conductors'
import { readValueOf } from '../../quantity/readValue'
import { causeOf } from '../../verdict/cause'
import { atMost } from '../../verdict/compare'
import { decide, type Ruling } from '../../verdict/judgement'
import { deadGate, nulledGate } from '../gates'
import { hold, notYet, ruled } from '../holding'
import { choiceIn, figureOf } from '../reading'
import { choiceSlot, decisive, leadSetSlot, numberSlot, type Slot } from '../slot'
import type { ReadStep, StepContext } from '../step'
import { exampleSupply } from '../worked'

type Context = StepContext<'supply'>

/** Clamp and terminal. */
const JOINTS = 2
/** Main bonding conductors, mm2 of copper: the least anywhere, and where neutral and earth are one conductor of the network. */
const LEAST_mm2 = 6
const LEAST_PEN_mm2 = 10
/** Never asked for thicker than this, mm2. */
const ENOUGH_mm2 = 25

/** What may come into a building from the ground, or stands in it. */
const SERVICES = ['water', 'gas', 'steel', 'other'] as const
/** Between parts that somebody can touch at once, in a room with a bath and its like. */
const SUPPLEMENTARY = 'supplementary'
/** The thinnest that lies without a pipe around it, mm2. Source: BS 7671 544.2.3 (from memory). */
const SUPPLEMENTARY_mm2 = 4
const BONDS = [...SERVICES, SUPPLEMENTARY] as const
type Bond = 'earthing' | (typeof BONDS)[number]

const ohms = (bond: Bond) => numberSlot(`${bond}-ohm`, 'continuity', 'ohm', 3)
const metres = (bond: Bond) => numberSlot(`${bond}-length`, null, 'm', 3)
const readWhere = (bond: Bond, slot: string, is: string): Slot[] => [
  { ...ohms(bond), when: { slot, is: [is] } },
  { ...metres(bond), when: { slot, is: [is] } },
]

const earthingSlots: readonly Slot[] = [
  choiceSlot({
    id: 'earthing-whole',
    options: ['seen-throughout', 'conductor-read', 'conductor-unsound'],
    sound: ['seen-throughout', 'conductor-read'],
    balloon: 2,
  }),
  ...readWhere('earthing', 'earthing-whole', 'conductor-read'),
]
const serviceSlots: readonly Slot[] = SERVICES.flatMap((service) => [
  choiceSlot({
    id: `bond-${service}`,
    options: ['bonded', 'no-need', 'not-bonded'],
    sound: ['bonded', 'no-need'],
    balloon: 1,
  }),
  ...readWhere(service, `bond-${service}`, 'bonded'),
])

/** Asked of every installation since version 6 of a reading: most answer that there is no such place. */
const supplementarySlots: readonly Slot[] = [
  choiceSlot({
    id: `bond-${SUPPLEMENTARY}`,
    options: ['bonded', 'not-wanted', 'not-bonded'],
    sound: ['bonded', 'not-wanted'],
    balloon: 1,
    since: 6,
  }),
  ...readWhere(SUPPLEMENTARY, `bond-${SUPPLEMENTARY}`, 'bonded'),
]

/** What is thick enough to bond with, mm2: half the earthing conductor where its size is known, within bounds. */
export function leastBonding_mm2({ part, regime }: Pick<Context, 'part' | 'regime'>): number {
  const { arrangement, earthing_mm2 } = part.data
  const floor = arrangement === 'TN-C-S' && regime.schools.cites !== 'international' ? LEAST_PEN_mm2 : LEAST_mm2
  return Math.max(floor, Math.min(ENOUGH_mm2, (earthing_mm2 ?? 0) / 2))
}

/** The conductor from end to end against its own copper and joints; without size or length there is nothing to hold it against. */
function conductorRuling(context: Context, bond: Bond): Ruling[] {
  const figure = figureOf(context, ohms(bond))
  if (!figure) return []
  const { earthing_mm2, bonding_mm2 } = context.part.data
  const sizes: Partial<Record<Bond, number | null | undefined>> = {
    earthing: earthing_mm2,
    supplementary: SUPPLEMENTARY_mm2,
  }
  const area_mm2 = (bond in sizes ? sizes[bond] : bonding_mm2) ?? null
  const perMetre = area_mm2 === null ? null : conductor_mohmPerM(area_mm2)
  const length = figureOf(context, metres(bond))
  const line = { code: 'bonding.nothing', figures: { bond }, source: 'bs7671-continuity' } as const
  if (perMetre === null) return [ruled(context, 'not-yet', 'bonding.no-size', line, { bond })]
  if (!length) return []
  const joint = context.limit('ac.joint')
  const most = (perMetre * length.read.value) / 1000 + JOINTS * joint.value
  return [
    hold(context, {
      step: 'bonding',
      span: figure.span,
      text: figure.read.text,
      unit: 'ohm',
      band: atMost(most),
      source: 'bs7671-continuity',
      limit: { id: 'ac.bonding', value: most },
      line: {
        code: 'bonding.most',
        figures: {
          bond,
          length_m: length.read.text,
          area_mm2: area_mm2!,
          perMetre,
          joints: JOINTS,
          joint: joint.value,
        },
        decimals: 3,
      },
      figures: { bond },
      slots: [ohms(bond).id],
    }),
  ]
}

/** What was answered by looking: a conductor that is not sound, metal from the ground that nobody bonded. */
function seenRulings(context: Context): Ruling[] {
  const { reading } = context
  const line = { code: 'bonding.seen', source: 'bs7671-bonding' } as const
  const rulings: Ruling[] = []
  const earthing = choiceIn(reading, 'earthing-whole')
  if (earthing === 'conductor-unsound') rulings.push(ruled(context, 'outside', 'bonding.earthing-unsound', line))
  else if (earthing !== null) rulings.push(ruled(context, 'within', 'bonding.seen', line))
  for (const bond of BONDS)
    if (choiceIn(reading, `bond-${bond}`) === 'not-bonded')
      rulings.push(
        ruled(context, 'outside', bond === SUPPLEMENTARY ? 'bonding.no-supplementary' : 'bonding.not-bonded', line, {
          bond,
        }),
      )
  if (choiceIn(reading, 'bonds-back') === 'not-as-it-should')
    rulings.push(ruled(context, 'outside', 'bonding.left-off', line))
  return rulings
}

/** The size as it was entered, where anything is bonded. */
function sizeRuling(context: Context): Ruling[] {
  const { bonding_mm2 } = context.part.data
  const isBonded = SERVICES.some((bond) => choiceIn(context.reading, `bond-${bond}`) === 'bonded')
  if (!isBonded || bonding_mm2 == null) return []
  const least = leastBonding_mm2(context)
  const line = { code: 'bonding.size', figures: { least }, source: 'bs7671-bonding' } as const
  const verdict = bonding_mm2 >= least ? 'within' : 'outside'
  return [ruled(context, verdict, `bonding.size-${verdict}`, line, { read: bonding_mm2, least })]
}

export const bonding: ReadStep<'supply'> = {
  kind: 'read',
  id: 'bonding',
  order: 'C2',
  appliesTo: 'supply',
  station: 'supply',
  protects: true,
  tag: 'dead',
  slots: [...earthingSlots, ...serviceSlots, ...supplementarySlots, leadSetSlot, decisive('bonds-back', 2)],
  nulled: true,
  stands: 'highest',
  counts: 'latest',
  gates: [deadGate, nulledGate],
  cautions: [
    { id: 'dead-before-touch', hard: true },
    { id: 'bond-off-one-at-a-time', hard: true },
  ],
  hookup: {
    drawing: 'bonding',
    leads: [
      { balloon: 1, code: 'bond-at-service' },
      { balloon: 2, code: 'main-earth-terminal' },
      { balloon: 3, code: 'bond-one-end-off' },
    ],
  },
  minutes: 6,
  sources: ['bs7671-continuity', 'bs7671-bonding', 'iec-60228', 'house-joint'],
  mendingTouches: ['ze'],
  judge(context) {
    const bonds: readonly Bond[] = ['earthing', ...BONDS]
    const rulings = [
      ...bonds.flatMap((bond) => conductorRuling(context, bond)),
      ...seenRulings(context),
      ...sizeRuling(context),
    ]
    return rulings.length > 0 ? decide(rulings) : notYet(context, 'bonding.no-reading')
  },
  causes(context, judgement) {
    if (judgement.verdict !== 'outside' || judgement.finding.code !== 'bonding.outside') return []
    const figures = { tag: context.part.data.tag }
    return [
      causeOf('bond-clamp', 'fits', 'bare-bond-clamp', figures),
      causeOf('bond-longer', 'may-fit', 'measure-the-bond', figures),
    ]
  },
  example: {
    source: 'IEC 60228 (from memory): 14 m of 10 mm2 at 1.83 mohm/m are 0.026 ohm, with two joints of 0.05 ohm 0.126',
    part: { ...exampleSupply, bonding_mm2: 10 },
    reading: {
      slots: {
        'earthing-whole': { choice: 'seen-throughout' },
        'bond-water': { choice: 'bonded' },
        'water-ohm': readValueOf(0.05, 'ohm', 2),
        'water-length': readValueOf(14, 'm', 0),
        'bond-gas': { choice: 'no-need' },
        'bond-steel': { choice: 'no-need' },
        'bond-other': { choice: 'no-need' },
        'bond-supplementary': { choice: 'not-wanted' },
        'lead-set': { choice: 'A' },
        'bonds-back': { choice: 'as-it-should' },
      },
      conditions: null,
    },
    verdict: 'within',
  },
}
