// @vitest-environment jsdom
import { act } from 'react'
import { describe, expect, it, vi } from 'vitest'
import { stepKey } from '@/core/evaluate'
import type { Instrument } from '@/core/record/instrument'
import { FactsBuilder, testId } from '@/core/testing/factsBuilder'
import { inDom } from '../testing/inDom'
import { noActions } from '../testing/noActions'
import { TestBench } from '../testing/TestBench'

const { draw } = inDom()
const key = (name: string): Promise<boolean> =>
  act(async () => window.dispatchEvent(new KeyboardEvent('keydown', { key: name, bubbles: true, cancelable: true })))
const tester: Instrument = {
  id: testId(7),
  tag: '07',
  name: 'Tester',
  serial: '',
  calibrationDue: null,
  standIn: true,
  ranges: [{ measures: 'dc-voltage', accuracy: { ofReading_pct: 1, digits: 1 }, most: 1000, decimals: 1 }],
  leadSets: [],
}

/** Ticks what is to be minded and presses the simulated tester, all by key. @returns how often it was pressed */
async function pressedByKey(isolated: boolean): Promise<number> {
  const build = new FactsBuilder(isolated)
  const string = build.string('1')
  const facts = build.facts({ instruments: [tester] })
  const press = vi.fn(noActions.press)
  const voltage = stepKey('pv-voc', string)
  await draw(
    <TestBench
      facts={facts}
      stepKey={voltage}
      actions={{ ...noActions, press }}
      conditions={null}
      instrumentId={tester.id}
    />,
  )
  for (const name of ['y', 'p', 'Enter']) await key(name)
  return press.mock.calls.length
}

describe('the key that presses a simulated tester', () => {
  it('reads on an isolated site, and nothing behind a hard gate that is shut', async () => {
    expect(await pressedByKey(true)).toBeGreaterThan(0)
    expect(await pressedByKey(false)).toBe(0)
  })
})
