import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { evaluate } from '../evaluate'
import { type FoundClass, foundClasses } from '../record/entry'
import { summarise } from '../record/jobSummary'
import { exampleSite } from '../steps/worked'
import { Installation, read } from '../testing/installation'
import { allFound, fitnessOf, foundIn } from './found'

type Work = 'new' | 'periodic'

/** A board of one circuit whose site is looked at again; the site is inspected with these lines not as they should be. */
function inspected(work: Work, bad: readonly string[] = []) {
  const made = new Installation()
  const site = made.build.part({ ...exampleSite, work })
  const slots = Object.fromEntries(
    bad.map((line) => [line, { choice: 'not-as-it-should', note: `seen at ${line}` } as const]),
  )
  made.take('ac-inspection', site, slots)
  return { made, site, reading: made.build.entries.at(-1)!.id }
}

const whole = ({ made }: { made: Installation }) => evaluate(made.facts, 0)

function classed(
  at: ReturnType<typeof inspected>,
  as: FoundClass,
  about: { target: string | null; line?: string; step?: string; partId?: string },
) {
  const { target, line = null, step = 'ac-inspection', partId = at.site } = about
  return at.made.build.add({ kind: 'class', v: 1, target, line, as }, { step, partId })
}

describe('what a periodic inspection found', () => {
  it('is nothing to be classed where the work is new', () => {
    const at = inspected('new', ['look-board'])
    classed(at, 'improve', { target: at.reading, line: 'look-board' })
    expect(foundIn(whole(at))).toEqual([])
    expect(fitnessOf(whole(at))).toBeNull()
  })

  it('is each line of a list by itself, with the words that stand beside it', () => {
    const at = inspected('periodic', ['look-board', 'look-surge'])
    classed(at, 'improve', { target: at.reading, line: 'look-surge' })
    expect(foundIn(whole(at)).map(({ line, text, as }) => ({ line, text, as }))).toEqual([
      { line: 'look-board', text: 'seen at look-board', as: null },
      { line: 'look-surge', text: 'seen at look-surge', as: 'improve' },
    ])
    expect(fitnessOf(whole(at))).toMatchObject({ state: 'not-fit', unclassed: 1 })
  })

  it('goes by what was said last and not taken back', () => {
    const at = inspected('periodic', ['look-board'])
    const about = { target: at.reading, line: 'look-board' }
    classed(at, 'improve', about)
    const grave = classed(at, 'danger', about)
    expect(foundIn(whole(at))[0]).toMatchObject({ as: 'danger' })
    at.made.build.add({ kind: 'void', v: 1, target: grave, reason: 'mixed up' })
    expect(foundIn(whole(at))[0]).toMatchObject({ as: 'improve' })
  })

  it('is said of one reading and not of the next', () => {
    const at = inspected('periodic', ['look-board'])
    classed(at, 'improve', { target: at.reading, line: 'look-board' })
    at.made.take('ac-inspection', at.site, { 'look-board': { choice: 'not-as-it-should', note: 'worse by now' } })
    expect(foundIn(whole(at))[0]).toMatchObject({ text: 'worse by now', as: null })
  })

  it('stays while it was mended and not looked at again, and goes with the test that closes it', () => {
    const at = inspected('periodic', ['look-board'])
    classed(at, 'danger', { target: at.reading, line: 'look-board' })
    at.made.build.add(
      { kind: 'remedy', v: 1, snag: at.reading, text: 'cover put on', repeat: ['ac-inspection'] },
      { step: 'ac-inspection', partId: at.site },
    )
    expect(foundIn(whole(at))).toMatchObject([{ line: 'look-board', as: 'danger' }])
    at.made.take('ac-inspection', at.site, {})
    expect(foundIn(whole(at))).toEqual([])
    expect(allFound(whole(at))).toMatchObject([{ line: 'look-board', as: 'danger', closed: true }])
  })

  it('is closed line by line: what was put right goes though another line of the list stays as it is', () => {
    const at = inspected('periodic', ['look-board', 'look-surge', 'look-chart'])
    const { reading } = at
    for (const line of ['look-board', 'look-surge', 'look-chart']) classed(at, 'danger', { target: reading, line })
    at.made.build.add(
      { kind: 'remedy', v: 1, snag: reading, text: 'cover put on', repeat: ['ac-inspection'] },
      { step: 'ac-inspection', partId: at.site },
    )
    at.made.take('ac-inspection', at.site, {
      'look-surge': { choice: 'not-as-it-should', note: 'none fitted' },
      'look-chart': { choice: 'check-left-out', note: 'locked' },
    })
    // Left out is not looked at again: what was found there stands.
    expect(foundIn(whole(at)).map(({ line, text, as }) => [line, text, as])).toEqual([
      ['look-chart', 'seen at look-chart', 'danger'],
      ['look-surge', 'none fitted', null],
    ])
    expect(allFound(whole(at)).filter(({ closed }) => closed)).toMatchObject([{ line: 'look-board' }])
  })

  it('is the last reading where a figure is outside once more after it was mended', () => {
    const at = inspected('periodic')
    const about = { step: 'r1r2', partId: at.made.circuit }
    const outside = () => at.made.take('r1r2', at.made.circuit, { r1r2: read(4, 'ohm', 2) })
    outside()
    const snag = at.made.says('r1r2', at.made.circuit).one.counting!.entry.id
    at.made.build.add({ kind: 'remedy', v: 1, snag, text: 'terminal tightened', repeat: ['r1r2'] }, about)
    outside()
    const last = at.made.says('r1r2', at.made.circuit).one.counting!.entry.id
    expect(foundIn(whole(at)).filter(({ step }) => step === 'r1r2')).toMatchObject([{ target: last }])
  })

  it('is what somebody wrote down beside the lines of the same list', () => {
    const at = inspected('periodic', ['look-board'])
    const about = { step: 'ac-inspection', partId: at.site }
    at.made.build.add({ kind: 'snag', v: 1, text: 'smell of burning' }, about)
    expect(foundIn(whole(at)).map(({ line, text }) => [line, text])).toEqual([
      [null, 'smell of burning'],
      ['look-board', 'seen at look-board'],
    ])
  })

  it('is a figure outside, which is never only to be improved where it protects people', () => {
    const at = inspected('periodic')
    at.made.take('r1r2', at.made.circuit, { r1r2: read(4, 'ohm', 2) })
    const { one } = at.made.says('r1r2', at.made.circuit)
    expect([one.verdict, one.step.protects]).toEqual(['outside', true])
    classed(at, 'improve', { target: one.counting!.entry.id, step: 'r1r2', partId: at.made.circuit })
    const found = foundIn(whole(at)).find(({ step }) => step === 'r1r2')!
    expect(found).toMatchObject({ as: 'look-further', said: { as: 'improve' }, least: 'look-further' })
    expect(fitnessOf(whole(at))?.state).toBe('not-fit')
  })

  it('is what follows from the plant by itself', () => {
    const made = new Installation({ circuit: { rating_A: 32, cable_A: 20 } })
    const site = made.build.part({ ...exampleSite, work: 'periodic' })
    const { one } = made.says('overload', made.circuit)
    expect(one.verdict).toBe('outside')
    made.build.add(
      { kind: 'class', v: 1, target: null, line: null, as: 'could-be' },
      { step: 'overload', partId: made.circuit },
    )
    const found = foundIn(whole({ made })).find(({ step }) => step === 'overload')
    expect([site !== '', found?.target, found?.as]).toEqual([true, null, 'could-be'])
  })
})

