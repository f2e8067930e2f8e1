import '@/words/ac'
import '@/words/schedule'
import { describe, expect, it } from 'vitest'
import { evaluate } from '@/core/evaluate'
import { readValueOf } from '@/core/quantity/readValue'
import { defaultRegime, shippedRegimes } from '@/core/regime/shipped'
import { exampleBoard, exampleCircuit, exampleRcd, exampleSupply } from '@/core/steps/worked'
import type { StepEvaluation } from '@/core/evaluation/types'
import { FactsBuilder } from '@/core/testing/factsBuilder'
import { emptyDraft, readDraft } from '../bench/draft'
import { cellOfFigures, figuresOfCell, readBlock, writeBlock } from './block'
import { cellRefuses, NOTHING_TYPED, optionMeant, otherwise, shownAt, shownIn, standsIn, type Stood } from './cell'
import { expectedText, limitText, ownScale } from './figures'
import { cellAt, choicesFor, columnsOf, groupsOf, rowsOf, setUpSlots, stepsInGrid, underOf } from './model'

const threeMultiples = shippedRegimes.find(({ id }) => id === 'bs7671-three-multiple')!
const build = new FactsBuilder()
build.part(exampleSupply)
const first = build.part(exampleBoard)
const second = build.part({ ...exampleBoard, tag: 'DB2', boardId: first })
const main = build.part({ ...exampleRcd, tag: 'RCD0', boardId: second, rated_mA: 100, delay: 'selective' })
const shared = build.part({ ...exampleRcd, tag: 'RCD1', boardId: second, upstreamId: main })
build.part({ ...exampleCircuit, tag: '10', boardId: second, rcdId: shared })
build.part({ ...exampleCircuit, tag: '2', boardId: second, rcdId: null, phases: 3 })
build.part({ ...exampleCircuit, tag: '9', boardId: second, rcdId: shared, layout: 'ring' })
const plain = build.part({ ...exampleCircuit, tag: '7', boardId: first, rcdId: null })
build.reading('r1r2', plain, { slots: { r1r2: readValueOf(0.4, 'ohm', 2) }, conditions: null })
const facts = build.facts({ regime: threeMultiples })
const evaluation = evaluate(facts, 0)
const rows = rowsOf(evaluation, second)
build.reading('zs', plain, {
  slots: { 'loop-method': { choice: 'non-trip' }, zs: readValueOf(0.72, 'ohm', 2) },
  conditions: null,
})
const measured = evaluate(build.facts({ regime: threeMultiples }), 0)
const steps = stepsInGrid(evaluation)
const setUp = {
  'ac-insulation': { pairing: 'pair-by-pair', 'tested-from': 'beyond-rcd' },
  zs: { 'loop-method': 'non-trip' },
}
const columns = columnsOf(steps, rows, underOf(evaluation), setUp)
const stepOf = (id: string) => steps.find((step) => step.id === id)!
const row = (tag: string) => rows.find((one) => one.part.data.tag === tag)!
const cell = (tag: string, column: string) =>
  cellAt(row(tag), columns.find(({ id }) => id === column)!, underOf(evaluation), setUp)
const slotIds = (tag: string, column: string): string[] => {
  const own = cell(tag, column)
  return own.is === 'asked' ? own.slots.map(({ id }) => id) : []
}

const stoodOf = (of: StepEvaluation, texts: Record<string, string>, choices = {}): Stood => {
  const draft = { ...emptyDraft(null, { choices, notes: {} }), texts }
  const state = readDraft(draft, of, evaluation, null)
  const { judgement, verdict, missing } = state.judged!
  return { draft, state, judged: { judgement, verdict, isWhole: missing.length === 0 } }
}

