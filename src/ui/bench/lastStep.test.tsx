// @vitest-environment jsdom
import { describe, expect, it, vi } from 'vitest'
import { stepKey } from '@/core/evaluate'
import { FactsBuilder } from '@/core/testing/factsBuilder'
import { inDom } from '../testing/inDom'
import { noActions } from '../testing/noActions'
import { TestBench } from '../testing/TestBench'

const { draw, find, press } = inDom()

describe('going on', () => {
  const build = new FactsBuilder()
  const string = build.string('1')
  build.polarity(string)

  it.each([
    [false, 'Next'],
    [true, 'Record'],
  ])('behind the last test (%s) leads to: %s', async (isLast, words) => {
    const next = vi.fn()
    await draw(
      <TestBench
        facts={build.facts()}
        stepKey={stepKey('pv-polarity', string)}
        actions={{ ...noActions, next, isLast }}
      />,
    )
    expect(find('[data-testid=next]').textContent).toContain(words)
    await press('[data-testid=next]')
    expect(next).toHaveBeenCalledOnce()
  })
})
