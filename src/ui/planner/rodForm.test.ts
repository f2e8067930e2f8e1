import { describe, expect, it } from 'vitest'
import { exampleElectrode } from '@/core/steps/worked'
import { fieldsAsked, type Planned, readPlan, startTexts } from './rodForm'

const start = startTexts(exampleElectrode, 33.493, 100)
const planned = (more: Partial<typeof start> = {}): Planned => readPlan({ ...start, ...more }) as Planned

describe('the rod planner', () => {
  it('begins with the electrode’s own measures, and the soil that its reading tells', () => {
    expect(start).toMatchObject({ form: 'rods', length: '3', diameter: '16', target: '100', resistivity: '100' })
    expect(startTexts({ ...exampleElectrode, length_m: null, diameter_mm: null }, null, null)).toMatchObject({
      length: '2.4',
      diameter: '16',
      resistivity: '100',
    })
  })

  it('asks by kind and by what is known of the soil', () => {
    expect(fieldsAsked({ form: 'rods', soil: 'given' })).toEqual([
      'resistivity',
      'length',
      'diameter',
      'spacing',
      'target',
    ])
    expect(fieldsAsked({ form: 'disc', soil: 'wenner' })).toEqual([
      'apart',
      'read',
      'depth',
      'diameter',
      'spacing',
      'target',
    ])
  })

  it('takes decimal commas, and plans', () => {
    // Dwight (from memory): a rod of 3 m in 100 ohm m has 33.5 ohm.
    expect(planned({ length: '3,0' }).plan.rows[0]!.combined_ohm).toBeCloseTo(33.49, 1)
    expect(planned({ target: '20' }).plan.needed).toBe(2)
    expect(planned({ soil: 'wenner', apart: '3', read: '5,3052' }).plan.resistivity_ohm_m).toBeCloseTo(100, 1)
  })

  it.each([
    [{ target: '' }, 'Target'],
    [{ target: '-3' }, '“-3” is not a figure'],
    [{ resistivity: 'clay' }, '“clay” is not a figure'],
    [{ length: '0.1', diameter: '2900' }, 'longer than it is thick'],
  ])('refuses %j in one sentence', (more, words) => {
    expect(readPlan({ ...start, ...more })).toMatchObject({ message: expect.stringContaining(words) })
  })
})
