// @vitest-environment jsdom
import { describe, expect, it } from 'vitest'
import { evaluate, stepKey } from '@/core/evaluate'
import type { Facts } from '@/core/record/facts'
import { exampleElectrode } from '@/core/steps/worked'
import { FactsBuilder, START_ms, testId, VISIT } from '@/core/testing/factsBuilder'
import type { JobStore } from '../device/jobStore'
import { inDom } from '../testing/inDom'
import { Photos } from './Photos'

const { draw } = inDom()
const LATER = testId(0xc2)
const store = { jobId: testId(0xb1) } as JobStore

async function shows(step: string, photos: readonly { visitId: string; caption: string }[]): Promise<string> {
  const build = new FactsBuilder()
  const electrode = build.part(exampleElectrode)
  for (const [k, { visitId, caption }] of photos.entries()) {
    const deviceTime = new Date(
      (visitId === VISIT ? START_ms : START_ms + 400 * 86_400_000) + 60_000 * (k + 1),
    ).toISOString()
    build.add(
      { kind: 'photo', v: 1, attachment: testId(0x500 + k), sha256: String(k).repeat(64), caption, takenAt: null },
      { step, partId: electrode, visitId, deviceTime },
    )
  }
  const visits = [
    { id: VISIT, startsAt: new Date(START_ms).toISOString(), title: '' },
    { id: LATER, startsAt: new Date(START_ms + 400 * 86_400_000).toISOString(), title: '' },
  ]
  const facts: Facts = { ...build.facts(), visits }
  const evaluation = evaluate(facts, 0)
  const one = evaluation.byKey.get(stepKey(step, electrode))!
  await draw(<Photos store={store} facts={facts} evaluation={evaluation} one={one} canWrite={false} />)
  return document.body.textContent!
}

describe('photos of a test that is compared with the last visit', () => {
  it('of the visit before say their day, and ask for the same set-up and place', async () => {
    const text = await shows('electrode', [{ visitId: VISIT, caption: 'spikes to the gate' }])
    expect(text).toContain('as in the photo of 14 May 2026')
    expect(text).toContain('spikes to the gate 14 May 2026')
  })

  it('stand beside those of today, which have the time; then nothing is asked', async () => {
    const text = await shows('electrode', [
      { visitId: VISIT, caption: 'then' },
      { visitId: LATER, caption: 'now' },
    ])
    expect(text).not.toContain('Set it up as in')
    expect(text).toMatch(/then 14 May 2026/)
    expect(text).toMatch(/now \d\d:\d\d/)
  })

  it('of today alone ask nothing', async () => {
    expect(await shows('electrode', [{ visitId: LATER, caption: 'now' }])).not.toContain('Set it up as in')
  })
})
