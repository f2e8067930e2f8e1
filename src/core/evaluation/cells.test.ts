import { describe, expect, it } from 'vitest'
import { evaluate, evaluateDraft, heldAgainst, stepKey } from '../evaluate'
import { readValueOf } from '../quantity/readValue'
import type { Body } from '../record/entry'
import { steps } from '../steps'
import { isRead } from '../steps/step'
import { exampleBoard, exampleCircuit, exampleSupply } from '../steps/worked'
import { conditions, FactsBuilder } from '../testing/factsBuilder'
import { scaleOfSlot, verdictsOf, worstOf } from './cells'

const ohm = (value: number) => readValueOf(value, 'ohm', 2)
const body = (slots: Body<'reading'>['slots']): Body<'reading'> => ({
  kind: 'reading',
  v: 2,
  slots,
  conditions: null,
  how: 'typed',
  instrument: null,
  place: null,
  plantRevision: '',
  confirmed: [],
  note: null,
})

/** A three-phase circuit on a TN supply, its dead tests done. */
function workshop() {
  const build = new FactsBuilder()
  const supply = build.part({ ...exampleSupply, phases: 3 })
  const board = build.part({ ...exampleBoard, phases: 3, supplyId: supply })
  const circuit = build.part({ ...exampleCircuit, phases: 3, boardId: board, rcdId: null })
  return { build, circuit }
}

function zsOf(slots: Body<'reading'>['slots']) {
  const { build, circuit } = workshop()
  const evaluation = evaluate(build.facts(), 0)
  const one = evaluation.steps.find((each) => each.step.id === 'zs' && each.part.id === circuit)!
  const drafted = evaluateDraft(evaluation, one, body({ 'loop-method': { choice: 'non-trip' }, ...slots }))
  const judged = {
    judgement: drafted.judgement,
    verdict: drafted.judgement.verdict,
    isWhole: drafted.missing.length === 0,
  }
  return { evaluation, one, judged }
}

describe('the figures of a test', () => {
  it('are each within, close or outside by themselves', () => {
    const slots = { 'zs-l1': ohm(0.4), 'zs-l2': ohm(1.2), 'zs-l3': ohm(9) }
    const { judged } = zsOf(slots)
    expect(judged.verdict).toBe('outside')
    const verdicts = verdictsOf(judged, Object.keys(slots))
    expect([...verdicts]).toEqual([
      ['zs-l1', 'within'],
      ['zs-l2', 'close'],
      ['zs-l3', 'outside'],
    ])
  })

  it('are never within or close while the test is not whole', () => {
    for (const first of [0.4, 1.2]) {
      const { judged } = zsOf({ 'zs-l1': ohm(first) })
      expect(verdictsOf(judged, ['zs-l1']).get('zs-l1')).toBe('not-yet')
    }
    const { judged } = zsOf({ 'zs-l1': ohm(0.4), 'zs-l2': ohm(9) })
    expect([...verdictsOf(judged, ['zs-l1', 'zs-l2']).values()]).toEqual(['not-yet', 'outside'])
  })

  it('all take a word that no figure carries', () => {
    const { judged } = zsOf({ 'zs-l1': ohm(0.4), 'zs-l2': ohm(0.4), 'zs-l3': ohm(0.4) })
    const read = ['zs-l1', 'zs-l2', 'zs-l3']
    expect(new Set(verdictsOf(judged, read).values())).toEqual(new Set(['within']))
    for (const verdict of ['outside', 'held-back', 'not-yet', 'close'] as const)
      expect(new Set(verdictsOf({ ...judged, verdict }, read).values())).toEqual(new Set([verdict]))
    expect(new Set(verdictsOf({ ...judged, judgement: null }, read).values())).toEqual(new Set(['within']))
  })

  it('say the test’s own verdict somewhere, in every step’s example', () => {
    let seen = 0
    for (const step of steps.filter(isRead)) {
      const { part, others, named, reading } = step.example
      if (!reading) continue
      const build = new FactsBuilder()
      const id = build.part(part)
      for (const other of others?.(id) ?? []) build.part(other)
      if (named) build.part(named.data, named.id)
      build.reading(step.id, id, reading)
      const one = evaluate(build.facts(), 0).steps.find((each) => each.step === step && each.part.id === id)
      if (!one?.counting) continue
      const read = Object.keys(one.counting.entry.body.slots)
      const { verdict, judgement } = one.counting
      expect([...verdictsOf({ verdict, judgement, isWhole: true }, read).values()], step.id).toContain(verdict)
      seen++
    }
    expect(seen).toBeGreaterThan(20)
  })
})

