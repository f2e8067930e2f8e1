import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { parseReading } from './parseReading'
import { decimalsAsRead, readValueOf } from './readValue'
import { readingUncertainty } from './uncertainty'
import { unitFromSpelling, unitSpellings, units } from './unit'

describe('reading what a person typed', () => {
  it.each([
    ['369.6', 369.6, 'exact'],
    ['369,6', 369.6, 'exact'],
    ['>999', 999, 'more-than'],
    ['< 0.01', 0.01, 'less-than'],
    ['369.6 V', 369.6, 'exact'],
    ['0.3696 kV', 369.6, 'exact'],
    ['1,234.5', 1234.5, 'exact'],
    ['1.234,5', 1234.5, 'exact'],
    ['−12', -12, 'exact'],
    ['0,123', 0.123, 'exact'],
    [',5', 0.5, 'exact'],
    ['1.234', 1.234, 'exact'],
  ])('takes %s as %d', (typed, value, bound) => {
    const parsed = parseReading(typed, 'V')
    expect(parsed).toMatchObject({ state: 'read', reading: { bound, unit: 'V', text: typed } })
    if (parsed.state === 'read') expect(parsed.reading.value).toBeCloseTo(value, 10)
  })

  it('asks whether 1,234 is a thousand', () => {
    const parsed = parseReading('1,234', 'V')
    expect(parsed.state === 'ask' && parsed.choices.map((choice) => choice.value)).toEqual([1.234, 1234])
  })

  it.each([
    ['', 'empty'],
    ['abc', 'not-a-number'],
    ['12x', 'unit-unknown'],
    ['1.2.3', 'two-decimal-signs'],
    ['12 A', 'unit-of-another-quantity'],
    ['1,23,4', 'two-decimal-signs'],
    ['.', 'not-a-number'],
    ['9'.repeat(30), 'too-long'],
    ['NaN', 'not-a-number'],
    ['1e5', 'unit-unknown'],
  ])('refuses %s as %s', (typed, code) => {
    expect(parseReading(typed, 'V')).toMatchObject({ state: 'refused', code })
  })

  it('reads back every figure it can write', () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 1e5, noNaN: true }), fc.integer({ min: 0, max: 4 }), (value, decimals) => {
        const written = readValueOf(value, 'V', decimals)
        const parsed = parseReading(written.text, 'V')
        expect(parsed).toEqual({ state: 'read', reading: written })
      }),
    )
  })
})

describe('text as read', () => {
  it('tells 12.30 from 12.3', () => {
    expect([
      decimalsAsRead('12.30'),
      decimalsAsRead('12.3'),
      decimalsAsRead('>999'),
      decimalsAsRead('12,30 V'),
    ]).toEqual([2, 1, 0, 2])
  })
})

describe('uncertainty of a reading', () => {
  const volts = { text: '369.6', value: 369.6, bound: 'exact', unit: 'V' } as const

  it('adds per cent of reading and last digits', () => {
    expect(readingUncertainty(volts, { ofReading_pct: 0.5, digits: 2 })).toBeCloseTo(2.048, 10)
  })

  it('knows half a digit where no instrument is named', () => {
    expect(readingUncertainty(volts, null)).toBeCloseTo(0.05, 10)
  })

  it('is none for a bound', () => {
    expect(readingUncertainty({ ...volts, bound: 'more-than' }, { ofReading_pct: 5, digits: 1 })).toBe(0)
  })
})

describe('units', () => {
  it('have a spelling each, and read it back', () => {
    for (const unit of Object.keys(units) as (keyof typeof units)[]) {
      const { written } = unitSpellings[unit]
      if (written) expect(unitFromSpelling(written)).toBe(unit)
    }
  })

  it('leave milli or mega ohms to the person', () => {
    expect(unitFromSpelling('mohm')).toBeNull()
    expect(unitFromSpelling('Mohm')).toBe('Mohm')
  })
})