describe('the schedule', () => {
  it('has a board’s devices that protect no circuit themselves, then its circuits as people count', () => {
    expect(rows.map(({ part }) => part.data.tag)).toEqual(['RCD0', '2', '9', '10'])
    expect(rowsOf(evaluation, first).map(({ part }) => part.data.tag)).toEqual(['7'])
  })

  it('has every test that is read of a circuit or its device', () => {
    expect(steps.map(({ id }) => id)).toEqual([
      'ring-ends',
      'r1r2',
      'ac-insulation',
      'ac-polarity',
      'zs',
      'rcd-trips',
      'rcd-button',
    ])
    expect(columns.map(({ heading }) => heading.id)).toEqual([
      'ring-ends',
      'r1r2',
      'live',
      'to-earth',
      'ac-polarity',
      'zs',
      'times-0.5',
      'times-1',
      'times-5',
      'rcd-button',
    ])
  })

  it('has one heading for the trips where the regime asks for one', () => {
    const single = evaluate(build.facts({ regime: defaultRegime }), 0)
    const own = columnsOf(stepsInGrid(single), rowsOf(single, second), underOf(single), setUp)
    expect(own.filter(({ step }) => step.id === 'rcd-trips').map(({ heading }) => heading.id)).toEqual(['times-1'])
  })

  it('asks a cell for every line, pair, end or half-wave under its heading', () => {
    expect(slotIds('2', 'zs.zs')).toEqual(['zs-l1', 'zs-l2', 'zs-l3'])
    expect(slotIds('9', 'zs.zs')).toEqual(['zs'])
    expect(slotIds('2', 'ac-insulation.to-earth')).toEqual(['n-pe', 'l1-pe', 'l2-pe', 'l3-pe'])
    expect(slotIds('9', 'ac-insulation.live')).toEqual(['l-n'])
    expect(slotIds('9', 'ring-ends.ring-ends')).toHaveLength(7)
    expect(slotIds('9', 'rcd-trips.times-5')).toEqual(['five-0', 'five-180'])
    expect(slotIds('9', 'rcd-button.rcd-button')).toEqual(['button-trips', 'resets-again'])
  })

  it('says where a device is measured that several circuits hang on', () => {
    expect(cell('10', 'rcd-trips.times-1')).toEqual({ is: 'elsewhere', tag: '9', device: 'RCD1' })
    expect(cell('2', 'rcd-trips.times-1')).toEqual({ is: 'none' })
    expect(cell('10', 'ring-ends.ring-ends')).toEqual({ is: 'none' })
    expect(slotIds('RCD0', 'rcd-trips.times-1')).toEqual(['once-0', 'once-180'])
  })

  it('sets method and pairing up once, and a row takes what it is asked', () => {
    expect(setUpSlots(stepOf('ac-insulation'), rows, underOf(evaluation)).map((slot) => slot.id)).toEqual([
      'pairing',
      'devices',
      'tested-from',
      'earthing',
      'electronics',
      'surge',
      'set-voltage',
    ])
    const choices = (tag: string) => choicesFor(stepOf('ac-insulation'), row(tag).part, underOf(evaluation), setUp)
    expect(choices('10')).toHaveProperty('tested-from')
    expect(choices('2')).not.toHaveProperty('tested-from')
  })

  it('shows what was read another way than is set up now, and asks for what is', () => {
    const alone = { ...setUp, r1r2: { 'continuity-way': 'protective-alone' } }
    const own = rowsOf(evaluation, first)
    const [column] = columnsOf([stepOf('r1r2')], own, underOf(evaluation), alone)
    const found = cellAt(own[0]!, column!, underOf(evaluation), alone)
    if (found.is !== 'asked') throw new Error('R2 alone is asked')
    expect([found.slots.map(({ id }) => id), found.apart?.map(({ id }) => id)]).toEqual([['r2-alone'], ['r1r2']])
    expect(standsIn(found.one, found, NOTHING_TYPED)).toMatchObject({ text: '0.40', from: 'kept', isApart: true })
    const typed = stoodOf(found.one, { 'r2-alone': '0.21' }, alone.r1r2)
    expect(standsIn(found.one, found, typed)).toMatchObject({ text: '0.21', isApart: false })
    // A row that was never read has nothing to show of it.
    const other = cellAt(row('10'), column!, underOf(evaluation), alone)
    expect(other).toEqual({ is: 'asked', one: expect.anything(), slots: [expect.objectContaining({ id: 'r2-alone' })] })
  })

  it('names a figure that its heading does not: R2 alone stands under R1+R2', () => {
    const slotOf = (id: string) => stepOf('r1r2').slots.filter((slot) => slot.id === id)
    expect(otherwise(slotOf('r2-alone'))).toBe('R2, PE alone, read another way than is set up above')
    expect(otherwise(slotOf('r1r2'))).toBe('read another way than is set up above')
  })

  it('keeps the column of what was measured where nothing of it is asked any more', () => {
    const summed = { ...setUp, zs: { 'loop-method': 'calculated' } }
    const zs = stepOf('zs')
    expect(columnsOf([zs], rowsOf(measured, first), underOf(measured), summed).map(({ id }) => id)).toEqual(['zs.zs'])
    const own = rowsOf(measured, first)[0]!
    const [column] = columnsOf([zs], [own], underOf(measured), summed)
    const found = cellAt(own, column!, underOf(measured), summed)
    if (found.is !== 'kept') throw new Error('a measured loop is there to see')
    expect(shownIn(found.one, found.slots, NOTHING_TYPED)).toMatchObject({ text: '0.72', from: 'kept' })
    expect(columnsOf([zs], rows, underOf(evaluation), summed)).toEqual([])
  })

  it('puts as many tests side by side as there is room for', () => {
    const ids = (room: number) => groupsOf(columns, room).map((group) => group.map(({ id }) => id))
    expect(ids(4)).toEqual([
      ['ring-ends', 'r1r2', 'ac-insulation'],
      ['ac-polarity', 'zs'],
      ['rcd-trips', 'rcd-button'],
    ])
    expect(ids(1)).toHaveLength(7)
    expect(ids(99)).toEqual([steps.map(({ id }) => id)])
  })
})

