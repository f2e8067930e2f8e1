import { describe, expect, it } from 'vitest'
import type { SlotValue } from '../../record/entry'
import { evaluate } from '../../evaluate'
import { choose, iec, Installation, read } from '../../testing/installation'
import { exampleSite } from '../worked'
import { leastBonding_mm2 } from './bonding'

const none = { 'bond-water': choose('no-need'), 'bond-gas': choose('no-need') }
const others = {
  'bond-steel': choose('no-need'),
  'bond-other': choose('no-need'),
  'bond-supplementary': choose('not-wanted'),
}
const bonded = (ohm: number, length_m = 10): Record<string, SlotValue> => ({
  ...none,
  ...others,
  'bond-water': choose('bonded'),
  'water-ohm': read(ohm),
  'water-length': read(length_m, 'm', 0),
})
/** Read between two parts that are in reach, joined by 4 mm2. */
const joined = (ohm: number): Record<string, SlotValue> => ({
  ...none,
  ...others,
  'bond-supplementary': choose('bonded'),
  'supplementary-ohm': read(ohm),
  'supplementary-length': read(3, 'm', 0),
})
const sizes = { earthing_mm2: 16, bonding_mm2: 10 }

describe('earthing and bonding conductors', () => {
  // IEC 60228 (from memory): 10 m of 10 mm2 at 1.83 mohm/m are 0.0183 ohm, with two joints of 0.05 ohm 0.1183.
  it.each([
    [0.06, 'within', 'bonding.within'],
    [0.3, 'outside', 'bonding.outside'],
  ])('of %d Ω over 10 m of 10 mm² are %s', (ohm, verdict, code) => {
    const site = new Installation({ supply: { ...sizes, arrangement: 'TN-S' } })
    const found = site.take('bonding', site.supply, bonded(ohm)).says('bonding', site.supply)
    expect(found.verdict).toBe(verdict)
    if (verdict === 'outside') expect(found.code).toBe(code)
    expect(found.one.judgement!.limits.map(({ value }) => value)).toEqual([expect.closeTo(0.1183, 4)])
  })

  // IEC 60228 (from memory): 3 m of 4 mm2 at 4.61 mohm/m are 0.0138 ohm, with two joints of 0.05 ohm 0.1138.
  it.each([
    [0.05, 'within'],
    [0.4, 'outside'],
  ])('between parts in reach of one another, %d Ω are %s', (ohm, verdict) => {
    const site = new Installation({ supply: { arrangement: 'TN-S' } })
    const found = site.take('bonding', site.supply, joined(ohm)).says('bonding', site.supply)
    expect(found.verdict).toBe(verdict)
    expect(found.one.judgement!.limits.map(({ value }) => value)).toEqual([expect.closeTo(0.1138, 4)])
  })

  it('of a bath that nobody bonded is outside, and was not asked of readings before version 6', () => {
    const site = new Installation({ supply: sizes })
    const none6 = { ...none, ...others, 'bond-supplementary': choose('not-bonded') }
    expect(site.take('bonding', site.supply, none6).says('bonding', site.supply)).toMatchObject({
      verdict: 'outside',
      code: 'bonding.no-supplementary',
    })
    const before = new Installation({ supply: sizes })
    before.take('bonding', before.supply, bonded(0.06))
    const entry = before.build.entries.at(-1)!
    if (entry.body.kind !== 'reading') throw new Error('a reading was taken')
    const { 'bond-supplementary': _, ...slots } = entry.body.slots
    entry.body = { ...entry.body, v: 5, slots }
    const { one } = before.says('bonding', before.supply)
    expect([one.verdict, one.flags.includes('earlier-questions')]).toEqual(['within', true])
    entry.body = { ...entry.body, v: 6 }
    expect(before.says('bonding', before.supply).verdict).not.toBe('within')
  })

  it('are held against nothing while nobody entered their size', () => {
    const site = new Installation()
    expect(site.take('bonding', site.supply, bonded(0.02)).says('bonding', site.supply)).toMatchObject({
      verdict: 'not-yet',
      code: 'bonding.no-size',
    })
  })

  it.each([
    [
      'metal from outside that is not bonded',
      { ...none, ...others, 'bond-gas': choose('not-bonded') },
      'bonding.not-bonded',
    ],
    [
      'an earthing conductor that is not sound',
      { ...none, ...others, 'earthing-whole': choose('conductor-unsound') },
      'bonding.earthing-unsound',
    ],
    [
      'a conductor that is still off',
      { ...none, ...others, 'bonds-back': { choice: 'not-as-it-should', note: 'gas is off' } },
      'bonding.left-off',
    ],
  ] as const)('with %s are outside', (_, slots, code) => {
    const site = new Installation({ supply: sizes })
    expect(site.take('bonding', site.supply, { ...slots }).says('bonding', site.supply)).toMatchObject({
      verdict: 'outside',
      code,
    })
  })

  it('are not finished while a service is not said', () => {
    const site = new Installation({ supply: sizes })
    site.build.nulled('A')
    site.build.reading('bonding', site.supply, {
      slots: { 'earthing-whole': choose('seen-throughout'), ...none, 'lead-set': choose('A') },
    })
    expect(site.says('bonding', site.supply)).toMatchObject({ verdict: 'not-yet', code: 'incomplete' })
  })

  // BS 7671 544.1 and table 54.8 (from memory): half the earthing conductor, at least 6 mm2; 10 mm2 where neutral and earth are one.
  it.each([
    ['TN-S', 16, 8],
    ['TN-S', 10, 6],
    ['TN-S', 120, 25],
    ['TT', null, 6],
    ['TN-C-S', 16, 10],
  ] as const)(
    'on %s behind an earthing conductor of %j mm² are at least %d mm² thick',
    (arrangement, earthing_mm2, least) => {
      const site = new Installation({ supply: { arrangement, earthing_mm2 } })
      const { one } = site.says('bonding', site.supply)
      const part = one.part as Parameters<typeof leastBonding_mm2>[0]['part']
      expect(leastBonding_mm2({ part, regime: site.regime })).toBe(least)
      if (arrangement === 'TN-C-S') expect(leastBonding_mm2({ part, regime: iec })).toBe(8)
    },
  )

  it('that are too thin are outside however little they read', () => {
    const site = new Installation({ supply: { ...sizes, bonding_mm2: 6, arrangement: 'TN-C-S' } })
    expect(site.take('bonding', site.supply, bonded(0.02)).says('bonding', site.supply)).toMatchObject({
      verdict: 'outside',
      code: 'bonding.size-outside',
    })
  })
})

