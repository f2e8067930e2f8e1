// @vitest-environment jsdom
import { describe, expect, it, vi } from 'vitest'
import { evaluate } from '@/core/evaluate'
import type { EntryBody } from '@/core/record/entry'
import { FactsBuilder, START_ms, testId } from '@/core/testing/factsBuilder'
import { certificateOf } from '@/report/certificate'
import type { JobStore } from '../device/jobStore'
import { inDom } from '../testing/inDom'
import { SignDialog } from './SignDialog'

const { draw, find, press, type } = inDom()

describe('signing', () => {
  const build = new FactsBuilder()
  build.polarity(build.string('1'), 'reversed')
  const facts = build.facts()
  const evaluation = evaluate(facts, START_ms)
  const add = vi.fn(async (_body: EntryBody) => true)
  const store = { me: { id: testId(1), name: 'Wren Ash' }, add, jobId: facts.job.id } as unknown as JobStore
  const role = 'tested'
  const dialog = (
    <SignDialog
      role={role}
      name="Wren Ash"
      facts={facts}
      evaluation={evaluation}
      store={store}
      onClose={() => undefined}
    />
  )
  const submit = '[role=dialog] button[type=submit]'
  const said = (): string => document.querySelector('[role=dialog] .said.bad')?.textContent ?? ''

  it('wants words of what is grave and a look at the rest, and keeps them with the signature', async () => {
    await draw(dialog)
    await type('[data-testid=sign-name]', 'Wren Ash')
    await press(submit)
    expect(said()).toContain('say in a few words')
    expect(add).not.toHaveBeenCalled()
    const items = [...document.querySelectorAll<HTMLElement>('[data-review]')].map((one) => one.dataset.review!)
    expect(items[0]).toBe('outside:pv-polarity')
    for (const id of items) {
      const row = `[data-review="${id}"]`
      if (document.querySelector(`${row} input[type=checkbox]`)) await press(`${row} input[type=checkbox]`)
      else await type(`${row} input`, 'turned round on Monday')
    }
    await press(submit)
    expect(add).toHaveBeenCalledTimes(1)
    const body = add.mock.calls[0]![0] as Extract<EntryBody, { kind: 'signature' }>
    expect(body.review!.map(({ of }) => of)).toEqual(items)
    expect(body.review![0]!.text).toBe('turned round on Monday')
  })

  it('leads to what it speaks of', async () => {
    await draw(dialog)
    const link = find<HTMLAnchorElement>('[data-review="outside:pv-polarity"] a')
    expect(link.getAttribute('href')).toContain(`/run/pv-polarity/`)
  })

  it('is printed with the words, as long as the matter is one', () => {
    const own = new FactsBuilder()
    const id = own.string('1')
    own.polarity(id, 'reversed')
    const signed = {
      kind: 'signature' as const,
      v: 1 as const,
      role: 'tested' as const,
      printedName: 'Wren Ash',
      statement: 'so it was',
      coversHash: '0'.repeat(64),
      review: [{ of: 'outside:pv-polarity', text: 'turned round on Monday' }],
    }
    own.add(signed)
    const remarks = (): string => certificateOf(own.facts(), START_ms, null).remarks.join('\n')
    expect(remarks()).toContain('“turned round on Monday” (Wren Ash, on signing)')
    own.polarity(id)
    own.add({
      kind: 'choice',
      v: 1,
      target: own.entries.findLast(({ body }) => body.kind === 'reading')!.id,
      reason: null,
    })
    expect(remarks().includes('on signing')).toBe(
      evaluate(own.facts(), START_ms).byKey.get(`pv-polarity:${id}`)!.verdict === 'outside',
    )
  })
})
