import { describe, expect, it } from 'vitest'
import { evaluate, linesOf, panelOf } from '../../evaluate'
import type { ChargePointData } from '../../plant/chargePointModel'
import type { ChargePointPartData, CircuitData } from '../../plant/part'
import type { SlotValue } from '../../record/entry'
import type { Schools } from '../../regime/regime'
import { defaultRegime } from '../../regime/shipped'
import { testId } from '../../testing/factsBuilder'
import { bare, choose, Installation, over, read } from '../../testing/installation'
import { readStepById } from '../index'
import { slotsAsked } from '../slot'
import { slotsOf } from '../step'
import { exampleChargePoint, exampleModel, exampleRcd } from '../worked'

type Own = {
  model?: Partial<ChargePointData>
  point?: Partial<ChargePointPartData>
  schools?: Partial<Schools>
  arrangement?: 'TN-C-S' | 'TN-S' | 'TT'
}
type House = Installation & { point: string }

/** A house with a charge point on a circuit of its own. */
function house({ model, point, schools, arrangement = 'TN-C-S' }: Own = {}): House {
  const site = new Installation({
    supply: { arrangement },
    rcd: null,
    circuit: { rating_A: 40, line_mm2: 6, protective_mm2: 6, length_m: 18, sockets: false },
  })
  site.regime = { ...defaultRegime, schools: { ...defaultRegime.schools, ...schools } }
  const data: ChargePointPartData = {
    ...exampleChargePoint,
    circuitId: site.circuit,
    model: { ...exampleModel, data: { ...exampleModel.data, ...model } },
    ...point,
  }
  return Object.assign(site, { point: site.build.part(data) })
}

/** Everything before the plug done as it should be. */
function energised(own: Own = {}): House {
  const site = house(own)
  site
    .take('prove-dead', site.supply, {})
    .take('ze', site.supply, { ze: read(0.2) })
    .take('earth-back', site.supply, {})
  site.take('r1r2', site.circuit, { r1r2: read(0.12) }).take('ac-polarity', site.circuit, {})
  const pairs = { 'l-n': read(300, 'Mohm', 0), 'l-pe': read(300, 'Mohm', 0), 'n-pe': read(300, 'Mohm', 0) }
  site.take('ac-insulation', site.circuit, { pairing: choose('pair-by-pair'), ...pairs })
  return site
}
const dark = Object.fromEntries(['a', 'b', 'c', 'e'].map((state) => [`pad-${state}`, choose('no-lamp')]))
const states = {
  'adapter-a': choose('outlet-off'),
  'shown-a': choose('shows-ready'),
  'adapter-b': choose('outlet-off'),
  'shown-b': choose('shows-waiting'),
  'adapter-c': choose('outlet-live'),
  'shown-c': choose('shows-charging'),
  'adapter-a-again': choose('outlet-off'),
}
/** Opened, felt, and seen through its states. */
const ready = (own: Own = {}): House => {
  const site = energised(own)
  return site
    .take('point-locks-off', site.point, {})
    .take('point-pretest', site.point, dark)
    .take('point-states', site.point, states)
}
const shut = (site: House, step: string): string[] =>
  site
    .says(step, site.point)
    .one.gates.filter((gate) => !gate.met)
    .map((gate) => gate.id)
const said = (own: Own, step: string, slots: Record<string, SlotValue>) => {
  const site = ready(own)
  const { verdict, code } = site.take(step, site.point, slots).says(step, site.point)
  return [verdict, code]
}

describe('before anything is done at a plug', () => {
  it('its own circuit is proved and earth is on, and no potential lies on its earth', () => {
    const site = house()
    expect(shut(site, 'point-states')).toEqual(
      expect.arrayContaining(['earth-back', 'protective-proved', 'ac-polarity', 'point-earth-safe', 'point-open']),
    )
    expect(shut(energised(), 'point-states')).toEqual(['point-open', 'point-earth-safe', 'point-earth-felt'])
    expect(shut(ready(), 'point-zs')).toEqual([])
  })

  it('a point that no circuit feeds has its gates shut', () => {
    const site = house({ point: { circuitId: null } })
    const gate = site.says('point-pretest', site.point).one.gates.find((one) => one.id === 'protective-proved')
    expect(gate).toMatchObject({ met: false, hard: true, why: 'missing' })
  })

  it('a lamp at any position of the knob stops all work, whatever the volts turn out to be', () => {
    const site = energised()
    const slots = { ...dark, 'pad-c': choose('lamp-lit'), 'earth-volts-c': read(31, 'V', 0) }
    site.take('point-locks-off', site.point, {}).take('point-pretest', site.point, slots)
    expect(site.says('point-pretest', site.point)).toMatchObject({
      verdict: 'outside',
      code: 'point-pretest.lamp-volts',
    })
    const gate = site.says('point-states', site.point).one.gates.find((one) => one.id === 'point-earth-safe')
    expect(gate).toMatchObject({ met: false, hard: true })
  })

  it('a gloved thumb proves nothing, nor does a position that nobody felt', () => {
    const site = energised()
    site.take('point-locks-off', site.point, {})
    site.take('point-pretest', site.point, { ...dark, thumb: choose('thumb-gloved') })
    expect(site.says('point-pretest', site.point)).toMatchObject({ verdict: 'not-yet', code: 'point-pretest.gloved' })
    const { 'pad-e': _, ...fewer } = dark
    site.build.reading('point-pretest', site.point, { slots: { ...fewer, thumb: choose('thumb-bare') } })
    expect(site.says('point-pretest', site.point)).toMatchObject({ verdict: 'not-yet', code: 'incomplete' })
    expect(shut(site, 'point-states')).toContain('point-earth-safe')
  })
})

