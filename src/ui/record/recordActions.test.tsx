// @vitest-environment jsdom
import { describe, expect, it, vi } from 'vitest'
import { inDom } from '../testing/inDom'
import { RecordActions } from './RecordActions'

const { draw, press } = inDom()

/** What was asked of the office, by its path. */
function office() {
  const asked: string[] = []
  vi.stubGlobal('fetch', async (path: string) => {
    asked.push(String(path))
    throw new TypeError('no reception in this test')
  })
  return asked
}
const store = { jobId: 'one', sync: vi.fn(async () => undefined) }
const actions = (open: number) => (
  <RecordActions store={store as never} issue={null} isSupervisor isSigned open={open} sheet={null} onSheet={null} />
)

describe('sealing', () => {
  it('asks once more where tests are outside or not finished', async () => {
    const asked = office()
    await draw(actions(2))
    await press('[data-testid=seal]')
    expect(document.body.textContent).toContain('Seal with 2 tests outside or not finished?')
    expect(asked).toEqual([])
    await press('.seal-anyway')
    await vi.waitFor(() => expect(asked).toEqual([expect.stringContaining('/api/jobs/one/seal')]))
  })

  it('asks nothing where everything is done', async () => {
    const asked = office()
    await draw(actions(0))
    await press('[data-testid=seal]')
    await vi.waitFor(() => expect(asked).toEqual([expect.stringContaining('/api/jobs/one/seal')]))
  })
})
