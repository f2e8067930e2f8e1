import { describe, expect, it } from 'vitest'
import { canonicalBytes, canonicalHash } from '@/server/seal/canonical'

/** Source: RFC 8785, section 3.2.2 to 3.2.4, the worked sample (from memory). */
describe('canonical JSON', () => {
  it('writes the sample of RFC 8785 as the RFC does', () => {
    const sample = JSON.parse(String.raw`{
      "numbers": [333333333.33333329, 1E30, 4.50, 2e-3, 0.000000000000000000000000001],
      "string": "\u20ac$\u000F\u000aA'\u0042\u0022\u005c\\\"\/",
      "literals": [null, true, false]
    }`)
    const expected = String.raw`{"literals":[null,true,false],"numbers":[333333333.3333333,1e+30,4.5,0.002,1e-27],"string":"€$\u000f\nA'B\"\\\\\"/"}`
    expect(canonicalBytes(sample).toString('utf8')).toBe(expected)
  })

  it('sorts keys by UTF-16 units, as RFC 8785 section 3.2.3 does', () => {
    const keys = {
      '\u20ac': 'Euro',
      '\r': 'Return',
      '\ufb33': 'Dalet',
      '1': 'One',
      '\u0080': 'Control',
      '\ud83d\ude00': 'Smiley',
      '\u00f6': 'o',
    }
    const order = Object.values(JSON.parse(canonicalBytes(keys).toString('utf8')))
    expect(canonicalBytes(keys).toString('utf8').startsWith('{"\\r":"Return","1":"One"')).toBe(true)
    expect(order.length).toBe(7)
  })

  it('does not depend on how an object was built', () => {
    expect(canonicalHash({ a: 1, b: [2, { d: 4, c: 3 }] })).toBe(canonicalHash({ b: [2, { c: 3, d: 4 }], a: 1 }))
    expect(canonicalHash({ a: 1 })).not.toBe(canonicalHash({ a: '1' }))
  })

  it('refuses what JSON cannot say', () => {
    expect(() => canonicalBytes(undefined)).toThrow()
    expect(() => canonicalBytes({ a: Number.NaN })).toThrow()
  })
})
