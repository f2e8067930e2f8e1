import { describe, expect, it } from 'vitest'
import { evaluate } from '../evaluate'
import { summarise } from '../record/jobSummary'
import { coverHash } from '../record/signature'
import { FactsBuilder, START_ms, testId } from '../testing/factsBuilder'
import { reviewOf } from './review'

const WHO = testId(0x77)
const ask = () => {
  const build = new FactsBuilder()
  const id = build.string('1')
  build.polarity(id)
  const about = { step: 'pv-polarity', partId: id }
  const question = build.add({ kind: 'question', v: 1, text: 'Read at the plugs?' }, { ...about, personId: WHO })
  return { build, about, question }
}
const review = (build: FactsBuilder) =>
  reviewOf(evaluate(build.facts(), START_ms), () => '2026-03-07').filter(({ kind }) => kind === 'question')

describe('a test that was sent back with a question', () => {
  it('waits in the lists until somebody answers', () => {
    const { build, about, question } = ask()
    expect(summarise(build.facts(), START_ms).asked).toEqual([
      { stepId: 'pv-polarity', partId: about.partId, tag: '1', text: 'Read at the plugs?' },
    ])
    build.add({ kind: 'answer', v: 1, question, text: 'Yes, at the plugs.' }, about)
    expect(summarise(build.facts(), START_ms).asked).toEqual([])
    expect(evaluate(build.facts(), START_ms).questions).toMatchObject([
      { text: 'Read at the plugs?', personId: WHO, answer: { text: 'Yes, at the plugs.' } },
    ])
  })

  it('wants words of whoever signs while it is open, and a look once it is answered', () => {
    const { build, about, question } = ask()
    expect(review(build)).toMatchObject([{ wantsWords: true, reasons: ['Read at the plugs?'] }])
    build.add({ kind: 'answer', v: 1, question, text: 'Yes.' }, about)
    expect(review(build)).toMatchObject([{ wantsWords: false, reasons: ['Read at the plugs?', 'Yes.'] }])
  })

  it('is no question any more once it was taken back, and an answer to nothing answers nothing', () => {
    const { build, about, question } = ask()
    build.add({ kind: 'answer', v: 1, question: testId(0x99), text: 'Which one?' }, about)
    expect(evaluate(build.facts(), START_ms).questions).toMatchObject([{ answer: null }])
    build.add({ kind: 'void', v: 1, target: question, reason: 'asked of the wrong string' }, about)
    expect(evaluate(build.facts(), START_ms).questions).toEqual([])
  })

  it('makes a signature before it stale', () => {
    const build = new FactsBuilder()
    const id = build.string('1')
    build.polarity(id)
    const coversHash = coverHash(build.facts().entries)
    build.add({
      kind: 'signature',
      v: 1,
      role: 'tested',
      printedName: 'Wren Hale',
      statement: 'I read it.',
      coversHash,
    })
    expect(evaluate(build.facts(), START_ms).signatures).toMatchObject([{ fresh: true }])
    build.add({ kind: 'question', v: 1, text: 'At the plugs?' }, { step: 'pv-polarity', partId: id })
    expect(evaluate(build.facts(), START_ms).signatures).toMatchObject([{ fresh: false }])
  })
})
