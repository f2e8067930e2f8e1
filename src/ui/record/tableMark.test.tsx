import { renderToStaticMarkup } from 'react-dom/server'
import { describe, expect, it } from 'vitest'
import type { StepEvaluation } from '@/core/evaluation/types'
import type { Verdict } from '@/core/verdict/verdict'
import { TableMark } from './RecordScreen'

const marked = (...verdicts: Verdict[]): string =>
  renderToStaticMarkup(<TableMark own={verdicts.map((verdict) => ({ verdict }) as StepEvaluation)} />)

describe('the mark of a test in the record', () => {
  it('is that of its worst part, whatever waits besides', () => {
    expect(marked('not-yet', 'outside', 'within')).toBe(marked('outside'))
    expect(marked('held-back', 'not-yet')).toBe(marked('held-back'))
    expect(marked('within', 'close')).toBe(marked('close'))
    expect(marked('close')).not.toBe(marked('within'))
  })

  it('is none for a table of the plant', () => {
    expect(marked()).not.toContain('svg')
  })
})
