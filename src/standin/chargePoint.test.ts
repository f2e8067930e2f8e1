import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { exampleChargePoint, exampleModel } from '@/core/steps/worked'
import {
  type Built,
  faultsOf,
  type Knob,
  knobs,
  LOOKS_AFTER_ms,
  type PointFault,
  pointFaults,
  PointMachine,
  PointProtection,
  plugVolts,
} from './chargePoint'

const built = (faults: readonly PointFault[] = [], data: Partial<Built['data']> = {}): Built => ({
  id: 'a point',
  data: { ...exampleChargePoint, ...data },
  faults,
})

type Move = { what: 'turn'; knob: Knob } | { what: 'cut' | 'trip' | 'reset' } | { what: 'wait' | 'follow'; n: number }
const moves = fc.array(
  fc.oneof(
    fc.record({ what: fc.constant('turn' as const), knob: fc.constantFrom(...knobs) }),
    fc.record({ what: fc.constantFrom('cut' as const, 'trip' as const, 'reset' as const) }),
    fc.record({ what: fc.constantFrom('wait' as const, 'follow' as const), n: fc.nat(3) }),
  ),
  { maxLength: 30 },
)
function play(machine: PointMachine, list: readonly Move[]): void {
  for (const one of list) {
    if (one.what === 'turn') machine.turn(one.knob)
    if (one.what === 'cut') machine.cutEarth()
    if (one.what === 'trip') machine.trip()
    if (one.what === 'reset') machine.reset()
    if (one.what === 'wait') machine.wait(1000 * one.n)
    if (one.what === 'follow') machine.follow(one.n)
  }
}

describe('a sound simulated point', () => {
  it('is live in C and nowhere else, whatever was done to it before', () => {
    fc.assert(
      fc.property(moves, fc.constantFrom<Knob>('A', 'B', 'D', 'E'), (list, last) => {
        const machine = new PointMachine(built())
        play(machine, list)
        expect(machine.turn(last).outletLive).toBe(false)
        expect(machine.wait(LOOKS_AFTER_ms).outletLive).toBe(false)
      }),
    )
  })

  it('comes back to C after A and a reset, always', () => {
    fc.assert(
      fc.property(moves, (list) => {
        const machine = new PointMachine(built())
        play(machine, list)
        expect(machine.turn('A').reset().turn('C').wait(LOOKS_AFTER_ms).outletLive).toBe(true)
      }),
    )
  })

  it('needs the adapter in A to be reset, and drops with its earth cut', () => {
    const machine = new PointMachine(built()).turn('C').wait(LOOKS_AFTER_ms)
    expect(machine.trip().reset().wait(LOOKS_AFTER_ms).outletLive).toBe(false)
    expect(machine.turn('A').reset().turn('C').wait(LOOKS_AFTER_ms).outletLive).toBe(true)
    expect(machine.cutEarth().outletLive).toBe(false)
    expect(machine.shows).toBe('fault')
  })

  it('takes a car that gases where the place is ventilated', () => {
    expect(new PointMachine(built([], { ventilated: true })).turn('D').wait(LOOKS_AFTER_ms).outletLive).toBe(true)
  })

  it('closes its contactor after a while, and opens it at once', () => {
    const machine = new PointMachine(built()).turn('B').turn('C')
    expect([machine.outletLive, machine.shows]).toEqual([false, 'waiting'])
    expect(machine.wait(machine.closes_ms - 1).outletLive).toBe(false)
    expect([machine.wait(1).outletLive, machine.shows]).toEqual([true, 'charging'])
    expect(machine.turn('B').outletLive).toBe(false)
    expect(machine.turn('C').outletLive).toBe(false)
  })
})

