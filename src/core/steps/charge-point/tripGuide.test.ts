import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { Schools } from '../../regime/regime'
import { defaultRegime } from '../../regime/shipped'
import { PlantIndex } from '../../plant/plantIndex'
import { testId } from '../../testing/factsBuilder'
import { exampleChargePoint, exampleModel } from '../worked'
import type { PointContext } from './point'
import {
  byNow,
  freshGuide,
  type Guide,
  guideFrom,
  isPassedBy,
  type Move,
  moved,
  type Ritual,
  secondsLeft,
} from './tripGuide'
import { tripPlanOf } from './tripPlan'

const context = (schools: Partial<Schools> = {}, model: Partial<typeof exampleModel.data> = {}): PointContext => {
  const data = { ...exampleChargePoint, model: { ...exampleModel, data: { ...exampleModel.data, ...model } } }
  const part = { id: testId(1), data, revision: '', retired: false }
  const plant = new PlantIndex(new Map([[part.id, part]]))
  const regime = { ...defaultRegime, schools: { ...defaultRegime.schools, ...schools } }
  return { part, plant, regime, reading: { slots: {} } } as unknown as PointContext
}
const slotsOf = (schools: Partial<Schools>, model: Partial<typeof exampleModel.data> = {}): string[] =>
  tripPlanOf(context(schools, model)).trips.map((one) => one.slot.id)

describe('which trips are led through', () => {
  it('six and two: half, once and five times on both halves, then a ramp of each polarity', () => {
    expect(slotsOf({})).toEqual([
      'half-0',
      'half-180',
      'once-0',
      'once-180',
      'five-0',
      'five-180',
      'dc-ramp-plus',
      'dc-ramp-minus',
    ])
  })

  it('twelve: 6 mA first, once, five times, half, AC ramps, DC ramps', () => {
    expect(slotsOf({ 'point.sequence': 'twelve' })).toEqual([
      'dc-six-plus',
      'dc-six-minus',
      'once-0',
      'once-180',
      'five-0',
      'five-180',
      'half-0',
      'half-180',
      'plug-ramp-0',
      'plug-ramp-180',
      'dc-ramp-plus',
      'dc-ramp-minus',
    ])
  })

  it('ramps: one of the device and one of the detector', () => {
    expect(slotsOf({ 'point.sequence': 'ramps' })).toEqual(['plug-ramp-0', 'dc-ramp-plus'])
  })

  it('leave out a detector that is not there, and a device that nobody knows', () => {
    expect(slotsOf({}, { dcDetector: false })).toHaveLength(6)
    expect(slotsOf({}, { rcdType: null, rcdRated_mA: null })).toEqual(['dc-ramp-plus', 'dc-ramp-minus'])
  })

  it('say what flows and what it must come to', () => {
    const [half, , once, , five] = tripPlanOf(context()).trips
    expect(half).toMatchObject({ current_mA: 15, holds: true, low: 2000, high: null })
    expect(once).toMatchObject({ current_mA: 30, holds: false, high: 300 })
    expect(five).toMatchObject({ current_mA: 150, high: 40 })
    const wave = tripPlanOf(context({ 'point.waveform': 'of-its-type' }))
    expect(wave.waveform).toBe('wave-pulsating')
    // 1.4 times the rated current (IEC 61008-1, from memory).
    expect(wave.trips[2]!.current_mA).toBeCloseTo(42, 9)
  })
})

const ritual: Ritual = { slots: ['a', 'b', 'c'], resetLines: 2, ready_s: 20 }
const play = (moves: readonly Move[], start: Guide = freshGuide(0), now = 0): Guide =>
  moves.reduce((guide, move) => moved(guide, move, ritual, now), start)
const DONE: Move = { do: 'done' }
const read = (text: string, isOutside = false): Move => ({ do: 'read', text, how: 'typed', test: 'trips', isOutside })

