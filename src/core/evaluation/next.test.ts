import { describe, expect, it } from 'vitest'
import { type Evaluation, evaluate, evaluateNext } from '../evaluate'
import { moduleModel } from '../pv/stringModel'
import { exampleModule } from '../steps/worked'
import { wholeBehind } from './run'
import { FactsBuilder, START_ms } from '../testing/factsBuilder'

/** What a sound string of eleven shows in the light and warmth of these readings. */
const SOUND_V = 11 * moduleModel(exampleModule).voc_V(742, 43.6)

/** What every step shows, its gates included. */
const shown = (evaluation: Evaluation): unknown =>
  evaluation.steps.map(({ key, verdict, finding, flags, gates }) => [key, verdict, finding, flags, gates])

/** One thing more, evaluated alone and anew: both. */
function bothWays(build: FactsBuilder, more: () => void): { alone: Evaluation; anew: Evaluation } {
  const facts = build.facts({ entries: [...build.entries] })
  const before = evaluate(facts, START_ms)
  more()
  const after = { ...facts, entries: [...build.entries] }
  return { alone: evaluateNext(before, after, START_ms), anew: evaluate(after, START_ms) }
}

describe('one entry more', () => {
  it('that makes a sister the odd one out holds back what waits for that sister', () => {
    const build = new FactsBuilder()
    const strings = ['1', '2', '3'].map((tag) => build.string(tag))
    for (const string of strings) build.polarity(string)
    // By its own expectation each is right; beside two others the first is 6 % low, beside one nobody knows.
    build.voltage(strings[0]!, SOUND_V * 0.97)
    build.voltage(strings[1]!, SOUND_V * 1.03)
    const { alone, anew } = bothWays(build, () => build.voltage(strings[2]!, SOUND_V * 1.03))
    const odd = anew.byKey.get(`pv-voc:${strings[0]}`)!
    expect(odd.finding.code).toBe('sisters.below')
    expect(shown(alone)).toEqual(shown(anew))
  })

  it('that lets a sister be right again opens what waits for it', () => {
    const build = new FactsBuilder()
    const strings = ['1', '2', '3'].map((tag) => build.string(tag))
    for (const string of strings) build.polarity(string)
    build.voltage(strings[0]!, SOUND_V * 0.97)
    for (const string of strings.slice(1)) build.voltage(string, SOUND_V * 1.03)
    const { alone, anew } = bothWays(build, () => build.voltage(strings[1]!, SOUND_V * 0.97))
    expect(shown(alone)).toEqual(shown(anew))
  })

  it('that leaves a test out opens what waits for it softly', () => {
    const build = new FactsBuilder()
    const string = build.string('1')
    build.polarity(string)
    const { alone, anew } = bothWays(build, () =>
      build.add({ kind: 'left-out', v: 1, reason: 'no meter' }, { step: 'pv-voc', partId: string }),
    )
    expect(anew.byKey.get(`pv-isc:${string}`)!.verdict).toBe('not-yet')
    expect(shown(alone)).toEqual(shown(anew))
  })

  it('that comes late, out of another device’s queue, comes to the same as one in its order', () => {
    const build = new FactsBuilder()
    const strings = ['1', '2', '3', '4'].map((tag) => build.string(tag))
    for (const string of strings) build.polarity(string)
    for (const string of strings.slice(0, 3)) build.voltage(string, SOUND_V)
    const late = build.entries.at(-1)!.deviceTime
    for (const string of strings.slice(0, 2)) build.voltage(string, SOUND_V * 1.01)
    const { alone, anew } = bothWays(build, () => {
      build.voltage(strings[3]!, SOUND_V * 0.9)
      Object.assign(build.entries.at(-1)!, { deviceTime: late })
    })
    expect(anew.byKey.get(`pv-voc:${strings[3]}`)!.counting).not.toBeNull()
    expect(shown(alone)).toEqual(shown(anew))
    expect(wholeBehind(alone).entries.map((one) => one.id)).toEqual(wholeBehind(anew).entries.map((one) => one.id))
  })

  it('that comes late and opens or shuts what was read since is judged with everything anew', () => {
    const build = new FactsBuilder()
    const string = build.string('1')
    const first = build.entries.at(-1)!.deviceTime
    build.polarity(string)
    build.voltage(string, SOUND_V)
    for (const more of [() => build.voltage(string, SOUND_V * 0.8), () => build.polarity(string)]) {
      const { alone, anew } = bothWays(build, () => {
        more()
        Object.assign(build.entries.at(-1)!, { deviceTime: first })
      })
      expect(shown(alone)).toEqual(shown(anew))
    }
  })
})
