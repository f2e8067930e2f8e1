import { v7 as uuid } from 'uuid'
import { describe, expect, it } from 'vitest'
import type { Instrument } from '@/core/record/instrument'
import type { Regime } from '@/core/regime/regime'
import { demo, knock } from '../support/server'

const regimes = async (): Promise<Regime[]> =>
  (await knock<{ regimes: Regime[] }>('viewer', '/api/regimes')).body.regimes
const wish = {
  from: { id: 'bs7671-a2', version: 4 },
  name: 'Halewick house rules',
  limits: { 'pv.sisters': 3 },
  schools: {},
  reason: 'the insurer asks for 3 %',
}
const newJob = (number: string, regime?: { id: string; version: number }) => ({
  id: uuid(),
  visitId: uuid(),
  number,
  name: 'Pinned',
  place: '',
  people: [demo.person.tester],
  ...(regime ? { regime } : {}),
})

describe('the door of regimes', () => {
  it('makes a version of a company’s own, and never changes one that is there', async () => {
    const first = await knock<{ regime: Regime }>('supervisor', '/api/regimes', wish)
    expect(first.status).toBe(201)
    expect(first.body.regime.changed).toMatchObject({ by: 'Isolde Marrow', reason: wish.reason })
    const from = { id: first.body.regime.id, version: 1 }
    const second = await knock<{ regime: Regime }>('supervisor', '/api/regimes', {
      ...wish,
      from,
      limits: { 'pv.sisters': 4 },
    })
    expect(second.body.regime).toMatchObject({ ...from, version: 2 })
    const kept = (await regimes()).filter((one) => one.id === from.id)
    expect(kept.map((one) => [one.version, one.limits['pv.sisters']!.value])).toEqual([
      [2, 4],
      [1, 3],
    ])
  })

  it.each([
    [{ from: { id: 'nobody', version: 1 } }, 'There is no such version'],
    [{ limits: { 'pv.sisters': 900 }, name: 'Too far' }, 'out of reach'],
    [{ limits: {}, name: 'The same' }, 'Nothing differs'],
    [{}, 'Another regime has that name'],
  ])('refuses %j in a sentence', async (change, sentence) => {
    const answer = await knock<{ title: string }>('supervisor', '/api/regimes', { ...wish, ...change })
    expect(answer.status).toBe(422)
    expect(answer.body.title).toContain(sentence)
  })

  it('pins a job to the version that was chosen, for good', async () => {
    const pinned = newJob('0701', { id: 'halewick-house-rules', version: 1 })
    expect((await knock('supervisor', '/api/jobs', pinned)).status).toBe(201)
    await knock('supervisor', '/api/regimes', {
      ...wish,
      from: { id: 'halewick-house-rules', version: 2 },
      limits: { 'pv.sisters': 2 },
    })
    const { body } = await knock<{ facts: { regime: Regime } }>('tester', `/api/jobs/${pinned.id}/facts`)
    expect(body.facts.regime).toMatchObject({ id: 'halewick-house-rules', version: 1 })
    expect(body.facts.regime.limits['pv.sisters']!.value).toBe(3)
  })

  it('pins no job to a version that is not there', async () => {
    expect((await knock('supervisor', '/api/jobs', newJob('0702', { id: 'bs7671-a2', version: 99 }))).status).toBe(422)
  })
})

describe('the door of the kit', () => {
  const tool: Instrument = {
    id: uuid(),
    tag: '31',
    name: 'Insulation tester',
    serial: 'A-1',
    calibrationDue: '2027-02-01',
    standIn: true,
    ranges: [{ measures: 'insulation', accuracy: { ofReading_pct: 3, digits: 2 }, most: 999, decimals: 1 }],
  }
  const kit = async (): Promise<Instrument[]> =>
    (await knock<{ instruments: Instrument[] }>('viewer', '/api/instruments')).body.instruments

  it('adds and changes an instrument, which nobody makes simulated by saying so', async () => {
    expect((await knock('supervisor', '/api/instruments', tool)).status).toBe(201)
    expect((await knock('supervisor', '/api/instruments', { ...tool, serial: 'A-2' })).status).toBe(200)
    expect((await kit()).filter((one) => one.id === tool.id)).toEqual([{ ...tool, serial: 'A-2', standIn: false }])
  })

  it('gives no two instruments one number', async () => {
    const answer = await knock<{ title: string }>('supervisor', '/api/instruments', { ...tool, id: uuid() })
    expect(answer.status).toBe(409)
    expect(answer.body.title).toContain('number 31')
  })
})

describe('the library of module types', () => {
  const data = {
    pmax_W: 410,
    voc_V: 37.4,
    isc_A: 13.9,
    vmp_V: 31.3,
    imp_A: 13.1,
    alpha_pctPerK: 0.045,
    beta_pctPerK: -0.26,
    gamma_pctPerK: -0.34,
    cellsInSeries: 54,
  }
  const type = { id: uuid(), make: 'Hazelwick', name: 'HW 410', data }
  const path = `/api/module-types/${type.id}`
  const library = async () =>
    (await knock<{ moduleTypes: (typeof type)[] }>('viewer', '/api/module-types')).body.moduleTypes.filter(
      ({ id }) => id === type.id,
    )

  it('takes the same type twice as one, and other figures under its name as a correction to be made', async () => {
    expect((await knock('tester', '/api/module-types', type)).status).toBe(201)
    expect((await knock('tester', '/api/module-types', type)).status).toBe(201)
    const other = await knock<{ title: string }>('tester', '/api/module-types', {
      ...type,
      data: { ...data, voc_V: 38 },
    })
    expect([other.status, other.body.title]).toEqual([
      409,
      'Hazelwick HW 410 is in the library with other figures. A supervisor corrects it in the office.',
    ])
    expect(await library()).toEqual([type])
  })

  it('is corrected by a supervisor, and the log says by whom', async () => {
    const right = { ...type, data: { ...data, voc_V: 37.6 } }
    expect((await knock('tester', path, right)).status).toBe(403)
    expect((await knock('supervisor', path, { ...right, id: uuid() })).status).toBe(422)
    expect((await knock('supervisor', path, right)).status).toBe(200)
    expect(await library()).toEqual([right])
    const { text } = await knock('supervisor', '/api/office/audit')
    expect(text).toContain('module-type-corrected')
  })

  it('offers one that was taken out no more, and takes it out once', async () => {
    expect((await knock('supervisor', `${path}/retire`, {})).status).toBe(200)
    expect((await knock('supervisor', `${path}/retire`, {})).status).toBe(200)
    expect(await library()).toEqual([])
    const again = await knock<{ title: string }>('supervisor', path, type)
    expect([again.status, again.body.title]).toEqual([
      409,
      'This module type was taken out of the library. Enter it as a new one.',
    ])
  })
})
