import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { exampleChargePoint, exampleModel } from '@/core/steps/worked'
import {
  type Built,
  faultsOf,
  type Knob,
  knobs,
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

type Move = { what: 'turn'; knob: Knob } | { what: 'cut' | 'trip' | 'reset' }
const moves = fc.array(
  fc.oneof(
    fc.record({ what: fc.constant('turn' as const), knob: fc.constantFrom(...knobs) }),
    fc.record({ what: fc.constantFrom('cut' as const, 'trip' as const, 'reset' as const) }),
  ),
  { maxLength: 30 },
)
function play(machine: PointMachine, list: readonly Move[]): void {
  for (const one of list) {
    if (one.what === 'turn') machine.turn(one.knob)
    if (one.what === 'cut') machine.cutEarth()
    if (one.what === 'trip') machine.trip()
    if (one.what === 'reset') machine.reset()
  }
}

describe('a sound simulated point', () => {
  it('is live in C and nowhere else, whatever was done to it before', () => {
    fc.assert(
      fc.property(moves, fc.constantFrom<Knob>('A', 'B', 'D', 'E'), (list, last) => {
        const machine = new PointMachine(built())
        play(machine, list)
        expect(machine.turn(last).outletLive).toBe(false)
      }),
    )
  })

  it('comes back to C after A and a reset, always', () => {
    fc.assert(
      fc.property(moves, (list) => {
        const machine = new PointMachine(built())
        play(machine, list)
        expect(machine.turn('A').reset().turn('C').outletLive).toBe(true)
      }),
    )
  })

  it('needs the adapter in A to be reset, and drops with its earth cut', () => {
    const machine = new PointMachine(built()).turn('C')
    expect(machine.trip().reset().outletLive).toBe(false)
    expect(machine.turn('A').reset().turn('C').cutEarth().outletLive).toBe(false)
    expect(machine.shows).toBe('fault')
  })

  it('takes a car that gases where the place is ventilated', () => {
    expect(new PointMachine(built([], { ventilated: true })).turn('D').outletLive).toBe(true)
  })
})

describe('each fault', () => {
  const at = (fault: PointFault, ...turns: Knob[]): PointMachine => {
    const machine = new PointMachine(built([fault]))
    for (const knob of turns) machine.turn(knob)
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
