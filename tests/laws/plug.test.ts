import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { SlotValue } from '@/core/record/entry'
import { exampleChargePoint } from '@/core/steps/worked'
import { choose, Installation } from '@/core/testing/installation'
import { LOOKS_AFTER_ms, type Knob, knobs, PointMachine, pointFaults } from '@/standin/chargePoint'

/** What anybody may have done to a point before it is tested, and in between. */
type Act = { do: 'turn'; knob: Knob } | { do: 'wait' | 'line'; n: number } | { do: 'trip' | 'reset' | 'cut' }
const act: fc.Arbitrary<Act> = fc.oneof(
  fc.record({ do: fc.constant('turn' as const), knob: fc.constantFrom(...knobs) }),
  fc.record({ do: fc.constantFrom('wait' as const, 'line' as const), n: fc.nat(6) }),
  fc.record({ do: fc.constantFrom('trip' as const, 'reset' as const, 'cut' as const) }),
)
const acts = fc.array(act, { maxLength: 12 })
const faults = fc.oneof(fc.subarray([...pointFaults], { maxLength: 3 }), fc.constant([]))
/** Somebody looks at once, or waits for the contactor. */
const haste = fc.constantFrom(0, LOOKS_AFTER_ms)

function play(machine: PointMachine, list: readonly Act[]): PointMachine {
  for (const one of list) {
    if (one.do === 'turn') machine.turn(one.knob)
    else if (one.do === 'wait') machine.wait(1000 * one.n)
    else if (one.do === 'line') machine.follow(one.n)
    else if (one.do === 'trip') machine.trip()
    else if (one.do === 'reset') machine.reset()
    else machine.cutEarth()
  }
  return machine
}

const site = new Installation({ rcd: null, circuit: { rating_A: 40 } })
const data = { ...exampleChargePoint, circuitId: site.circuit }
const point = site.build.part(data)
/** What a reading of a test comes to, honestly told and stored as a device stores it. */
function verdictOf(step: string, slots: Record<string, SlotValue>): string {
  const alone = new Installation({ rcd: null, circuit: { rating_A: 40 } })
  const id = alone.build.part({ ...exampleChargePoint, circuitId: alone.circuit })
  return alone.take(step, id, JSON.parse(JSON.stringify(slots))).says(step, id).verdict
}
const passes = (verdict: string): boolean => verdict === 'within' || verdict === 'close'
const outlet = (machine: PointMachine): SlotValue => choose(machine.outletLive ? 'outlet-live' : 'outlet-off')
const shown = (machine: PointMachine): SlotValue => choose(`shows-${machine.shows}`)
const built = (list: readonly (typeof pointFaults)[number][]) => new PointMachine({ id: point, data, faults: list })

describe('a simulated point that somebody tests, whatever was done to it before and in between', () => {
  it('is never called sound while its contactor stays closed, or while it is dead where a car asks', () => {
    let passed = 0
    fc.assert(
      fc.property(faults, acts, acts, haste, (broken, before, between, waits) => {
        const machine = play(built(broken), before)
        const slots: Record<string, SlotValue> = {}
        for (const [id, knob] of [
          ['a', 'A'],
          ['b', 'B'],
          ['c', 'C'],
          ['a-again', 'A'],
        ] as const) {
          if (id === 'c') play(machine, between)
          machine.turn(knob).wait(waits)
          slots[`adapter-${id}`] = outlet(machine)
          if (id !== 'a-again') slots[`shown-${id}`] = shown(machine)
          if (id === 'b') slots['plug-lock'] = choose(machine.plugHeld ? 'plug-held' : 'plug-free')
        }
        if (!passes(verdictOf('point-states', slots))) return
        passed++
        expect(machine.turn('A').wait(LOOKS_AFTER_ms).outletLive).toBe(false)
        expect(slots['adapter-c']).toEqual(choose('outlet-live'))
        expect(broken).not.toContain('no-lock')
      }),
      { numRuns: 400 },
    )
    // Not by never passing anything.
    expect(passed).toBeGreaterThan(20)
  })

  it.each([
    ['point-pilot-short', (machine: PointMachine) => machine.turn('E')],
    ['point-earth-lost', (machine: PointMachine) => machine.cutEarth()],
  ] as const)('lets %s prove nothing from a dead outlet, and pass only where it drops', (step, makes) => {
    let passed = 0
    fc.assert(
      fc.property(faults, acts, haste, (broken, before, waits) => {
        const machine = play(built(broken), before).turn('C').wait(waits)
        const wasLive = machine.outletLive && machine.shows === 'charging'
        makes(machine).wait(waits)
        const verdict = verdictOf(step, {
          'begun-from': choose(wasLive ? 'from-c-live' : 'from-other'),
          'outlet-after': outlet(machine),
          'fault-sign': choose(machine.shows === 'fault' ? 'fault-shown' : 'nothing-shown'),
        })
        if (passes(verdict)) passed++
        if (passes(verdict)) expect([wasLive, machine.outletLive]).toEqual([true, false])
        if (wasLive && machine.outletLive) expect(verdict).toBe('outside')
      }),
      { numRuns: 300 },
    )
    expect(passed).toBeGreaterThan(20)
  })
})
