import { describe, expect, it } from 'vitest'
import { evaluate, evaluateNext, picturesOf, stepKey } from '../../evaluate'
import type { Evaluation } from '../../evaluation/types'
import { readValueOf } from '../../quantity/readValue'
import type { SlotValue } from '../../record/entry'
import { FactsBuilder, START_ms } from '../../testing/factsBuilder'
import type { StringPlacePicture } from '../picture'

const said = (choices: Record<string, string>): Record<string, SlotValue> =>
  Object.fromEntries(Object.entries(choices).map(([id, choice]) => [id, { choice }]))
const insulation = (read_Mohm: number): Record<string, SlotValue> => ({
  ...said({
    method: 'joined-to-earth',
    'set-voltage': 'v1000',
    behaviour: 'steady',
    surface: 'dry',
    surge: 'none-there',
  }),
  joined: readValueOf(read_Mohm, 'Mohm', 2),
})
const volts = (whole: number, plus: number, minus: number, more: Record<string, string> = {}) => ({
  ...said({ method: 'two-voltages', surface: 'dry', ...more }),
  'plus-to-minus': readValueOf(whole, 'V', 0),
  'plus-volts': readValueOf(plus, 'V', 1),
  'minus-volts': readValueOf(minus, 'V', 1),
})
const halves = (after: number, plus: number, minus: number, set = 'v1000'): Record<string, SlotValue> => ({
  ...said({ method: 'halves', surface: 'dry', 'set-voltage': set }),
  'opened-after': readValueOf(after, 'one', 1),
  'plus-half': readValueOf(plus, 'Mohm', 2),
  'minus-half': readValueOf(minus, 'Mohm', 2),
})

/** A string of eleven modules of 36.4 V. */
function roof() {
  const build = new FactsBuilder()
  const string = build.string('4')
  const low = () => build.reading('pv-insulation', string, { slots: insulation(0.12) })
  const hunt = (slots: Record<string, SlotValue>) => build.reading('earth-fault', string, { slots })
  const now = () => evaluate(build.facts(), START_ms)
  const own = (evaluation: Evaluation = now()) => evaluation.byKey.get(stepKey('earth-fault', string))!
  const onSheet = (evaluation: Evaluation = now()) => evaluation.steps.some(({ step }) => step.id === 'earth-fault')
  const picture = () => {
    const one = own()
    const pictures = picturesOf(now(), one, one.counting!.entry.body)
    return pictures.find((each): each is StringPlacePicture => each.kind === 'string-place')!
  }
  return { build, string, low, hunt, now, own, onSheet, picture }
}

