import { describe, expect, it } from 'vitest'
import type { CircuitData, RcdData } from '../../plant/part'
import { Installation } from '../../testing/installation'

function kind(rcd: Partial<RcdData>, circuit: Partial<CircuitData> = {}, isInverter = false) {
  const site = new Installation({ rcd, circuit })
  if (isInverter) site.build.part({ kind: 'inverter', tag: 'INV', maxInput_V: 1000, circuitId: site.circuit })
  const { verdict, code } = site.says('rcd-kind', site.rcd!)
  return [verdict, code]
}

describe('a residual current device against what it feeds', () => {
  // BS 7671 531.3.3 (from memory): type AC only for fixed equipment whose current holds nothing direct.
  it.each([
    ['A', true, 'within', 'rcd-kind.type-suits'],
    ['AC', true, 'outside', 'rcd-kind.ac-sockets'],
    ['AC', false, 'close', 'rcd-kind.ac-fixed'],
  ] as const)('of type %s with sockets %s is %s', (type, sockets, verdict, code) => {
    expect(kind({ type }, { sockets })).toEqual([verdict, code])
  })

  it.each([
    ['B', 'both-ways', 'within', 'rcd-kind.inverter-b'],
    ['A', 'both-ways', 'close', 'rcd-kind.inverter-a'],
    ['AC', 'both-ways', 'outside', 'rcd-kind.inverter-ac'],
    ['B', 'one-way', 'outside', 'rcd-kind.direction-one-way'],
    ['B', null, 'not-yet', 'rcd-kind.direction-unknown'],
  ] as const)('ahead of an inverter, of type %s and %s, is %s', (type, direction, verdict, code) => {
    expect(kind({ type, direction }, { sockets: false }, true)).toEqual([verdict, code])
  })

  it('that is made for one way is no matter where nothing feeds back', () => {
    expect(kind({ type: 'A', direction: 'one-way' })[0]).toBe('within')
  })

  it('without a circuit is held against nothing', () => {
    const site = new Installation({ rcd: {} })
    const lone = site.build.part({ ...site.says('rcd-kind', site.rcd!).one.part.data, tag: 'R9' } as RcdData)
    expect(site.says('rcd-kind', lone)).toMatchObject({ verdict: 'not-yet', code: 'rcd-kind.nothing' })
  })
})
