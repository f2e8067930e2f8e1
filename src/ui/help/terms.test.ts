import { describe, expect, it } from 'vitest'
import { termsIn, termsOf } from './terms'

const words = (text: string): string[] => termsIn(text).map((one) => one.id)

describe('words of the trade', () => {
  it('each say what they mean', () => {
    const all = termsOf()
    expect(all.length).toBeGreaterThan(40)
    for (const { id, means } of all) expect(means, id).toMatch(/^[A-ZÀ-Ý].*\.$/)
    expect(new Set(all.map((one) => one.word)).size).toBe(all.length)
  })

  it('are found where they stand, in their order', () => {
    expect(words('Voc of the string at STC')).toEqual(['voc', 'string', 'stc'])
    expect(words('Read R1+R2, then Zs')).toEqual(['r1r2', 'zs'])
    expect(words('The snags of three arrays')).toEqual(['snag', 'array'])
  })

  it('are not found inside of others, or in another case where they are signs', () => {
    expect(words('a stringent rule, at the tt, ze, ra')).toEqual([])
    expect(words('TN-C-S')).toEqual(['tncs'])
    expect(words('TN-S')).toEqual(['tns'])
  })

  it('know every name of theirs', () => {
    expect(words('Imp')).toEqual(['vmp'])
    expect(words('PSCC at the board')).toEqual(['pefc'])
  })
})
