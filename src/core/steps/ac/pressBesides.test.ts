import { describe, expect, it } from 'vitest'
import { causes, linesOf } from '../../evaluate'
import type { SlotValue } from '../../record/entry'
import { choose, Installation, over, read } from '../../testing/installation'

const volts = (value: number): SlotValue => read(value, 'V', 0)
const amps = (value: number): SlotValue => read(value, 'A', 0)
const loop = (zs: number, more: Record<string, SlotValue> = {}) => ({
  'loop-method': choose('non-trip'),
  zs: read(zs),
  ...more,
})

/** A B32 whose Ze and R1+R2 give 0.8 ohm. */
function circuit(zs: number, more: Record<string, SlotValue> = {}) {
  const site = new Installation()
  site.take('ze', site.supply, { 'earthing-conductor': choose('earth-off'), ze: read(0.3) })
  site.take('r1r2', site.circuit, { r1r2: read(0.5) })
  return site.take('zs', site.circuit, loop(zs, more))
}
const said = (site: Installation) => site.says('zs', site.circuit)

describe('what one press of a loop test gives besides', () => {
  it('makes nothing of it that is not there, and nothing within that was not', () => {
    const own = { 'volts-l-n': volts(231), 'volts-l-pe': volts(230), 'volts-n-pe': volts(2) }
    expect(said(circuit(0.78)).verdict).toBe('within')
    expect(said(circuit(0.78, own)).verdict).toBe('within')
    expect(said(circuit(1.5, own)).verdict).toBe('outside')
    // Nothing but what came besides is no reading of the loop.
    const site = new Installation()
    site.take('zs', site.circuit, { 'loop-method': choose('non-trip'), ...own })
    expect(said(site).verdict).toBe('not-yet')
  })

  // EN 50160 (from memory): 230 V less 6 % is 216.2 V, plus 10 % is 253 V under BS 7671.
  it.each([
    [217, 'within', undefined],
    [254, 'close', 'besides-volts.off'],
    [213, 'close', 'besides-volts.off'],
    [3, 'outside', 'besides-volts.missing'],
  ] as const)('%f V from line to earth are %s', (value, verdict, code) => {
    const says = said(circuit(0.78, { 'volts-l-pe': volts(value) }))
    expect(says.verdict).toBe(verdict)
    if (code) expect(says.code).toBe(code)
  })

  it('finds line and neutral changed over, also where no device is entered', () => {
    expect(said(circuit(0.78, { 'volts-n-pe': volts(229) }))).toMatchObject({
      verdict: 'outside',
      code: 'besides-neutral.outside',
    })
    const site = new Installation({ circuit: { device: null } })
    site.take('zs', site.circuit, loop(0.78, { 'volts-n-pe': volts(229) }))
    expect(said(site).verdict).toBe('outside')
  })

  it('finds it at the origin and at a board too, where nothing is entered to hold their own figure against', () => {
    const tt = new Installation({ supply: { arrangement: 'TT', declaredZe_ohm: null } })
    const off = { 'earthing-conductor': choose('earth-off'), ze: read(21), 'volts-n-pe': volts(228) }
    expect(tt.take('ze', tt.supply, off).says('ze', tt.supply).code).toBe('besides-neutral.outside')
    const board = new Installation({ circuit: { breaking_kA: null } })
    const currents = { pefc: amps(860), pscc: amps(815), 'volts-l-pe': volts(1) }
    const found = board.take('fault-current', board.board, currents).says('fault-current', board.board)
    expect(found).toMatchObject({ verdict: 'outside', code: 'besides-volts.missing' })
  })

  it('decides nothing by a display that was over its range', () => {
    expect(said(circuit(0.78, { 'volts-n-pe': over(20, 'V') })).verdict).toBe('not-yet')
  })

  // Kirchhoff: line 0.4, neutral 0.3, protective conductor 0.5 ohm read as 0.9, 0.7 and 0.8 ohm.
  it('shares the ohms out between the conductors', () => {
    const site = circuit(0.9, { 'loop-l-n': read(0.7), 'loop-n-pe': read(0.8) })
    const { evaluation, one } = said(site)
    const line = linesOf(evaluation, one).find(({ code }) => code === 'besides.shares')
    expect(line?.figures.line).toBeCloseTo(0.4, 10)
    expect(line?.figures.neutral).toBeCloseTo(0.3, 10)
    expect(line?.figures.earth).toBeCloseTo(0.5, 10)
  })

  it('says which conductor has the joint', () => {
    const codes = (lineNeutral: number, neutralEarth: number): string[] => {
      const site = circuit(1.6, { 'loop-l-n': read(lineNeutral), 'loop-n-pe': read(neutralEarth) })
      const { evaluation, one } = said(site)
      return causes(evaluation, one).map(({ code }) => code)
    }
    // 0.8 ohm too many: line 1.2, neutral 0.3, earth 0.4; or line 0.4, neutral 0.3, earth 1.2.
    expect(codes(1.5, 0.7)).toContain('joint-in-line')
    expect(codes(0.7, 1.5)).toContain('joint-in-protective')
  })

  it('doubts loops of which one is more than the other two', () => {
    expect(said(circuit(0.78, { 'loop-l-n': read(0.2), 'loop-n-pe': read(0.2) }))).toMatchObject({
      verdict: 'close',
      code: 'besides.loops-apart',
    })
  })

  // 230 V through 0.78 ohm are 295 A.
  it('doubts a current that does not follow from its loop', () => {
    expect(said(circuit(0.78, { 'pefc-besides': amps(301) })).verdict).toBe('within')
    expect(said(circuit(0.78, { 'pefc-besides': amps(210) }))).toMatchObject({ code: 'besides.current-apart' })
  })

  it('keeps two leads at low current as a method, its repeats too', () => {
    const site = circuit(0.78)
    site.take('zs', site.circuit, { 'loop-method': choose('two-lead-low'), zs: read(0.79), 'zs-2': read(0.85) })
    const { evaluation, one, verdict } = said(site)
    expect(verdict).toBe('within')
    expect(linesOf(evaluation, one).find(({ code }) => code === 'zs.repeats')?.result?.value).toBeCloseTo(0.03, 10)
    // High current trips a device that it is read behind; two leads at low current do not.
    const behind = new Installation({ rcd: {} })
    expect(behind.trap('zs', behind.circuit, { 'loop-method': choose('high-current') })?.code).toBe('zs.would-trip')
    expect(behind.trap('zs', behind.circuit, { 'loop-method': choose('two-lead-low') })).toBeNull()
  })
})

describe('touch voltage beside the trips of a device', () => {
  it('is held against 50 V, and says so where the earth is too poor', () => {
    const site = new Installation({ rcd: {} })
    const trips = { 'once-0': read(22, 'ms', 1), 'once-180': read(25, 'ms', 1) }
    site.take('rcd-trips', site.rcd!, { ...trips, 'touch-besides': volts(61) })
    expect(site.says('rcd-trips', site.rcd!)).toMatchObject({ verdict: 'outside', code: 'besides-touch.outside' })
  })
})
