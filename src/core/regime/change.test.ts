import { describe, expect, it } from 'vitest'
import { evaluate, stepKey } from '../evaluate'
import { FactsBuilder, START_ms } from '../testing/factsBuilder'
import { moduleModel } from '../pv/stringModel'
import { exampleModule } from '../steps/worked'
import { changeRegime, type RegimeChange, regimeChangeSchema } from './change'
import { defaultRegime, regimeFrom, shippedRegimes } from './shipped'

const wish: RegimeChange = {
  from: { id: defaultRegime.id, version: defaultRegime.version },
  name: 'Halewick house rules',
  limits: { 'pv.sisters': 3 },
  schools: { 'pv.insulation-voltage': 'fixed' },
  reason: 'the insurer asks for 3 %',
}
const made = (change: Partial<RegimeChange> = {}, known = [...shippedRegimes]) => {
  const found = changeRegime(known, { ...wish, ...change }, 'Isolde Marrow')
  if (found.state !== 'made') throw new Error(found.code)
  return found.regime
}

describe('a company’s own regime', () => {
  it('is a copy with other figures, its reason and its name', () => {
    const regime = made()
    expect(regime).toMatchObject({ id: 'halewick-house-rules', version: 1 })
    expect(regime.limits['pv.sisters']).toEqual({ value: 3, unit: 'pct', source: 'company' })
    expect(regime.limits['pv.continuity']).toEqual(defaultRegime.limits['pv.continuity'])
    expect(regime.schools['pv.insulation-voltage']).toBe('fixed')
    expect(regime.changed).toEqual({
      from: `${defaultRegime.name}, ${defaultRegime.version}`,
      reason: 'the insurer asks for 3 %',
      by: 'Isolde Marrow',
    })
  })

  it('goes on under its name as the next version, and leaves the last as it was', () => {
    const first = made()
    const known = [...shippedRegimes, first]
    const second = made({ from: { id: first.id, version: 1 }, limits: { 'pv.sisters': 4 } }, known)
    expect(second).toMatchObject({ id: first.id, version: 2 })
    expect(first.limits['pv.sisters']!.value).toBe(3)
  })

  it('judges by its own figures', () => {
    const build = new FactsBuilder()
    const ids = ['1', '2', '3'].map((tag) => build.string(tag))
    const volts = 11 * moduleModel(exampleModule).voc_V(742, 43.6)
    for (const id of ids) build.polarity(id)
    for (const [k, id] of ids.entries()) build.voltage(id, volts * (k === 0 ? 0.965 : 1))
    const key = stepKey('pv-voc', ids[0]!)
    expect(evaluate(build.facts(), START_ms).byKey.get(key)!.verdict).not.toBe('outside')
    expect(evaluate(build.facts({ regime: made() }), START_ms).byKey.get(key)!.verdict).toBe('outside')
  })

  it.each([
    [{ from: { id: 'nobody', version: 1 } }, 'regime-unknown'],
    [{ limits: { 'pv.sisters': 500 } }, 'limit-out-of-reach'],
    [{ limits: { 'pv.sisters': -5 } }, 'limit-out-of-reach'],
    [{ limits: { 'pv.continuity': 0 } }, 'limit-out-of-reach'],
    [{ limits: { 'pv.sisters': Number.NaN } }, 'limit-out-of-reach'],
    [{ schools: { 'pv.insulation-voltage': 'guessed' } }, 'school-unknown'],
    [{ limits: {}, schools: {} }, 'regime-unchanged'],
  ] as const)('refuses %j', (change, code) => {
    expect(changeRegime(shippedRegimes, { ...wish, ...change }, 'x')).toMatchObject({ state: 'refused', code })
  })

  it('takes no name that another regime has', () => {
    expect(changeRegime([...shippedRegimes, made()], wish, 'x')).toMatchObject({ code: 'regime-name-taken' })
  })

  it('wants a reason of a few words and a name', () => {
    expect(regimeChangeSchema.safeParse({ ...wish, reason: ' ' }).success).toBe(false)
    expect(regimeChangeSchema.safeParse({ ...wish, name: 'x' }).success).toBe(false)
    expect(regimeChangeSchema.safeParse({ ...wish, limits: { 'pv.nothing': 1 } }).success).toBe(false)
    expect(regimeChangeSchema.safeParse(wish).success).toBe(true)
  })
})

describe('a regime as it was stored', () => {
  it('of an older version is completed from what ships, and keeps what it says', () => {
    const { 'pv.sisters': sisters, 'pv.least-light': light } = defaultRegime.limits
    const old = {
      id: 'old-one',
      version: 1,
      name: 'An older one',
      limits: { 'pv.sisters': { ...sisters, value: 7 }, 'pv.least-light': light },
    }
    const regime = regimeFrom(old)
    expect(regime.limits['pv.sisters']!.value).toBe(7)
    expect(regime.limits['pv.continuity']).toEqual(defaultRegime.limits['pv.continuity'])
    expect(regime.schools).toEqual(defaultRegime.schools)
    expect(regime.changed).toBeNull()
  })

  it('that is none is refused', () => {
    expect(() => regimeFrom({ id: 'x' })).toThrow()
  })
})