describe('the ritual between trips', () => {
  it('leads from C to the first trip, and after it to A, through each line of the reset, the wait, and C', () => {
    const first = play([DONE, DONE, DONE, read('31.2')])
    expect(first).toMatchObject({ trip: 1, moment: 'to-a', texts: { a: '31.2' } })
    const seen: string[] = []
    let guide = first
    for (let k = 0; k < 7; k++) {
      seen.push(`${guide.moment} ${guide.line}`)
      guide = moved(guide, DONE, ritual, 0)
    }
    expect(seen).toEqual(['to-a 0', 'reset 0', 'reset 1', 'ready 0', 'to-c 0', 'trip 0', 'read 0'])
  })

  it('stays in C after a trip that held: nothing is to be reset', () => {
    expect(play([DONE, DONE, { do: 'held' }, read('>2000')])).toMatchObject({ trip: 1, moment: 'trip', held: ['a'] })
  })

  it('counts whole seconds and goes on by itself, also an hour later', () => {
    const waiting = play([DONE, DONE, DONE, read('31'), DONE, DONE, DONE])
    expect(waiting.moment).toBe('ready')
    expect([0, 400, 19_100, 20_000].map((now) => secondsLeft(waiting, ritual, now))).toEqual([20, 20, 1, 0])
    expect(byNow(waiting, ritual, 3_600_000)).toMatchObject({ trip: 1, moment: 'to-c', texts: { a: '31' } })
    // A clock that was set back makes nobody wait longer.
    expect(secondsLeft(waiting, ritual, -90_000)).toBe(20)
  })

  it('stops at a figure that is outside, with two ways on', () => {
    const stopped = play([DONE, DONE, DONE, read('410', true)])
    expect(stopped).toMatchObject({ trip: 0, moment: 'stopped' })
    expect(play([{ do: 'again' }], stopped)).toMatchObject({ trip: 0, moment: 'to-a', texts: {} })
    expect(play([{ do: 'go-on' }], stopped)).toMatchObject({ trip: 1, moment: 'to-a', texts: { a: '410' } })
  })

  it('undoes one moment at a time', () => {
    const reset = play([DONE, DONE, DONE, read('31'), DONE, DONE])
    expect(reset).toMatchObject({ moment: 'reset', line: 1 })
    const first = play([{ do: 'back' }, { do: 'back' }, { do: 'back' }], reset)
    expect(first).toMatchObject({ trip: 0, moment: 'read', texts: { a: '31' } })
  })

  it('keeps its test once more where a figure was read again, and not where it was the same', () => {
    const first = { ...play([DONE, DONE, DONE, read('31')]), kept: ['trips', 'detector'] }
    const again = (text: string) => play([{ do: 'back' }, read(text)], first).kept
    expect(again('31')).toEqual(['trips', 'detector'])
    expect(again('33')).toEqual(['detector'])
  })

  it('is over after the last figure', () => {
    const one: Ritual = { ...ritual, slots: ['a'] }
    let guide = freshGuide(0)
    for (const move of [DONE, DONE, DONE, read('31')]) guide = moved(guide, move, one, 0)
    expect(guide).toMatchObject({ moment: 'done', texts: { a: '31' } })
  })

  const anyMove: fc.Arbitrary<Move> = fc.oneof(
    fc.constantFrom<Move>(DONE, DONE, DONE, { do: 'back' }, { do: 'held' }, { do: 'again' }, { do: 'go-on' }),
    fc
      .record({ text: fc.constantFrom('31.2', '>2000', '410'), isOutside: fc.boolean() })
      .map(({ text, isOutside }): Move => read(text, isOutside)),
  )

  it('never loses its place: stored and read back at any moment, hours later, it goes on alike', () => {
    fc.assert(
      fc.property(fc.array(anyMove, { maxLength: 60 }), fc.nat(7_200_000), (list, later) => {
        let guide = freshGuide(0)
        list.forEach((move, k) => {
          guide = moved(guide, move, ritual, k * 900)
          const stored = guideFrom(JSON.parse(JSON.stringify(guide)), ritual)
          expect(stored).toEqual(guide)
          // A reload may only have let a wait pass.
          const then = byNow(stored!, ritual, k * 900 + later)
          expect(then.trip).toBe(guide.trip)
          expect(then.texts).toEqual(guide.texts)
          if (guide.moment !== 'ready') expect(then).toEqual(guide)
        })
      }),
    )
  })

  it('never asks for a trip whose outlet nobody made live since the last one, and reads each before the next', () => {
    fc.assert(
      fc.property(fc.array(anyMove, { maxLength: 60 }), (list) => {
        let guide = freshGuide(0)
        for (const move of list) {
          const before = guide
          guide = moved(guide, move, ritual, 0)
          const isNewTrip = guide.moment === 'trip' && before.moment !== 'trip' && move.do !== 'back'
          if (isNewTrip) {
            const last = ritual.slots[guide.trip - 1]
            const isLive = last !== undefined && guide.held.includes(last)
            const wasHeld = move.do === 'again'
            expect(before.moment === 'to-c' || before.moment === 'read' || before.moment === 'stopped').toBe(true)
            if (before.moment !== 'to-c') expect(isLive || wasHeld).toBe(true)
          }
          for (const slot of ritual.slots.slice(0, guide.trip)) expect(guide.texts[slot]).toBeDefined()
        }
      }),
    )
  })

  it('takes no place of another ritual', () => {
    const guide = { ...freshGuide(0), texts: { z: '31' } }
    expect(guideFrom(guide, ritual)).toBeNull()
    expect(guideFrom({ ...freshGuide(0), trip: 9 }, ritual)).toBeNull()
    expect(guideFrom('nothing', ritual)).toBeNull()
  })
})