describe('states', () => {
  it('are within where outlet and point do what they must', () => {
    const site = ready()
    expect(site.says('point-states', site.point).verdict).toBe('within')
  })

  it.each([
    ['adapter-b', 'outlet-live', 'point-states.live-when-off'],
    ['adapter-c', 'outlet-off', 'point-states.dead-when-live'],
    ['adapter-a-again', 'outlet-live', 'point-states.welded'],
    ['plug-lock', 'plug-free', 'point-states.no-lock'],
    ['shown-c', 'shows-fault', 'point-states.shows-fault'],
  ])('are outside where %s is %s', (slot, choice, code) => {
    expect(said({}, 'point-states', { ...states, [slot]: choose(choice) })).toEqual(['outside', code])
  })

  it('are close where the two witnesses differ, and within where the model has no lamp for it', () => {
    const nothing = { ...states, 'shown-b': choose('shows-nothing') }
    expect(said({}, 'point-states', nothing)).toEqual(['close', 'point-states.shows-other'])
    const shows = { ...exampleModel.data.shows, waiting: '', ready: '' }
    expect(said({ model: { shows } }, 'point-states', nothing)[0]).toBe('within')
  })

  it('are not judged by one witness', () => {
    const site = ready()
    const { 'shown-c': _, ...one } = states
    site.build.reading('point-states', site.point, { slots: { ...one, 'plug-lock': choose('plug-held') } })
    expect(site.says('point-states', site.point)).toMatchObject({ verdict: 'not-yet', code: 'incomplete' })
  })

  it('must refuse a car that gases where the place is not ventilated, and take it where it is', () => {
    expect(said({}, 'point-states', { ...states, 'adapter-d-refused': choose('outlet-live') })[0]).toBe('outside')
    const d = { 'adapter-d': choose('outlet-off'), 'shown-d': choose('shows-charging') }
    expect(said({ point: { ventilated: true } }, 'point-states', { ...states, ...d })[0]).toBe('outside')
  })

  it('hold the pilot within a volt of its level (IEC 61851-1 table A.2, from memory)', () => {
    const level = (volts: number) => said({}, 'point-states', { ...states, 'level-c': read(volts, 'V', 1) })
    expect(level(6.3)[0]).toBe('within')
    expect(level(7.4)).toEqual(['outside', 'point-level.outside'])
  })
})

describe('simulated faults', () => {
  const fault = (over: Record<string, SlotValue> = {}) => ({
    'begun-from': choose('from-c-live'),
    'outlet-after': choose('outlet-off'),
    'fault-sign': choose('fault-shown'),
    ...over,
  })

  it('prove nothing from a dead outlet, however well it looks', () => {
    expect(said({}, 'point-pilot-short', fault({ 'begun-from': choose('from-other') }))).toEqual([
      'not-yet',
      'point-fault.from-dead',
    ])
  })

  it('wait, hard, for states that are not outside', () => {
    const site = ready()
    site.take('point-states', site.point, { ...states, 'adapter-c': choose('outlet-off') })
    expect(shut(site, 'point-earth-lost')).toEqual(['point-states-seen'])
  })

  it('are outside where the outlet stays live, whatever it shows', () => {
    for (const step of ['point-pilot-short', 'point-earth-lost'])
      expect(said({}, step, fault({ 'outlet-after': choose('outlet-live') }))[0]).toBe('outside')
  })

  it('are close where it drops and shows nothing, outside where the regime asks for the sign, and so for E only', () => {
    const dumb = fault({ 'fault-sign': choose('nothing-shown') })
    expect(said({}, 'point-pilot-short', dumb)[0]).toBe('close')
    expect(said({ schools: { 'point.fault-sign': 'asked' } }, 'point-pilot-short', dumb)[0]).toBe('outside')
    expect(said({}, 'point-earth-lost', dumb)[0]).toBe('within')
  })

  it('may be tried again by the point itself: that is no fault', () => {
    expect(said({}, 'point-pilot-short', fault({ afterwards: choose('tries-again') }))[0]).toBe('within')
  })
})

