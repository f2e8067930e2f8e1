// @vitest-environment jsdom
import { describe, expect, it, vi } from 'vitest'
import type { Question } from '@/core/evaluation/questions'
import { FactsBuilder, people, START_ms, testId } from '@/core/testing/factsBuilder'
import { inDom } from '../testing/inDom'
import { AskedBack } from './AskedBack'

const { draw, press, type, find } = inDom()
const about = { partId: testId(1), step: 'pv-voc' }
const open: Question = {
  ...about,
  entryId: testId(2),
  text: 'At the plugs?',
  personId: people.ada,
  at: START_ms,
  answer: null,
}
const answered: Question = { ...open, answer: { text: 'At the switch.', personId: people.wren, at: START_ms } }
const store = () => ({ add: vi.fn(async () => true), officeTime: () => START_ms })
const facts = new FactsBuilder().facts()

describe('a test that was sent back', () => {
  it('shows the question at the test, and keeps the answer with it', async () => {
    const kept = store()
    await draw(<AskedBack questions={[open]} facts={facts} store={kept} canWrite about={about} mayAsk={null} />)
    expect(find('[data-testid=asked]').textContent).toMatch(/Ada asks .*At the plugs\?/)
    expect(document.querySelector('[data-testid=ask-back]')).toBeNull()
    await press('[data-testid=answer]')
    await vi.waitFor(() => find('[role=dialog] textarea'))
    await type('[role=dialog] textarea', 'At the switch.')
    await press('[role=dialog] button[type=submit]')
    expect(kept.add).toHaveBeenCalledWith(
      { kind: 'answer', v: 1, question: open.entryId, text: 'At the switch.' },
      about,
    )
  })

  it('is answered once, and whoever checks may ask again', async () => {
    const kept = store()
    await draw(<AskedBack questions={[answered]} facts={facts} store={kept} canWrite about={about} mayAsk="Voltage" />)
    expect(find('[data-testid=asked]').textContent).toContain('Wren answered: At the switch.')
    expect(document.querySelector('[data-testid=answer]')).toBeNull()
    await press('[data-testid=ask-back]')
    await vi.waitFor(() => find('[role=dialog] textarea'))
    await type('[role=dialog] textarea', 'Then read it at the plugs.')
    await press('[role=dialog] button[type=submit]')
    expect(kept.add).toHaveBeenCalledWith({ kind: 'question', v: 1, text: 'Then read it at the plugs.' }, about)
  })
})
