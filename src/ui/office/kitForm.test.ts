import { describe, expect, it } from 'vitest'
import type { Instrument } from '@/core/record/instrument'
import { testId } from '@/core/testing/factsBuilder'
import { kitTexts, rangeLines, readKit } from './kitForm'

const accuracy = { ofReading_pct: 0.5, digits: 2 }
const tester: Instrument = {
  id: testId(7),
  tag: '07',
  name: 'Tester',
  serial: 'A-7',
  calibrationDue: '2026-09-01',
  standIn: true,
  ranges: [
    { measures: 'dc-voltage', accuracy, most: 1000, decimals: 1 },
    { measures: 'continuity', accuracy, most: 200, decimals: 2 },
  ],
  leadSets: [
    { id: 'short', name: 'Short leads' },
    { id: 'reel-30', name: '30 m reel' },
  ],
}
const said = (change: (texts: ReturnType<typeof kitTexts>) => void): string => {
  const texts = kitTexts(tester)
  change(texts)
  const read = readKit(texts, tester)
  return 'message' in read ? read.message : ''
}

describe('an instrument of the kit', () => {
  it('reads back what its fields show, lead sets with their marks', () => {
    expect(readKit(kitTexts(tester), tester)).toEqual({ tool: tester })
  })

  it('keeps the mark of a lead set that keeps its name, and gives a new one to a new set', () => {
    const texts = { ...kitTexts(tester), leads: '30 m reel, Crocodile clips' }
    const read = readKit(texts, tester)
    expect('tool' in read && read.tool.leadSets).toEqual([
      { id: 'reel-30', name: '30 m reel' },
      { id: 'set-2-crocodile-clip', name: 'Crocodile clips' },
    ])
  })

  it('is not made simulated, nor real, by typing', () => {
    const read = readKit(kitTexts(tester), null)
    expect('tool' in read && read.tool.standIn).toBe(false)
  })

  it('takes decimal commas', () => {
    const texts = kitTexts(tester)
    texts.ranges['dc-voltage'].ofReading = '0,8'
    const read = readKit(texts, tester)
    expect('tool' in read && read.tool.ranges.find((one) => one.measures === 'dc-voltage')!.accuracy).toEqual({
      ofReading_pct: 0.8,
      digits: 2,
    })
  })

  it('says what is missing or cannot be', () => {
    expect(said((texts) => Object.assign(texts, { tag: ' ' }))).toContain('number and a name')
    expect(said((texts) => Object.assign(texts.ranges['dc-voltage'], { most: 'lots' }))).toContain('DC voltage')
    expect(said((texts) => Object.assign(texts.ranges['dc-voltage'], { decimals: '1.5' }))).toContain('DC voltage')
    expect(said((texts) => Object.assign(texts, { due: '31.12.2026' }))).toContain('calibrationDue')
    const none = said((texts) => {
      for (const range of Object.values(texts.ranges)) range.on = false
    })
    expect(none).toContain('Tick')
  })

  it('is told in a line a quantity', () => {
    expect(rangeLines(tester)).toContainEqual(expect.stringMatching(/^DC voltage to 1000\sV, ±\(0\.5\s% \+ 2\)$/))
  })
})

describe('what an instrument can do besides', () => {
  it('is kept through the form and told in its lines', () => {
    const texts = { ...kitTexts(null), tag: '12', name: 'Adapter', can: ['ev-adapter'] as const }
    const ticked = { ...texts, ranges: { ...texts.ranges, 'ac-voltage': { ...texts.ranges['ac-voltage'], on: true } } }
    const read = readKit(ticked, null)
    expect(read).toMatchObject({ tool: { can: ['ev-adapter'] } })
    if (!('tool' in read)) return
    expect(kitTexts(read.tool).can).toEqual(['ev-adapter'])
    expect(rangeLines(read.tool).at(-1)).toBe('an adapter that plays the car')
  })
})