describe('the current that a pilot allows', () => {
  const duties = (full: number, lower = 33.3, over: Record<string, SlotValue> = {}) => ({
    'cable-full': choose('cable-32'),
    'duty-full': read(full, 'pct', 1),
    'cable-lower': choose('cable-20'),
    'duty-lower': read(lower, 'pct', 1),
    ...over,
  })
  const current = (own: Own, slots: Record<string, SlotValue>) => said(own, 'point-current', slots)

  it('is at most that of the cable at the full rating and one step lower', () => {
    expect(current({}, duties(53.3))[0]).toBe('within')
    expect(current({}, duties(53.3, 53.3))).toEqual(['outside', 'point-current.outside'])
  })

  it('is bounded by the smallest of cable, point, setting and load limit', () => {
    expect(current({ model: { rated_A: 16 } }, duties(53.3, 26.7))[0]).toBe('outside')
    expect(current({ point: { setTo_A: 25 } }, duties(53.3))[0]).toBe('outside')
    expect(current({ point: { load: { group: 'A', limit_A: 24 } } }, duties(40))[0]).toBe('within')
    expect(current({ point: { load: { group: 'A', limit_A: 20 } } }, duties(40))[0]).toBe('outside')
  })

  it('a little above is close, as far as a pilot may be off', () => {
    expect(current({}, duties(53.8))[0]).toBe('close')
    expect(current({}, duties(54.5))[0]).toBe('outside')
  })

  it('is none at 0 and 100 %, and agreed in data at 5 %', () => {
    for (const duty of [0, 8.5, 100])
      expect(current({}, duties(duty))).toEqual(['outside', 'point-current.codes-nothing'])
    expect(current({}, duties(5))).toEqual(['not-yet', 'point-current.digital'])
  })

  it('that stands still may have been read in A', () => {
    const site = ready()
    site.take('point-current', site.point, duties(100))
    const { one } = site.says('point-current', site.point)
    expect(one.step.causes!(contextOf(site, one), one.judgement!).map(({ code }) => code)).toContain('knob-in-a')
  })

  it('is nothing that a bound, the same cable twice or a model that nobody chose could prove', () => {
    expect(current({}, duties(53.3, 33.3, { 'duty-full': over(60, 'pct') }))[0]).not.toBe('within')
    const twice = duties(53.3, 53.3, { 'cable-lower': choose('cable-32') })
    expect(current({}, twice)).toEqual(['not-yet', 'point-current.same-twice'])
    expect(current({ point: { model: null } }, duties(53.3))[0]).toBe('not-yet')
  })

  it('takes a fixed cable from the model and its resistor beside it', () => {
    const tethered: Own = { model: { outlet: 'tethered', cable_A: 20 } }
    expect(current(tethered, { 'duty-full': read(33.3, 'pct', 1) })[0]).toBe('within')
    expect(current(tethered, { 'duty-full': read(53.3, 'pct', 1) })[0]).toBe('outside')
    const resistor = (ohms: number) => ({ 'duty-full': read(33.3, 'pct', 1), 'plug-resistor': read(ohms, 'ohm', 0) })
    expect(current(tethered, resistor(675))[0]).toBe('within')
    expect(current(tethered, resistor(221))).toEqual(['outside', 'point-current.resistor-too-much'])
    expect(current(tethered, resistor(420))).toEqual(['not-yet', 'point-current.resistor-between'])
  })
})

describe('voltages at the plug', () => {
  const volts = (ln: number, lpe: number, npe: number) => ({
    'v-l-n': read(ln, 'V', 0),
    'v-l-pe': read(lpe, 'V', 0),
    'v-n-pe': read(npe, 'V', 0),
  })

  it('lie within the supply’s range, neutral near earth', () => {
    expect(said({}, 'point-voltages', volts(236, 236, 1))[0]).toBe('within')
    expect(said({}, 'point-voltages', volts(212, 212, 1))[0]).toBe('outside')
    expect(said({}, 'point-voltages', volts(254, 254, 1))[0]).toBe('outside')
  })

  it('read at an outlet that is off say nothing of the supply', () => {
    const off = { 'v-l-n': read(0, 'V', 0), 'v-l-pe': read(1, 'V', 0), 'v-n-pe': read(0, 'V', 0) }
    expect(said({}, 'point-voltages', off)).toEqual(['not-yet', 'point-voltages.outlet-off'])
    // One line that is there is a reading: what is missing beside it is outside.
    expect(said({}, 'point-voltages', { ...off, 'v-l-pe': read(236, 'V', 0) })[0]).toBe('outside')
  })

  it('name line and neutral where they are swapped', () => {
    const site = ready()
    site.take('point-voltages', site.point, volts(236, 1, 236))
    const { one } = site.says('point-voltages', site.point)
    expect(one.verdict).toBe('outside')
    expect(one.step.causes!(contextOf(site, one), one.judgement!)[0]!.code).toBe('line-and-neutral-swapped')
  })

  it('ask all three lines and the rotation of a point with three, and one reading is not enough', () => {
    const site = ready({ model: { phases: 3 } })
    const three = Object.fromEntries(
      ['l1', 'l2', 'l3'].flatMap((line) => [
        [`v-${line}-n`, read(233, 'V', 0)],
        [`v-${line}-pe`, read(233, 'V', 0)],
      ]),
    )
    const slots = { ...three, 'v-n-pe': read(1, 'V', 0) }
    expect(site.take('point-voltages', site.point, slots).says('point-voltages', site.point).verdict).toBe('within')
    site.take('point-voltages', site.point, volts(233, 233, 1))
    expect(site.says('point-voltages', site.point).verdict).toBe('not-yet')
    site.take('point-voltages', site.point, { ...slots, 'plug-rotation': choose('rotation-left') })
    expect(site.says('point-voltages', site.point).verdict).toBe('outside')
  })
})

