import { describe, expect, it } from 'vitest'
import { linesOf, picturesOf, stepKey } from '../../evaluate'
import type { CircuitData, PartData, RcdData } from '../../plant/part'
import type { SlotValue } from '../../record/entry'
import type { Regime, Schools } from '../../regime/regime'
import { defaultRegime } from '../../regime/shipped'
import { testId } from '../../testing/factsBuilder'
import { bare, choose, Installation, over, read } from '../../testing/installation'
import { readStepById } from '../index'
import { isBesides, slotsAsked } from '../slot'
import { shownFor } from '../step'
import { exampleCircuit, exampleRcd } from '../worked'

const ms = (value: number): SlotValue => read(value, 'ms', 1)
const mA = (value: number): SlotValue => read(value, 'mA', 1)
const under = (schools: Partial<Schools>): Regime => ({
  ...defaultRegime,
  schools: { ...defaultRegime.schools, ...schools },
})
const allSlots = (data: PartData, regime: Regime) => slotsAsked(readStepById('rcd-trips'), bare(data, regime))
/** What is asked, without what may only be read besides. */
const slotsOf = (data: PartData, regime: Regime): string[] =>
  allSlots(data, regime).flatMap((slot) =>
    isBesides(slot) || slot.id.includes('-besides-') || slot.id === 'ramp-time' ? [] : [slot.id],
  )

describe('what a device is asked', () => {
  it('is half, once and five times, both half-waves; twice in a school of its own', () => {
    const three = slotsOf({ ...exampleRcd, type: 'AC' }, under({ 'rcd.sequence': 'three-multiples' }))
    expect(three).toEqual(['half-0', 'half-180', 'once-0', 'once-180', 'five-0', 'five-180', 'ramp'])
    const four = slotsOf({ ...exampleRcd, type: 'AC' }, under({ 'rcd.sequence': 'four-multiples' }))
    expect(four.slice(4, 6)).toEqual(['two-0', 'two-180'])
  })

  it('has half the current first or after the other times', () => {
    const last = slotsOf(
      { ...exampleRcd, type: 'AC' },
      under({ 'rcd.sequence': 'three-multiples', 'rcd.half-when': 'half-last' }),
    )
    expect(last).toEqual(['once-0', 'once-180', 'five-0', 'five-180', 'half-0', 'half-180', 'ramp'])
  })

  it.each([
    ['AC', []],
    ['A', ['waveform', 'ramp-pulsating-0', 'ramp-pulsating-180']],
    ['B', ['waveform', 'ramp-pulsating-0', 'ramp-pulsating-180', 'ramp-dc-plus', 'ramp-dc-minus']],
  ] as const)('of type %s has the waveforms it must see', (type, more) => {
    const asked = slotsOf({ ...exampleRcd, type }, defaultRegime)
    expect(asked.filter((id) => !['once-0', 'once-other-180', 'ramp'].includes(id))).toEqual(more)
  })
})

