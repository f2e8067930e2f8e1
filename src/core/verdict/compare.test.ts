import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { type Bound, exactly, spanOf, type Span } from '../quantity/span'
import { atLeast, type Band, bandAround, compare } from './compare'
import { verdicts, worst } from './verdict'

const bound = (value: number, kind: Exclude<Bound, 'between'>): Span => spanOf({ value, bound: kind }, 0)
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
    expect(compare(exactly(value), band)).toMatchObject({ verdict, where })
  })

  it('is close where the whisker touches the limit', () => {
    expect(compare(exactly(410, 9), band).verdict).toBe('within')
    expect(compare(exactly(410, 10), band).verdict).toBe('close')
  })

  it('never turns better as the value leaves the middle', () => {
    const rank = { within: 0, close: 1, outside: 2 } as Record<string, number>
    fc.assert(
      fc.property(fc.double({ min: 0, max: 60, noNaN: true }), fc.double({ min: 0, max: 60, noNaN: true }), (a, b) => {
        const [near, far] = [Math.min(a, b), Math.max(a, b)]
        const at = (off: number): number => rank[compare(exactly(400 + off, 1), band).verdict]!
        expect(at(near)).toBeLessThanOrEqual(at(far))
        expect(at(-near)).toBeLessThanOrEqual(at(-far))
      }),
    )
  })
})

describe('a bound', () => {
  it('over 999 clears a minimum', () => {
    expect(compare(bound(999, 'more-than'), minimum).verdict).toBe('within')
  })

  it('over a tenth of a minimum decides nothing', () => {
    expect(compare(bound(0.1, 'more-than'), minimum)).toEqual({ verdict: 'not-yet', where: 'undecided', closeBy: null })
  })

  it('over 999 passes a maximum', () => {
    expect(compare(bound(999, 'more-than'), maximum).verdict).toBe('outside')
  })

  it('under 0.01 is the other way round', () => {
    expect(compare(bound(0.01, 'less-than'), minimum).verdict).toBe('outside')
    expect(compare(bound(0.01, 'less-than'), maximum).verdict).toBe('within')
  })

  it('under 9 of a maximum of 10 is close', () => {
    expect(compare(bound(9, 'less-than'), maximum).verdict).toBe('close')
  })
})

describe('a comparison', () => {
  const nothing: Band = { low: null, high: null, closeLow: null, closeHigh: null }
  const undecided = { verdict: 'not-yet', where: 'undecided', closeBy: null }

  it('with nothing, or with a figure that is none, decides nothing', () => {
    expect(compare(exactly(5), nothing)).toEqual(undecided)
    for (const wrong of [exactly(Number.NaN), exactly(5, Number.NaN)])
      expect(compare(wrong, minimum)).toEqual(undecided)
    expect(compare(exactly(5), atLeast(Number.NaN))).toEqual(undecided)
  })

  it('of a span decides only where all of it lies on one side', () => {
    const span = (least: number, most: number): Span => ({ least, most, bound: 'between', whisker: 0 })
    expect(compare(span(3, 4), minimum).verdict).toBe('within')
    expect(compare(span(1.5, 4), minimum).verdict).toBe('close')
    expect(compare(span(0.5, 4), minimum)).toEqual(undecided)
    expect(compare(span(0.2, 0.9), minimum).verdict).toBe('outside')
  })

  it('says by what it is close: the limit, the band, or the whisker', () => {
    expect(compare(exactly(1), minimum).closeBy).toBe('limit')
    expect(compare(exactly(1.5), minimum).closeBy).toBe('band')
    expect(compare(exactly(2.1, 1.2), minimum).closeBy).toBe('whisker')
  })

  it('with a limit that is outside itself fails on it, and otherwise is close there', () => {
    const shut: Band = { low: 3, high: 6, closeLow: null, closeHigh: null, lowIsOutside: true }
    expect(compare(exactly(3), shut).verdict).toBe('outside')
    expect(compare(bound(3, 'more-than'), shut).verdict).toBe('not-yet')
    expect(compare(exactly(3), { ...shut, lowIsOutside: false }).verdict).toBe('close')
  })

  it('says within of nothing that may lie outside', () => {
    const kinds = ['exact', 'more-than', 'less-than'] as const
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 20, noNaN: true }),
        fc.constantFrom(...kinds),
        fc.double({ min: 0, max: 20, noNaN: true }),
        fc.double({ min: 0, max: 3, noNaN: true }),
        (value, kind, limit, whisker) => {
          const span = spanOf({ value, bound: kind }, whisker)
          const { verdict } = compare(span, atLeast(limit))
          if (verdict === 'within') expect(span.least - span.whisker).toBeGreaterThanOrEqual(limit)
          if (verdict === 'outside') expect(span.most).toBeLessThanOrEqual(limit)
        },
      ),
    )
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