describe('what is dangerous now', () => {
  it('stands in the list of jobs until it is put right', () => {
    const at = inspected('periodic', ['look-board', 'look-chart'])
    classed(at, 'improve', { target: at.reading, line: 'look-chart' })
    expect(summarise(at.made.facts, 0).dangers).toEqual([])
    classed(at, 'danger', { target: at.reading, line: 'look-board' })
    expect(summarise(at.made.facts, 0).dangers).toEqual([
      { stepId: 'ac-inspection', partId: at.site, tag: exampleSite.tag, text: 'seen at look-board' },
    ])
    at.made.build.add(
      { kind: 'remedy', v: 1, snag: at.reading, text: 'cover put on', repeat: ['ac-inspection'] },
      { step: 'ac-inspection', partId: at.site },
    )
    at.made.take('ac-inspection', at.site, {})
    expect(summarise(at.made.facts, 0).dangers).toEqual([])
  })
})

describe('whether it may go on in use', () => {
  it('is open while anything was not looked at, also where nothing is wrong', () => {
    expect(fitnessOf(whole(inspected('periodic')))).toMatchObject({ state: 'not-finished', unclassed: 0 })
  })

  it.each([
    ['danger', 'not-fit'],
    ['could-be', 'not-fit'],
    ['look-further', 'not-fit'],
    ['improve', 'not-finished'],
  ] as const)('with one matter of %s is %s', (as, state) => {
    const at = inspected('periodic', ['look-chart'])
    classed(at, as, { target: at.reading, line: 'look-chart' })
    expect(fitnessOf(whole(at))).toMatchObject({ state, counts: { [as]: 1 } })
  })

  it('is said of a whole inspection with no more than what is to be improved', () => {
    const at = inspected('periodic', ['look-chart'])
    classed(at, 'improve', { target: at.reading, line: 'look-chart' })
    at.made.take('r1r2', at.made.circuit, { r1r2: read(0.41, 'ohm', 2) })
    expect(at.made.says('r1r2', at.made.circuit).verdict).toBe('within')
    expect(fitnessOf(leftOutRest(at))).toMatchObject({ state: 'fit', counts: { improve: 1 } })
  })

  it('is never said while anything is graver than to be improved, or of no class at all', () => {
    const lines = ['look-board', 'look-chart', 'look-surge', 'look-joints'] as const
    const classes = fc.option(fc.constantFrom(...foundClasses))
    fc.assert(
      fc.property(fc.tuple(classes, classes, classes, classes), (said) => {
        const at = inspected('periodic', lines)
        at.made.take('r1r2', at.made.circuit, { r1r2: read(0.41, 'ohm', 2) })
        for (const [k, as] of said.entries()) if (as) classed(at, as, { target: at.reading, line: lines[k]! })
        const { state, unclassed } = fitnessOf(leftOutRest(at))!
        expect(unclassed).toBe(said.filter((as) => as === null).length)
        expect(state).toBe(said.every((as) => as === 'improve') ? 'fit' : 'not-fit')
      }),
      { numRuns: 60 },
    )
  })

  it('is not said where every test that protects people was left out', () => {
    expect(fitnessOf(leftOutRest(inspected('periodic')))?.state).toBe('not-finished')
  })
})

/** Whatever is asked and was not read is left out with a reason. */
function leftOutRest(at: ReturnType<typeof inspected>) {
  for (const one of whole(at).steps) {
    if (one.counting === null && one.computed === null)
      at.made.build.add(
        { kind: 'left-out', v: 1, reason: 'agreed with the owner' },
        { step: one.step.id, partId: one.part.id },
      )
  }
  return whole(at)
}
