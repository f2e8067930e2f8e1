// @vitest-environment jsdom
import { act } from 'react'
import { describe, expect, it, vi } from 'vitest'
import { stepKey } from '@/core/evaluate'
import type { Body } from '@/core/record/entry'
import { FactsBuilder } from '@/core/testing/factsBuilder'
import { inDom } from '../testing/inDom'
import { noActions } from '../testing/noActions'
import { TestBench } from '../testing/TestBench'

const { draw, find, press, type } = inDom()

describe('where a string was read', () => {
  it('is said on the bench, and kept with the reading', async () => {
    const build = new FactsBuilder()
    const string = build.string('1')
    build.polarity(string)
    const keep = vi.fn(async (_body: Body<'reading'>) => true)
    const actions = { ...noActions, keep }
    await draw(<TestBench facts={build.facts()} stepKey={stepKey('pv-voc', string)} actions={actions} />)
    expect(find('[data-testid=place]').textContent).toContain('plugs')
    await press('[data-testid=place]')
    // The list comes with the press.
    const atInverter = await vi.waitFor(async () => {
      await act(async () => undefined)
      const all = [...document.querySelectorAll<HTMLElement>('.ant-select-item-option')]
      const found = all.find((one) => one.textContent?.includes('inverter'))
      if (!found) throw new Error('the list is not there yet')
      return found
    }, 5000)
    atInverter.id = 'at-inverter'
    await press('#at-inverter')
    await press('[data-testid=tick-all]')
    await type('#slot-voltage', '374.5')
    await press('[data-testid=keep]')
    expect(keep).toHaveBeenCalledOnce()
    expect(keep.mock.calls[0]![0]).toMatchObject({ place: 'inverter', slots: { voltage: { value: 374.5 } } })
  })
})
