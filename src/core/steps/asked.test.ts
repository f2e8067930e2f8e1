import { describe, expect, it } from 'vitest'
import { checkBody, evaluate, stepKey } from '../evaluate'
import type { PartData } from '../plant/part'
import { readValueOf } from '../quantity/readValue'
import { copyForReading, type Instrument } from '../record/instrument'
import { readingBody, testId } from '../testing/factsBuilder'
import { Installation, read } from '../testing/installation'
import { readStepById, steps } from './index'
import { exampleSite } from './worked'

const accuracy = { ofReading_pct: 1, digits: 1 }

describe('a compass and an inclinometer in one', () => {
  const tool: Instrument = {
    id: testId(5),
    tag: '05',
    name: 'Inclinometer',
    serial: '',
    calibrationDue: null,
    standIn: false,
    ranges: [
      { measures: 'tilt', accuracy, most: 90, decimals: 0 },
      { measures: 'azimuth', accuracy, most: 360, decimals: 0 },
    ],
  }
  const sensors = (azimuth_deg: number, tilt_deg: number) => {
    const site = new Installation()
    const data: PartData = { kind: 'array', tag: 'S', tilt_deg: 35, azimuth_deg: 171, mounting: 'open-rack' }
    const array = site.build.part(data)
    const slots = {
      tilt: readValueOf(tilt_deg, 'deg', 0),
      azimuth: readValueOf(azimuth_deg, 'deg', 0),
    }
    const instrument = copyForReading(tool, 'tilt', ['tilt', 'azimuth'])
    site.build.reading('sensors', array, { slots, instrument })
    return site.says('sensors', array).one.counting!.flags
  }

  it('is within its range at 171 degrees of the compass, though no tilt goes beyond 90', () => {
    expect(sensors(171, 35)).not.toContain('over-instrument-range')
    expect(sensors(171, 95)).toContain('over-instrument-range')
  })
})

describe('the trips of a device that was slow once', () => {
  it('stay outside when it was exercised until it passed: the first counts', () => {
    const site = new Installation({ rcd: {} })
    const trip = (value: number) => ({ 'once-0': read(value, 'ms', 1) })
    site.take('rcd-trips', site.rcd!, trip(412)).take('rcd-trips', site.rcd!, trip(38))
    const { one, verdict } = site.says('rcd-trips', site.rcd!)
    expect(verdict).toBe('outside')
    expect(one.counting!.entry.body.slots['once-0']).toMatchObject({ value: 412 })
  })
})

describe('before a spike or a rod is driven', () => {
  const spikes = readStepById('electrode')

  it('somebody has looked for what is buried: a tick that nobody passes by', () => {
    expect(spikes.cautions).toContainEqual({ id: 'buried-services', hard: true })
  })
})

describe('what putting something right may have changed', () => {
  it('is said by each step, of steps on the same kind of part, and never of itself', () => {
    for (const step of steps) {
      if (step.kind !== 'read') continue
      for (const touched of step.mendingTouches ?? []) {
        expect(readStepById(touched).appliesTo, `${step.id} touches ${touched}`).toBe(step.appliesTo)
        expect(touched).not.toBe(step.id)
      }
    }
  })

  it('is nothing for a label, an inspection or a list', () => {
    for (const id of ['inspection', 'close-out', 'lead-null', 'safe-isolation'])
      expect(readStepById(id).mendingTouches ?? []).toEqual([])
  })
})

describe('a part whose parent was taken out of the plant', () => {
  const retire = (site: Installation, id: string): void => {
    const before = site.says('zs', site.circuit).evaluation.parts.get(id)!.data
    site.build.add({ kind: 'plant-change', v: 1, before, after: null, base: null }, { partId: id })
  }

  it('is judged by what is left, and says that the plant was changed', () => {
    const site = new Installation({ rcd: {} })
    site.take('ze', site.supply, { ze: read(0.2) }).take('r1r2', site.circuit, { r1r2: read(0.4) })
    site.take('zs', site.circuit, { zs: read(0.6), 'loop-method': { choice: 'non-trip' } })
    expect(site.says('zs', site.circuit).verdict).toBe('within')
    retire(site, site.supply)
    expect(site.says('zs', site.circuit)).toMatchObject({ verdict: 'not-yet' })
    expect(site.says('zs', site.circuit).one.shut).not.toBeNull()
  })

  it('says so where the device that stood in for its loop went', () => {
    const site = new Installation({ supply: { arrangement: 'TT', declaredZe_ohm: null }, rcd: {} })
    site.take('ze', site.supply, { ze: read(21) }).take('r1r2', site.circuit, { r1r2: read(0.4) })
    site.take('zs', site.circuit, { zs: read(21.5), 'loop-method': { choice: 'non-trip' } })
    expect(site.says('zs', site.circuit).verdict).toBe('within')
    retire(site, site.rcd!)
    const { one, verdict } = site.says('zs', site.circuit)
    expect(one.flags).toContain('plant-changed')
    expect(['outside', 'not-yet']).toContain(verdict)
  })

  it('has no board and no device any more, and nothing throws', () => {
    const site = new Installation({ rcd: {} })
    site.build.part(exampleSite)
    for (const id of [site.board, site.rcd!]) retire(site, id)
    const evaluation = evaluate(site.facts, 0)
    for (const one of evaluation.steps) expect(one.gates.length + one.finding.code.length).toBeGreaterThan(0)
    expect(evaluation.byKey.get(stepKey('zs', site.circuit))!.verdict).not.toBe('within')
    expect(evaluation.byKey.has(stepKey('rcd-trips', site.rcd!))).toBe(false)
  })
})

describe('a reading of a test that its part does not have', () => {
  it('is refused where it comes in, in words that say why', () => {
    const site = new Installation({ circuit: { layout: 'radial' } })
    const { one, evaluation } = site.says('zs', site.circuit)
    expect(evaluation.byKey.has(stepKey('ring-ends', site.circuit))).toBe(false)
    const { check } = checkBody(
      evaluation,
      { step: readStepById('ring-ends'), part: one.part },
      readingBody({ slots: { 'end-line': read(0.4) } }),
    )
    expect(check).toMatchObject({ state: 'refused', code: 'step-not-asked' })
  })
})