describe('a ramp', () => {
  const ramp: Ritual = {
    slots: ['dc-ramp-plus'],
    resetLines: 1,
    ready_s: 0,
    times: { 'dc-ramp-plus': 'dc-ramp-plus-time' },
  }
  const read = (time?: string): Guide =>
    moved(
      { ...freshGuide(0), moment: 'read' },
      { do: 'read', text: '4.8', how: 'feed', test: 'point-detector', isOutside: false, ...(time ? { time } : {}) },
      ramp,
      1,
    )

  it('keeps how long it ran beside what it reached, and is whole without', () => {
    expect(read('3840')).toMatchObject({
      moment: 'done',
      texts: { 'dc-ramp-plus': '4.8', 'dc-ramp-plus-time': '3840' },
      hows: { 'dc-ramp-plus-time': 'feed' },
    })
    expect(read().texts).toEqual({ 'dc-ramp-plus': '4.8' })
  })

  it('comes back with its time, loses it when it is taken again, and is kept once more with another', () => {
    const known = { ...read('3840'), moment: 'stopped' as const, kept: ['point-detector'] }
    expect(guideFrom(JSON.parse(JSON.stringify(known)), ramp)).toEqual(known)
    expect(moved(known, { do: 'again' }, ramp, 2).texts).toEqual({})
    const again = { ...known, moment: 'read' as const }
    const as = (time: string): Move => ({
      do: 'read',
      text: '4.8',
      how: 'feed',
      test: 'point-detector',
      isOutside: false,
      time,
    })
    expect(moved(again, as('3840'), ramp, 2).kept).toEqual(['point-detector'])
    expect(moved(again, as('3900'), ramp, 2).kept).toEqual([])
  })
})

describe('what a paired adapter tells', () => {
  const at = (moment: Guide['moment']): Guide => ({ ...freshGuide(0), moment })

  it('ends the turns of the knob, and a trip by the outlet going off', () => {
    expect(isPassedBy(at('to-a'), { state: 'A', isLive: false })).toBe(true)
    expect(isPassedBy(at('to-a'), { state: 'A', isLive: null })).toBe(true)
    expect(isPassedBy(at('to-c'), { state: 'C', isLive: true })).toBe(true)
    expect(isPassedBy(at('trip'), { state: 'C', isLive: false })).toBe(true)
  })

  it('never opens a trip on an outlet that is off, or of which it says nothing', () => {
    expect(isPassedBy(at('to-c'), { state: 'C', isLive: false })).toBe(false)
    expect(isPassedBy(at('to-c'), { state: 'C', isLive: null })).toBe(false)
    expect(isPassedBy(at('to-c'), { state: 'B', isLive: true })).toBe(false)
  })

  it('takes no outlet for off that is live in A, and ends nothing that only a person sees', () => {
    expect(isPassedBy(at('to-a'), { state: 'A', isLive: true })).toBe(false)
    for (const moment of ['begin', 'reset', 'ready', 'read', 'stopped', 'done'] as const)
      for (const state of ['A', 'C', null] as const)
        expect(isPassedBy(at(moment), { state, isLive: state === 'C' })).toBe(false)
    expect(isPassedBy(at('trip'), { state: 'C', isLive: true })).toBe(false)
    expect(isPassedBy(at('trip'), { state: null, isLive: null })).toBe(false)
  })
})
