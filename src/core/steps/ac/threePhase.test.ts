import { describe, expect, it } from 'vitest'
import { linesOf } from '../../evaluate'
import type { SlotValue } from '../../record/entry'
import { bare, choose, Installation, read } from '../../testing/installation'
import { readStepById } from '../index'
import { isBesides, slotsShown } from '../slot'
import { exampleBoard, exampleCircuit } from '../worked'

const site = () =>
  new Installation({
    supply: { phases: 3 },
    board: { phases: 3 },
    circuit: { phases: 3, device: 'C', rating_A: 16, breaking_kA: 10 },
  })
const lines = (id: string, ...values: number[]): Record<string, SlotValue> =>
  Object.fromEntries(values.map((value, k) => [`${id}-l${k + 1}`, read(value)]))
const amps = (id: string, ...values: number[]): Record<string, SlotValue> =>
  Object.fromEntries(values.map((value, k) => [`${id}-l${k + 1}`, read(value, 'A', 0)]))
const zeOf = (...values: number[]) => ({ 'earthing-conductor': choose('earth-off'), ...lines('ze', ...values) })
const zsOf = (...values: number[]) => ({ 'loop-method': choose('non-trip'), ...lines('zs', ...values) })

describe('slots of three phases', () => {
  const asked = (step: string, data: Parameters<typeof slotsShown>[2]['part']['data'], choices = {}) =>
    slotsShown(readStepById(step), choices, bare(data))
      .filter((slot) => !isBesides(slot))
      .map((slot) => slot.id)

  it('are one a line, and one alone where there is one phase', () => {
    const method = { 'loop-method': 'high-current' }
    expect(asked('zs', { ...exampleCircuit, phases: 3 }, method)).toEqual(['loop-method', 'zs-l1', 'zs-l2', 'zs-l3'])
    expect(asked('zs', exampleCircuit, method)).toEqual(['loop-method', 'zs'])
    expect(asked('fault-current', { ...exampleBoard, phases: 3 })).toHaveLength(9)
    expect(asked('fault-current', exampleBoard)).toEqual(['pefc', 'pscc'])
  })

  it('are refused on one phase', () => {
    const one = new Installation()
    expect(one.check('zs', one.circuit, { slots: zsOf(0.5, 0.5, 0.5) })).toMatchObject({
      state: 'refused',
      code: 'slot-not-here',
      slot: 'zs-l1',
    })
  })
})

describe('a figure far from what the conductors come to', () => {
  // 20 m of 2.5 and 1.5 mm2 (IEC 60228, from memory): 0.390 ohm.
  const check = (value: number, how: 'typed' | 'stand-in' = 'typed', confirmed: string[] = []) => {
    const one = site()
    return one.check('r1r2', one.circuit, { slots: lines('r1r2', value), how, confirmed })
  }

  it.each([
    [3.9, 'slip-up'],
    [0.04, 'slip-down'],
    [55555, 'far-above'],
  ])('of %f ohm is asked about: %s', (value, code) => {
    expect(check(value)).toMatchObject({ state: 'ask', code, slot: 'r1r2-l1' })
    expect(check(value, 'typed', [code]).state).toBe('fine')
  })

  it('is taken as it is within reach, or where an instrument showed it', () => {
    expect(check(2).state).toBe('fine')
    expect(check(3.9, 'stand-in').state).toBe('fine')
  })
})

describe('a verdict on three lines', () => {
  it('is on the worst of them', () => {
    // BS 7671 table 41.3 (from memory): C16 allows 1.37 ohm.
    const one = site()
    expect(one.take('zs', one.circuit, zsOf(0.6, 0.7, 0.65)).says('zs', one.circuit).verdict).toBe('within')
    const found = one.take('zs', one.circuit, zsOf(0.6, 1.4, 0.65)).says('zs', one.circuit)
    expect(found).toMatchObject({ verdict: 'outside', code: 'zs.outside' })
    expect(found.one.finding.figures.read).toBe('1.40')
  })

  it('takes no difference between lines for uncertainty', () => {
    const one = site()
    const { one: found } = one.take('zs', one.circuit, zsOf(0.5, 0.9, 0.5)).says('zs', one.circuit)
    expect(found.counting!.judgement.rule!.measured!.whisker).toBeLessThan(0.1)
  })

  it('sums the highest Ze and the highest R1+R2', () => {
    const one = site()
    one.take('ze', one.supply, zeOf(0.2, 0.22, 0.21)).take('r1r2', one.circuit, lines('r1r2', 0.3, 0.31, 0.33))
    const { one: found, evaluation } = one
      .take('zs', one.circuit, { 'loop-method': choose('calculated') })
      .says('zs', one.circuit)
    const [sum] = linesOf(evaluation, found)
    expect(sum).toMatchObject({ code: 'zs.sum', figures: { ze: '0.22', r1r2: '0.33' } })
    expect(sum!.result!.value).toBeCloseTo(0.55, 9)
  })

  it('names the line that reads too little for its conductors', () => {
    const one = site()
    const found = one.take('r1r2', one.circuit, lines('r1r2', 0.4, 0.1, 0.4)).says('r1r2', one.circuit)
    expect(found).toMatchObject({ verdict: 'close', code: 'r1r2.too-low' })
    expect(found.one.finding.figures.read).toBe('0.10')
  })
})

describe('fault currents of three lines', () => {
  const currents = (pefc: number[], pscc: number[], lineLine?: number): Record<string, SlotValue> => ({
    ...amps('pefc', ...pefc),
    ...amps('pscc', ...pscc),
    ...(lineLine ? { 'line-line-l1-l3': read(lineLine, 'A', 0) } : {}),
  })

  it('come to twice the highest line to neutral', () => {
    const one = site()
    const found = one.take('fault-current', one.board, currents([900, 950, 920], [1000, 1100, 1050]))
    expect(found.says('fault-current', one.board).one.finding.figures.ipf_kA).toBeCloseTo(2.2, 9)
  })

  it('take a current read between lines where that comes to more', () => {
    const one = site()
    one.take('fault-current', one.board, currents([900, 950, 920], [1000, 1100, 1050], 2100))
    const { one: found, evaluation } = one.says('fault-current', one.board)
    // 2/sqrt(3) of 2100 A.
    expect(found.finding.figures.ipf_kA).toBeCloseTo(2.42487, 4)
    const codes = linesOf(evaluation, found).map((line) => line.code)
    expect(codes).toContain('fault-current.line-line-read')
  })

  it('have no line below what Ze gives', () => {
    const one = site()
    one.take('ze', one.supply, zeOf(0.2, 0.2, 0.2))
    const found = one.take('fault-current', one.board, currents([1200, 700, 1250], [1300, 1300, 1300]))
    expect(found.says('fault-current', one.board)).toMatchObject({
      verdict: 'not-yet',
      code: 'fault-current.below-ze',
      one: { finding: { figures: { pefc: '700' } } },
    })
  })
})
