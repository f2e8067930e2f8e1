import { describe, expect, it } from 'vitest'
import { evaluate } from '../../evaluate'
import type { ChargePointPartData } from '../../plant/part'
import { choose, Installation, over, read } from '../../testing/installation'
import { exampleChargePoint, exampleModel } from '../worked'

type Own = { limit_A?: number | null; points?: Partial<ChargePointPartData>[]; phases?: 1 | 3 }
const phasesOf = (phases: 1 | 3) => ({ model: { ...exampleModel, data: { ...exampleModel.data, phases } } })

/** A yard whose points hang on one limit; every one is made for 32 A. */
function yard({ limit_A = 40, points = [{}, {}], phases = 1 }: Own = {}) {
  const site = new Installation({ supply: { phases }, circuit: { rating_A: 40 } })
  const ids = points.map((over, k) =>
    site.build.part({
      ...exampleChargePoint,
      circuitId: site.circuit,
      tag: `CP${k + 1}`,
      load: { group: 'Yard', limit_A },
      ...over,
    }),
  )
  const share = (k: number, duty: ReturnType<typeof read> | ReturnType<typeof over>, others = 'others-all') =>
    site.take('point-share', ids[k]!, { 'others-charging': choose(others), 'duty-shared': duty })
  const verdict = (step: string, k = 0): [string, string] => {
    const { one } = site.says(step, ids[k]!)
    return [one.verdict, one.finding.code]
  }
  const isAsked = (step: string, k = 0): boolean => evaluate(site.facts, 0).byKey.has(`${step}:${ids[k]}`)
  return { site, ids, share, verdict, isAsked }
}
const pct = (duty: number) => read(duty, 'pct', 1)

describe('points behind one load limit', () => {
  it('are asked for their shares only where they could draw more than it together', () => {
    expect(yard().isAsked('point-share', 1)).toBe(true)
    expect(yard({ limit_A: 64 }).isAsked('point-share')).toBe(false)
    expect(yard({ limit_A: 40, points: [{ setTo_A: 16 }, { setTo_A: 16 }] }).isAsked('point-share')).toBe(false)
    expect(yard({ points: [{}] }).isAsked('point-share')).toBe(false)
    expect(yard({ points: [{}, { load: { group: 'Other', limit_A: 40 } }] }).isAsked('point-share')).toBe(false)
    // Of a point of an unknown model nobody can say that it could not.
    expect(yard({ limit_A: 500, points: [{}, { model: null }] }).isAsked('point-share')).toBe(true)
  })

  it('have one sum, on the first of them', () => {
    const { isAsked } = yard()
    expect([isAsked('point-load', 0), isAsked('point-load', 1)]).toEqual([true, false])
  })

  it('have no sum while one of them is unread, or was read while another idled', () => {
    const { share, verdict } = yard()
    expect(verdict('point-load')).toEqual(['not-yet', 'point-load.unread'])
    share(0, pct(33))
    expect(verdict('point-share')).toEqual(['within', 'point-share.within'])
    expect(verdict('point-load')[0]).toBe('not-yet')
    share(1, pct(33), 'others-some')
    expect(verdict('point-share', 1)).toEqual(['not-yet', 'point-share.some-idle'])
    expect(verdict('point-load')[0]).toBe('not-yet')
    share(1, pct(33))
    // 19.8 A twice.
    expect(verdict('point-load')).toEqual(['within', 'point-load.within'])
  })

  it('are outside together though each is well below the limit', () => {
    const { share, verdict } = yard()
    share(0, pct(53.3))
    share(1, pct(53.3))
    expect([verdict('point-share')[0], verdict('point-share', 1)[0]]).toEqual(['within', 'within'])
    expect(verdict('point-load')).toEqual(['outside', 'point-load.outside'])
  })

  it('are close where they stand at the limit, as far as pilots may be off', () => {
    const { share, verdict } = yard()
    share(0, pct(33.3))
    share(1, pct(34))
    // 40.4 A of 40 A, each pilot a point of duty off at the most.
    expect(verdict('point-load')).toEqual(['close', 'point-load.close'])
  })

  it('count one that waits for its turn as nothing, and no other steady pilot', () => {
    const { share, verdict } = yard()
    share(0, pct(53.3))
    share(1, pct(100))
    expect(verdict('point-share', 1)).toEqual(['within', 'point-share.waits'])
    expect(verdict('point-load')[0]).toBe('within')
    for (const [duty, code] of [
      [98, 'codes-nothing'],
      [0, 'codes-nothing'],
      [5, 'digital'],
    ] as const) {
      share(1, pct(duty))
      expect(verdict('point-share', 1)[1]).toBe(`point-current.${code}`)
      expect(verdict('point-load')[0]).toBe('not-yet')
    }
    share(1, over(90, 'pct'))
    expect(verdict('point-share', 1)).toEqual(['not-yet', 'point-current.no-duty'])
  })

  it('say nothing together where nobody entered the limit, or the line of each', () => {
    const none = yard({ limit_A: null })
    none.share(0, pct(33))
    expect(none.verdict('point-share')).toEqual(['not-yet', 'point-share.no-limit'])
    expect(none.verdict('point-load')[0]).toBe('not-yet')
    const lines = yard({ phases: 3 })
    lines.share(0, pct(53.3))
    lines.share(1, pct(53.3))
    expect(lines.verdict('point-load')).toEqual(['not-yet', 'point-load.lines'])
    const threePhase = yard({ phases: 3, points: [phasesOf(3), phasesOf(3)] })
    threePhase.share(0, pct(53.3))
    threePhase.share(1, pct(53.3))
    expect(threePhase.verdict('point-load')[0]).toBe('outside')
  })

  it('take the smallest limit that anybody entered', () => {
    const { share, verdict } = yard({ points: [{ load: { group: 'Yard', limit_A: 100 } }, {}] })
    share(0, pct(53.3))
    share(1, pct(53.3))
    expect(verdict('point-load')[0]).toBe('outside')
  })

  it('are read anew when a point is put behind the limit', () => {
    const { site, share, verdict, ids } = yard()
    share(0, pct(33))
    share(1, pct(33))
    expect(verdict('point-load')[0]).toBe('within')
    site.build.part({
      ...exampleChargePoint,
      circuitId: site.circuit,
      tag: 'CP9',
      load: { group: 'Yard', limit_A: 40 },
    })
    expect(verdict('point-load')).toEqual(['not-yet', 'point-load.unread'])
    expect(site.says('point-share', ids[0]!).one.flags).toContain('plant-changed')
  })
})
