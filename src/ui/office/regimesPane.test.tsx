// @vitest-environment jsdom
import '@/words/office'
import { describe, expect, it, vi } from 'vitest'
import { defaultRegime } from '@/core/regime/shipped'
import { inDom } from '../testing/inDom'
import { RegimesPane } from './RegimesPane'

const { draw, find } = inDom()

/** The office’s answer with one regime, drawn. */
async function shown(regime: typeof defaultRegime): Promise<void> {
  vi.stubGlobal('fetch', async () => Response.json({ regimes: [regime] }))
  await draw(<RegimesPane mayChange={false} />)
  await draw(<RegimesPane mayChange={false} />)
}

describe('the figures of a regime', () => {
  it('that lacks some say which', async () => {
    const { 'close.insulation': _, 'ac.joint': __, ...limits } = defaultRegime.limits
    await shown({ ...defaultRegime, limits: limits as typeof defaultRegime.limits })
    const said = find('[data-testid=regime-lacks], .ant-alert').textContent
    expect(said).toMatch(/[Ii]nsulation/)
    expect(said).toMatch(/joint/)
  })

  it('that has all of them says nothing', async () => {
    await shown(defaultRegime)
    expect(document.body.textContent).toContain(defaultRegime.name)
    expect(document.querySelector('.ant-alert')).toBeNull()
  })
})
