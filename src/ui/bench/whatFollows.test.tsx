// @vitest-environment jsdom
import { describe, expect, it, vi } from 'vitest'
import { stepKey } from '@/core/evaluate'
import { FactsBuilder } from '@/core/testing/factsBuilder'
import { inDom } from '../testing/inDom'
import { noActions } from '../testing/noActions'
import { TestBench } from '../testing/TestBench'
import type { BenchActions } from './types'

const { draw, find, press } = inDom()
const build = new FactsBuilder()
const string = build.string('1')
build.polarity(string, 'reversed')

const drawn = (actions: Partial<BenchActions>): Promise<unknown> =>
  draw(
    <TestBench facts={build.facts()} stepKey={stepKey('pv-polarity', string)} actions={{ ...noActions, ...actions }} />,
  )
const mainAct = (): string => find('.acts .ant-btn-primary').getAttribute('data-testid') ?? ''
const offered = (): string[] =>
  [...document.querySelectorAll('.acts .ant-btn:not(.ant-btn-primary)')].map((one) => one.getAttribute('data-testid')!)

describe('what follows something that is outside', () => {
  it('in new work is that somebody mends it, and says how', async () => {
    const mend = vi.fn()
    await drawn({ mend })
    expect(mainAct()).toBe('mend')
    await press('[data-testid=mend]')
    expect(mend).toHaveBeenCalledOnce()
  })

  it('in a periodic inspection is how grave it is, and somebody may mend it all the same', async () => {
    const look = vi.fn()
    await drawn({ found: { isClassed: false, look } })
    expect(mainAct()).toBe('class-found')
    await press('[data-testid=class-found]')
    expect(look).toHaveBeenCalledOnce()
    expect(offered()).toContain('next')
  })

  it('goes on once it is classed', async () => {
    await drawn({ found: { isClassed: true, look: () => undefined } })
    expect(mainAct()).toBe('next')
    expect(offered()).toEqual(['again', 'mend'])
  })
})
