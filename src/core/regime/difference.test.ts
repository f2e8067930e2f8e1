import { describe, expect, it } from 'vitest'
import { changeRegime } from './change'
import { ancestorOf, differenceOf } from './difference'
import type { Regime } from './regime'
import { defaultRegime, shippedRegimes } from './shipped'

function made(
  from: Regime,
  change: { name: string; limits?: object; schools?: object },
  known: readonly Regime[],
): Regime {
  const wish = {
    from: { id: from.id, version: from.version },
    limits: {},
    schools: {},
    reason: 'the insurer asks',
    ...change,
  }
  const result = changeRegime(known, wish, 'Isolde Marrow')
  if (result.state !== 'made') throw new Error(JSON.stringify(result))
  return result.regime
}

describe('two regimes', () => {
  const first = made(defaultRegime, { name: 'Rules of ours', limits: { 'pv.sisters': 3 } }, shippedRegimes)
  const second = made(first, { name: 'Rules of ours', schools: { 'rcd.half': 'three-hundred' } }, [
    ...shippedRegimes,
    first,
  ])
  const known = [...shippedRegimes, first, second]

  it('differ in what was changed, and in nothing else', () => {
    expect([...differenceOf(first, defaultRegime)]).toEqual(['pv.sisters'])
    expect([...differenceOf(second, first)]).toEqual(['rcd.half'])
    expect(differenceOf(first, first).size).toBe(0)
  })

  it('differ where one of them lacks a figure', () => {
    const { 'ac.joint': _, ...limits } = defaultRegime.limits
    const lacking = { ...defaultRegime, limits: limits as Regime['limits'] }
    expect([...differenceOf(lacking, defaultRegime)]).toEqual(['ac.joint'])
  })

  it('know which of them the other was made from', () => {
    expect(ancestorOf(first, known)).toBe(defaultRegime)
    expect(ancestorOf(second, known)).toBe(first)
    expect(ancestorOf(defaultRegime, known)).toBeNull()
    // By the version before, where nobody wrote down from what.
    expect(ancestorOf({ ...second, changed: null }, known)).toBe(first)
  })
})