/** A context of an evaluated step, for its causes. */
function contextOf(site: House, one: ReturnType<House['says']>['one']): never {
  const { plant } = site.says(one.step.id, site.point).evaluation
  const body = one.counting!.entry.body
  return {
    part: one.part,
    plant,
    regime: site.regime,
    reading: { ...body },
    slots: one.step.kind === 'read' ? one.step.slots : [],
    limit: (id: keyof typeof site.regime.limits) => site.regime.limits[id]!,
  } as never
}

describe('the loop at the plug', () => {
  const loop = (zs: number, over: Record<string, SlotValue> = {}) => ({
    'plug-loop-mode': choose('dc-safe'),
    zs: read(zs),
    ...over,
  })

  it('is judged as the loop of its circuit is', () => {
    expect(said({}, 'point-zs', loop(0.33))).toEqual(['within', 'zs.within'])
    expect(said({}, 'point-zs', loop(1.4))[0]).toBe('outside')
    expect(said({}, 'point-zs', loop(0.95))[0]).not.toBe('within')
  })

  it('was read in the wrong mode where the point tripped, and is no reading of an unsafe one', () => {
    const tripped = loop(0.33, { 'stayed-on': choose('point-tripped') })
    expect(said({}, 'point-zs', tripped)).toEqual(['not-yet', 'point-zs.wrong-mode'])
    expect(said({}, 'point-zs', loop(0.33, { 'plug-loop-mode': choose('non-trip') }))).toEqual([
      'not-yet',
      'point-zs.not-dc-safe',
    ])
    const without: Own = { model: { dcDetector: false } }
    expect(said(without, 'point-zs', loop(0.33, { 'plug-loop-mode': choose('non-trip') }))[0]).toBe('within')
  })

  it('is no figure of one line on a point with three', () => {
    expect(said({ model: { phases: 3 } }, 'point-zs', loop(0.33))[0]).toBe('not-yet')
  })

  it('is judged anew when Ze or R1+R2 is read again', () => {
    const site = ready()
    site.take('point-zs', site.point, loop(0.33)).take('r1r2', site.circuit, { r1r2: read(0.01) })
    expect(site.says('point-zs', site.point).verdict).not.toBe('within')
  })
})

