import { describe, expect, it } from 'vitest'
import { evaluate } from '../evaluate'
import { type PartData, partDataSchema } from '../plant/part'
import { exampleBoard, exampleCircuit, exampleSupply } from '../steps/worked'
import { FactsBuilder, START_ms } from '../testing/factsBuilder'
import { limitsUsed } from './limitsUsed'
import { lackingParticulars, sheetsOf, strangeDays } from './particulars'
import { summaryOf } from './summary'

const site = { kind: 'site', tag: 'Site', lowestTemperature_C: -8, highestCellTemperature_C: 70 } as const
const dayOf = (at_ms: number): string => new Date(at_ms).toISOString().slice(0, 10)
const READ_ON = dayOf(START_ms)

describe('the particulars that a record asks for', () => {
  it('follow the sheets which the plant calls for', () => {
    const sheets = (...parts: PartData[]) => {
      const build = new FactsBuilder(false)
      for (const one of parts) build.part(one)
      return [...sheetsOf(evaluate(build.facts(), START_ms).plant)]
    }
    expect(sheets()).toEqual(['pv'])
    expect(sheets(exampleSupply)).toEqual(['electrical'])
    const build = new FactsBuilder(false)
    build.string('1')
    build.part(exampleSupply)
    expect([...sheetsOf(evaluate(build.facts(), START_ms).plant)].sort()).toEqual(['electrical', 'pv'])
  })

  it('are missing until they are entered, part by part, and never made up', () => {
    const build = new FactsBuilder(false)
    build.part({ ...site, client: 'Orla Fenwright', extent: '' })
    build.part({ ...exampleSupply, frequency_Hz: 50 })
    const told = {
      deviceStandard: '60898',
      wiring: 'flat twin and earth',
      method: 'C',
      points: 6,
      arcDevice: false,
    } as const
    build.part({ ...exampleCircuit, ...told })
    const lacking = lackingParticulars(evaluate(build.facts(), START_ms))
    const of = (kind: string) => lacking.find(({ part }) => part.data.kind === kind)?.fields.map(({ id }) => id)
    expect(of('site')).not.toContain('client')
    expect(of('site')).toEqual(expect.arrayContaining(['extent', 'departures', 'designer', 'nextOn']))
    expect(of('supply')).not.toContain('frequency_Hz')
    expect(of('circuit')).toBeUndefined()
  })

  it('of a periodic inspection are why and since when, and not who built it', () => {
    const of = (work: 'new' | 'periodic' | null) => {
      const build = new FactsBuilder(false)
      build.part({ ...site, work })
      return lackingParticulars(evaluate(build.facts(), START_ms))[0]!.fields.map(({ id }) => id)
    }
    expect(of('periodic')).toEqual(expect.arrayContaining(['inspectedFor', 'builtAbout', 'lastOn', 'limitations']))
    for (const id of ['designer', 'builder', 'installedOn']) {
      expect([of('periodic').includes(id), of('new').includes(id), of(null).includes(id)]).toEqual([false, true, true])
    }
    expect(of('new')).not.toContain('lastOn')
  })

  it('touch no verdict: a reading stays as it was when a client is entered after it', () => {
    const build = new FactsBuilder(false)
    const id = build.part(site)
    build.reading('lead-null', id, {
      slots: { 'lead-set': { choice: 'reel' }, nulled: { text: '0.01', value: 0.01, bound: 'exact', unit: 'ohm' } },
    })
    const before = evaluate(build.facts(), START_ms).byKey.get(`lead-null:${id}`)!
    expect(before.verdict).toBe('within')
    build.part({ ...site, client: 'Orla Fenwright', departures: 'none' }, id)
    const after = evaluate(build.facts(), START_ms).byKey.get(`lead-null:${id}`)!
    expect(after.flags).not.toContain('plant-changed')
    expect(after.verdict).toBe(before.verdict)
  })

  it('are refused where they are too long, or no day', () => {
    const whole = (over: object) => partDataSchema.safeParse({ ...site, ...over }).success
    expect(whole({ client: 'x'.repeat(200) })).toBe(true)
    expect(whole({ client: 'x'.repeat(201) })).toBe(false)
    expect(whole({ extent: 'x'.repeat(10_000) })).toBe(false)
    expect(whole({ nextOn: '2031-02-30' })).toBe(false)
    expect(whole({ nextOn: 'next year' })).toBe(false)
    expect(partDataSchema.safeParse({ ...exampleBoard, place: 'x'.repeat(61) }).success).toBe(false)
  })

  it.each([
    [{ installedOn: READ_ON, nextOn: '2031-05-14' }, []],
    [{ installedOn: '2099-01-01' }, ['particulars.built-after']],
    [{ nextOn: READ_ON }, ['particulars.next-before']],
    [{ nextOn: '2020-01-01' }, ['particulars.next-before']],
    [{}, []],
  ])('with the days %j say %j', (days, said) => {
    const build = new FactsBuilder(false)
    build.part({ ...site, ...days })
    build.polarity(build.string('1'))
    const found = strangeDays(evaluate(build.facts(), START_ms), dayOf)
    expect(found.map(({ code }) => code)).toEqual(said)
  })
})

describe('what a record comes to', () => {
  it('is not finished as long as something is open, however much is close or within', () => {
    const build = new FactsBuilder(false)
    const id = build.string('1')
    build.polarity(id)
    const { verdict, counts, asked, open } = summaryOf(evaluate(build.facts(), START_ms))
    expect(verdict).toBe('held-back')
    expect(counts.within).toBeGreaterThan(0)
    expect(Object.values(counts).reduce((sum, one) => sum + one)).toBe(asked)
    expect(open).toBe(counts['not-yet'] + counts['held-back'])
  })

  it('is outside where one test is, and counts the snag that comes of it', () => {
    const build = new FactsBuilder(false)
    build.polarity(build.string('1'), 'reversed')
    expect(summaryOf(evaluate(build.facts(), START_ms))).toMatchObject({ verdict: 'outside', snags: 1 })
  })

  it('of nothing is not finished', () => {
    expect(summaryOf(evaluate(new FactsBuilder(false).facts(), START_ms)).verdict).not.toBe('within')
  })
})

describe('the limits that a record prints', () => {
  it('are those which were asked while judging, and those by which strings were held against each other', () => {
    const build = new FactsBuilder()
    const [one, two] = [build.string('1'), build.string('2')]
    for (const id of [one, two]) {
      build.polarity(id)
      build.voltage(id, 400)
    }
    const used = limitsUsed(evaluate(build.facts(), START_ms))
    expect(used).toContain('pv.sisters')
    expect(used).toContain('close.two-sided')
    expect(used).not.toContain('curve.fill-factor')
    expect([...used].some((id) => id.startsWith('rcd.'))).toBe(false)
  })
})
