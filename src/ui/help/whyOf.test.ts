import '@/words/ac'
import { describe, expect, it } from 'vitest'
import { sources, type SourceId } from '@/core/regime/sources'
import { steps } from '@/core/steps'
import { hasWords } from '@/words/say'
import { standingOf } from './whyOf'

describe('why', () => {
  it('is said of every test', () => {
    expect(steps.map((one) => one.id).filter((id) => !hasWords(`why.${id}`))).toEqual([])
  })

  it('tells how sure every source is', () => {
    const changed = { from: 'the default', reason: 'the network asks for it', by: 'A. Person' }
    for (const id of Object.keys(sources) as SourceId[]) expect(standingOf(id, changed), id).toMatch(/^[A-Z].{20,}\.$/)
  })

  it('of a figure that the company set is the reason which it gave', () => {
    const changed = { from: 'the default', reason: 'the network asks for it', by: 'A. Person' }
    expect(standingOf('company', changed)).toBe('Set by the company: the network asks for it (A. Person).')
  })
})