describe('trips at the plug', () => {
  const six = (over: Record<string, SlotValue> = {}) => ({
    'plug-waveform': choose('wave-ac'),
    'half-0': { text: '>1999', value: 1999, bound: 'more-than', unit: 'ms' } as const,
    'half-180': { text: '>1999', value: 1999, bound: 'more-than', unit: 'ms' } as const,
    'once-0': read(31, 'ms', 1),
    'once-180': read(27, 'ms', 1),
    'five-0': read(14, 'ms', 1),
    'five-180': read(11, 'ms', 1),
    ...over,
  })
  const trips = (own: Own, slots: Record<string, SlotValue>) => said(own, 'point-trips', slots)

  it('are within where all six are', () => {
    expect(trips({}, six())[0]).toBe('within')
    expect(trips({}, six({ 'five-180': read(41, 'ms', 1) }))).toEqual(['outside', 'rcd.too-slow'])
  })

  it('want every trip of the school, and none of another', () => {
    const { 'five-180': _, ...five } = six()
    expect(trips({}, five)).toEqual(['not-yet', 'incomplete'])
    expect(trips({ schools: { 'point.sequence': 'twelve' } }, six())).toEqual(['not-yet', 'incomplete'])
    const ramp = { 'plug-waveform': choose('wave-ac'), 'plug-ramp-0': read(21.5, 'mA', 1) }
    expect(trips({ schools: { 'point.sequence': 'ramps' } }, ramp)[0]).toBe('within')
    expect(trips({}, ramp)[0]).toBe('not-yet')
  })

  it('are of the waveform that the regime asks for, alternating on type A by default', () => {
    expect(trips({}, six({ 'plug-waveform': choose('wave-pulsating') }))).toEqual([
      'not-yet',
      'point-trips.other-waveform',
    ])
    const own: Own = { schools: { 'point.waveform': 'of-its-type' } }
    expect(trips(own, six({ 'plug-waveform': choose('wave-pulsating') }))[0]).toBe('within')
    expect(trips(own, six())[0]).toBe('not-yet')
  })

  it('a pulsating ramp under 0.35 IΔn was the detector, with the sum of its mean', () => {
    const site = ready({ schools: { 'point.sequence': 'ramps', 'point.waveform': 'of-its-type' } })
    const slots = { 'plug-waveform': choose('wave-pulsating'), 'plug-ramp-0': read(8.1, 'mA', 1) }
    const { one, evaluation, verdict, code } = site
      .take('point-trips', site.point, slots)
      .says('point-trips', site.point)
    expect([verdict, code]).toEqual(['not-yet', 'rcd.detector-tripped-first'])
    // 2/pi of 8.1 mA (computed).
    const mean = linesOf(evaluation, one).find((line) => line.code === 'point-trips.mean')
    expect(mean!.result!.value).toBeCloseTo(5.157, 3)
  })

  it('go by the nearest device before it where there is none inside, and are no verdict without any', () => {
    const bare: Own = { model: { rcdType: null, rcdRated_mA: null } }
    expect(trips(bare, six())).toEqual(['not-yet', 'point-trips.no-device'])
  })

  it('keep the slow first one: it counts', () => {
    const site = ready()
    site.take('point-trips', site.point, six({ 'once-0': read(410, 'ms', 1) })).take('point-trips', site.point, six())
    expect(site.says('point-trips', site.point).verdict).toBe('outside')
  })
})

describe('the detector', () => {
  const detector = (own: Own, plus: number, minus: number) =>
    said(own, 'point-detector', { 'dc-ramp-plus': read(plus, 'mA', 1), 'dc-ramp-minus': read(minus, 'mA', 1) })

  it('is close at exactly 6 mA, outside above it and at 3 mA and below', () => {
    expect(detector({}, 4.6, 4.9)[0]).toBe('within')
    expect(detector({}, 4.6, 6)[0]).toBe('close')
    expect(detector({}, 4.6, 6.1)[0]).toBe('outside')
    expect(detector({}, 3, 4.9)).toEqual(['outside', 'detector.ramp-too-sensitive'])
  })

  it('wants both polarities, however often one of them was read', () => {
    const site = ready()
    for (const current of [4.4, 4.5, 4.6])
      site.take('point-detector', site.point, { 'dc-ramp-plus': read(current, 'mA', 1) })
    expect(site.says('point-detector', site.point)).toMatchObject({ verdict: 'not-yet', code: 'incomplete' })
  })

  it('is asked for 6 mA by time in the school of twelve', () => {
    expect(detector({ schools: { 'point.sequence': 'twelve' } }, 4.4, 4.6)[0]).toBe('not-yet')
  })

  it('is asked of points that have one', () => {
    const site = house({ model: { dcDetector: false } })
    expect(site.says('point-zs', site.point).evaluation.steps.some((one) => one.step.id === 'point-detector')).toBe(
      false,
    )
  })
})

describe('a lost PEN', () => {
  const lost = (opened: string, time?: number) => ({
    'pen-opened': choose(opened),
    ...(time === undefined ? {} : { 'pen-time': read(time, 'ms', 0) }),
  })

  it('opens all conductors, the protective one too, within five seconds', () => {
    expect(said({}, 'point-lost-pen', lost('opens-all', 830))[0]).toBe('within')
    expect(said({}, 'point-lost-pen', lost('opens-all'))[0]).toBe('not-yet')
    expect(said({}, 'point-lost-pen', lost('opens-all', 5200))[0]).toBe('outside')
    expect(said({}, 'point-lost-pen', lost('opens-live-only', 830))[0]).toBe('outside')
    expect(said({}, 'point-lost-pen', lost('opens-nothing'))[0]).toBe('outside')
  })
})

