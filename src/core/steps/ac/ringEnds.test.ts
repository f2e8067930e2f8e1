import { describe, expect, it } from 'vitest'
import { apart, ringR1r2 } from '../../circuit/ring'
import { causes, evaluate, linesOf } from '../../evaluate'
import type { CircuitData } from '../../plant/part'
import { exactly, spanOf } from '../../quantity/span'
import type { SlotValue } from '../../record/entry'
import { Installation, over, read } from '../../testing/installation'

const ring = (own: Partial<CircuitData> = {}) => new Installation({ circuit: { layout: 'ring', length_m: 54, ...own } })
const ends = (line: number, neutral: number, protective: number): Record<string, SlotValue> => ({
  'ring-r1': read(line),
  'ring-rn': read(neutral),
  'ring-r2': read(protective),
  'cross-l-n-lowest': read(0.2),
  'cross-l-n-highest': read(0.21),
  'cross-l-pe-lowest': read(0.26),
  'cross-l-pe-highest': read(0.28),
})

describe('the ends of a ring', () => {
  it('have a quarter of line and protective conductor at every socket', () => {
    expect(ringR1r2(exactly(0.4), exactly(0.66)).least).toBeCloseTo(0.265, 12)
  })

  it('lie apart by what they differ, and two displays over their range by anything', () => {
    expect(apart(exactly(0.75), exactly(0.6667))).toMatchObject({ least: expect.closeTo(0.0833, 4), bound: 'exact' })
    const over = spanOf({ value: 99.9, bound: 'more-than' }, 0)
    expect(apart(over, over)).toMatchObject({ least: 0, most: Number.POSITIVE_INFINITY })
  })
})

describe('the step of ring ends', () => {
  it('is asked of rings only', () => {
    const asked = (site: Installation): boolean =>
      evaluate(site.facts, 0).steps.some((one) => one.step.id === 'ring-ends' && one.part.id === site.circuit)
    expect(asked(ring())).toBe(true)
    expect(asked(new Installation())).toBe(false)
  })

  it.each([
    [ends(0.4, 0.41, 0.66), 'within', 'ring-ends.within'],
    [ends(0.4, 0.48, 0.66), 'outside', 'ring-ends.neutral-differs'],
    [ends(0.4, 0.41, 0.4), 'outside', 'ring-ends.protective-differs'],
    [{ ...ends(0.4, 0.41, 0.66), 'ring-rn': over(99.9, 'ohm') }, 'outside', 'ring-ends.open'],
  ])('reading %j is %s', (slots, verdict, code) => {
    const site = ring()
    expect(site.take('ring-ends', site.circuit, slots).says('ring-ends', site.circuit)).toMatchObject({ verdict, code })
  })

  it('names an open ring, and what it would do', () => {
    const site = ring()
    site.take('ring-ends', site.circuit, { ...ends(0.4, 0.41, 0.66), 'ring-r1': over(99.9, 'ohm') })
    const { one, evaluation } = site.says('ring-ends', site.circuit)
    expect(causes(evaluation, one)[0]).toMatchObject({ code: 'ring-open', fit: 'fits' })
  })
})

describe('R1+R2 of a ring', () => {
  it('is a quarter of its conductors, and of its own ends once they are read', () => {
    const site = ring()
    site.take('r1r2', site.circuit, { r1r2: read(0.27) })
    const lineOf = () => {
      const { one, evaluation } = site.says('r1r2', site.circuit)
      return linesOf(evaluation, one)[0]!
    }
    // IEC 60228 (from memory): (7.41 + 12.1) mohm/m over 54 m is 1.0535 ohm.
    expect(lineOf()).toMatchObject({ code: 'r1r2.conductors-ring', result: { value: expect.closeTo(0.2634, 4) } })
    expect(site.says('r1r2', site.circuit).verdict).toBe('within')
    site.take('ring-ends', site.circuit, ends(0.48, 0.48, 0.8))
    expect(lineOf()).toMatchObject({ code: 'r1r2.from-ends', result: { value: expect.closeTo(0.32, 9) } })
  })

  it('that was read as if it were radial is far too high', () => {
    const site = ring()
    expect(site.take('r1r2', site.circuit, { r1r2: read(1.05) }).says('r1r2', site.circuit).verdict).toBe('outside')
  })
})
