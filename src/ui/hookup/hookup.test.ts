import { describe, expect, it } from 'vitest'
import { steps } from '@/core/steps'
import { isRead, slotsOf } from '@/core/steps/step'
import { acDrawings } from './acDrawings'
import { acLookDrawings } from './acLookDrawings'
import { addDrawings, drawings } from './drawings'
import { plugDrawings } from './plugDrawings'
import { faultDrawings } from './faultDrawings'
import { rcdDrawings } from './rcdDrawings'

addDrawings(acDrawings)
addDrawings(acLookDrawings)
addDrawings(rcdDrawings)
addDrawings(plugDrawings)
addDrawings(faultDrawings)

/** Lists that are looked at where another one is: they show the same place. */
const shared = new Set(['ac-proved', 'electrode-loop-back'])
const drawingNames = Object.keys(drawings)

describe('hook-up drawings', () => {
  it.each(steps)('of $id is there, with a balloon for each of its slots', (step) => {
    expect(drawingNames).toContain(step.hookup.drawing)
    const balloons = step.hookup.leads.map((lead) => lead.balloon)
    for (const slot of slotsOf(step)) expect(balloons).toContain(slot.balloon)
    expect(new Set(balloons).size).toBe(balloons.length)
  })

  it('are each step’s own', () => {
    const names = steps.filter((step) => !shared.has(step.id)).map((step) => step.hookup.drawing)
    expect(new Set(names).size).toBe(names.length)
  })

  it('are each used by a step', () => {
    const variants = steps.flatMap((step) => (isRead(step) ? (step.variants ?? []) : []))
    const used = new Set([...steps, ...variants].flatMap((one) => one.hookup?.drawing ?? []))
    expect([...drawingNames].sort()).toEqual([...used].sort())
  })
})
