import { describe, expect, it } from 'vitest'
import { linesOf } from '../../evaluate'
import type { CircuitData } from '../../plant/part'
import { Installation } from '../../testing/installation'

const site = (circuit: Partial<CircuitData>) => new Installation({ circuit })
const says = (step: string, circuit: Partial<CircuitData>) => {
  const made = site(circuit)
  const { verdict, code } = made.says(step, made.circuit)
  return [verdict, code]
}
const isAsked = (step: string, circuit: Partial<CircuitData>): boolean => {
  const made = site(circuit)
  return made.says('r1r2', made.circuit).evaluation.steps.some((one) => one.step.id === step)
}

describe('device and cable', () => {
  it('32 A before 2.5 mm² does not pass without a word, until somebody says what the cable carries', () => {
    expect(says('overload', { rating_A: 32, line_mm2: 2.5 })).toEqual(['close', 'overload.above-table'])
    expect(says('overload', { rating_A: 32, line_mm2: 2.5, cable_A: 36 })).toEqual(['within', 'overload.within'])
    expect(says('overload', { rating_A: 32, line_mm2: 2.5, cable_A: 27 })).toEqual(['outside', 'overload.outside'])
    expect(says('overload', { rating_A: 32, line_mm2: 4, cable_A: 32 })[0]).not.toBe('outside')
  })

  it('asks nothing where the device is no more than the table gives, or where nothing is known', () => {
    expect(isAsked('overload', { rating_A: 20, line_mm2: 2.5 })).toBe(false)
    expect(isAsked('overload', { rating_A: 27, line_mm2: 2.5 })).toBe(false)
    expect(isAsked('overload', { rating_A: 32, line_mm2: null })).toBe(false)
    expect(isAsked('overload', { device: null, rating_A: 32, line_mm2: 2.5 })).toBe(false)
    expect(isAsked('overload', { rating_A: 32, line_mm2: 2.5 })).toBe(true)
  })

  it('asks by how the cable lies, as the table has it: in a wall it carries less', () => {
    // BS 7671 table 4D2A (from memory): 2.5 mm² carries 18.5 A in a wall, 27 A clipped, 30 A in free air.
    const own = { rating_A: 20, line_mm2: 2.5 } as const
    expect(isAsked('overload', { ...own, method: 'A' })).toBe(true)
    expect(isAsked('overload', { ...own, method: 'C' })).toBe(false)
    expect(isAsked('overload', { rating_A: 30, line_mm2: 2.5, method: 'C' })).toBe(true)
    expect(isAsked('overload', { rating_A: 30, line_mm2: 2.5, method: 'E' })).toBe(false)
    expect(isAsked('overload', { ...own, method: 'A', cable_A: 21 })).toBe(true)
    expect(says('overload', { ...own, method: 'A', cable_A: 22 })[0]).not.toBe('outside')
  })

  it('of aluminium carries less than of copper', () => {
    expect(isAsked('overload', { rating_A: 80, line_mm2: 25, protective_mm2: 16 })).toBe(false)
    expect(isAsked('overload', { rating_A: 100, line_mm2: 25, protective_mm2: 16, metal: 'aluminium' })).toBe(true)
  })

  it('a ring of 2.5 mm² stands behind 32 A by its own rule: each leg carries 20 A', () => {
    const ring = { layout: 'ring', line_mm2: 2.5 } as const
    expect(isAsked('overload', { ...ring, rating_A: 32 })).toBe(false)
    expect(says('overload', { ...ring, rating_A: 32, cable_A: 21 })[0]).not.toBe('outside')
    expect(says('overload', { ...ring, rating_A: 32, cable_A: 18 })[0]).toBe('outside')
    expect(says('overload', { ...ring, rating_A: 40 })[0]).toBe('close')
  })
})

describe('voltage drop', () => {
  const lamp = { design_A: 6, line_mm2: 1.5, length_m: 40, lighting: true } as const

  it('is held against 3 % for lamps and 5 % for other uses, of the supply’s own voltage', () => {
    // 12.1 mΩ/m warm, there and back: 40 m under 6 A lose 6.97 V, 3.03 %.
    expect(says('voltage-drop', lamp)).toEqual(['outside', 'voltage-drop.outside'])
    expect(says('voltage-drop', { ...lamp, lighting: false })[0]).toBe('within')
    expect(says('voltage-drop', { ...lamp, length_m: 30 })[0]).toBe('within')
  })

  it('of aluminium loses more, and of what is too thick for the sum nothing is said', () => {
    const feeder = { design_A: 60, line_mm2: 25, length_m: 60, lighting: false } as const
    // Warm, there and back under 60 A: 0.727 mΩ/m lose 6.3 V; 1.20 mΩ/m lose 10.4 V, of 11.5 V.
    expect(says('voltage-drop', feeder)[0]).toBe('within')
    expect(says('voltage-drop', { ...feeder, metal: 'aluminium', length_m: 70 })[0]).toBe('outside')
    expect(says('voltage-drop', { ...feeder, metal: 'copper', length_m: 70 })[0]).toBe('within')
    expect(says('voltage-drop', { ...feeder, line_mm2: 95 })).toEqual(['not-yet', 'voltage-drop.no-table'])
  })

  it('shows its sum', () => {
    const made = site({ ...lamp, lighting: null })
    const { evaluation, one } = made.says('voltage-drop', made.circuit)
    const [sum, rule] = linesOf(evaluation, one)
    expect(sum).toMatchObject({ code: 'voltage-drop.radial-1', result: { unit: 'V' } })
    expect(sum!.result!.value).toBeCloseTo(6.97, 2)
    expect(rule).toMatchObject({ code: 'voltage-drop.rule', result: { value: 11.5, unit: 'V' } })
  })

  it('is no verdict of within where the board hangs on another: the limit counts from the origin', () => {
    const made = site({ ...lamp, length_m: 10 })
    expect(made.says('voltage-drop', made.circuit).verdict).toBe('within')
    const origin = made.build.part({ kind: 'board', tag: 'DB0', name: '', boardId: null })
    const data = made.says('r1r2', made.circuit).evaluation.parts.get(made.board)!.data
    made.build.part({ ...data, boardId: origin } as typeof data, made.board)
    made.build.part(
      { ...made.says('r1r2', made.circuit).one.part.data, boardId: made.board } as CircuitData,
      made.circuit,
    )
    expect(made.says('voltage-drop', made.circuit)).toMatchObject({ verdict: 'close', code: 'voltage-drop.before' })
  })

  it('is asked only where somebody entered the current, and waits for length and cross-section', () => {
    expect(isAsked('voltage-drop', {})).toBe(false)
    expect(says('voltage-drop', { design_A: 10, length_m: null })).toEqual(['not-yet', 'voltage-drop.no-cable'])
    expect(says('voltage-drop', { design_A: 10, line_mm2: 50 })).toEqual(['not-yet', 'voltage-drop.no-table'])
  })
})
