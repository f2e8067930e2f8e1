import '@/words/everyTest'
import '@/words/regime'
import { describe, expect, it } from 'vitest'
import { flags, verdicts } from '@/core/verdict/verdict'
import { hasWords, sayCode, sayFinding } from '@/words/say'
import { causes, evaluate, linesOf, stepKey } from '../evaluate'
import { partKinds } from '../plant/part'
import { unitSpellings } from '../quantity/unit'
import type { SlotValue } from '../record/entry'
import { limitIds, schoolIds, schoolOptions } from '../regime/regime'
import { defaultRegime, shippedRegimes } from '../regime/shipped'
import { sources } from '../regime/sources'
import { FactsBuilder } from '../testing/factsBuilder'
import { steps, stepsOf } from './index'
import { CHECK_OPTIONS, type ChoiceSlot, type NumberSlot } from './slot'
import { type AnyStep, isRead, slotsOf } from './step'

/** One walk over everything the trade has: keys are read from the code, never listed again. */
const needsWords = (key: string): void => expect(hasWords(key), `words for "${key}"`).toBe(true)

/** Every gate of a step, by what opens it: the step it waits for, or the one that begins its state. */
const openersOf = (step: AnyStep): AnyStep[] =>
  step.gates.map(
    (gate) =>
      steps.find((other) =>
        'state' in gate
          ? isRead(other) && other.effects?.some((one) => one.state === gate.state && one.does === 'begin')
          : other.id === gate.waitsFor,
      )!,
  )

/** The worked example as facts, its slots changed where a test wants others. */
function exampleOf(step: AnyStep, slots?: Record<string, SlotValue>) {
  const build = new FactsBuilder()
  const { named } = step.example
  if (named) build.part(named.data, named.id)
  const partId = build.part(step.example.part)
  for (const other of step.example.others?.(partId) ?? []) build.part(other)
  if (step.example.part.kind === 'string' && step.id !== 'pv-polarity') build.polarity(partId)
  const { reading } = step.example
  if (isRead(step) && step.nulled) {
    const leads = reading?.slots['lead-set']
    build.nulled(leads && 'choice' in leads ? leads.choice : 'A')
  }
  if (reading) build.reading(step.id, partId, { v: 2, ...reading, slots: slots ?? reading.slots })
  const facts = build.facts()
  const evaluation = evaluate(facts, 0)
  return { facts, evaluation, one: evaluation.byKey.get(stepKey(step.id, partId))! }
}

/** Everything that is said of a step, each with words and with all its figures at hand. */
function saysAll(step: AnyStep, slots?: Record<string, SlotValue>) {
  const { evaluation, one } = exampleOf(step, slots)
  needsWords(`finding.${one.finding.code}`)
  expect(sayFinding(one.finding), one.finding.code).not.toContain('?')
  for (const also of one.finding.also ?? []) needsWords(`finding.${also.code}`)
  for (const flag of one.flags) needsWords(`flag.${flag}`)
  for (const cause of causes(evaluation, one)) {
    needsWords(`cause.${cause.code}`)
    needsWords(`next.${cause.next.code}`)
    needsWords(`fit.${cause.fit}`)
  }
  const lines = linesOf(evaluation, one)
  const decided = lines.filter((line) => line.decides)
  if (one.judgement && one.verdict !== 'left-out') {
    // The line that decides is the comparison which gave the verdict: they cannot disagree.
    expect(
      decided.map((line) => line.verdict),
      `${step.id} ${one.finding.code}`,
    ).toEqual([one.verdict])
  }
  for (const line of lines) {
    needsWords(`working.${line.code}`)
    expect(sayCode('working', line.code, line.figures), line.code).not.toContain('?')
    if (line.source) expect(sources[line.source]).toBeDefined()
    if (line.result) expect(Number.isFinite(line.result.value)).toBe(true)
  }
  return one
}

