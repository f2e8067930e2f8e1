import '@/words/everyTest'
import { describe, expect, it } from 'vitest'
import { evaluate } from '@/core/evaluate'
import { exampleModule } from '@/core/steps/worked'
import { FactsBuilder, START_ms, testId } from '@/core/testing/factsBuilder'
import { partsOfTable, type Place, readAs, readTable, type Table } from './tableRead'

const builder = new FactsBuilder(false)
const boardId = builder.part({ kind: 'board', tag: 'DB1', name: 'Hall', boardId: null })
const arrayId = builder.part({ kind: 'array', tag: 'Barn', tilt_deg: 20, azimuth_deg: 160, mounting: 'open-rack' })
const { plant } = evaluate(builder.facts(), START_ms)
const sixty = { id: testId(1), make: 'Example', name: 'Sixty', data: exampleModule }
const libraries = { module: [sixty, { ...sixty, id: testId(2), name: 'Fifty' }], 'charge-point': [] }
const place: Place = { boardId, arrayId, moduleType: sixty }

const tableOf = (text: string): Table => {
  const read = readTable(text)
  if ('refused' in read) throw new Error(read.refused)
  return read
}
const partsOf = (text: string, answers = {}) => partsOfTable(tableOf(text), plant, libraries, place, answers)

describe('a list of circuits', () => {
  const list = [
    'Way\tFeeds\tDevice\tmm²\tm',
    '1\tSockets, ground floor\tB32\t2.5/1.5\t54',
    '2\tCooker\tB 40\t6/2.5\t14',
    '3\tLights\tB6\t1.5 / 1\t3,800',
    '4\tSmoke alarms\tC6 A\t1,5/1\t',
  ].join('\n')

  it('is read by its heads, two figures of a cell apart', () => {
    const { rows, doubts } = partsOf(list)
    expect(tableOf(list)).toMatchObject({
      kind: 'circuit',
      columns: ['tag', 'feeds', 'device+rating_A', 'line_mm2+protective_mm2', 'length_m'],
    })
    expect(rows.map((one) => one.data)).toMatchObject([
      {
        tag: '1',
        feeds: 'Sockets, ground floor',
        device: 'B',
        rating_A: 32,
        line_mm2: 2.5,
        protective_mm2: 1.5,
        length_m: 54,
        boardId,
      },
      { tag: '2', device: 'B', rating_A: 40 },
      { tag: '3', device: 'B', rating_A: 6, length_m: null },
      { tag: '4', device: 'C', rating_A: 6, line_mm2: 1.5, protective_mm2: 1, length_m: null },
    ])
    expect(doubts).toMatchObject([{ key: '2.length_m', tag: '3', typed: '3,800', choices: ['3.8', '3800'] }])
  })

  it('takes what somebody answers, or leaves it open', () => {
    expect(partsOf(list, { '2.length_m': '3.8' }).rows[2]!.data).toMatchObject({ length_m: 3.8 })
    const open = partsOf(list, { '2.length_m': '' })
    expect(open.doubts).toEqual([])
    expect(open.rows[2]!.data).toMatchObject({ length_m: null })
  })

  it('leaves out a row that is there already, and says so', () => {
    const { rows } = partsOf('Way\tFeeds\n1\tA\n1\tB')
    expect(rows.map((one) => one.why)).toEqual([null, '“1” is there already.'])
  })

  it('leaves a figure open that cannot be read, and a row that cannot be', () => {
    const { rows } = partsOf('Way\tLength, m\n1\tabout ten\n2\t-4')
    expect(rows[0]).toMatchObject({ data: { tag: '1', length_m: null }, open: ['Length, m'] })
    expect(rows[1]).toMatchObject({ data: null, why: expect.stringContaining('“-4” will not do') })
  })

  it.each([
    'Way;Feeds;Length, m\n1;Cooker;14',
    'Way,Feeds,Length\n1,Cooker,14',
    '\uFEFFWay\tFeeds\tLength\r\n1\tCooker\t14\r\n',
  ])('comes with other signs between its cells: %j', (text) => {
    expect(partsOf(text).rows.map((one) => one.data)).toMatchObject([{ tag: '1', feeds: 'Cooker', length_m: 14 }])
  })
})

describe('a strings table', () => {
  it('is known as one by its heads, and names types of the library', () => {
    const { rows } = partsOf('String\tModules\tType\tTracker\n1\t11\tExample Fifty\tA\n2\t12\tfifty\tB')
    expect(rows.map((one) => one.data)).toMatchObject([
      { kind: 'string', tag: '1', modulesInSeries: 11, moduleType: { name: 'Fifty' }, input: 'A', arrayId },
      { kind: 'string', tag: '2', modulesInSeries: 12, moduleType: { name: 'Fifty' }, input: 'B' },
    ])
  })

  it('goes by the type that was chosen where it names none or one that nobody knows', () => {
    const { rows } = partsOf('String\tModules\tType\n1\t11\t\n2\t11\tUnheard')
    expect(rows.map((one) => one.data)).toMatchObject([
      { moduleType: { name: 'Sixty' } },
      { moduleType: { name: 'Sixty' } },
    ])
    expect(rows[1]!.open).toEqual(['Module type'])
  })

  it('without a module type at all cannot be taken', () => {
    const read = partsOfTable(
      tableOf('String\tModules\n1\t11'),
      plant,
      { module: [], 'charge-point': [] },
      { ...place, moduleType: null },
      {},
    )
    expect(read.rows[0]).toMatchObject({ data: null, why: 'it names no module type of the library.' })
  })
})

describe('what is no table', () => {
  it.each([
    ['', 'There is nothing in this table.'],
    ['Way\tFeeds', 'There is nothing in this table.'],
    ['one\ntwo\nthree', 'one column only'],
    [`Way\tFeeds\n${'1\tA\n'.repeat(500)}`, 'more than 400 rows'],
  ])('%j is refused in a sentence', (text, sentence) => {
    expect(readTable(text)).toEqual({ refused: expect.stringContaining(sentence) })
  })

  it('without heads asks what its columns hold, and keeps the first row', () => {
    const table = tableOf('1\tCooker\tB32\n2\tLights\tB6')
    expect(table).toMatchObject({ heads: ['1', '2', '3'], columns: ['', '', ''] })
    expect(table.rows).toHaveLength(2)
  })

  it('can be read as the other kind', () => {
    expect(readAs(tableOf('Tag\tModules\tLength\n1\t11\t20'), 'circuit').columns).toEqual(['tag', '', 'length_m'])
  })
})
