import { describe, expect, it } from 'vitest'
import { evaluate } from '../../evaluate'
import { choose, iec, Installation, read } from '../../testing/installation'

describe('insulation of a board with everything connected', () => {
  it.each([
    [20, 'v250', 'within'],
    [1.4, 'v250', 'close'],
    [0.7, 'v250', 'outside'],
    [20, 'v500', 'close'],
    [0.7, 'v500', 'outside'],
  ])('of %d MΩ at %s is %s', (value, set, verdict) => {
    const site = new Installation()
    site.take('insulation-connected', site.board, { 'connected-at': choose(set), connected: read(value, 'Mohm', 1) })
    expect(site.says('insulation-connected', site.board).verdict).toBe(verdict)
  })

  it('is asked by the documents that know it, and waits until the place is dead', () => {
    const site = new Installation()
    const { one } = site.says('insulation-connected', site.board)
    expect(one.gates.find(({ id }) => id === 'proved-dead')).toMatchObject({ met: false, hard: true })
    site.regime = iec
    expect(evaluate(site.facts, 0).steps.some(({ step }) => step.id === 'insulation-connected')).toBe(false)
  })
})
