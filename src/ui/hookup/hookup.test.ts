import { describe, expect, it } from 'vitest'
import { steps } from '@/core/steps'
import { acDrawings } from './acDrawings'
import { addDrawings, drawings } from './drawings'
import { rcdDrawings } from './rcdDrawings'

addDrawings(acDrawings)
addDrawings(rcdDrawings)

const drawingNames = Object.keys(drawings)

describe('hook-up drawings', () => {
  it.each(steps)('of $id is there, with a balloon for each of its slots', (step) => {
    expect(drawingNames).toContain(step.hookup.drawing)
    const balloons = step.hookup.leads.map((lead: { balloon: number }) => lead.balloon)
    for (const slot of step.slots) expect(balloons).toContain(slot.balloon)
    expect(new Set(balloons).size).toBe(balloons.length)
  })

  it('are each step’s own', () => {
    const names = steps.map((step) => step.hookup.drawing)
    expect(new Set(names).size).toBe(names.length)
  })

  it('are each used by a step', () => {
    const used = new Set(steps.map((step) => step.hookup.drawing))
    expect([...drawingNames].sort()).toEqual([...used].sort())
  })
})
