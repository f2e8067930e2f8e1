import { describe, expect, it } from 'vitest'
import { evaluate } from '@/core/evaluate'
import { exampleBoard, exampleCircuit, exampleSite, exampleSupply } from '@/core/steps/worked'
import { FactsBuilder, START_ms } from '@/core/testing/factsBuilder'
import { certificateOf } from './certificate'

/** A roof on a house: strings, their inverter, a board with circuits. */
function both() {
  const build = new FactsBuilder()
  build.part(exampleSite)
  const string = build.string('1')
  build.polarity(string, 'reversed')
  build.part(exampleSupply)
  const boardId = build.part(exampleBoard)
  build.part({ ...exampleCircuit, tag: '7', boardId })
  return build.facts()
}
const textOf = (facts: ReturnType<typeof both>, sheet: 'pv' | 'electrical' | null): string =>
  JSON.stringify(certificateOf(facts, START_ms, null, sheet))

describe('one sheet of a job that has both sides', () => {
  const facts = both()

  it('stands alone: of its own side everything, of the other nothing', () => {
    const pv = certificateOf(facts, START_ms, null, 'pv')
    const electrical = certificateOf(facts, START_ms, null, 'electrical')
    const ids = ({ tables }: typeof pv): string[] => tables.map(({ id }) => id)
    expect(pv.title).toBe('PV test record')
    expect(electrical.title).toBe('Electrical test record')
    expect(ids(pv)).toEqual(expect.arrayContaining(['results-string', 'inspection', 'pv-voc']))
    expect(ids(pv).filter((id) => /circuit|^zs$|^ze$|^r1r2$/.test(id))).toEqual([])
    expect(ids(electrical)).toEqual(expect.arrayContaining(['results-circuit', 'ze', 'zs']))
    expect(ids(electrical).filter((id) => /^pv-|string|^inspection$|safe-isolation/.test(id))).toEqual([])
    expect(electrical.owner.blocks.map(({ lines }) => lines.join()).join()).not.toContain('solar')
  })

  it('has its own result: what is outside on the other side is that one’s', () => {
    expect(certificateOf(facts, START_ms, null, 'pv').result.verdict).toBe('outside')
    expect(certificateOf(facts, START_ms, null, 'electrical').result.verdict).not.toBe('outside')
    expect(textOf(facts, 'electrical')).not.toContain('everse')
  })

  it('together tell every test of the whole, and each says that there is another', () => {
    const asked = (sheet: 'pv' | 'electrical' | null): number =>
      certificateOf(facts, START_ms, null, sheet).result.counts.reduce((sum, { count }) => sum + count, 0)
    const ofBoth = evaluate(facts, START_ms).steps.filter(
      ({ step }) => step.appliesTo === 'site' && !step.sheets,
    ).length
    expect(asked('pv') + asked('electrical')).toBe(asked(null) + ofBoth)
    expect(textOf(facts, 'pv')).toContain('has a sheet of its own')
    expect(textOf(facts, null)).not.toContain('has a sheet of its own')
  })

  it('of a plant that has one side is the whole', () => {
    const build = new FactsBuilder(false)
    build.string('1')
    const alone = build.facts()
    expect(textOf(alone, 'electrical')).toBe(textOf(alone, null))
  })
})