describe('additional protection, by what a circuit is for', () => {
  const three = under({ 'rcd.sequence': 'three-multiples' })
  const site = (...purposes: (CircuitData['rcdFor'] | undefined)[]) => {
    const made = new Installation({ rcd: {}, circuit: { rcdFor: purposes[0] } })
    made.regime = three
    for (const [k, rcdFor] of purposes.slice(1).entries())
      made.build.part({ ...exampleCircuit, tag: `${k + 20}`, rcdId: made.rcd, rcdFor })
    return made
  }
  const asksFive = (made: Installation): boolean[] => {
    const { one, evaluation } = made.says('rcd-trips', made.rcd!)
    const all = slotsAsked(readStepById('rcd-trips'), { part: one.part, plant: evaluation.plant, regime: three })
    return all.filter(({ id }) => /^five-(besides-)?0$/.test(id)).map(({ optional }) => optional !== true)
  }

  it('five times is asked of a small device, unless all its circuits want it against faults only; it may be read then too', () => {
    expect(asksFive(site(undefined))).toEqual([true])
    expect(asksFive(site('additional'))).toEqual([true])
    expect(asksFive(site('faults'))).toEqual([false])
    expect(asksFive(site('faults', undefined))).toEqual([true])
    expect(asksFive(site('faults', 'faults'))).toEqual([false])
  })

  it('a reading without five times is done for faults, and not yet for additional protection', () => {
    const times = { 'half-0': over(1999, 'ms'), 'half-180': over(1999, 'ms'), 'once-0': ms(24), 'once-180': ms(21) }
    const verdictOf = (made: Installation) =>
      made.take('rcd-trips', made.rcd!, times).says('rcd-trips', made.rcd!).verdict
    expect(verdictOf(site('faults'))).not.toBe('not-yet')
    expect(verdictOf(site('additional'))).toBe('not-yet')
  })

  it('a circuit that wants it needs a device of at most 30 mA ahead of it, anywhere up to the origin', () => {
    const says = (rcd: Partial<RcdData> | null, more?: Partial<RcdData>) => {
      const made = new Installation({ rcd, circuit: { rcdFor: 'additional' } })
      if (more) {
        const nearer = made.build.part({ ...exampleRcd, tag: 'RCD9', upstreamId: made.rcd, ...more })
        made.build.part({ ...exampleCircuit, rcdId: nearer, rcdFor: 'additional' }, made.circuit)
      }
      const { verdict, code } = made.says('additional-protection', made.circuit)
      return [verdict, code]
    }
    expect(says({ rated_mA: 30 })).toEqual(['within', 'additional.is'])
    expect(says({ rated_mA: 100 })).toEqual(['outside', 'additional.too-large'])
    expect(says(null)).toEqual(['outside', 'additional.none'])
    expect(says({ rated_mA: 100 }, { rated_mA: 30 })).toEqual(['within', 'additional.is'])
    expect(says({ rated_mA: 30 }, { rated_mA: 100 })).toEqual(['within', 'additional.is'])
  })

  it('is no question where nobody said that a circuit wants it', () => {
    const made = new Installation({ rcd: { rated_mA: 300 } })
    const { evaluation } = made.says('rcd-trips', made.rcd!)
    expect(evaluation.steps.some(({ step }) => step.id === 'additional-protection')).toBe(false)
  })
})

describe('the time of a ramp', () => {
  it('is kept with its current, and changes nothing of what that comes to', () => {
    const verdictOf = (more: Record<string, SlotValue>) => {
      const made = new Installation({ rcd: { type: 'AC' } })
      return made.take('rcd-trips', made.rcd!, { 'once-0': ms(22), ramp: mA(22), ...more }).says('rcd-trips', made.rcd!)
    }
    const [without, with_] = [verdictOf({}), verdictOf({ 'ramp-time': ms(240) })]
    expect([with_.verdict, with_.code]).toEqual([without.verdict, without.code])
    expect(with_.one.counting!.entry.body.slots['ramp-time']).toMatchObject({ value: 240, unit: 'ms' })
  })
})

describe('where a device is tried', () => {
  it('is at a socket, and at its own terminals where others hang on it: a socket would trip those', () => {
    const site = new Installation({ rcd: {} })
    const above = site.build.part({ ...exampleRcd, tag: 'RCD0', delay: 'selective', rated_mA: 100 })
    const below = site.build.part({ ...exampleRcd, tag: 'RCD2', upstreamId: above })
    const { evaluation } = site.says('rcd-trips', site.rcd!)
    const drawn = (id: string) => {
      const { step, part } = evaluation.byKey.get(stepKey('rcd-trips', id))!
      return shownFor(step, {}, { part, plant: evaluation.plant })
    }
    expect(drawn(below).hookup.drawing).toBe('rcd-at-socket')
    expect(drawn(above).hookup.drawing).toBe('rcd-at-terminals')
    // Terminals are live: fingers are minded there before anything is pressed.
    expect(drawn(above).cautions).toContainEqual({ id: 'finger-guarded', hard: true })
  })
})

