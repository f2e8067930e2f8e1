import { describe, expect, it } from 'vitest'
import { comparisonMadeSchema } from '@/core/regime/comparison'
import { sources, type SourceId } from '@/core/regime/sources'
import { takenBySource } from '@/core/regime/taken'
import { sourceLine } from './sourceLine'

const held = (over: object = {}) => [
  {
    source: 'bs7671-zs',
    edition: 'BS 7671:2018+A3:2024',
    by: 'Isolde Marrow',
    at: '2026-03-07T09:00:00.000Z',
    agrees: true,
    note: '',
    ...over,
  },
]

describe('a source in print', () => {
  it('keeps its mark until somebody held the document, and says by whom and when from then on', () => {
    expect(sourceLine('bs7671-zs', undefined)).toMatch(/ \*$/)
    const line = sourceLine('bs7671-zs', held())
    expect(line).toContain('compared with BS 7671:2018+A3:2024, Isolde Marrow, 7 Mar 2026')
    expect(line).not.toContain('*')
    expect(sourceLine('bs7671-rcd', held())).toMatch(/ \*$/)
  })

  it('that the document has otherwise keeps its mark, with what it says there', () => {
    const line = sourceLine('bs7671-zs', held({ agrees: false, note: 'B32 is 1.37' }))
    expect(line).toContain('has it otherwise: B32 is 1.37')
    expect(line).toMatch(/ \*$/)
  })

  it('in doubt is never printed as certain', () => {
    const doubtful = (Object.keys(sources) as SourceId[]).filter((id) => sources[id].sure === 'doubt')
    expect(doubtful.length).toBeGreaterThan(0)
    for (const id of doubtful) expect(sourceLine(id, undefined)).toMatch(/\(in doubt\) \*$/)
  })

  it('of the house or the trade has no document, and no mark', () => {
    expect(sourceLine('house-minute', undefined)).toBe('house rule 3')
    expect(sourceLine('loop-practice', undefined)).toBe('common practice, no source')
  })
})

describe('a comparison', () => {
  const made = { source: 'bs7671-zs', edition: '2018+A3', agrees: true, note: '' }
  it.each([
    [{}, true],
    [{ agrees: false }, false],
    [{ agrees: false, note: 'B32 is 1.37' }, true],
    [{ source: 'house-minute' }, false],
    [{ source: 'nobody' }, false],
    [{ source: 'toString' }, false],
    [{ edition: ' ' }, false],
    [{ edition: 'x'.repeat(61) }, false],
  ])('with %j is taken: %s', (over, isTaken) => {
    expect(comparisonMadeSchema.safeParse({ ...made, ...over }).success).toBe(isTaken)
  })
})

describe('what was taken from the sources', () => {
  it('names the limits and the tests that rest on each, and knows every source that is cited', () => {
    const taken = takenBySource()
    expect(taken.get('iec-62446-insulation')!.steps).toContain('pv-insulation')
    expect([...taken.values()].every(({ limits, steps }) => limits.length + steps.length > 0)).toBe(true)
    for (const id of taken.keys()) expect(sources[id]).toBeDefined()
  })
})