describe('the figure that stands in a cell', () => {
  it('is the gravest, and of those alike the highest loop', () => {
    const slots = { 'zs-l1': ohm(0.4), 'zs-l2': ohm(0.5), 'zs-l3': ohm(0.3) }
    const { one, judged } = zsOf(slots)
    const own = one.step.kind === 'read' ? one.step.slots.filter(({ id }) => id in slots) : []
    expect(worstOf(one, own, slots, verdictsOf(judged, Object.keys(slots)))?.id).toBe('zs-l2')
    const verdicts = new Map([
      ['zs-l1', 'within'],
      ['zs-l2', 'within'],
      ['zs-l3', 'close'],
    ] as const)
    expect(worstOf(one, own, slots, verdicts)?.id).toBe('zs-l3')
    expect(worstOf(one, own, {}, verdicts)).toBeNull()
  })

  it('is the lowest insulation, and a display over its range is above every figure', () => {
    const { build, circuit } = workshop()
    const one = evaluate(build.facts(), 0).steps.find(
      (each) => each.step.id === 'ac-insulation' && each.part.id === circuit,
    )!
    const slots = {
      'l1-pe': { ...readValueOf(999, 'Mohm', 0), bound: 'more-than' as const, text: '>999' },
      'l2-pe': readValueOf(640, 'Mohm', 0),
      'l3-pe': readValueOf(640, 'Mohm', 0),
    }
    const own = one.step.kind === 'read' ? one.step.slots.filter(({ id }) => id in slots) : []
    expect(worstOf(one, own, slots, new Map())?.id).toBe('l2-pe')
  })
})

describe('the scale of a figure', () => {
  it('has its limit before anything is read, and the figure afterwards', () => {
    const { evaluation, one, judged } = zsOf({ 'zs-l1': ohm(0.4), 'zs-l2': ohm(0.5), 'zs-l3': ohm(0.3) })
    const slot = one.step.kind === 'read' ? one.step.slots.find(({ id }) => id === 'zs-l2')! : null
    const before = scaleOfSlot(evaluation, one, null, slot!)
    expect(before?.measured).toBeNull()
    expect(before?.band.high).toBeCloseTo(1.3656, 4)
    const after = scaleOfSlot(evaluation, one, judged.judgement, slot!)
    expect(after?.measured?.text).toBe('0.50')
    expect(after?.band).toEqual(before?.band)
  })

  it('has the same limits before it is read as afterwards, on each line', () => {
    const { evaluation, one, judged } = zsOf({ 'zs-l1': ohm(0.4), 'zs-l2': ohm(0.5), 'zs-l3': ohm(0.3) })
    const [before] = heldAgainst(evaluation, one, null)!.limits
    expect(before?.value).toBeCloseTo(1.3656, 4)
    expect(judged.judgement.limits).toContainEqual(before)
  })

  it('of light has none before the light is known', () => {
    const build = new FactsBuilder()
    const string = build.string('1')
    const evaluation = evaluate(build.facts(), 0)
    const one = evaluation.byKey.get(stepKey('pv-isc', string))!
    expect(heldAgainst(evaluation, one, null)).toBeNull()
    expect(heldAgainst(evaluation, one, conditions())!.limits.length).toBeGreaterThan(0)
    const polarity = evaluation.byKey.get(stepKey('pv-polarity', string))!
    expect(heldAgainst(evaluation, polarity, null)).toBeNull()
  })

  it('is not there where the regime lacks the figure, or the slot is no figure', () => {
    const { build, circuit } = workshop()
    const facts = build.facts()
    const { 'close.insulation': _, ...limits } = facts.regime.limits
    const evaluation = evaluate(
      { ...facts, regime: { ...facts.regime, limits: limits as typeof facts.regime.limits } },
      0,
    )
    const one = evaluation.steps.find((each) => each.step.id === 'ac-insulation' && each.part.id === circuit)!
    const slots = one.step.kind === 'read' ? one.step.slots : []
    expect(scaleOfSlot(evaluation, one, null, slots.find(({ id }) => id === 'l1-pe')!)).toBeNull()
    expect(scaleOfSlot(evaluation, one, null, slots.find(({ id }) => id === 'pairing')!)).toBeNull()
  })
})
