// Whatever a string with electronics on its modules can come to is said in words.
import { describe, expect, it } from 'vitest'
import { evaluate, stepKey } from '@/core/evaluate'
import { allCauses } from '@/core/evaluation/allCauses'
import { soundOf } from '@/core/evaluate'
import type { StringData } from '@/core/plant/part'
import { readValueOf } from '@/core/quantity/readValue'
import { exampleString } from '@/core/steps/worked'
import { FactsBuilder, START_ms } from '@/core/testing/factsBuilder'
import './regime'
import { hasWords } from './say'

const converters = { acts: 'converts', held_V: 1.2, most_V: 460, most_A: 14, insulation_V: 500 } as const
const insulation = { method: 'joined-to-earth', behaviour: 'steady', surface: 'dry', surge: 'none-there' }

/** Keys of all that is said of a voltage of 11 such modules, null where none was read, and of their insulation. */
function keysOf(electronics: StringData['electronics'], volts: number | null): string[] {
  const build = new FactsBuilder()
  const id = build.part({ ...exampleString(11), electronics })
  if (volts !== null) build.reading('pv-voc', id, { slots: { voltage: readValueOf(volts, 'V', 1) } })
  const choices = Object.entries({ ...insulation, 'set-voltage': 'v500' }).map(([slot, choice]) => [slot, { choice }])
  build.reading('pv-insulation', id, {
    slots: { ...Object.fromEntries(choices), joined: readValueOf(400, 'Mohm', 0) },
  })
  const all = evaluate(build.facts(), START_ms)
  return ['pv-voc', 'pv-insulation'].flatMap((step) => {
    const one = all.byKey.get(stepKey(step, id))!
    const judgement = one.counting?.judgement ?? one.judgement
    return [
      `finding.${one.finding.code}`,
      ...(judgement?.lines ?? []).map(({ code }) => `working.${code}`),
      ...(judgement?.limits ?? []).map(({ id: limit }) =>
        hasWords(`limit.${limit}`) ? `limit.${limit}` : `rating.${limit}`,
      ),
      ...allCauses(all, one).flatMap(({ code, next }) => [`cause.${code}`, `next.${next.code}`]),
      ...soundOf(all, one).map(({ code }) => `finding.${code}`),
    ]
  })
}

describe('electronics on modules', () => {
  it.each([13.2, 13.7, 12, 14.4, 411, null])('read at %s V are said in words', (volts) => {
    const keys = [converters, { ...converters, held_V: null }, { ...converters, insulation_V: null }].flatMap((own) =>
      keysOf(own, volts),
    )
    expect(keys.length).toBeGreaterThan(10)
    expect(keys.filter((key) => !hasWords(key))).toEqual([])
  })
})
