// @vitest-environment jsdom
import { act } from 'react'
import { describe, expect, it, vi } from 'vitest'
import { evaluate, stepKey } from '@/core/evaluate'
import type { Instrument } from '@/core/record/instrument'
import { FactsBuilder, START_ms, testId } from '@/core/testing/factsBuilder'
import { inDom } from '../testing/inDom'
import { noActions } from '../testing/noActions'
import { noDrafts } from '../testing/noDrafts'
import { Bench } from './Bench'

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
  const evaluation = evaluate(facts, START_ms)
  const one = evaluation.byKey.get(stepKey('pv-voc', string))!
  const press = vi.fn(noActions.press)
  await draw(
    <Bench
      facts={facts}
      evaluation={evaluation}
      one={one}
      stepNumber="step"
      canWrite
      conditions={null}
      without={null}
      latest={{}}
      watched={[]}
      opened={0}
      instrumentId={tester.id}
      setInstrument={() => undefined}
      actions={{ ...noActions, press }}
      drafts={noDrafts}
      onLook={() => undefined}
      side={null}
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
