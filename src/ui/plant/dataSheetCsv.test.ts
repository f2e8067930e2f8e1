import { describe, expect, it } from 'vitest'
import { columnLabel, columnNames, MOST_ROWS, newTo, readDataSheets, sheetTemplate } from './dataSheetCsv'

const HEADS = 'make,name,pmax_W,voc_V,isc_A,vmp_V,imp_A,cellsInSeries,alpha_pctPerK,beta_pctPerK,gamma_pctPerK'
const ROW = 'Brandlicht,BL 400,400,37.1,13.7,31,12.9,54,0.05,-0.26,-0.34'
const typesOf = (text: string) => {
  const read = readDataSheets(text)
  if (!('types' in read)) throw new Error(JSON.stringify(read))
  return read
}
const refusalOf = (text: string): string => {
  const read = readDataSheets(text)
  return 'refused' in read ? read.refused : ''
}

describe('a table of data sheets', () => {
  it('is read by our own names', () => {
    const { types, problems } = typesOf(`${HEADS}\n${ROW}\n`)
    expect(problems).toEqual([])
    expect(types).toMatchObject([{ make: 'Brandlicht', name: 'BL 400', data: { voc_V: 37.1, beta_pctPerK: -0.26 } }])
  })

  it('takes columns in another order, by their usual names, with columns that it does not know', () => {
    const text =
      'Model;Colour;Voc (V);Isc (A);Pmax (W);Vmp;Imp;Cells;Alpha (mA/K);Beta (mV/K);Gamma (%/K);Manufacturer\n' +
      'BL 400;black;37,1;13,7;400;31,0;12,9;54;6,85;-96,46;-0,34;Brandlicht'
    const { types, problems } = typesOf(text)
    expect(problems).toEqual([])
    expect(types[0]).toMatchObject({ make: 'Brandlicht', name: 'BL 400' })
    expect(types[0]!.data.beta_pctPerK).toBeCloseTo(-0.26, 3)
    expect(types[0]!.data.alpha_pctPerK).toBeCloseTo(0.05, 3)
  })

  it('takes a byte order mark, tabs and lines of another system', () => {
    const text = `\uFEFF${HEADS}\r\n${ROW}\r\n`.replaceAll(',', '\t')
    expect(typesOf(text).types.length).toBe(1)
  })

  it('keeps the good rows and names the bad one with its reason', () => {
    const wrongSign = ROW.replace('-0.26', '0.26').replace('BL 400', 'BL 401')
    const noVoc = ROW.replace('37.1', '').replace('BL 400', 'BL 402')
    const { types, problems } = typesOf([HEADS, ROW, wrongSign, noVoc].join('\n'))
    expect(types.length).toBe(1)
    expect(problems.map((one) => one.row)).toEqual([3, 4])
    expect(problems[0]!.why).toContain('it is negative')
    expect(problems[1]!.why).toContain('needed')
  })

  it.each(['=1+1', '=HYPERLINK("x")', '@SUM(A1)', '+cmd', '-cmd'])('takes no formula: %s', (cell) => {
    const { types, problems } = typesOf(`${HEADS}\n${ROW.replace('Brandlicht', `"${cell.replaceAll('"', '""')}"`)}`)
    expect(types).toEqual([])
    expect(problems[0]!.why).toContain('formula')
  })

  it('refuses a hundred thousand rows without reading them all', () => {
    const text = `${HEADS}\n${`${ROW}\n`.repeat(100_000)}`
    expect(refusalOf(text)).toContain(String(MOST_ROWS))
  })

  it('says which columns are missing, and that nothing is in it', () => {
    expect(refusalOf('make,name\nA,B')).toContain('Voc')
    expect(refusalOf('')).toContain('nothing')
    expect(refusalOf(HEADS)).toContain('nothing')
    expect(refusalOf('\u0000\u0001PNG binary')).not.toBe('')
  })

  it('is read by the very words of the form and of the table to fill in', () => {
    const heads = sheetTemplate().trim()
    for (const column of columnNames) expect(heads).toContain(columnLabel(column))
    const row = 'Brandlicht,BL 400,400,37.1,13.7,31,12.9,54,0.05,-0.26,-0.34,44,1500,25'
    expect(typesOf(`${heads}\r\n${row}`)).toMatchObject({
      types: [{ name: 'BL 400', data: { beta_pctPerK: -0.26, maxSystemVoltage_V: 1500, maxSeriesFuse_A: 25 } }],
      problems: [],
    })
  })

  it('asks what columns hold whose heads say nothing, and reads them as it is told', () => {
    const heads = HEADS.replace('voc_V', 'U zero').replace('beta_pctPerK', 'TK-U')
    const asked = readDataSheets(`${heads}\n${ROW}`)
    expect(asked).toMatchObject({ missing: ['voc_V', 'beta_pctPerK'], columns: { make: 0, isc_A: 4 } })
    if (!('heads' in asked)) throw new Error('nothing was asked')
    const told = { ...asked.columns, voc_V: asked.heads.indexOf('U zero'), beta_pctPerK: asked.heads.indexOf('TK-U') }
    expect(readDataSheets(`${heads}\n${ROW}`, told)).toMatchObject({ types: [{ data: { voc_V: 37.1 } }] })
  })

  it('does not take half cells for cells without asking', () => {
    const half = ROW.replace(',54,', ',108,').replace('BL 400', 'BL 400 H')
    const { types, doubtful } = typesOf([HEADS, ROW, half].join('\n'))
    expect(types.map((one) => one.name)).toEqual(['BL 400'])
    expect(doubtful).toMatchObject([{ row: 3, type: { name: 'BL 400 H' }, doubts: [{ code: 'cell-voltage' }] }])
  })
})

describe('a type that a library has already', () => {
  const [type] = typesOf(`${HEADS}\n${ROW}`).types
  it('is not offered again, not even twice from one table', () => {
    const { types } = typesOf([HEADS, ROW, ROW].join('\n'))
    expect(newTo([], types)).toMatchObject({ fresh: [{ name: 'BL 400' }], same: [{ name: 'BL 400' }], other: [] })
    expect(newTo([type!], types).fresh).toEqual([])
  })
  it('is told where its figures are others', () => {
    const { types } = typesOf([HEADS, ROW.replace('37.1', '37.4').toUpperCase()].join('\n'))
    expect(newTo([type!], types)).toMatchObject({ fresh: [], same: [], other: [{ data: { voc_V: 37.4 } }] })
  })
})
