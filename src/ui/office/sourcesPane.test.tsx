// @vitest-environment jsdom
import '@/words/office'
import { describe, expect, it, vi } from 'vitest'
import type { Comparison } from '@/core/regime/sources'
import { inDom } from '../testing/inDom'
import { SourcesPane } from './SourcesPane'

const { draw, find, press, type } = inDom()
const held: Comparison = {
  source: 'bs7671-zs',
  edition: '2018+A3',
  by: 'Isolde Marrow',
  at: '2026-03-07T09:00:00.000Z',
  agrees: true,
  note: '',
}
const rowOf = (text: string): HTMLElement =>
  [...document.querySelectorAll<HTMLElement>('tbody tr')].find((row) => row.textContent!.includes(text))!

/** The office's answers, drawn; what is sent is noted. */
async function shown(compared: readonly Comparison[], mayChange: boolean) {
  const sent: unknown[] = []
  vi.stubGlobal('fetch', async (_: string, init?: RequestInit) => {
    if (init?.body) sent.push(JSON.parse(String(init.body)))
    return Response.json(init?.body ? held : { compared })
  })
  await draw(<SourcesPane mayChange={mayChange} />)
  await draw(<SourcesPane mayChange={mayChange} />)
  return sent
}

describe('the sources of the office', () => {
  it('say what is taken from each, how sure that is, and who held it against its document', async () => {
    await shown([held], false)
    expect(rowOf('tables 41.2 to 41.4').textContent).toContain('2018+A3: says the same.')
    expect(rowOf('tables 41.2 to 41.4').textContent).toContain('Isolde Marrow, 7 March 2026')
    expect(rowOf('6.7, table 2').textContent).toContain('Insulation')
    expect(rowOf('6.7, table 2').textContent).toContain('from memory, not compared yet')
    expect(rowOf('IEC 60891').textContent).toContain('in doubt')
    expect(document.body.textContent).not.toContain('house rule')
    expect(document.querySelector('[data-testid^=compare-]')).toBeNull()
  })

  it('are found by a test, and compared by a supervisor, who says what differs', async () => {
    const sent = await shown([], true)
    await type('[data-testid=find-source] input, input[data-testid=find-source]', 'selectivity')
    await type('[data-testid=find-source] input, input[data-testid=find-source]', 'table 41.1')
    await press('[data-testid=compare-bs7671-disconnection]')
    const submit = '[role=dialog] button[type=submit]'
    await press(submit)
    expect(find('[role=dialog] .said.bad').textContent).toContain('which edition you hold')
    await type('[data-testid=held-edition]', '2018+A3')
    await press('[data-testid=differs]')
    await press(submit)
    expect(find('[role=dialog] .said.bad').textContent).toContain('what it says')
    await type('[role=dialog] textarea', 'TT 0.2 s')
    await press(submit)
    expect(sent).toEqual([{ source: 'bs7671-disconnection', edition: '2018+A3', agrees: false, note: 'TT 0.2 s' }])
  })
})