describe('every step', () => {
  it('has a name of its own', () => {
    expect(new Set(steps.map((step) => step.id)).size).toBe(steps.length)
  })

  it('has a place of its own in its chapter', () => {
    expect(new Set(steps.map((step) => step.order)).size).toBe(steps.length)
  })

  it.each(schoolOptions['work.order'])('comes after what it waits for, %s', (order) => {
    const all = stepsOf({ ...defaultRegime, schools: { ...defaultRegime.schools, 'work.order': order } })
    const ids = (list: typeof all): string[] => list.map((step) => step.id).sort()
    expect(ids(all)).toEqual(ids(steps))
    for (const step of all)
      for (const opener of openersOf(step)) expect(all.indexOf(opener), step.id).toBeLessThan(all.indexOf(step))
  })

  it('has the AC side before the DC side where that is the school', () => {
    const schools = { ...defaultRegime.schools, 'work.order': 'ac-first' } as const
    const letters = stepsOf({ ...defaultRegime, schools }).map((step) => step.order[0])
    expect([...new Set(letters)].join('')).toBe('ACDEFBG')
  })

  it.each(steps)('$id has words, sources and a hook-up for all it says', (step) => {
    for (const part of ['title', 'short', 'about']) needsWords(`step.${step.id}.${part}`)
    needsWords(`tag.${step.tag}`)
    needsWords(`station.${step.station}`)
    needsWords(`part.${step.appliesTo}`)
    expect(step.sources.length).toBeGreaterThan(0)
    for (const source of step.sources) expect(sources[source]).toBeDefined()
    const balloons: number[] = step.hookup.leads.map((lead) => lead.balloon)
    for (const slot of slotsOf(step)) {
      needsWords(`slot.${slot.id}`)
      expect(balloons.length === 0 || slot.balloon > 0).toBe(true)
      if (slot.measures) needsWords(`measures.${slot.measures}`)
      for (const when of [slot.when ?? []].flat())
        expect(slotsOf(step).some((other) => other.id === when.slot)).toBe(true)
      if (slot.kind === 'number') expect(unitSpellings[slot.unit]).toBeDefined()
      if (slot.kind === 'check') for (const option of CHECK_OPTIONS) needsWords(`choice.${option}`)
      if (slot.kind === 'choice') {
        for (const option of slot.options) needsWords(`choice.${option}`)
        for (const option of slot.sound) expect(slot.options).toContain(option)
      }
    }
    for (const gate of step.gates) {
      needsWords(`gate.${gate.id}`)
      needsWords(`finding.held-back.${gate.id}`)
      // A hard gate says why it is shut where its subject is missing.
      if (gate.hard && gate.on && gate.on !== 'part') needsWords(`finding.held-back.missing.${gate.on}`)
    }
    expect(step.cautions.length).toBeGreaterThan(0)
    for (const caution of step.cautions) needsWords(`caution.${caution.id}`)
    expect(step.hookup.leads.length).toBeGreaterThan(0)
    for (const lead of step.hookup.leads) needsWords(`lead.${lead.code}`)
    for (const variant of (isRead(step) && step.variants) || []) {
      if ('slot' in variant)
        expect(
          slotsOf(step).some(
            (slot) => slot.kind === 'choice' && slot.id === variant.slot && slot.options.includes(variant.is),
          ),
        ).toBe(true)
      for (const caution of variant.cautions ?? []) needsWords(`caution.${caution.id}`)
      for (const lead of variant.hookup?.leads ?? []) needsWords(`lead.${lead.code}`)
    }
    expect(step.minutes > 0 || !isRead(step)).toBe(true)
  })

  it.each(steps)('$id judges its worked example as its source says', (step) => {
    expect(step.example.source.length).toBeGreaterThan(10)
    const one = saysAll(step)
    expect(one.verdict).toBe(step.example.verdict)
    for (const { id, source } of one.judgement!.limits) {
      expect(sources[source]).toBeDefined()
      expect(hasWords(`limit.${id}`) || hasWords(`rating.${id}`), id).toBe(true)
    }
  })

  it.each(steps.filter((step) => step.example.reading))('$id has a sentence for every figure it can meet', (step) => {
    const base = step.example.reading!.slots
    const { rule } = exampleOf(step).one.judgement!
    const anchors = [rule?.expected?.value, rule?.band.low, rule?.band.high].filter((one) => one != null)
    const shares = [0, 0.05, 0.5, 0.7, 0.8, 0.9, 0.94, 0.955, 1, 1.045, 1.06, 1.1, 1.5, 2, 40]
    for (const slot of slotsOf(step).filter((one): one is NumberSlot => one.kind === 'number' && one.id in base)) {
      const own = base[slot.id]!
      const from = [...anchors, 'value' in own ? own.value : 0]
      for (const value of from.flatMap((one) => shares.map((share) => one * share))) {
        for (const bound of ['exact', 'more-than', 'less-than'] as const) {
          saysAll(step, { ...base, [slot.id]: { text: value.toFixed(2), value, bound, unit: slot.unit } })
        }
      }
    }
  })

  it.each(steps.filter((step) => step.example.reading))('$id has a sentence for every choice it offers', (step) => {
    const base = step.example.reading!.slots
    for (const slot of slotsOf(step).filter((one): one is ChoiceSlot => one.kind === 'choice')) {
      for (const choice of slot.options) saysAll(step, { ...base, [slot.id]: { choice } })
      const { [slot.id]: _, ...without } = base
      if (Object.keys(without).length > 0) saysAll(step, without)
    }
  })
})

describe('every regime, source, verdict and flag', () => {
  it('regimes set each limit once, from a named source', () => {
    for (const regime of shippedRegimes) {
      expect(Object.keys(regime.limits).sort()).toEqual([...limitIds].sort())
      for (const id of limitIds) expect(sources[regime.limits[id]!.source]).toBeDefined()
    }
    expect(new Set(shippedRegimes.map((regime) => regime.id)).size).toBe(shippedRegimes.length)
  })

  it('published sources are marked as recalled until held in hand', () => {
    for (const source of Object.values(sources)) expect(source.recalled).toBe(source.standing === 'published')
  })

  it('verdicts, flags and limits have words', () => {
    for (const verdict of verdicts) needsWords(`verdict.${verdict}`)
    for (const flag of flags) needsWords(`flag.${flag}`)
    for (const limit of limitIds) needsWords(`limit.${limit}`)
    for (const kind of partKinds) needsWords(`part.${kind}`)
    for (const school of schoolIds) {
      needsWords(`school.${school}`)
      for (const option of schoolOptions[school]) needsWords(`school.${school}.${option}`)
    }
  })
})
