// @vitest-environment jsdom
import { act } from 'react'
import { describe, expect, it } from 'vitest'
import { stepKey } from '@/core/evaluate'
import type { Instrument } from '@/core/record/instrument'
import { exampleSite } from '@/core/steps/worked'
import { FactsBuilder, testId } from '@/core/testing/factsBuilder'
import { inDom } from '../testing/inDom'
import { TestBench } from '../testing/TestBench'

const { draw, find, press, type } = inDom()
const clamp = (id: number, tag: string, calibrationDue: string): Instrument => ({
  id: testId(id),
  tag,
  name: 'Clamp',
  serial: tag,
  calibrationDue,
  standIn: false,
  ranges: [{ measures: 'dc-current', accuracy: { ofReading_pct: 1, digits: 2 }, most: 60, decimals: 2 }],
  leadSets: [],
})

describe('an instrument that is chosen after a figure was typed', () => {
  it('is the one by which the reading is judged, and its calibration is said', async () => {
    const build = new FactsBuilder(false)
    const site = build.part(exampleSite)
    const facts = build.facts({ instruments: [clamp(7, '07', '2030-01-01'), clamp(4, '04', '2020-01-01')] })
    const bench = (instrumentId: string) => (
      <TestBench
        facts={facts}
        stepKey={stepKey('safe-isolation', site)}
        conditions={null}
        instrumentId={instrumentId}
      />
    )
    await draw(bench(testId(7)))
    await type('#slot-clamp-current', '0.02')
    expect(find('.dock').textContent).not.toContain('out of calibration')
    await press('#slot-with')
    await act(async () => new Promise((resolve) => setTimeout(resolve, 200)))
    const option = [...document.querySelectorAll<HTMLElement>('.ant-select-item-option')].find((one) =>
      one.textContent!.startsWith('04'),
    )!
    await act(async () => option.click())
    await draw(bench(testId(4)))
    expect(find('.dock').textContent).toContain('out of calibration')
  })
})