describe('what may be read besides', () => {
  it.each(['single', 'three-multiples', 'four-multiples'] as const)('is every multiple, under %s too', (sequence) => {
    const regime = under({ 'rcd.sequence': sequence })
    const timed = allSlots({ ...exampleRcd, type: 'AC' }, regime).flatMap((slot) =>
      slot.kind === 'number' && slot.of?.multiple ? [`${slot.of.multiple} ${slot.of.angle_deg}`] : [],
    )
    expect([...timed].sort()).toEqual(['0.5 0', '0.5 180', '1 0', '1 180', '2 0', '2 180', '5 0', '5 180'])
    expect(new Set(timed).size).toBe(timed.length)
  })

  it('is judged where it is read, and wanted nowhere', () => {
    const site = new Installation({ rcd: { type: 'AC' } })
    const take = (more: Record<string, SlotValue>) =>
      site.take('rcd-trips', site.rcd!, { 'once-0': ms(30), ...more }).says('rcd-trips', site.rcd!).verdict
    expect(take({})).toBe('within')
    expect(take({ 'five-besides-0': ms(22) })).toBe('within')
    expect(take({ 'two-besides-180': ms(151) })).toBe('outside')
  })
})

describe('half the rated current', () => {
  const regime = under({ 'rcd.sequence': 'three-multiples' })
  const tester = {
    id: testId(9),
    tag: '09',
    name: 'Tester',
    calibrationDue: null,
    standIn: false,
    accuracy: null,
    most: null,
  }
  const sound = { 'once-0': ms(30), 'once-180': ms(31), 'five-0': ms(20), 'five-180': ms(21) }
  const waited = (at_ms: number, halfWait_ms?: 300 | 2000) => {
    const site = new Installation({ rcd: { type: 'AC' } })
    site.regime = regime
    const none = over(at_ms, 'ms')
    const instrument = { ...tester, ...(halfWait_ms ? { halfWait_ms } : {}) }
    const slots = { ...sound, 'half-0': none, 'half-180': none }
    site.build.reading('rcd-trips', site.rcd!, { slots, conditions: null, instrument })
    return site.says('rcd-trips', site.rcd!)
  }

  it('flows as long as the instrument is known to let it, whatever the company waits', () => {
    expect(waited(300, 300).verdict).toBe('within')
    expect(waited(1999, 2000).verdict).toBe('within')
    expect(waited(300, 2000)).toMatchObject({ verdict: 'not-yet', code: 'rcd.half-too-short' })
    // Nobody knows the instrument: the regime's two seconds stand.
    expect(waited(300).verdict).toBe('not-yet')
    expect(waited(1999).verdict).toBe('within')
  })
})

describe('waveforms', () => {
  it('that a type need not see are caught before a trip is read, and prove nothing', () => {
    const site = new Installation({ rcd: { type: 'A' } })
    const slots = { waveform: choose('wave-dc'), 'once-0': ms(30) }
    const found = site.take('rcd-trips', site.rcd!, slots).says('rcd-trips', site.rcd!)
    expect(found).toMatchObject({ verdict: 'not-yet', code: 'rcd.waveform-not-for-type' })
    const trap = (waveform: string) => site.trap('rcd-trips', site.rcd!, { waveform: choose(waveform) })
    expect(trap('wave-dc')!.code).toBe('rcd.waveform-not-for-type')
    expect(trap('wave-pulsating')).toBeNull()
  })

  // IEC 61008-1 table 1 (from memory): pulsating 0.35 to 1.4 times, smooth DC on type B 0.5 to 2 times.
  it.each([
    ['A', 'ramp-pulsating-0', 10.4, 'outside'],
    ['A', 'ramp-pulsating-0', 41, 'within'],
    ['A', 'ramp-pulsating-180', 42.1, 'outside'],
    ['B', 'ramp-dc-plus', 59, 'within'],
    ['B', 'ramp-dc-minus', 61, 'outside'],
  ] as const)('type %s, %s at %f mA is %s', (type, slot, current, verdict) => {
    const site = new Installation({ rcd: { type } })
    const found = site.take('rcd-trips', site.rcd!, { 'once-0': ms(30), [slot]: mA(current) })
    expect(found.says('rcd-trips', site.rcd!).verdict).toBe(verdict)
  })
})

