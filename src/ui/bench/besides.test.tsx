// @vitest-environment jsdom
import { beforeAll, describe, expect, it, vi } from 'vitest'
import { stepKey } from '@/core/evaluate'
import { readValueOf } from '@/core/quantity/readValue'
import type { Body } from '@/core/record/entry'
import { feedUnits, shownKey } from '@/core/record/feed'
import type { Measurable } from '@/core/record/instrument'
import { START_ms, testId } from '@/core/testing/factsBuilder'
import { choose, Installation, read } from '@/core/testing/installation'
import '@/words/everyTest'
import type { Heard, Latest } from '../live/liveFeed'
import { inDom } from '../testing/inDom'
import { noActions } from '../testing/noActions'
import { TestBench } from '../testing/TestBench'

const { draw, find, press } = inDom()
const OPENED = START_ms + 60_000

/** What one press of a tester shows, heard so long after the step was opened, ms. */
function shows(after: number, figures: readonly [Measurable, string | undefined, number][]): Latest {
  const at = new Date(OPENED + after).toISOString()
  const samples = figures.map(([quantity, pair, value]): Heard => {
    const shown = readValueOf(value, feedUnits[quantity], quantity === 'loop-impedance' ? 2 : 0)
    return { instrumentId: testId(7), quantity, read: shown, at, receivedAt: at, ...(pair ? { pair } : {}) }
  })
  return Object.fromEntries(samples.map((sample) => [shownKey(sample), sample]))
}
const PRESS: Parameters<typeof shows>[1] = [
  ['loop-impedance', undefined, 0.72],
  ['loop-impedance', 'L-N', 0.58],
  ['loop-impedance', 'N-PE', 0.66],
  ['ac-voltage', 'L-PE', 231],
  ['fault-current', 'L-PE', 319],
]
const figure = (slot: string): string => (find(`#slot-${slot}`) as HTMLInputElement).value

// It comes with the first press that shows more; here it is there before.
beforeAll(() => import('./Besides'))

describe('one press of a loop tester that shows several figures', () => {
  const site = new Installation()
  site.take('ze', site.supply, { 'earthing-conductor': choose('earth-off'), ze: read(0.3) })
  site.take('prove-dead', site.supply, {}).take('r1r2', site.circuit, { r1r2: read(0.5) })
  site.take('ac-polarity', site.circuit, {}).take('earth-back', site.supply, {})
  site.take('ac-insulation', site.circuit, {
    pairing: choose('all-joined'),
    electronics: choose('electronics-in'),
    'joined-to-pe': read(300, 'Mohm', 0),
  })
  const keep = vi.fn(async (_body: Body<'reading'>) => true)
  const bench = (step: string, part: string, latest: Latest) => (
    <TestBench
      facts={site.facts}
      stepKey={stepKey(step, part)}
      actions={{ ...noActions, keep }}
      latest={latest}
      opened={OPENED}
    />
  )

  it('keeps all of them, each under its own conductors', async () => {
    await draw(bench('zs', site.circuit, {}))
    await press('button.choice')
    await press('input[type=checkbox]')
    await draw(bench('zs', site.circuit, shows(900, PRESS)))
    expect(figure('zs')).toBe('0.72')
    expect(find('[data-testid=besides]').textContent).toContain('Loop L-N 0.58')
    await press('[data-testid=keep]')
    const { slots } = keep.mock.calls[0]![0]
    expect(
      Object.fromEntries(Object.entries(slots).map(([id, value]) => [id, 'text' in value ? value.text : ''])),
    ).toEqual({
      'loop-method': '',
      zs: '0.72',
      'loop-l-n': '0.58',
      'loop-n-pe': '0.66',
      'volts-l-pe': '231',
      'pefc-besides': '319',
    })
  })

  it('of an earlier place is offered whole', async () => {
    await draw(bench('zs', site.circuit, {}))
    await press('button.choice')
    await draw(bench('zs', site.circuit, shows(-400, PRESS)))
    expect(figure('zs')).toBe('')
    expect(find('[data-testid=late]').textContent).toContain('0.72')
    await press('[data-testid=late] button')
    expect(figure('zs')).toBe('0.72')
    expect(find('[data-testid=besides]').textContent).toContain('Volts L-PE 231')
  })

  it('finds each line’s own place where there are three', async () => {
    const three = new Installation({ supply: { phases: 3 } })
    three.take('prove-dead', three.supply, {})
    const benchOf = (latest: Latest) => (
      <TestBench facts={three.facts} stepKey={stepKey('ze', three.supply)} latest={latest} opened={OPENED} />
    )
    await draw(benchOf({}))
    await draw(benchOf(shows(900, [['loop-impedance', 'L3-PE', 0.31]])))
    expect([figure('ze-l1'), figure('ze-l3')]).toEqual(['', '0.31'])
    await draw(benchOf(shows(1900, [['loop-impedance', undefined, 0.29]])))
    expect([figure('ze-l1'), figure('ze-l3')]).toEqual(['0.29', '0.31'])
  })

  it('does not put the loop of two other conductors into a test that asks for line and earth', async () => {
    const fresh = new Installation()
    fresh.take('prove-dead', fresh.supply, {})
    const benchOf = (latest: Latest) => (
      <TestBench facts={fresh.facts} stepKey={stepKey('ze', fresh.supply)} latest={latest} opened={OPENED} />
    )
    await draw(benchOf({}))
    await draw(benchOf(shows(900, [['loop-impedance', 'N-PE', 0.66]])))
    expect(figure('ze')).toBe('')
    await draw(benchOf(shows(1900, [['loop-impedance', 'L-PE', 0.31]])))
    expect(figure('ze')).toBe('0.31')
  })
})
