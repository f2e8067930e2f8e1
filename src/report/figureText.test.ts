import { describe, expect, it } from 'vitest'
import { bandText, measuredText } from './figureText'

const band = (low: number | null, high: number | null) => ({ band: { low, high, closeLow: null, closeHigh: null } })

describe('a limit in print', () => {
  it.each([
    [band(null, 0.8), '≤\u00a00.80'],
    [band(null, 10_000), '≤\u00a010000'],
    [band(null, 1667), '≤\u00a01667'],
    [band(1, null), '≥\u00a01.00'],
    [band(373.8, 413.1), '373.8–413.1'],
  ])('has the places that its size wants, and its sign beside it', (rule, text) => {
    expect(bandText(rule, 2)).toBe(text)
  })
})

describe('a reading in print', () => {
  it.each([
    ['1846', 102.3, '1846 ±102'],
    ['0.42', 0.031, '0.42 ±0.03'],
    ['1', 2, '1 ±2'],
    ['0.04', 0.0006, '0.04 ±0.0006'],
    ['571,2', 3.14, '571,2 ±3.1'],
    ['>999', 0, '>999'],
  ])('is known to what its own places show: %s and %d are %s', (text, whisker, printed) => {
    expect(measuredText({ text, whisker })).toBe(printed)
  })
})
