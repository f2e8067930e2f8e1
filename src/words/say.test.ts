import '@/words/plant'
import '@/words/everyTest'
import '@/words/record'
import '@/words/office'
import '@/words/help'
import '@/words/planner'
import '@/words/print'
import '@/words/regime'
import '@/words/schedule'
import { describe, expect, it } from 'vitest'
import { english, figure, fill, hasWords, meaningOf, quantity, say, sayCode } from './say'

const space = '\u00a0'

describe('a count', () => {
  it('takes the form of the word that goes with it', () => {
    const late = '{days|one:# day|other:# days} late'
    expect([1, 2, 0].map((days) => fill(late, { days }))).toEqual(['1 day late', '2 days late', '0 days late'])
    expect(fill(late, {})).toBe('? late')
  })
})

describe('figures as people read them', () => {
  it('have a true minus sign, and none on nothing', () => {
    expect([figure(-4.651, 2), figure(-0.001, 1), figure(2, 1, true), figure(0, 1, true)]).toEqual([
      '−4.65',
      '0.0',
      '+2.0',
      '0.0',
    ])
  })

  it('are never written as NaN', () => {
    expect(figure(Number.NaN, 1)).toBe('?')
    expect(figure(Number.POSITIVE_INFINITY, 1)).toBe('?')
  })

  it('stand a space from their unit', () => {
    expect(quantity(406.8, 'V', 1)).toBe('406.8 V')
    expect(quantity(5, 'pct', 0, true)).toBe('+5 %')
    expect(quantity(3, 'one', 0)).toBe('3')
  })
})

describe('sentences', () => {
  it('take figures with decimals, signs and units', () => {
    expect(fill('{a:1} of {b}, {c:+2}, in {u:unit}', { a: 1.25, b: 3, c: 0.5, u: 'Wm2' })).toBe(
      '1.3 of 3, +0.50, in W/m²',
    )
  })

  it('keep a figure and its unit on one line', () => {
    expect(fill('{a:1} V and {b:0} W/m² by tester A')).toContain('?')
    expect(fill('{a:1} V and {b:0} W/m², issue A', { a: 1, b: 2 })).toBe(`1.0${space}V and 2${space}W/m², issue A`)
  })

  it('show what is missing instead of breaking', () => {
    expect(fill('{nothing} here')).toBe('? here')
    expect(sayCode('finding', 'no-such-code')).toBe('no-such-code')
    expect(hasWords('finding.no-such-code')).toBe(false)
  })

  it('say what a cause means only where it fits', () => {
    const cause = { code: 'modules-missing', fit: 'fits', figures: { tag: '3', count: 1, modules: 11 } }
    expect(meaningOf(cause)).toBe('String 3 reads as if 1 of 11 modules were left out.')
    expect(meaningOf({ ...cause, fit: 'may-fit' })).toBe('')
    expect(meaningOf(undefined)).toBe('')
  })
})

/** How people are spoken to (design, section 8). */
describe('every sentence of the table', () => {
  const entries = Object.entries(english)

  it('has its key once, and says something', () => {
    for (const [key, text] of entries) expect(text.trim().length, key).toBeGreaterThan(0)
  })

  it('uses no word that the design leaves out', () => {
    for (const [key, text] of entries)
      expect(`${key}: ${text}`).not.toMatch(/!|\b(invalid|please|success|fail(ed)?|pass(ed)?)\b(?! with)/i)
  })

  it('opens and closes every figure', () => {
    for (const [key, text] of entries) {
      expect(text.replace(/\{\w+(:[+\w]+|(\|(one|two|few|many|other):[^|}]*)+)?\}/g, ''), key).not.toMatch(/[{}]/)
    }
  })

  it('is said the same way by key and by code', () => {
    expect(say('verdict.within')).toBe(sayCode('verdict', 'within'))
  })
})
