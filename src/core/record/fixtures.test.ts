import { describe, expect, it } from 'vitest'
import { exampleString } from '../steps/worked'
import { conditions, FactsBuilder, readingBody, testId } from '../testing/factsBuilder'
import { type EntryBody, type EntryKind, entryBodySchema, sentEntrySchema } from './entry'
import { feedSampleSchema, liveSample } from './feed'
import { summarise } from './jobSummary'
import { upcast } from './upcast'
import { checkBody, evaluate, stepKey } from '../evaluate'
import { readValueOf } from '../quantity/readValue'

/** One body of every kind in every version ever shipped, as it lies in databases: these never change. */
const shipped: Record<EntryKind, unknown[]> = {
  reading: [
    {
      kind: 'reading',
      v: 1,
      slots: { voltage: { text: '369,6', value: 369.6, bound: 'exact', unit: 'V' } },
      conditions: {
        irradiance: { read: { text: '742', value: 742, bound: 'exact', unit: 'Wm2' }, instrument: null },
        cell: { way: 'air', read: { text: '18.0', value: 18, bound: 'exact', unit: 'degC' }, instrument: null },
        at: '2026-05-14T11:00:00.000Z',
        how: 'typed',
      },
      how: 'typed',
      instrument: {
        id: testId(1),
        tag: '07',
        name: 'Tester',
        calibrationDue: '2026-09-01',
        standIn: false,
        accuracy: { ofReading_pct: 0.5, digits: 2 },
        most: 1000,
      },
      place: 'plugs',
      plantRevision: testId(2),
      confirmed: ['ten-times'],
      note: 'windy',
    },
  ],
  confirmation: [{ kind: 'confirmation', v: 1, of: 'plant-changed', note: null }],
  'left-out': [{ kind: 'left-out', v: 1, reason: 'not wired yet' }],
  override: [{ kind: 'override', v: 1, gate: 'voltage-first', reason: 'lead broken' }],
  'plant-change': [{ kind: 'plant-change', v: 1, before: null, after: exampleString(11), base: null }],
  remark: [{ kind: 'remark', v: 1, text: 'roof is dry' }],
  question: [{ kind: 'question', v: 1, text: 'which lead was it?' }],
  answer: [{ kind: 'answer', v: 1, question: testId(4), text: 'the reel' }],
  photo: [{ kind: 'photo', v: 1, attachment: testId(3), sha256: 'a'.repeat(64), takenAt: null, caption: '' }],
  void: [{ kind: 'void', v: 1, target: testId(4), reason: 'a slip' }],
  choice: [{ kind: 'choice', v: 1, target: testId(5), reason: null }],
  conditions: [
    {
      kind: 'conditions',
      v: 1,
      target: testId(7),
      conditions: {
        irradiance: { read: { text: '742', value: 742, bound: 'exact', unit: 'Wm2' }, instrument: null },
        cell: { way: 'air', read: { text: '18.0', value: 18, bound: 'exact', unit: 'degC' }, instrument: null },
        at: '2026-05-14T11:00:00.000Z',
        how: 'file',
      },
      file: 'roof.csv',
    },
  ],
  snag: [{ kind: 'snag', v: 1, text: 'count the plugs' }],
  class: [
    { kind: 'class', v: 1, target: testId(7), line: 'look-board', as: 'improve' },
    { kind: 'class', v: 1, target: null, line: null, as: 'could-be' },
  ],
  remedy: [{ kind: 'remedy', v: 1, snag: testId(6), text: 'plug remade', repeat: ['pv-voc'] }],
  signature: [
    {
      kind: 'signature',
      v: 1,
      role: 'tested',
      printedName: 'Wren',
      statement: 'so it was',
      coversHash: 'b'.repeat(64),
    },
  ],
  'regime-move': [{ kind: 'regime-move', v: 1, regime: 'own', from: 1, to: 2, reason: 'the club changed a limit' }],
  amendment: [{ kind: 'amendment', v: 1, issue: 'A', reason: 'wrong address' }],
}

describe('bodies of every version ever shipped', () => {
  it.each(Object.entries(shipped))('%s is read as it was written', (kind, bodies) => {
    for (const body of bodies) expect(upcast(body)).toEqual({ ...(body as EntryBody), kind })
  })

  it('leave out no kind of the union', () => {
    const kinds = entryBodySchema.options.map((option) => option.shape.kind.value)
    expect(Object.keys(shipped).sort()).toEqual([...kinds].sort())
  })

  it('of another shape are refused', () => {
    expect(() => upcast({ kind: 'remark', v: 2, text: 'x' })).toThrow()
    expect(() => upcast({ kind: 'remark', v: 1, text: 'x', extra: 1 })).toThrow()
  })
})

