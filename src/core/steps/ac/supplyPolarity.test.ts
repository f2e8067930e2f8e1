import { describe, expect, it } from 'vitest'
import type { SlotValue } from '../../record/entry'
import { choose, Installation, read } from '../../testing/installation'

const volts = (pairs: Record<string, number>): Record<string, SlotValue> =>
  Object.fromEntries(Object.entries(pairs).map(([pair, value]) => [`in-${pair}`, read(value, 'V', 0)]))
const three = (line: number, neutral = 1) =>
  volts({
    ...Object.fromEntries(['l1', 'l2', 'l3'].flatMap((l) => [[`${l}-n`, line] as const, [`${l}-pe`, line] as const])),
    'n-pe': neutral,
  })

describe('polarity and sequence of a supply', () => {
  it.each([
    ['sound', { 'l-n': 231, 'l-pe': 230, 'n-pe': 1 }, 'within', 'supply-neutral.within'],
    ['line and neutral changed over', { 'l-n': 231, 'l-pe': 1, 'n-pe': 230 }, 'outside', 'supply-neutral.outside'],
    ['an open neutral', { 'l-n': 40, 'l-pe': 230, 'n-pe': 2 }, 'outside', 'supply-polarity.outside'],
    ['a low network', { 'l-n': 200, 'l-pe': 200, 'n-pe': 2 }, 'outside', 'supply-polarity.outside'],
  ])('with %s', (_, pairs, verdict, code) => {
    const site = new Installation({ supply: { phases: 1 } })
    expect(site.take('supply-polarity', site.supply, volts(pairs)).says('supply-polarity', site.supply)).toMatchObject({
      verdict,
      code,
    })
  })

  it('that is off proves nothing', () => {
    const site = new Installation({ supply: { phases: 1 } })
    const off = volts({ 'l-n': 0, 'l-pe': 0, 'n-pe': 0 })
    expect(site.trap('supply-polarity', site.supply, off)).toMatchObject({ code: 'supply-polarity.off' })
    expect(site.take('supply-polarity', site.supply, off).says('supply-polarity', site.supply).verdict).toBe('not-yet')
  })

  it.each([
    ['rotation-right', 'within'],
    ['rotation-left', 'outside'],
  ])('of three lines that show %s is %s', (rotation, verdict) => {
    const site = new Installation({ supply: { phases: 3 } })
    site.take('supply-polarity', site.supply, { ...three(231), 'supply-rotation': choose(rotation) })
    expect(site.says('supply-polarity', site.supply).verdict).toBe(verdict)
  })

  it('of three lines is not finished without the sequence', () => {
    const site = new Installation({ supply: { phases: 3 } })
    site.build.reading('supply-polarity', site.supply, { slots: three(231) })
    expect(site.says('supply-polarity', site.supply)).toMatchObject({ verdict: 'not-yet', code: 'incomplete' })
  })

  it('at a board waits for all that its live tests wait for, and names what may be wrong', () => {
    const site = new Installation({ supply: { phases: 1 } })
    const shut = site.says('board-polarity', site.board).one.gates.filter((one) => !one.met && one.hard)
    expect(shut.map(({ id }) => id)).toEqual(expect.arrayContaining(['earth-back', 'protective-proved', 'ac-polarity']))
    site.take('board-polarity', site.board, volts({ 'l-n': 231, 'l-pe': 1, 'n-pe': 230 }))
    expect(site.says('board-polarity', site.board).verdict).toBe('outside')
  })
})
