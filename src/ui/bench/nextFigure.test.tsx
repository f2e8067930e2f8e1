// @vitest-environment jsdom
import { act } from 'react'
import { describe, expect, it } from 'vitest'
import { stepKey } from '@/core/evaluate'
import { FactsBuilder } from '@/core/testing/factsBuilder'
import { inDom } from '../testing/inDom'
import { TestBench } from '../testing/TestBench'

const { draw, find, type } = inDom()
const key = (name: string): Promise<boolean> =>
  act(async () =>
    document.activeElement!.dispatchEvent(new KeyboardEvent('keydown', { key: name, bubbles: true, cancelable: true })),
  )
const frame = (): Promise<void> => act(async () => new Promise((resolve) => requestAnimationFrame(() => resolve())))

describe('a figure key with nothing focused', () => {
  const build = new FactsBuilder()
  const site = build.part({ kind: 'site', tag: 'Site', lowestTemperature_C: null, highestCellTemperature_C: null })

  it('answers the choice that is open, then begins the figure', async () => {
    await draw(<TestBench facts={build.facts()} stepKey={stepKey('lead-null', site)} />)
    await act(async () => find('[data-option]').click())
    // The answer that was pressed keeps the focus: what is typed next is the figure all the same.
    const event = new KeyboardEvent('keydown', { key: '0', bubbles: true, cancelable: true })
    await act(async () => find('[data-option]').dispatchEvent(event))
    expect(document.activeElement?.id).toBe('slot-nulled')
    expect(event.defaultPrevented).toBe(false)
  })
})

describe('Enter after a figure', () => {
  const build = new FactsBuilder()
  const array = build.part({ kind: 'array', tag: 'East', tilt_deg: 22, azimuth_deg: 95, mounting: 'open-rack' })

  it('goes to the next one, so that its digits answer no question', async () => {
    await draw(<TestBench facts={build.facts()} stepKey={stepKey('sensors', array)} />)
    await act(async () => find('#slot-tilt').focus())
    await type('#slot-tilt', '22')
    await key('Enter')
    await frame()
    expect(document.activeElement?.id).toBe('slot-azimuth')
    await key('1')
    expect(document.querySelector('.checks [aria-pressed=true]')).toBeNull()
  })

  it('is held against what was entered, which stands beside it', async () => {
    await draw(<TestBench facts={build.facts()} stepKey={stepKey('sensors', array)} />)
    expect((find('#slot-azimuth') as HTMLInputElement).placeholder).toBe('95° entered')
  })
})