describe('the hunt for an earth fault', () => {
  it('is no row of the sheet while insulation is sound or nobody read it', () => {
    const { build, string, onSheet } = roof()
    expect(onSheet()).toBe(false)
    build.reading('pv-insulation', string, { slots: insulation(300) })
    expect(onSheet()).toBe(false)
  })

  it('comes with a low reading, holds nothing up, and goes with a good one', () => {
    const { build, string, low, own, onSheet, now } = roof()
    const before = now()
    low()
    const after = evaluateNext(before, build.facts(), START_ms)
    expect([onSheet(), onSheet(after)]).toEqual([true, true])
    expect(own()).toMatchObject({ verdict: 'left-out', done: true, finding: { code: 'on-need' } })
    build.reading('pv-insulation', string, { slots: insulation(300) })
    // The worst of a visit counts: a remedy has to end the say of the low one.
    expect(onSheet()).toBe(true)
  })

  it('stays in the record once read, and stops counting when insulation stands again', () => {
    const { build, string, low, hunt, own, onSheet } = roof()
    const bad = low()
    hunt(volts(400, 100, 280, { 'input-resistance': 'input-10' }))
    expect(own().verdict).toBe('outside')
    build.add(
      { kind: 'remedy', v: 1, snag: bad, text: 'plug remade', repeat: ['pv-insulation', 'earth-fault'] },
      { step: 'pv-insulation', partId: string },
    )
    build.reading('pv-insulation', string, { slots: insulation(300) })
    expect(onSheet()).toBe(true)
    expect(own()).toMatchObject({ verdict: 'left-out', done: true, finding: { code: 'not-needed' } })
  })

  it('speaks again where it finds a fault after insulation was good', () => {
    const { build, string, hunt, own } = roof()
    build.reading('pv-insulation', string, { slots: insulation(300) })
    hunt(volts(400, 30, 90))
    expect(own()).toMatchObject({ verdict: 'outside', done: false })
  })

  it('goes on speaking while insulation was read again and decides nothing', () => {
    const { build, string, hunt, own } = roof()
    hunt(volts(400, 100, 280, { 'input-resistance': 'input-10' }))
    const undecided = { ...insulation(1), 'set-voltage': { choice: 'v500' }, joined: readValueOf(300, 'Mohm', 1) }
    build.reading('pv-insulation', string, { slots: undecided })
    expect(own()).toMatchObject({ verdict: 'outside', done: false })
  })

  it('mended from its own snag is closed by the insulation that stands again, and not before', () => {
    const { build, string, low, hunt, now } = roof()
    low()
    const found = hunt(volts(400, 100, 280, { 'input-resistance': 'input-10' }))
    build.add(
      { kind: 'remedy', v: 1, snag: found, text: 'plug remade', repeat: ['earth-fault', 'pv-insulation'] },
      { step: 'earth-fault', partId: string },
    )
    const state = () => now().snags.find(({ entryId }) => entryId === found)!.state
    expect(state()).toBe('mended')
    build.reading('pv-insulation', string, { slots: insulation(300) })
    expect(state()).toBe('closed')
  })

  it('places a fault from two voltages, counted from the positive end', () => {
    const { low, hunt, own, picture } = roof()
    low()
    hunt(volts(400, 100, 175))
    // 100 / 275 of 11 modules is 4.
    expect(own().finding).toMatchObject({ code: 'earth-fault.outside', figures: { after: 4, modules: 11 } })
    expect(picture().readings[0]!.at).toBeCloseTo(4, 9)
  })

  it('names an end rather than a module where it lies there', () => {
    const { low, hunt, own } = roof()
    low()
    hunt(volts(400, 0.5, 375))
    expect(own().finding.code).toBe('earth-fault.outside-at-plus')
  })

  it('weighs what leaks against the least insulation where the voltmeter is known', () => {
    const { low, hunt, own } = roof()
    low()
    // 20 V of 400 V on 10 Mohm: 190 Mohm leak, which is no fault though it is 5 % of the volts.
    hunt(volts(400, 8, 12, { 'input-resistance': 'input-10' }))
    expect(own()).toMatchObject({ verdict: 'within', finding: { code: 'earth-fault.ohms.within' } })
    hunt(volts(400, 8, 12))
    expect(own().verdict).toBe('outside')
    hunt(volts(400, 3, 3))
    expect(own()).toMatchObject({ verdict: 'within', finding: { code: 'earth-fault.within' } })
  })

  it('decides nothing from volts that are together more than the string gives', () => {
    const { low, hunt, own } = roof()
    low()
    hunt(volts(400, 250, 260, { 'input-resistance': 'input-10' }))
    expect(own()).toMatchObject({ verdict: 'not-yet', finding: { code: 'earth-fault.above-string' } })
  })

  it('is not yet while one of the three is missing', () => {
    const { low, hunt, own } = roof()
    low()
    const { 'minus-volts': _, ...two } = volts(400, 0, 0)
    hunt(two)
    expect(own().verdict).toBe('not-yet')
  })

  it('narrows down by halves, and says where to open next', () => {
    const { low, hunt, own, picture } = roof()
    low()
    hunt(halves(5, 0.2, 80))
    expect(own().finding).toMatchObject({ code: 'earth-fault.halves-outside-plus', figures: { after: 5 } })
    expect(picture()).toMatchObject({ suspect: { from: 0, to: 5 }, openNext: 3 })
    hunt(halves(3, 60, 0.2))
    expect(picture()).toMatchObject({ suspect: { from: 3, to: 5 }, openNext: 4 })
    hunt(halves(4, 60, 0.2))
    expect(picture()).toMatchObject({ suspect: { from: 4, to: 5 }, openNext: null })
  })

  it('is told where readings name unlike places', () => {
    const { low, hunt, picture } = roof()
    low()
    hunt(halves(3, 0.2, 80))
    hunt(halves(6, 80, 0.2))
    expect(picture()).toMatchObject({ suspect: null, isUnlike: true, openNext: null })
  })

  it('calls no half sound that was tested with too few volts, nor one opened where there is no plug', () => {
    const { low, hunt, own } = roof()
    low()
    hunt(halves(5, 80, 80, 'v500'))
    expect(own().verdict).toBe('not-yet')
    for (const after of [0, 11, 4.5]) {
      hunt(halves(after, 80, 80))
      expect(own()).toMatchObject({ verdict: 'not-yet', finding: { code: 'earth-fault.no-such-place' } })
    }
    hunt(halves(5, 80, 90))
    expect(own().verdict).toBe('within')
  })
})
