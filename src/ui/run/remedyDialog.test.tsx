// @vitest-environment jsdom
import { describe, expect, it, vi } from 'vitest'
import { evaluate, stepKey } from '@/core/evaluate'
import { exampleSite } from '@/core/steps/worked'
import { FactsBuilder, START_ms } from '@/core/testing/factsBuilder'
import { inDom } from '../testing/inDom'
import { RemedyDialog } from './RemedyDialog'

const { draw, press, type } = inDom()
const asked = (): string[] =>
  [...document.querySelectorAll<HTMLInputElement>('.ticks input')].map(
    (one) => `${one.checked ? 'again' : 'stays'} ${one.closest('label')!.textContent}`,
  )

describe('putting something right', () => {
  it('asks again only for what the step says it may have changed', async () => {
    const build = new FactsBuilder()
    const string = build.string('1')
    build.polarity(string)
    build.voltage(string, 330)
    build.current(string, 6.6)
    const evaluation = evaluate(build.facts(), START_ms)
    const keep = vi.fn()
    const one = evaluation.byKey.get(stepKey('pv-voc', string))!
    await draw(<RemedyDialog evaluation={evaluation} one={one} onClose={vi.fn()} onKeep={keep} />)
    expect(asked()).toEqual([expect.stringMatching(/^again .*Polarity/), expect.stringMatching(/^again .*[Cc]urrent/)])
    await type('textarea', 'two modules put back')
    await press('button[type=submit]')
    expect(keep).toHaveBeenCalledWith('two modules put back', ['pv-voc', 'pv-polarity', 'pv-isc'])
  })

  it('of a label leaves lead null, isolation and the rest as they are', async () => {
    const build = new FactsBuilder()
    build.string('1')
    const site = build.part(exampleSite)
    build.reading('lead-null', site, { slots: { 'lead-set': { choice: 'A' } } })
    build.reading('inspection', site, { slots: { labels: { choice: 'not-as-it-should', note: 'no label' } } })
    const evaluation = evaluate(build.facts(), START_ms)
    const one = evaluation.byKey.get(stepKey('inspection', site))!
    const keep = vi.fn()
    await draw(<RemedyDialog evaluation={evaluation} one={one} onClose={vi.fn()} onKeep={keep} />)
    expect(asked().length).toBeGreaterThan(1)
    expect(asked().filter((text) => text.startsWith('again'))).toEqual([])
    await type('textarea', 'label put on')
    await press('button[type=submit]')
    expect(keep).toHaveBeenCalledWith('label put on', ['inspection'])
  })
})
