import { describe, expect, it } from 'vitest'
import { checkBody, evaluate } from '../evaluate'
import { readStepById } from '../steps'
import { exampleBoard, exampleCircuit } from '../steps/worked'
import { readingBody } from '../testing/factsBuilder'
import { choose, Installation, read } from '../testing/installation'
import { Lookup } from './lookup'

/** A circuit of which Ze 0.2 and R1+R2 0.4 were read: 0.6 ohm is expected at its end. */
function summed(): Installation {
  const site = new Installation({ rcd: null })
  site.take('ze', site.supply, { ze: read(0.2) })
  return site.take('r1r2', site.circuit, { r1r2: read(0.4) })
}
const zs = readStepById('zs')!
const loopOf = (value: number) => readingBody({ slots: { 'loop-method': choose('non-trip'), zs: read(value) } })

/** What a door and an evaluation of the whole say of one loop. */
function bothSay(lookup: Lookup, circuit: string, value: number) {
  const body = loopOf(value)
  const part = lookup.parts.get(circuit)!
  const atDoor = lookup.check(zs, part, body)
  expect(atDoor).toEqual(checkBody(evaluate(lookup.facts, 0), { step: zs, part }, body))
  return atDoor.check
}

describe('a reading at the door', () => {
  it('is held against what was read of other tests, as on the bench', () => {
    const site = summed()
    expect(bothSay(Lookup.of(site.facts), site.circuit, 6)).toMatchObject({ state: 'ask', code: 'slip-up' })
    expect(bothSay(Lookup.of(site.facts), site.circuit, 0.62)).toMatchObject({ state: 'fine' })
  })

  it('is held against what came a moment ago, and against what that mended', () => {
    const site = summed()
    const lookup = Lookup.of({ ...site.facts, entries: site.build.entries.slice(0, -1) })
    const with04 = lookup.with(site.build.entries.slice(-1))
    expect(bothSay(with04, site.circuit, 6)).toMatchObject({ code: 'slip-up' })
    // Read again, ten times higher: now 6 ohm is what its parts come to.
    site.take('r1r2', site.circuit, { r1r2: read(5.8) })
    const again = with04.with(site.build.entries.slice(-1))
    expect(bothSay(again, site.circuit, 6)).toMatchObject({ state: 'fine' })
    const id = site.build.entries.at(-1)!.id
    site.build.add({ kind: 'void', v: 1, target: id, reason: 'a slip' })
    expect(bothSay(again.with(site.build.entries.slice(-1)), site.circuit, 6)).toMatchObject({ code: 'slip-up' })
  })

  it('knows a part that was entered a moment ago', () => {
    const site = summed()
    const lookup = Lookup.of(site.facts)
    const board = site.build.part({ ...exampleBoard, tag: 'DB2' })
    const circuit = site.build.part({ ...exampleCircuit, tag: '9', boardId: board, rcdId: null })
    const next = lookup.with(site.build.entries.slice(-2))
    expect(next.parts.get(circuit)!.data.tag).toBe('9')
    expect(bothSay(next, circuit, 0.62).state).toBe('fine')
  })

  it('that came late is looked at with the later one', () => {
    const site = summed()
    const late = { ...site.build.entries.at(-1)!, id: site.supply }
    site.take('r1r2', site.circuit, { r1r2: read(5.8) })
    const lookup = Lookup.of(site.facts).with([{ ...late, body: { ...late.body } } as never])
    expect(bothSay(lookup, site.circuit, 6).state).toBe('fine')
  })
})
