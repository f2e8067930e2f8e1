/**
 * Faults that an adapter simulates: the pilot shorted (state E), the earth of the car lost. The outlet must drop; a fault
 * simulated from an outlet that was dead already proves nothing. Source: IEC 61851-1:2017 annex A (from memory).
 */
import { causeOf } from '../../verdict/cause'
import { decide, type Ruling } from '../../verdict/judgement'
import { notYet, ruled } from '../holding'
import { choiceIn } from '../reading'
import { choiceSlot, numberSlot, type Slot } from '../slot'
import type { Order, ReadStep } from '../step'
import { examplePoint, exampleServed } from './example'
import { plugPanel } from './plugPanel'
import { atPoint, modelOf, type PointContext, pointGates } from './point'
import { LIVE, OFF, outletSlot } from './stateRows'

const FROM_LIVE = 'from-c-live'
const SIGN = 'fault-shown'

const slots: readonly Slot[] = [
  choiceSlot({ id: 'begun-from', options: [FROM_LIVE, 'from-other'], sound: [FROM_LIVE], balloon: 1 }),
  outletSlot('outlet-after', OFF),
  choiceSlot({ id: 'fault-sign', options: [SIGN, 'other-shown', 'nothing-shown'], sound: [SIGN], balloon: 3 }),
  // It may try again by itself while the fault stands: that is no fault of its own.
  choiceSlot({ id: 'afterwards', options: ['stays-off', 'tries-again'], optional: true, balloon: 3 }),
  numberSlot('drop-time', 'disconnection-time', 'ms', 2, { optional: true }),
]

const source = 'iec-61851-states'

function outletRuling(context: PointContext): Ruling[] {
  const seen = choiceIn(context.reading, 'outlet-after')
  if (seen === null) return []
  const line = { code: 'point-fault.must-drop', source } as const
  return [
    seen === OFF
      ? ruled(context, 'within', 'point-fault.dropped', line)
      : ruled(context, 'outside', 'point-fault.stays-live', line),
  ]
}

/** Whether it showed the fault: asked of a shorted pilot only; a point that drops and shows nothing is close by default. */
function signRuling(context: PointContext, isAsked: boolean): Ruling[] {
  const seen = choiceIn(context.reading, 'fault-sign')
  if (seen === null) return []
  const school = context.regime.schools['point.fault-sign']
  const line = {
    code: isAsked ? `point-fault.sign-${school}` : 'point-fault.sign-not-asked',
    source: 'point-practice',
  } as const
  if (seen === SIGN || !isAsked) return [ruled(context, 'within', `point-fault.${seen}`, line)]
  const verdict = school === 'asked' ? 'outside' : 'close'
  const code = modelOf(context)?.faultSign === false ? 'point-fault.has-no-sign' : `point-fault.${seen}`
  return [ruled(context, verdict, code, line)]
}

type Fault = { id: string; order: Order; drawing: string; signIsAsked: boolean; knob: string }

const simulated = ({ id, order, drawing, signIsAsked, knob }: Fault): ReadStep<'charge-point'> => ({
  ...atPoint,
  id,
  order,
  protects: true,
  slots,
  stands: 'none',
  panel: (context, verdictOf) => plugPanel(id, context, verdictOf),
  gates: [...pointGates, { id: 'point-states-seen', hard: true, waitsFor: 'point-states', until: 'not-outside' }],
  cautions: [
    { id: 'outlet-becomes-live', hard: true },
    { id: 'from-c-only', hard: false },
  ],
  hookup: {
    drawing,
    leads: [
      { balloon: 1, code: 'knob-at-c' },
      { balloon: 2, code: knob },
      { balloon: 3, code: 'point-display' },
    ],
  },
  minutes: 2,
  sources: ['iec-61851-states', 'point-practice'],
  trap({ part, reading }) {
    const begun = choiceIn(reading, 'begun-from')
    return begun !== null && begun !== FROM_LIVE
      ? { code: 'point-fault.from-dead', figures: { tag: part.data.tag } }
      : null
  },
  judge(context) {
    const outlet = outletRuling(context)
    return outlet.length > 0
      ? decide([...outlet, ...signRuling(context, signIsAsked)])
      : notYet(context, 'point-fault.no-reading')
  },
  causes(context, judgement) {
    if (judgement.finding.code !== 'point-fault.stays-live') return []
    const figures = { tag: context.part.data.tag }
    return [
      causeOf('contactor-welded', 'may-fit', 'open-breaker-and-snag', figures),
      causeOf('point-blind', 'may-fit', 'maker-and-firmware', figures),
    ]
  },
  example: {
    source: 'IEC 61851-1:2017 annex A (from memory): the outlet drops',
    part: examplePoint,
    named: exampleServed,
    reading: {
      slots: {
        'begun-from': { choice: FROM_LIVE },
        'outlet-after': { choice: LIVE },
        'fault-sign': { choice: SIGN },
      },
      conditions: null,
    },
    verdict: 'outside',
  },
})

export const pointPilotShort = simulated({
  id: 'point-pilot-short',
  order: 'F4',
  drawing: 'point-pilot-short',
  signIsAsked: true,
  knob: 'knob-to-e',
})

export const pointEarthLost = simulated({
  id: 'point-earth-lost',
  order: 'F5',
  drawing: 'point-earth-lost',
  signIsAsked: false,
  knob: 'earth-key',
})
