import '@/words/everyTest'
import { describe, expect, it } from 'vitest'
import { limitIds } from '@/core/regime/regime'
import { sources, type SourceId } from '@/core/regime/sources'
import { steps } from '@/core/steps'
import { hasWords } from '@/words/say'
import { limitText, originsOf, standingOf } from './whyOf'

const changed = { from: 'the default', reason: 'the network asks for it', by: 'A. Person' }

describe('why', () => {
  it('is said of every test', () => {
    expect(steps.map((one) => one.id).filter((id) => !hasWords(`why.${id}`))).toEqual([])
  })

  it('names every limit in words', () => {
    for (const id of limitIds)
      expect(limitText({ id, value: 5, unit: 'pct', source: 'company' }), id).toMatch(/^[A-Z].*[^.]: 5 %$/)
  })

  it('tells how sure every source is', () => {
    for (const id of Object.keys(sources) as SourceId[]) expect(standingOf(id, changed), id).toMatch(/^[A-Z].{20,}\.$/)
  })

  it('of a figure that the company set is the reason which it gave', () => {
    expect(standingOf('company', changed)).toBe('Set by the company: the network asks for it (A. Person).')
  })

  it('puts documents together that are equally sure, and gives common practice no name', () => {
    const found = originsOf(['iec-62446-voltage', 'rating-plate', 'iec-62446-current'], null)
    expect(found).toEqual([
      { names: ['IEC 62446-1:2016+A1, 6.4', 'IEC 62446-1:2016+A1, 6.5'], standing: expect.stringMatching(/memory/) },
      { names: [], standing: expect.stringMatching(/practice/) },
    ])
  })
})
