import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { type Band, bandAround, judge } from './judge'
import { verdicts, worst } from './verdict'

const exact = (value: number) => ({ value, bound: 'exact' as const })
const minimum: Band = { low: 1, high: null, closeLow: 2, closeHigh: null }
const maximum: Band = { low: null, high: 10, closeLow: null, closeHigh: 8 }

describe('a value in a two-sided band', () => {
  const band = bandAround(400, 5, 20)

  it.each([
    [400, 'within', 'inside'],
    [416, 'close', 'inside'],
    [415.9, 'within', 'inside'],
    [420, 'close', 'inside'],
    [420.1, 'outside', 'above'],
    [380, 'close', 'inside'],
    [379.9, 'outside', 'below'],
  ])('%d V is %s', (value, verdict, where) => {
    expect(judge(exact(value), band, 0)).toEqual({ verdict, where })
  })

  it('is close where the whisker touches the limit', () => {
    expect(judge(exact(410), band, 9).verdict).toBe('within')
    expect(judge(exact(410), band, 10).verdict).toBe('close')
  })

  it('never turns better as the value leaves the middle', () => {
    const rank = { within: 0, close: 1, outside: 2 } as Record<string, number>
    fc.assert(
      fc.property(fc.double({ min: 0, max: 60, noNaN: true }), fc.double({ min: 0, max: 60, noNaN: true }), (a, b) => {
        const [near, far] = [Math.min(a, b), Math.max(a, b)]
        const at = (off: number): number => rank[judge(exact(400 + off), band, 1).verdict]!
        expect(at(near)).toBeLessThanOrEqual(at(far))
        expect(at(-near)).toBeLessThanOrEqual(at(-far))
      }),
    )
  })
})

describe('a bound', () => {
  it('over 999 clears a minimum', () => {
    expect(judge({ value: 999, bound: 'more-than' }, minimum, 0).verdict).toBe('within')
  })

  it('over a tenth of a minimum decides nothing', () => {
    expect(judge({ value: 0.1, bound: 'more-than' }, minimum, 0)).toEqual({ verdict: 'not-yet', where: 'undecided' })
  })

  it('over 999 passes a maximum', () => {
    expect(judge({ value: 999, bound: 'more-than' }, maximum, 0).verdict).toBe('outside')
  })

  it('under 0.01 is the other way round', () => {
    expect(judge({ value: 0.01, bound: 'less-than' }, minimum, 0).verdict).toBe('outside')
    expect(judge({ value: 0.01, bound: 'less-than' }, maximum, 0).verdict).toBe('within')
  })

  it('under 9 of a maximum of 10 is close', () => {
    expect(judge({ value: 9, bound: 'less-than' }, maximum, 0).verdict).toBe('close')
  })
})

describe('the worst of a group', () => {
  it('shows outside before close, held back, not yet, within', () => {
    expect(worst(['within', 'close', 'not-yet'])).toBe('close')
    expect(worst(['held-back', 'not-yet', 'within'])).toBe('held-back')
    expect(worst(verdicts)).toBe('outside')
  })

  it('lets left out never win', () => {
    expect(worst(['left-out', 'within'])).toBe('within')
    expect(worst(['left-out'])).toBe('left-out')
    expect(worst([])).toBe('not-yet')
  })
})