describe('the rules of its plant', () => {
  const rules = (own: Own) => {
    const site = house(own)
    const { verdict, code } = site.says('point-design', site.point)
    return [verdict, code]
  }

  it('are within for a point with its detector, its circuit and its earth', () => {
    expect(rules({})[0]).toBe('within')
  })

  it.each<[string, Own, string, string]>([
    ['nothing sees direct current', { model: { dcDetector: false } }, 'outside', 'point-design.dc.unseen'],
    ['100 mA is too much', { model: { rcdRated_mA: 100 } }, 'outside', 'point-design.rcd.too-large'],
    ['its breaker is small', { model: { rated_A: 63 } }, 'outside', 'point-design.breaker.small'],
    ['its earth goes with the PEN', { point: { earthing: 'of-supply' } }, 'outside', 'point-design.earth.unprotected'],
    ['no device is inside', { model: { penDevice: false } }, 'outside', 'point-design.earth.no-device-inside'],
    ['no electrode is entered', { point: { earthing: 'own-electrode' } }, 'not-yet', 'point-design.earth.no-electrode'],
    ['nobody said how it is earthed', { point: { earthing: null } }, 'not-yet', 'point-design.earth.not-said'],
    ['no device is known', { model: { rcdType: null, rcdRated_mA: null } }, 'not-yet', 'point-design.rcd.missing'],
    ['its model is not known', { point: { model: null } }, 'not-yet', 'point-design.no-model'],
    ['its circuit is not known', { point: { circuitId: testId(0x77) } }, 'not-yet', 'point-design.no-circuit'],
  ])('say that %s', (_, own, verdict, code) => {
    expect(rules(own)).toEqual([verdict, code])
  })

  it('leave the supply’s own earth where neutral and earth are apart', () => {
    expect(rules({ arrangement: 'TN-S', point: { earthing: 'of-supply' } })[0]).toBe('within')
  })

  it('are close on an earth that goes with the PEN where the documents are the international ones', () => {
    const own: Own = { schools: { cites: 'international' }, point: { earthing: 'of-supply' } }
    expect(rules(own)).toEqual(['close', 'point-design.earth.unprotected'])
  })

  it('give each point a circuit of its own', () => {
    const site = house()
    site.build.part({ ...exampleChargePoint, tag: 'CP2', circuitId: site.circuit })
    expect(site.says('point-design', site.point)).toMatchObject({ verdict: 'outside', code: 'point-design.own.shared' })
  })
})

describe('lock, PIN and tamper function', () => {
  it('are on again before it is all done: what came off later is asked for once more', () => {
    const site = ready()
    site.take('point-locks-on', site.point, {})
    expect(site.says('point-locks-on', site.point).verdict).toBe('within')
    expect(shut(site, 'point-zs')).toEqual(['point-open'])
    site.take('point-locks-off', site.point, {})
    expect(site.says('point-locks-on', site.point)).toMatchObject({
      verdict: 'not-yet',
      code: 'lapsed.point-secured.entry',
    })
  })

  it('left out with a note they are not on', () => {
    const site = ready()
    site.take('point-locks-on', site.point, { 'tamper-on': { choice: 'check-left-out', note: 'none there' } })
    const { states: all } = site.says('point-locks-on', site.point).evaluation
    expect(all.of('point-secured', site.point, undefined).stands).toBe(false)
  })
})

describe('a roof and a charge point on one supply', () => {
  const site = energised()
  site.build.string('1')
  site.build.part({ kind: 'inverter', tag: 'INV', maxInput_V: 1000, circuitId: site.circuit })
  const { steps } = site.says('point-zs', site.point).evaluation
  const ids = steps.map((one) => one.step.id)
  const at = (id: string): number => ids.indexOf(id)

  it('have the tests of origin and earth once', () => {
    for (const id of ['ze', 'earth-back', 'prove-dead', 'lead-null'])
      expect(ids.filter((one) => one === id)).toHaveLength(1)
    expect(ids.filter((id) => id.startsWith('close-out'))).toEqual(['close-out'])
  })

  it('are worked through in one order: plugs of the roof locked, AC side proved, point, then switched on', () => {
    const order = [
      'plugs-locked',
      'r1r2',
      'ze',
      'zs',
      'point-locks-off',
      'point-zs',
      'point-locks-on',
      'reconnect',
      'close-out',
    ]
    const places = order.map(at)
    expect(places.every((place) => place >= 0)).toBe(true)
    expect([...places].sort((a, b) => a - b)).toEqual(places)
  })
})

describe('what nobody knows of a point', () => {
  const unknown: Own = { point: { model: null } }
  const held = { text: '>1999', value: 1999, bound: 'more-than', unit: 'ms' } as const

  it('is asked as if it were there: the lock of a socket, and the detector', () => {
    const site = ready(unknown)
    const { 'plug-lock': _, ...slots } = states as Record<string, SlotValue>
    site.build.reading('point-states', site.point, { slots })
    expect(site.says('point-states', site.point).verdict).toBe('not-yet')
    expect(site.says('point-detector', site.point).one.part.id).toBe(site.point)
  })

  it('leaves nothing within that its model decides', () => {
    const volts = { 'v-l-n': read(236, 'V', 0), 'v-l-pe': read(236, 'V', 0), 'v-n-pe': read(1, 'V', 0) }
    expect(said(unknown, 'point-voltages', volts)[0]).toBe('not-yet')
    expect(said(unknown, 'point-zs', { 'plug-loop-mode': choose('dc-safe'), zs: read(0.33) })[0]).toBe('not-yet')
    expect(said(unknown, 'point-states', states)[0]).toBe('not-yet')
    const site = ready(unknown)
    site.build.part({ ...exampleRcd, tag: 'RCD9' })
    const trips = { 'half-0': held, 'half-180': held, 'once-0': read(31, 'ms', 1) }
    expect(site.take('point-trips', site.point, trips).says('point-trips', site.point).verdict).toBe('not-yet')
  })
})