describe('live tests', () => {
  const gate = (site: Installation) => site.says('zs', site.circuit).one.gates.find(({ id }) => id === 'bonding-sound')!

  it('wait, unless somebody says why not, for bonding that is not as it should be', () => {
    const site = new Installation({ supply: sizes })
    expect(gate(site)).toMatchObject({ met: true })
    site.take('bonding', site.supply, { ...none, ...others, 'bond-gas': choose('not-bonded') })
    expect(gate(site)).toMatchObject({ met: false, hard: false })
    site.take('bonding', site.supply, { ...none, ...others })
    expect(gate(site)).toMatchObject({ met: true })
  })
})

describe('the inspection of an electrical installation', () => {
  const asked = (work: 'new' | 'periodic' | null, withSite = true): string[] => {
    const site = new Installation()
    if (withSite) site.build.part({ ...exampleSite, work })
    const { steps } = evaluate(site.facts, 0)
    const one = steps.find(({ step }) => step.id === 'ac-inspection')!
    site.build.reading('ac-inspection', one.part.id, { slots: { 'look-intake': choose('as-it-should') } })
    const { finding } = evaluate(site.facts, 0).byKey.get(one.key)!
    expect(finding.code).toBe('checks.not-yet')
    return [String(finding.figures.count)]
  }

  it('asks of a new one what is handed over, and of one in use what wore', () => {
    // Of 30 lines: no other source here; new work leaves four lines of a periodic one away, that one the handed papers.
    expect(asked('new')).toEqual(['24'])
    expect(asked('periodic')).toEqual(['27'])
  })
})
