// @vitest-environment jsdom
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { evaluate, stepKey } from '@/core/evaluate'
import { FactsBuilder, START_ms, testId } from '@/core/testing/factsBuilder'
import { inDom } from '../testing/inDom'
import { noActions } from '../testing/noActions'
import { TestBench } from '../testing/TestBench'
import { emptyDraft } from './draft'
import { draftShelf } from './heldDrafts'

const { draw, find, press, type } = inDom()
const [TAM, ISOLDE, JOB, VISIT] = [testId(1), testId(2), testId(3), testId(4)]

beforeEach(() => localStorage.clear())

describe('what was begun and not kept', () => {
  const build = new FactsBuilder()
  const string = build.string('2')
  build.polarity(string)
  const keep = vi.fn(async () => true)
  const key = stepKey('pv-voc', string)
  const bench = (person = TAM, visit = VISIT) => (
    <TestBench
      key={Math.random()}
      facts={build.facts()}
      stepKey={key}
      actions={{ ...noActions, keep }}
      drafts={draftShelf(person, JOB, visit)}
    />
  )
  const figure = (): string => (find('#slot-voltage') as HTMLInputElement).value

  it('stands there again for whoever began it, and says so', async () => {
    await draw(bench())
    expect(document.querySelector('[data-testid=begun]')).toBeNull()
    await type('#slot-voltage', '371.2')
    await draw(bench())
    expect(figure()).toBe('371.2')
    expect(find('[data-testid=begun]').textContent).toMatch(/Begun at \d\d:\d\d, not kept yet/)
    expect([...draftShelf(TAM, JOB, VISIT).begun()]).toEqual([key])
  })

  it('is nobody else’s, and no other visit’s', async () => {
    await draw(bench())
    await type('#slot-voltage', '371.2')
    await draw(bench(ISOLDE))
    expect(figure()).toBe('')
    await draw(bench(TAM, testId(5)))
    expect(figure()).toBe('')
  })

  it('is gone once it is kept, or thrown away', async () => {
    await draw(bench())
    await type('#slot-voltage', '371.2')
    await press('[data-testid=tick-all]')
    await press('[data-testid=keep]')
    expect(keep).toHaveBeenCalledTimes(1)
    expect(draftShelf(TAM, JOB, VISIT).begun().size).toBe(0)
    await draw(bench())
    await type('#slot-voltage', '371.2')
    await press('[data-testid=again]')
    await draw(bench())
    expect(figure()).toBe('')
  })

  it('is of no use once the reading that it was begun over is mended', () => {
    const facts = build.facts()
    const one = { ...evaluate(facts, START_ms).byKey.get(key)!, counting: { entry: { id: testId(9) } } }
    const shelf = draftShelf(TAM, JOB, VISIT)
    shelf.put(one as never, { ...emptyDraft(null), started: true })
    expect(shelf.of(one as never)?.over).toBe(testId(9))
    expect(shelf.of({ ...one, counting: null } as never)).toBeNull()
  })

  it('stays as long as the page lives where the device stores nothing more', () => {
    const one = evaluate(build.facts(), START_ms).byKey.get(key)!
    const full = vi.spyOn(Storage.prototype, 'setItem').mockImplementation(() => {
      throw new DOMException('full', 'QuotaExceededError')
    })
    const shelf = draftShelf(TAM, JOB, VISIT)
    shelf.put(one, { ...emptyDraft(null), started: true, texts: { voltage: '371.2' } })
    full.mockRestore()
    expect(shelf.of(one)?.draft.texts).toEqual({ voltage: '371.2' })
    shelf.put(one, null)
    expect(shelf.begun().size).toBe(0)
  })
})