describe('a type B device at a plug', () => {
  const typeB: Own = { model: { rcdType: 'B', dcDetector: false } }
  const held = { text: '>1999', value: 1999, bound: 'more-than', unit: 'ms' } as const
  const trips = {
    'plug-waveform': choose('wave-ac'),
    'half-0': held,
    'half-180': held,
    'once-0': read(31, 'ms', 1),
    'once-180': read(33, 'ms', 1),
    'five-0': read(14, 'ms', 1),
    'five-180': read(16, 'ms', 1),
  }
  const smooth = (plus: number, minus: number) => ({
    'plug-smooth-plus': read(plus, 'mA', 1),
    'plug-smooth-minus': read(minus, 'mA', 1),
  })

  it('is not proved by alternating current where nothing else sees smooth direct current', () => {
    expect(said(typeB, 'point-trips', trips)[0]).toBe('not-yet')
    expect(said(typeB, 'point-trips', { ...trips, 'plug-smooth-plus': read(34, 'mA', 1) })[0]).toBe('not-yet')
    expect(said(typeB, 'point-trips', { ...trips, ...smooth(34, 36) })[0]).toBe('within')
  })

  it('opens on a smooth ramp between half and twice its rated current', () => {
    expect(said(typeB, 'point-trips', { ...trips, ...smooth(13, 36) })).toEqual(['outside', 'rcd.ramp-too-sensitive'])
    expect(said(typeB, 'point-trips', { ...trips, ...smooth(34, 61) })).toEqual(['outside', 'rcd.ramp-too-high'])
    expect(said(typeB, 'point-trips', { ...trips, ...smooth(34, 60) })[0]).toBe('close')
  })

  it('before the point is ramped at the plug as well, and a type A never is', () => {
    const before = ready({ model: { rcdType: null, rcdRated_mA: null, dcDetector: false } })
    const upstream = before.build.part({ ...exampleRcd, tag: 'RCD9', type: 'B', rated_mA: 30 })
    const served = evaluate(before.facts, 0).parts.get(before.circuit)!.data as CircuitData
    before.build.part({ ...served, rcdId: upstream }, before.circuit)
    before.take('point-trips', before.point, trips)
    expect(before.says('point-trips', before.point)).toMatchObject({
      verdict: 'not-yet',
      code: 'point-trips.smooth-unread',
    })
    const besides = Object.fromEntries(Object.entries(smooth(34, 36)).map(([id, value]) => [`${id}-besides`, value]))
    before.take('point-trips', before.point, { ...trips, ...besides })
    expect(before.says('point-trips', before.point).verdict).toBe('within')
    const smoothOf = (rcdType: 'A' | 'B' | null) => {
      const data = { ...exampleChargePoint, model: { ...exampleModel, data: { ...exampleModel.data, rcdType } } }
      const all = slotsAsked(readStepById('point-trips'), bare(data))
      return all.filter(({ id }) => id.startsWith('plug-smooth')).map(({ optional }) => optional === true)
    }
    expect([smoothOf('A'), smoothOf('B'), smoothOf(null)]).toEqual([[], [false, false], [true, true]])
  })

  it('asks the kit for what it takes, up to its rated current', () => {
    const step = readStepById('point-trips')
    const partOf = (model: Partial<ChargePointData>) => {
      const site = ready({ model })
      return site.says('point-trips', site.point).one.part
    }
    const needs = (model: Partial<ChargePointData>, schools: Partial<Schools> = {}) =>
      step.kit!(partOf(model) as never, { ...defaultRegime, schools: { ...defaultRegime.schools, ...schools } })
    expect(needs({ rcdType: 'A', rcdRated_mA: 30 })).toEqual([{ measures: 'rcd-time', upTo_mA: 30 }])
    expect(needs({ rcdType: 'B', rcdRated_mA: 30 })).toContain('smooth-trips')
    expect(needs({ rcdType: 'A' }, { 'point.waveform': 'of-its-type' })).toContain('pulsating-trips')
    expect(needs({ rcdType: 'A' }, { 'point.sequence': 'ramps' })).toContain('rcd-current')
  })
})

