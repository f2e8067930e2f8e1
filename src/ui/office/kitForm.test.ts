import { describe, expect, it } from 'vitest'
import type { Instrument } from '@/core/record/instrument'
import { testId } from '@/core/testing/factsBuilder'
import { kitTexts, measuredNames, rangeText, readKit, ruleOfRange } from './kitForm'

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
    expect(said((texts) => Object.assign(texts, { due: '31.12.2026' }))).toContain('Calibrated until')
    const none = said((texts) => {
      for (const range of Object.values(texts.ranges)) range.on = false
    })
    expect(none).toContain('Tick')
  })

  it('is told with its ranges, each with its unit and a limit of its own', () => {
    expect(measuredNames(tester)).toBe('DC voltage, continuity')
    expect(rangeText(tester.ranges[0]!)).toMatch(/^to 1000\sV, ±\(0\.5\s% \+ 2 digits\)$/)
    expect(ruleOfRange(tester.ranges[0]!)).toMatchObject({ unit: 'V', band: { low: null, high: 1000 } })
  })

  it('begins with no accuracy that nobody read', () => {
    const texts = { ...kitTexts(null), tag: '16', name: 'Meter' }
    texts.ranges['dc-voltage'] = { ...texts.ranges['dc-voltage'], on: true }
    const read = readKit(texts, null)
    expect('message' in read && read.message).toContain('DC voltage')
    texts.ranges['dc-voltage'] = { on: true, most: '600', ofReading: '1', digits: '', decimals: '1' }
    expect(readKit(texts, null)).toHaveProperty('message')
    texts.ranges['dc-voltage'] = { on: true, most: '600', ofReading: '1', digits: '0', decimals: '1' }
    expect(readKit(texts, null)).toHaveProperty('tool')
  })
})

describe('what an instrument can do besides', () => {
  it('is kept through the form and told in its lines', () => {
    const texts = { ...kitTexts(null), tag: '12', name: 'Adapter', can: ['ev-adapter'] as const }
    const volts = { on: true, most: '500', ofReading: '1', digits: '2', decimals: '1' }
    const ticked = { ...texts, ranges: { ...texts.ranges, 'ac-voltage': volts } }
    const read = readKit(ticked, null)
    expect(read).toMatchObject({ tool: { can: ['ev-adapter'] } })
    if (!('tool' in read)) return
    expect(kitTexts(read.tool).can).toEqual(['ev-adapter'])
    expect(measuredNames(read.tool)).toMatch(/, an adapter that plays the car$/)
  })

  it('keeps how long it waits at half the current, and nothing where nobody knows', () => {
    const read = (halfWait: string) => readKit({ ...kitTexts(tester), halfWait }, tester)
    expect(read('300')).toMatchObject({ tool: { halfWait_ms: 300 } })
    expect('tool' in read('') && 'halfWait_ms' in (read('') as { tool: object }).tool).toBe(false)
    expect(kitTexts({ ...tester, halfWait_ms: 2000 }).halfWait).toBe('2000')
    expect(read('500')).toHaveProperty('message')
  })

  it('keeps what the joining switch is rated for, both figures or none', () => {
    const read = (joins_V: string, joins_A: string) => readKit({ ...kitTexts(tester), joins_V, joins_A }, tester)
    expect(read('1000', '32,5')).toMatchObject({ tool: { joining: { most_V: 1000, most_A: 32.5 } } })
    expect(read('', '')).not.toHaveProperty('tool.joining')
    expect(read('1000', '')).toHaveProperty('message')
    expect(read('-5', '32')).toHaveProperty('message')
    expect(kitTexts({ ...tester, joining: { most_V: 800, most_A: 25 } })).toMatchObject({
      joins_V: '800',
      joins_A: '25',
    })
  })
})