describe('a cell', () => {
  const [kept] = rowsOf(evaluation, first)
  const one = kept!.byStep.get(stepOf('r1r2'))!
  const polarity = stepOf('ac-polarity').slots[0]!
  const resistance = stepOf('r1r2').slots.find(({ id }) => id === 'r1r2')!

  it('shows what waits before what was kept', () => {
    expect(shownAt(one, resistance, NOTHING_TYPED)).toMatchObject({ text: '0.40', from: 'kept' })
    expect(shownAt(one, resistance, stoodOf(one, { r1r2: '0,38' }))).toMatchObject({ text: '0,38', from: 'draft' })
    const other = row('10').byStep.get(stepOf('r1r2'))!
    expect(shownAt(other, resistance, NOTHING_TYPED)).toEqual({ text: '', from: null, verdict: null })
  })

  it('shows the worst of its figures, and none of them as within before all are there', () => {
    const own = cell('2', 'r1r2.r1r2')
    if (own.is !== 'asked') throw new Error('three lines are asked')
    const part = shownIn(own.one, own.slots, stoodOf(own.one, { 'r1r2-l1': '0.40', 'r1r2-l2': '0.41' }))
    expect([part.text, part.from, part.verdict === 'within' || part.verdict === 'close']).toEqual([
      '0.41',
      'draft',
      false,
    ])
    const broken = shownIn(own.one, own.slots, stoodOf(own.one, { 'r1r2-l1': '9.10', 'r1r2-l2': '0.41' }))
    expect(broken.text).toBe('9.10')
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
    // It is asked about where it stands.
    ['1,234', null],
    ['0.4 V', 'unit-of-another-quantity'],
  ])('of figures meets “%s” with %s', (typed, code) => {
    expect(cellRefuses(resistance, typed, facts)).toBe(code)
  })

  it('of answers refuses what could be either', () => {
    expect(cellRefuses(polarity, 'maybe', facts)).toBe('choice-unclear')
    expect(cellRefuses(polarity, '2', facts)).toBeNull()
  })
})

describe('beside a figure', () => {
  const scale = {
    unit: 'ohm',
    scale: 'linear',
    measured: { value: 0.5, bound: 'exact', whisker: 0, text: '0.50' },
    expected: { value: 0.4, uncertainty: 0 },
    band: { low: null, high: 1.3656, closeLow: null, closeHigh: null },
    source: 'bs7671-zs',
  } as const

  it('stand its limit and what is expected', () => {
    const plain = (text: string): string => text.replaceAll('\u00a0', ' ')
    expect(plain(limitText(scale))).toBe('at most 1.37 Ω')
    expect(plain(expectedText(scale))).toBe('expected 0.40 Ω')
    const least = { ...scale, unit: 'Mohm', band: { ...scale.band, low: 1, high: null } } as const
    const both = { ...scale, unit: 'ms', band: { ...scale.band, low: 130, high: 500 } } as const
    expect(plain(limitText(least))).toBe('at least 1 MΩ')
    expect(plain(limitText(both))).toBe('130 to 500 ms')
  })

  it('stands no scale of another figure, and no mark while nothing is read', () => {
    expect(ownScale(scale, '0.50')).toBe(scale)
    expect(ownScale(scale, '')?.measured).toBeNull()
    expect(ownScale(scale, '0.45')).toBeNull()
    expect(ownScale(null, '0.45')).toBeNull()
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

  it('has the figures of one cell with a stroke between them, one for each', () => {
    expect(figuresOfCell('0.84 / 0.91/1.18', 3)).toEqual(['0.84', '0.91', '1.18'])
    expect(figuresOfCell('0.84', 3)).toBeNull()
    expect(figuresOfCell('0.84 / 0.91', 1)).toEqual(['0.84 / 0.91'])
    expect(cellOfFigures(['0.84', '', '1.18'])).toBe('0.84 /  / 1.18')
    expect(cellOfFigures(['', ''])).toBe('')
  })

  it('comes back as it was copied out, and nothing of it is a formula', () => {
    const copied = writeBlock([
      ['2', '=HYPERLINK("x")', '0.84 / 0.91'],
      ['3', 'Sockets\tnorth', '>999'],
    ])
    expect(copied.split('\n')[0]).toContain("'=HYPERLINK")
    expect(readBlock(copied, { columns: 3, rows: 2 })).toEqual({
      cells: [
        ['2', '\'=HYPERLINK("x")', '0.84 / 0.91'],
        ['3', 'Sockets\tnorth', '>999'],
      ],
    })
  })
})
