import { describe, expect, it } from 'vitest'
import { evaluate } from '@/core/evaluate'
import { readValueOf } from '@/core/quantity/readValue'
import { defaultRegime } from '@/core/regime/shipped'
import { exampleBoard, exampleCircuit, exampleRcd, exampleSupply } from '@/core/steps/worked'
import { FactsBuilder } from '@/core/testing/factsBuilder'
import { emptyDraft } from '../bench/draft'
import { cellRefuses, cellText, optionMeant } from './cell'
import { cellsOf, choicesFor, columnsOf, rowsOf, setUpSlots, stepsInGrid } from './model'
import { readBlock } from './paste'

const build = new FactsBuilder()
build.part(exampleSupply)
const [first, second] = [build.part(exampleBoard), build.part({ ...exampleBoard, tag: 'DB2' })]
const rcd = build.part({ ...exampleRcd, boardId: second })
build.part({ ...exampleCircuit, tag: '10', boardId: second, rcdId: rcd })
build.part({ ...exampleCircuit, tag: '2', boardId: second, phases: 3 })
const plain = build.part({ ...exampleCircuit, tag: '7', boardId: first })
build.reading('r1r2', plain, { slots: { r1r2: readValueOf(0.4, 'ohm', 2) }, conditions: null })
const facts = build.facts()
const evaluation = evaluate(facts, 0)
const rows = rowsOf(evaluation, 'circuit')
const steps = stepsInGrid(evaluation, 'circuit')
const setUp = {
  'ac-insulation': { pairing: 'pair-by-pair', 'tested-from': 'beyond-rcd' },
  zs: { 'loop-method': 'non-trip' },
}
const stepOf = (id: string) => steps.find((step) => step.id === id)!
const row = (tag: string) => rows.find((one) => one.part.data.tag === tag)!

describe('the schedule', () => {
  it('has a row a circuit, by board and then by tag as people count', () => {
    expect(rows.map((one) => one.part.data.tag)).toEqual(['7', '2', '10'])
  })

  it('has the tests that are read cell by cell; lists of checks stay on the bench', () => {
    expect(steps.map((step) => step.id)).toEqual(['r1r2', 'ac-insulation', 'ac-polarity', 'zs'])
    expect(stepsInGrid(evaluation, 'rcd').map((step) => step.id)).toEqual(['rcd-trips'])
  })

  it('asks three phases for all pairs, and one phase for its own', () => {
    const cells = (tag: string): string[] =>
      cellsOf(stepOf('ac-insulation'), row(tag).part, defaultRegime, setUp).map((slot) => slot.id)
    expect(cells('7')).toEqual(['l-n', 'l-pe', 'n-pe'])
    expect(cells('2')).toHaveLength(10)
    const columns = columnsOf(steps, rows, defaultRegime, setUp)
    expect(columns.filter((one) => one.step.id === 'ac-insulation')).toHaveLength(12)
    expect(columns.filter((one) => one.step.id === 'zs').map((one) => one.slot.id)).toEqual([
      'zs',
      'zs-l1',
      'zs-l2',
      'zs-l3',
    ])
  })

  it('sets method and pairing up once, and a row takes what it is asked', () => {
    expect(setUpSlots(stepOf('ac-insulation'), rows, defaultRegime).map((slot) => slot.id)).toEqual([
      'pairing',
      'devices',
      'tested-from',
      'earthing',
      'electronics',
      'surge',
      'set-voltage',
    ])
    expect(choicesFor(stepOf('ac-insulation'), row('10').part, defaultRegime, setUp)).toHaveProperty('tested-from')
    expect(choicesFor(stepOf('ac-insulation'), row('7').part, defaultRegime, setUp)).not.toHaveProperty('tested-from')
  })
})

describe('a cell', () => {
  const one = row('7').byStep.get(stepOf('r1r2'))!
  const polarity = stepOf('ac-polarity').slots[0]!
  const resistance = stepOf('r1r2').slots[0]!

  it('shows what waits before what was kept', () => {
    expect(cellText(one, resistance, undefined)).toEqual({ text: '0.40', from: 'kept' })
    const draft = { ...emptyDraft(null), texts: { r1r2: '0,38' } }
    expect(cellText(one, resistance, draft)).toEqual({ text: '0,38', from: 'draft' })
    expect(cellText(row('2').byStep.get(stepOf('r1r2'))!, resistance, undefined)).toEqual({ text: '', from: null })
  })

  it('takes an answer by number, first letters or name', () => {
    expect(optionMeant(polarity, '1', facts)).toBe('correct')
    expect(optionMeant(polarity, 'rev', facts)).toBe('reversed')
    expect(optionMeant(polarity, 'correct', facts)).toBe('correct')
    expect(optionMeant(polarity, 'r', facts)).toBeNull()
    expect(optionMeant(resistance, '1', facts)).toBeNull()
  })

  it.each([
    ['0,41', null],
    ['>999', null],
    ['', null],
    ['open', 'not-a-number'],
    ['1,234', 'thousand-unclear'],
    ['0.4 V', 'unit-of-another-quantity'],
  ])('of figures meets “%s” with %s', (typed, code) => {
    expect(cellRefuses(resistance, typed, facts)).toBe(code)
  })

  it('of answers refuses what could be either', () => {
    expect(cellRefuses(polarity, 'maybe', facts)).toBe('choice-unclear')
    expect(cellRefuses(polarity, '2', facts)).toBeNull()
  })
})

describe('a pasted block', () => {
  const room = { columns: 3, rows: 2 }
  it('is cut by tabs and lines', () => {
    expect(readBlock('0,41\t>999\n0.39\t\n', room)).toEqual({
      cells: [
        ['0,41', '>999'],
        ['0.39', ''],
      ],
    })
    expect(readBlock('1\r\n2\r\n', room)).toEqual({ cells: [['1'], ['2']] })
  })

  it('is refused whole where it has more columns or rows than are here, or nothing', () => {
    expect(readBlock('1\t2\t3\t4', room)).toEqual({ refused: 'schedule-columns', figures: { columns: 4, room: 3 } })
    expect(readBlock('1\n2\n3', room)).toEqual({ refused: 'schedule-rows', figures: { rows: 3, room: 2 } })
    expect(readBlock('\t\t', room)).toEqual({ refused: 'schedule-empty', figures: {} })
  })

  it('is refused in a sentence where a whole sheet was pasted', () => {
    const rows = 300_000
    expect(readBlock('0.41\n'.repeat(rows), room)).toEqual({ refused: 'schedule-rows', figures: { rows, room: 2 } })
    const columns = 200_000
    expect(readBlock('1\t'.repeat(columns - 1), room)).toEqual({
      refused: 'schedule-columns',
      figures: { columns, room: 3 },
    })
  })
})