describe('the picture', () => {
  it('says which current flows, 0.25 A for five times where that is the school', () => {
    const site = new Installation({ rcd: {} })
    site.regime = under({ 'rcd.sequence': 'three-multiples', 'rcd.five': 'quarter-amp' })
    const { one, evaluation } = site.says('rcd-trips', site.rcd!)
    const [picture] = picturesOf(evaluation, one, { slots: {} })
    expect(picture).toMatchObject({ limits: [{ current_mA: 15 }, { current_mA: 30 }, { current_mA: 250 }] })
  })
})

describe('two devices in series', () => {
  const pair = (upper: Partial<typeof exampleRcd> | object = { delay: 'selective', rated_mA: 100 }) => {
    const site = new Installation({ rcd: upper })
    return { site, lower: site.build.part({ ...exampleRcd, tag: 'RCD2', upstreamId: site.rcd }) }
  }
  const lowerTimes = { 'once-0': ms(30), 'once-180': ms(35), 'five-0': ms(12), 'five-180': ms(13) }

  it('are asked about only where there is one above', () => {
    const { site, lower } = pair()
    const { evaluation } = site.says('rcd-trips', lower)
    const asked = evaluation.steps.filter((one) => one.step.id === 'rcd-cascade').map((one) => one.part.id)
    expect(asked).toEqual([lower])
  })

  it('discriminate by the rule, and then as read', () => {
    const { site, lower } = pair()
    expect(site.says('rcd-cascade', lower)).toMatchObject({ verdict: 'within', code: 'rcd-cascade.by-rule' })
    site.take('rcd-trips', lower, lowerTimes)
    site.take('rcd-trips', site.rcd!, { 'once-0': ms(180), 'five-cascade-0': ms(62) })
    const { one, evaluation } = site.says('rcd-cascade', lower)
    expect(one).toMatchObject({ verdict: 'within', finding: { code: 'rcd-cascade.by-both' } })
    expect(one.finding.figures).toMatchObject({ current_mA: 150, upper_ms: 62, lower_ms: 13 })
    const lines = linesOf(evaluation, one)
    expect(lines.map((line) => line.code)).toEqual(['rcd-cascade.rule-met', 'rcd-cascade.bands', 'rcd-cascade.read'])
  })

  it('are outside where the one above was read to go first', () => {
    const { site, lower } = pair()
    site.take('rcd-trips', lower, { 'once-0': ms(30), 'five-0': ms(39) })
    site.take('rcd-trips', site.rcd!, { 'once-0': ms(38) })
    expect(site.says('rcd-cascade', lower)).toMatchObject({ verdict: 'outside', code: 'rcd-cascade.read-otherwise' })
  })

  it.each([
    [{}, 'both-may-open'],
    [{ 'once-0': ms(28) }, 'both-open'],
    [{ 'once-0': ms(90), 'five-0': ms(36) }, 'by-readings-only'],
  ])('of one kind are close: with %j above, %s', (above, code) => {
    const { site, lower } = pair({})
    site.take('rcd-trips', lower, { 'once-0': ms(30), 'five-0': ms(12) })
    if (Object.keys(above).length > 0) site.take('rcd-trips', site.rcd!, above)
    expect(site.says('rcd-cascade', lower)).toMatchObject({ verdict: 'close', code: `rcd-cascade.${code}` })
  })

  it('say nothing by pulsating trips, nor by one that ran out', () => {
    const { site, lower } = pair()
    site.take('rcd-trips', lower, { 'once-0': over(300, 'ms') })
    site.take('rcd-trips', site.rcd!, { waveform: choose('wave-pulsating'), 'once-0': ms(10) })
    expect(site.says('rcd-cascade', lower).code).toBe('rcd-cascade.by-rule')
  })
})