describe('a detector that opened before the device', () => {
  it('says nothing of the device: repeated with alternating current it counts', () => {
    const site = ready({ schools: { 'point.sequence': 'ramps' } })
    const ramp = (wave: string, mA: number) =>
      site.take('point-trips', site.point, { 'plug-waveform': choose(wave), 'plug-ramp-0': read(mA, 'mA', 1) })
    expect(ramp('wave-pulsating', 7.7).says('point-trips', site.point)).toMatchObject({
      verdict: 'not-yet',
      code: 'rcd.detector-tripped-first',
    })
    expect(ramp('wave-ac', 21).says('point-trips', site.point).verdict).toBe('within')
    expect(ramp('wave-ac', 9).says('point-trips', site.point).verdict).toBe('outside')
    expect(ramp('wave-ac', 21).says('point-trips', site.point).verdict).toBe('outside')
  })
})

describe('the earth of a plug', () => {
  it('is felt anew on each visit: nobody knows what happened in between', () => {
    const site = ready()
    expect(shut(site, 'point-zs')).toEqual([])
    const facts = site.build.facts({
      visits: [...site.facts.visits, { id: testId(0xc9), startsAt: '2026-05-20T08:00:00.000Z', title: '' }],
    })
    const one = evaluate({ ...facts, regime: site.regime }, 0).byKey.get(`point-zs:${site.point}`)!
    const gate = one.gates.find((found) => found.id === 'point-earth-felt')
    expect(gate).toMatchObject({ met: false, hard: true })
  })

  it('that lights a lamp later shuts what was open', () => {
    const site = ready()
    site.take('point-pretest', site.point, { ...dark, 'pad-b': choose('lamp-lit'), 'earth-volts-b': read(96, 'V', 0) })
    expect(shut(site, 'point-zs')).toContain('point-earth-safe')
  })

  it('never takes a bare thumb over from the point before', () => {
    const thumb = slotsOf(readStepById('point-pretest')).find((slot) => slot.id === 'thumb')
    expect(thumb).not.toHaveProperty('sticky')
  })
})

describe('what the pilot allows, at the full rating and one step lower', () => {
  const at = (full: string, fullDuty: number, lower: string, lowerDuty: number, own: Own = {}) =>
    said(own, 'point-current', {
      'cable-full': choose(full),
      'duty-full': read(fullDuty, 'pct', 1),
      'cable-lower': choose(lower),
      'duty-lower': read(lowerDuty, 'pct', 1),
    })

  it('is not proved at the full rating by a cable that carries less', () => {
    expect(at('cable-20', 33.3, 'cable-13', 21.6)).toEqual(['not-yet', 'point-current.not-full'])
    expect(at('cable-20', 26.6, 'cable-13', 21.6, { model: { rated_A: 16 } })[0]).toBe('within')
  })

  it('is not proved one step lower by a cable that bounds nothing', () => {
    expect(at('cable-63', 53.3, 'cable-32', 53.3)).toEqual(['not-yet', 'point-current.not-lower'])
    expect(at('cable-32', 16.6, 'cable-20', 16.6, { point: { setTo_A: 10 } })[0]).toBe('within')
  })
})

describe('locks that are to be on again', () => {
  it('are not left out as a whole: line by line, with words, where there is none', () => {
    const site = ready()
    site.build.add({ kind: 'left-out', v: 1, reason: 'no time' }, { step: 'point-locks-on', partId: site.point })
    expect(site.says('point-locks-on', site.point).one.done).toBe(false)
  })
})

describe('the plug drawn over its questions', () => {
  const shortAs = (site: House, slots: Record<string, SlotValue>) => {
    const { evaluation, one } = site.says('point-pilot-short', site.point)
    const panel = panelOf(evaluation, one, { slots })!
    return panel.columns.find((column) => column.state === 'E')!.verdict
  }
  const fault = { 'begun-from': choose('from-c-live'), 'outlet-after': choose('outlet-off') }

  it('calls a shorted pilot what its test calls it, and nothing better', () => {
    const site = ready()
    expect(shortAs(site, { ...fault, 'fault-sign': choose('fault-shown') })).toBe('within')
    expect(shortAs(site, { ...fault, 'fault-sign': choose('nothing-shown') })).toBe('close')
    const dead = { ...fault, 'fault-sign': choose('fault-shown'), 'begun-from': choose('from-other') }
    expect(shortAs(site, dead)).toBe('not-yet')
    expect(shortAs(site, fault)).toBe('not-yet')
  })

  it('shows it on other tests as it was kept', () => {
    const site = ready()
    site.take('point-pilot-short', site.point, { ...fault, 'fault-sign': choose('nothing-shown') })
    const { evaluation, one } = site.says('point-states', site.point)
    const column = panelOf(evaluation, one, { slots: states })!.columns.find(({ state }) => state === 'E')!
    expect([column.verdict, column.adapter]).toEqual(['close', 'outlet-off'])
  })
})