describe('the reset menu of a simulated point', () => {
  const model = { ...exampleModel, data: { ...exampleModel.data, reset: ['Out', 'Lift', 'Press'], ready_s: 20 } }
  const tripped = (): PointMachine =>
    new PointMachine(built([], { model })).turn('C').wait(LOOKS_AFTER_ms).trip().turn('A')
  const comesBack = (machine: PointMachine): boolean => machine.turn('C').wait(LOOKS_AFTER_ms).outletLive

  it('is followed line by line, and a line out of turn begins it anew', () => {
    expect(comesBack(tripped().follow(0).follow(1).wait(20_000))).toBe(false)
    expect(comesBack(tripped().follow(0).follow(2).follow(1).wait(20_000))).toBe(false)
    expect(comesBack(tripped().follow(0).follow(1).follow(2).wait(20_000))).toBe(true)
  })

  it('helps in A only, and not before it is ready', () => {
    const inB = tripped().turn('B').follow(0).follow(1).follow(2).wait(20_000)
    expect(comesBack(inB)).toBe(false)
    const early = tripped().follow(0).follow(1).follow(2)
    expect(early.shows).toBe('nothing')
    expect(early.wait(10_000).turn('C').wait(LOOKS_AFTER_ms).outletLive).toBe(false)
    // Still in C when it is ready: then it closes.
    expect(early.wait(20_000).outletLive).toBe(true)
  })
})

describe('each fault', () => {
  const at = (fault: PointFault, ...turns: Knob[]): PointMachine => {
    const machine = new PointMachine(built([fault]))
    for (const knob of turns) machine.turn(knob).wait(LOOKS_AFTER_ms)
    return machine
  }

  it('of the contactor shows once it was closed', () => {
    expect(at('contactor-welded', 'A', 'B').outletLive).toBe(false)
    expect(at('contactor-welded', 'A', 'B', 'C', 'A').outletLive).toBe(true)
  })

  it('of pilot, lock and retries', () => {
    expect(at('blind-to-short', 'C', 'E').outletLive).toBe(true)
    expect(at('no-lock', 'B').plugHeld).toBe(false)
    expect(at('tries-at-once', 'C', 'E').triesAgain).toBe(true)
    expect(at('earth-open', 'C').earth_V).toBeGreaterThan(50)
  })

  it('of the duty lets more flow than the cable carries', () => {
    expect(new PointMachine(built()).duty_pct(20)).toBeCloseTo(33.33, 2)
    expect(at('duty-over-cable').duty_pct(20)).toBeCloseTo(53.33, 2)
    expect(at('duty-off').duty_pct(32)).toBeGreaterThan(58)
  })

  it('of its protection', () => {
    const of = (...faults: PointFault[]) => new PointProtection(built(faults))
    expect(of('detector-blind').direct_mA('minus')).toBeNull()
    expect(of('detector-blind').direct_mA('plus')).not.toBeNull()
    expect(of('detector-sensitive').direct_mA('plus')).toBeLessThan(3)
    expect(of().trip_ms(0.5, 0, 1)).toBeNull()
    expect(of().trip_ms(5, 180, 1)).toBeLessThan(40)
    // A pulsating ramp ends where the detector does, not where the device would.
    expect(of().ramp_mA(true, 1)).toBeLessThan(0.35 * exampleModel.data.rcdRated_mA!)
    expect(of('pen-held').lostPen.opens).toBe('live-only')
  })

  it('of line and neutral puts the line on the neutral', () => {
    expect(plugVolts(built(), 'N-PE')).toBeLessThan(5)
    expect(plugVolts(built(['line-and-neutral-swapped']), 'N-PE')).toBeGreaterThan(200)
    expect(plugVolts(built(['line-and-neutral-swapped']), 'L-PE')).toBeLessThan(5)
    expect(plugVolts(built(['line-and-neutral-swapped']), 'L-N')).toBeGreaterThan(200)
  })

  it('is found somewhere among many points, and most points have none', () => {
    const all = Array.from({ length: 800 }, (_, k) => faultsOf(`point ${k}`))
    for (const fault of pointFaults) expect(all.some((faults) => faults.includes(fault))).toBe(true)
    expect(all.filter((faults) => faults.length === 0).length).toBeGreaterThan(450)
  })
})
