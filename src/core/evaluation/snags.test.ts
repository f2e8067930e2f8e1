import { describe, expect, it } from 'vitest'
import { evaluate, stepKey } from '../evaluate'
import { moduleModel } from '../pv/stringModel'
import { exampleModule } from '../steps/worked'
import { FactsBuilder, people, START_ms } from '../testing/factsBuilder'

const one_V = moduleModel(exampleModule).voc_V(742, 43.6)

function shortString() {
  const build = new FactsBuilder()
  const id = build.string('4')
  build.polarity(id)
  const reading = build.voltage(id, 10 * one_V)
  return { build, id, reading }
}
const snagsOf = (build: FactsBuilder) => evaluate(build.facts(), START_ms).snags
const remedy = (build: FactsBuilder, id: string, snag: string, repeat = ['pv-polarity', 'pv-voc']): string =>
  build.add({ kind: 'remedy', v: 1, snag, text: 'plugged the module in', repeat }, { step: 'pv-voc', partId: id })

describe('a snag', () => {
  it('is opened by a reading that is outside', () => {
    const { build, reading } = shortString()
    expect(snagsOf(build)).toMatchObject([
      { entryId: reading, step: 'pv-voc', state: 'open', finding: { code: 'pv-voc.outside-below' }, remedy: null },
    ])
  })

  it('is mended once it is said how, and asks for the steps that the mending may have changed', () => {
    const { build, id, reading } = shortString()
    remedy(build, id, reading)
    const evaluation = evaluate(build.facts(), START_ms)
    expect(evaluation.snags).toMatchObject([{ state: 'mended', remedy: { text: 'plugged the module in' } }])
    for (const step of ['pv-polarity', 'pv-voc']) {
      const one = evaluation.byKey.get(stepKey(step, id))!
      expect(one).toMatchObject({ repeatAsked: true, counting: null, done: false })
    }
    expect(evaluation.byKey.get(stepKey('pv-polarity', id))!.finding).toMatchObject({
      code: 'repeat-after-remedy',
      figures: { reason: 'plugged the module in' },
    })
  })

  it('keeps the readings before it readable, with why they no longer count', () => {
    const { build, id, reading } = shortString()
    remedy(build, id, reading)
    const [before] = evaluate(build.facts(), START_ms).byKey.get(stepKey('pv-voc', id))!.readings
    expect(before).toMatchObject({ verdict: 'outside', ended: { by: 'remedy', reason: 'plugged the module in' } })
  })

  it('is closed by a re-test that is sound', () => {
    const { build, id, reading } = shortString()
    remedy(build, id, reading)
    build.polarity(id)
    expect(snagsOf(build)[0]!.state).toBe('mended')
    build.voltage(id, 11 * one_V)
    expect(snagsOf(build)).toMatchObject([{ entryId: reading, state: 'closed' }])
  })

  it('that was not really mended opens another, and the first stays open as mended', () => {
    const { build, id, reading } = shortString()
    remedy(build, id, reading)
    build.polarity(id)
    const again = build.voltage(id, 10 * one_V)
    expect(snagsOf(build).map((one) => [one.entryId, one.state])).toEqual([
      [reading, 'mended'],
      [again, 'open'],
    ])
  })

  it('of a step that was not named for repeating leaves its reading alone', () => {
    const { build, id, reading } = shortString()
    remedy(build, id, reading, [])
    const evaluation = evaluate(build.facts(), START_ms)
    expect(evaluation.byKey.get(stepKey('pv-polarity', id))!.verdict).toBe('within')
    expect(evaluation.byKey.get(stepKey('pv-voc', id))!.repeatAsked).toBe(true)
  })

  it('written down by a person speaks for its step, and is not opened twice', () => {
    const { build, id } = shortString()
    const snag = build.add({ kind: 'snag', v: 1, text: 'plug cracked' }, { step: 'pv-voc', partId: id })
    expect(snagsOf(build)).toMatchObject([{ entryId: snag, text: 'plug cracked', finding: null, state: 'open' }])
    remedy(build, id, snag)
    build.polarity(id)
    build.voltage(id, 11 * one_V)
    expect(snagsOf(build)).toMatchObject([{ entryId: snag, state: 'closed' }])
  })

  it('of no step closes as soon as it is mended', () => {
    const build = new FactsBuilder()
    const snag = build.add({ kind: 'snag', v: 1, text: 'ladder was short' })
    build.add({ kind: 'remedy', v: 1, snag, text: 'longer one fetched', repeat: [] })
    expect(snagsOf(build)).toMatchObject([{ state: 'closed' }])
  })

  it('that was a slip is gone when it is voided', () => {
    const build = new FactsBuilder()
    const snag = build.add({ kind: 'snag', v: 1, text: 'wrong roof' })
    build.add({ kind: 'void', v: 1, target: snag, reason: 'wrong roof' }, { personId: people.ada })
    expect(snagsOf(build)).toEqual([])
  })

  it('whose remedy is voided counts again as it did', () => {
    const { build, id, reading } = shortString()
    const mended = remedy(build, id, reading)
    build.add({ kind: 'void', v: 1, target: mended, reason: 'it was string 5' })
    const evaluation = evaluate(build.facts(), START_ms)
    expect(evaluation.byKey.get(stepKey('pv-voc', id))!.verdict).toBe('outside')
    expect(evaluation.snags).toMatchObject([{ state: 'open' }])
  })

  it('is none where nothing is outside', () => {
    const build = new FactsBuilder()
    const id = build.string('1')
    build.polarity(id)
    build.voltage(id, 11 * one_V)
    expect(snagsOf(build)).toEqual([])
  })
})

describe('a photo', () => {
  const photo = {
    kind: 'photo',
    v: 1,
    attachment: people.wren,
    sha256: 'a'.repeat(64),
    takenAt: null,
    caption: 'plug',
  } as const

  it('belongs to its step, until it is voided', () => {
    const { build, id } = shortString()
    const kept = build.add(photo, { step: 'pv-voc', partId: id })
    expect(evaluate(build.facts(), START_ms).photos).toMatchObject([{ caption: 'plug', step: 'pv-voc', partId: id }])
    build.add({ kind: 'void', v: 1, target: kept, reason: 'somebody is on it' })
    expect(evaluate(build.facts(), START_ms).photos).toEqual([])
  })
})
