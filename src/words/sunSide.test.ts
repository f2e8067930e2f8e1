// A plant without an AC side never loads its words: nothing that is said of it may stand there. No other words are loaded here.
import { describe, expect, it } from 'vitest'
import { evaluate } from '@/core/evaluate'
import { acKinds } from '@/core/plant/part'
import { steps } from '@/core/steps'
import { isRead } from '@/core/steps/step'
import { FactsBuilder, START_ms } from '@/core/testing/factsBuilder'
import { hasWords } from './say'

// What comes with its own words (a curve, the hunt for a fault) loads them where it is asked.
const build = new FactsBuilder(false)
build.string('1')
const { plant } = evaluate(build.facts(), START_ms)
const ofTheSun = steps.filter(
  (step) => !acKinds.has(step.appliesTo) && (step.where?.(plant) ?? true) && !step.comesWith,
)

describe('what is said of a plant that has no AC side', () => {
  it('comes with the first screen', () => {
    const asked = ofTheSun.flatMap((step) => {
      const read = isRead(step) ? step : null
      return [
        ...['title', 'short', 'about'].map((what) => `step.${step.id}.${what}`),
        `station.${step.station}`,
        ...(read?.cautions ?? []).map(({ id }) => `caution.${id}`),
        ...(read?.hookup.leads ?? []).map(({ code }) => `lead.${code}`),
        ...(read?.slots ?? []).map(({ id }) => `slot.${id}`),
      ]
    })
    expect(asked.length).toBeGreaterThan(100)
    expect(asked.filter((key) => !hasWords(key))).toEqual([])
  })
})