describe('an entry as a device sends it', () => {
  const sent = {
    id: testId(1),
    jobId: testId(2),
    visitId: testId(3),
    partId: null,
    step: null,
    deviceTime: '2026-05-14T11:00:00.000Z',
    clockOffset_ms: 0,
    body: shipped.remark[0],
  }

  it('names neither who sent it nor when it came', () => {
    expect(sentEntrySchema.safeParse(sent).success).toBe(true)
    expect(sentEntrySchema.safeParse({ ...sent, personId: testId(9) }).success).toBe(false)
    expect(sentEntrySchema.safeParse({ ...sent, receivedAt: sent.deviceTime }).success).toBe(false)
  })
})

describe('doubts about a reading', () => {
  const build = new FactsBuilder()
  const string = build.string('1')
  const evaluation = evaluate(build.facts(), 0)
  const check = (volts: number, confirmed: string[] = []) => {
    const { step, part } = evaluation.byKey.get(stepKey('pv-voc', string))!
    if (step.kind !== 'read') throw new Error('expected a step that is read')
    const slots = { voltage: readValueOf(volts, 'V', 1) }
    return checkBody(evaluation, { step, part }, readingBody({ slots, conditions: conditions(), confirmed })).check
  }

  it('let sound figures and faults through', () => {
    for (const volts of [370, 337, 300, 0]) expect(check(volts)).toEqual({ state: 'fine' })
  })

  it('ask about ten times and a tenth, until confirmed', () => {
    expect(check(3700)).toMatchObject({ state: 'ask', code: 'ten-times' })
    expect(check(37)).toMatchObject({ state: 'ask', code: 'a-tenth' })
    expect(check(900)).toMatchObject({ state: 'ask', code: 'far-off' })
    expect(check(3700, ['ten-times'])).toEqual({ state: 'fine' })
  })

  it('refuse 5000 V on a 370 V string, and negative volts', () => {
    expect(check(5000, ['ten-times'])).toMatchObject({ state: 'refused', code: 'absurd' })
    expect(check(-370)).toMatchObject({ state: 'refused', code: 'negative-dc-voltage' })
  })
})

describe('a sample of the feed', () => {
  const meter = {
    id: testId(1),
    tag: '02',
    name: 'Meter',
    serial: '',
    calibrationDue: null,
    standIn: false,
    ranges: [{ measures: 'irradiance' as const, accuracy: { ofReading_pct: 2, digits: 1 }, most: 1600, decimals: 0 }],
  }
  const sample = (rest: object) =>
    feedSampleSchema.parse({
      quantity: 'irradiance',
      value: 741.63,
      unit: 'Wm2',
      at: '2026-05-14T11:00:00.000Z',
      ...rest,
    })

  it('is what a person would read off the display', () => {
    expect(liveSample(meter, sample({}))).toMatchObject({ read: { text: '742', value: 742 } })
    expect(liveSample(meter, sample({ text: '741.6', value: 741.6 }))).toMatchObject({
      read: { text: '741.6', value: 741.6 },
    })
  })

  it('says between which conductors it stands, in words that are known', () => {
    const volts = { measures: 'ac-voltage' as const, accuracy: { ofReading_pct: 1, digits: 2 }, most: 500, decimals: 0 }
    const tester = { ...meter, ranges: [volts] }
    const read = { quantity: 'ac-voltage', value: 231, unit: 'V', pair: 'L-N' }
    expect(liveSample(tester, sample(read))).toMatchObject({ pair: 'L-N' })
    // Light falls between no two conductors.
    expect(liveSample(meter, sample({ pair: 'L-N' }))).toEqual({ code: 'feed-pair', quantity: 'irradiance' })
    expect(() => sample({ pair: 'L to N' })).toThrow()
  })

  it('is refused in a quantity or unit that is not the instrument’s', () => {
    expect(liveSample(meter, sample({ quantity: 'dc-voltage', unit: 'V' }))).toMatchObject({ code: 'feed-quantity' })
    expect(liveSample(meter, sample({ unit: 'V' }))).toMatchObject({ code: 'feed-unit' })
  })
})

describe('the summary of a job', () => {
  it('says how far it is and what holds it', () => {
    const build = new FactsBuilder()
    const string = build.string('1')
    build.polarity(string, 'reversed')
    expect(summarise(build.facts(), 0)).toMatchObject({
      strings: 1,
      peak_W: 11 * 282,
      // The site was isolated; its other lists and the string's own tests are open.
      done: 1,
      total: 10,
      worst: 'outside',
      holds: { stepId: 'pv-polarity', tag: '1', verdict: 'outside' },
    })
  })

  it('of an empty job waits for the lists of the site', () => {
    expect(summarise(new FactsBuilder().facts(), 0)).toMatchObject({
      strings: 0,
      total: 4,
      holds: { stepId: 'inspection' },
      issue: null,
    })
  })
})
