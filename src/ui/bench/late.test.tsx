// @vitest-environment jsdom
import { describe, expect, it, vi } from 'vitest'
import { stepKey } from '@/core/evaluate'
import { readValueOf } from '@/core/quantity/readValue'
import type { Body } from '@/core/record/entry'
import { FactsBuilder, START_ms, testId } from '@/core/testing/factsBuilder'
import type { Heard } from '../live/liveFeed'
import { inDom } from '../testing/inDom'
import { noActions } from '../testing/noActions'
import { TestBench } from '../testing/TestBench'

const { draw, find, press } = inDom()
const OPENED = START_ms + 60_000

/** What the instrument shows, heard so long after the step was opened, ms. */
const shows = (volts: number, after: number): { 'dc-voltage': Heard } => ({
  'dc-voltage': {
    instrumentId: testId(7),
    quantity: 'dc-voltage',
    read: readValueOf(volts, 'V', 1),
    at: new Date(OPENED + after).toISOString(),
    receivedAt: new Date(OPENED + after).toISOString(),
  },
})
const figure = (): string => (find('#slot-voltage') as HTMLInputElement).value

describe('a figure that comes when somebody has gone on to the next string', () => {
  const build = new FactsBuilder()
  const string = build.string('2')
  build.polarity(string)
  const keep = vi.fn(async (_body: Body<'reading'>) => true)
  const bench = (latest: Partial<Record<'dc-voltage', Heard>>) => (
    <TestBench
      facts={build.facts()}
      stepKey={stepKey('pv-voc', string)}
      actions={{ ...noActions, keep }}
      latest={latest}
      opened={OPENED}
    />
  )

  it('is not taken for this one, unless somebody says that it belongs here', async () => {
    await draw(bench({}))
    await draw(bench(shows(371.2, -400)))
    expect(figure()).toBe('')
    expect(find('[data-testid=late]').textContent).toContain('371.2')
    await press('[data-testid=late] button')
    expect(figure()).toBe('371.2')
    expect(document.querySelector('[data-testid=late]')).toBeNull()
    await press('[data-testid=tick-all]')
    await press('[data-testid=keep]')
    expect(keep.mock.calls[0]![0]).toMatchObject({ how: 'feed', slots: { voltage: { text: '371.2' } } })
  })

  it('gives way to the one that was read here', async () => {
    await draw(bench({}))
    await draw(bench(shows(371.2, -400)))
    await draw(bench(shows(374.5, 900)))
    expect(figure()).toBe('374.5')
    expect(document.querySelector('[data-testid=late]')).toBeNull()
  })
})
