// @vitest-environment jsdom
import { describe, expect, it, vi } from 'vitest'
import type { Found } from '@/core/evaluation/found'
import { START_ms, people, testId } from '@/core/testing/factsBuilder'
import '@/words/everyTest'
import { inDom } from '../testing/inDom'
import { FoundHere } from './FoundHere'

const { draw, press, find } = inDom()
const about = { step: 'ac-inspection', partId: testId(1) }
const line: Found = {
  ...about,
  id: `${testId(2)}:look-chart`,
  target: testId(2),
  line: 'look-chart',
  text: 'none at the board',
  finding: null,
  closed: false,
  as: null,
  said: null,
  least: null,
}
const said = (one: Found, as: NonNullable<Found['as']>, counts = as): Found => ({
  ...one,
  as: counts,
  said: { as, personId: people.wren, at: START_ms },
})
const store = () => ({ add: vi.fn(async () => true) })

describe('what a periodic inspection found, at its test', () => {
  it('is classed by one press, which is kept about the same line of the same reading', async () => {
    const kept = store()
    await draw(<FoundHere found={[line]} store={kept} canWrite marked whereOf={null} />)
    expect(find('[data-testid=found]').textContent).toContain('none at the board')
    expect(document.querySelector('input:checked')).toBeNull()
    await press('[data-class=improve]')
    expect(kept.add).toHaveBeenCalledWith(
      { kind: 'class', v: 1, target: testId(2), line: 'look-chart', as: 'improve' },
      about,
    )
  })

  it('says what to do at once where it is dangerous, and why a class counts as a graver one', async () => {
    await draw(<FoundHere found={[said(line, 'danger')]} store={store()} canWrite marked={false} whereOf={null} />)
    expect(find('[role=alert]').textContent).toContain('Somebody could be hurt now')
    expect(document.body.textContent).not.toContain('C1')
    await draw(
      <FoundHere found={[said(line, 'improve', 'look-further')]} store={store()} canWrite marked whereOf={null} />,
    )
    expect(find('[role=status]').textContent).toContain('never only to be improved')
  })

  it('is shown to whoever may only look, and cannot be changed by them', async () => {
    const kept = store()
    await draw(<FoundHere found={[said(line, 'improve')]} store={kept} canWrite={false} marked whereOf={null} />)
    expect(document.querySelectorAll('input:disabled')).toHaveLength(4)
  })
})
