import { describe, expect, it } from 'vitest'
import { byWhatIsNext, dueIn_days, isFound, jobState } from './jobOrder'
import type { JobLine, JobSummary } from './jobSummary'

const TODAY = '2026-03-07'
const summary = (over: Partial<JobSummary>): JobSummary => ({
  version: 7,
  stations: [],
  done: 2,
  total: 8,
  worst: 'not-yet',
  strings: 3,
  peak_W: 9000,
  holds: null,
  signed: [],
  issue: null,
  sinceSeal: 0,
  openSnags: 0,
  kitNeeds: [],
  ...over,
})
const job = (number: string, over: Partial<JobLine> = {}, of: Partial<JobSummary> = {}): JobLine => ({
  id: number,
  number,
  name: `Job ${number}`,
  place: '',
  people: [],
  visitAt: '2026-03-01T09:00:00.000Z',
  dueOn: null,
  putAwayAt: null,
  summary: summary(of),
  kitLacks: [],
  ...over,
})
const order = (...jobs: JobLine[]): string[] =>
  [...jobs].sort(byWhatIsNext(TODAY, (at) => at.startsWith(TODAY))).map((one) => one.number)

describe('where a job stands', () => {
  it.each([
    ['not-begun', job('1', {}, { done: 0 })],
    ['going', job('1')],
    ['outside', job('1', {}, { worst: 'outside', done: 8 })],
    ['to-sign', job('1', {}, { done: 8, worst: 'within' })],
    // Whoever tested signed it as it is: it waits for whoever checks.
    ['to-sign', job('1', {}, { worst: 'outside', done: 7, signed: ['tested'] })],
    ['sealed', job('1', {}, { done: 8, issue: 'A', signed: ['tested', 'checked'] })],
    // A fact after the seal opens it again.
    ['to-sign', job('1', {}, { done: 8, issue: 'A', sinceSeal: 1 })],
    ['put-away', job('1', { putAwayAt: '2026-03-02T00:00:00.000Z' }, { worst: 'outside' })],
    ['not-begun', job('1', {}, { done: 0, total: 0 })],
  ] as const)('is said: %s', (state, one) => {
    expect(jobState(one)).toBe(state)
  })
})

describe('what comes next', () => {
  it('is what is late, then where people are today, then what is due, then what is outside, then what waits to be signed', () => {
    const here = job('here', { visitAt: '2026-03-07T08:00:00.000Z' })
    const late = job('late', { dueOn: '2026-03-04' })
    const soon = job('soon', { dueOn: '2026-03-09' })
    const bad = job('bad', {}, { worst: 'outside' })
    const sign = job('sign', {}, { done: 8 })
    const fresh = job('fresh', {}, { done: 0 })
    const sealed = job('sealed', { dueOn: '2026-03-01' }, { done: 8, issue: 'A' })
    const away = job('away', { putAwayAt: '2026-03-05T00:00:00.000Z' }, { worst: 'outside' })
    expect(order(away, sealed, fresh, sign, bad, soon, late, here)).toEqual([
      'late',
      'here',
      'soon',
      'bad',
      'sign',
      'fresh',
      'sealed',
      'away',
    ])
  })

  it('leaves alike ones in the order of their visits, the latest first', () => {
    const [first, second] = [job('1'), job('2', { visitAt: '2026-03-02T09:00:00.000Z' })]
    expect(order(first, second)).toEqual(['2', '1'])
  })
})

describe('when a job is due', () => {
  it('is counted in days, late ones below nothing', () => {
    expect(dueIn_days(job('1', { dueOn: '2026-03-09' }), TODAY)).toBe(2)
    expect(dueIn_days(job('1', { dueOn: '2026-03-04' }), TODAY)).toBe(-3)
    expect(dueIn_days(job('1'), TODAY)).toBeNull()
    expect(dueIn_days(job('1', { dueOn: '2026-03-04' }, { done: 8, issue: 'A' }), TODAY)).toBeNull()
  })
})

describe('a search', () => {
  const one = job('0612', { name: 'Élan House', place: '4 Fern Lane', people: ['Tam Brackley'] })
  it('finds what has every word in its number, name, place or people', () => {
    expect(['0612', 'elan', 'fern HOUSE', 'brackley 06', ''].every((typed) => isFound(one, typed))).toBe(true)
    expect(['elan mill', '0613'].some((typed) => isFound(one, typed))).toBe(false)
  })
})
