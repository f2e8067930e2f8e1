import { describe, expect, it } from 'vitest'
import { evaluate } from '../evaluate'
import { readStepById } from '../steps'
import { slotsAsked } from '../steps/slot'
import { exampleSite } from '../steps/worked'
import { choose, Installation, read } from '../testing/installation'
import { isOffered, isOnlyOffered } from './hunts'
import { summaryOf } from './summary'

/** A board with one ring, looked at again; its site says what kind of work it is. */
function ring(work: 'new' | 'periodic' | 'alteration' | null) {
  const site = new Installation({ circuit: { layout: 'ring', rating_A: 32, length_m: 50 } })
  site.build.part({ ...exampleSite, work })
  return site
}
const ends = { 'ring-r1': read(0.37, 'ohm', 2), 'ring-rn': read(0.37, 'ohm', 2), 'ring-r2': read(0.6, 'ohm', 2) }

describe('a test of new work', () => {
  it.each(['new', 'alteration', null] as const)('is asked where the work is %s', (work) => {
    const { one } = ring(work).says('ring-ends', ring(work).circuit)
    expect(one.verdict).not.toBe('left-out')
    expect(isOnlyOffered(one)).toBe(false)
  })

  it('is offered in a periodic inspection, is no part of the record, and holds nothing up', () => {
    const site = ring('periodic')
    const { one } = site.says('ring-ends', site.circuit)
    expect(one).toMatchObject({ verdict: 'left-out', done: true, finding: { code: 'of-new-work' } })
    expect([isOffered(one), isOnlyOffered(one)]).toEqual([true, true])
    const connected = site.says('insulation-connected', site.board).one
    expect(isOnlyOffered(connected)).toBe(true)
    const [asNew, again] = [ring('new'), site].map(({ facts }) => summaryOf(evaluate(facts, 0)).asked)
    expect(asNew! - again!).toBe(2)
  })

  it('that is taken all the same is judged as ever', () => {
    const site = ring('periodic')
    site.take('ring-ends', site.circuit, { ...ends, 'ring-r2': { text: '9', value: 9, bound: 'exact', unit: 'ohm' } })
    const { one } = site.says('ring-ends', site.circuit)
    expect(one.verdict).toBe('outside')
    expect(isOnlyOffered(one)).toBe(false)
  })
})

describe('live tests on a board with a ring', () => {
  const gate = (site: Installation, id: string) => site.says('zs', site.circuit).one.gates.find((one) => one.id === id)

  it('wait for its ends in new work, whoever would leave them out', () => {
    expect(gate(ring('new'), 'ring-proved')).toMatchObject({ met: false, hard: true })
    expect(gate(ring('new'), 'ring-sound')).toBeUndefined()
  })

  it('do not wait for what a periodic inspection only offers, and stand still for a ring that was read as open', () => {
    const site = ring('periodic')
    expect(gate(site, 'ring-proved')).toBeUndefined()
    expect(gate(site, 'ring-sound')).toMatchObject({ met: true, hard: true })
    site.take('ring-ends', site.circuit, { ...ends, 'ring-r2': { text: '9', value: 9, bound: 'exact', unit: 'ohm' } })
    expect(gate(site, 'ring-sound')).toMatchObject({ met: false, hard: true })
    // What proves its protective conductor is asked as ever.
    expect(gate(site, 'protective-proved')).toMatchObject({ met: false, hard: true })
  })
})

describe('insulation of a circuit in use', () => {
  const joined = { pairing: choose('all-joined'), 'joined-to-pe': read(80, 'Mohm', 1) }

  function askedOf(work: 'new' | 'periodic'): string[] {
    const site = ring(work)
    const { evaluation, one } = site.says('ac-insulation', site.circuit)
    const asked = slotsAsked(readStepById('ac-insulation'), {
      part: one.part,
      regime: site.regime,
      plant: evaluation.plant,
    })
    return asked.map(({ id }) => id)
  }

  it('joined to earth is whole without a reading between live conductors; of new work it is not', () => {
    expect(askedOf('new')).toContain('live-to-live')
    expect(askedOf('periodic')).not.toContain('live-to-live')
    const site = ring('periodic').take('ac-insulation', ring('periodic').circuit, joined)
    expect(site.says('ac-insulation', site.circuit).verdict).toBe('within')
  })
})
