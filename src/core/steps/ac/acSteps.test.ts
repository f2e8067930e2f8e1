import { describe, expect, it } from 'vitest'
import { causes, linesOf, sharedReadings } from '../../evaluate'
import type { SlotValue } from '../../record/entry'
import { readingBody } from '../../testing/factsBuilder'
import { choose, classic, iec, Installation, over, read } from '../../testing/installation'
import { exampleCircuit, exampleElectrode } from '../worked'

const ze = (value: number) => ({ 'earthing-conductor': choose('earth-off'), ze: read(value) })
const loop = (value: number, method = 'non-trip') => ({ 'loop-method': choose(method), zs: read(value) })

describe('Zs', () => {
  // BS 7671 table 41.3 (from memory): B32 1.37 ohm, C32 0.68; 80 % of the unrounded B32 is 1.0925.
  it.each([
    ['B', 0.8, 'within', 'zs.within'],
    ['C', 0.8, 'outside', 'zs.outside'],
    ['B', 1.2, 'close', 'zs.close'],
    ['B', 1.38, 'outside', 'zs.outside'],
    [null, 0.8, 'not-yet', 'zs.no-device'],
  ] as const)('behind %s32, %f ohm is %s', (device, value, verdict, code) => {
    const site = new Installation({ circuit: { device } })
    expect(site.take('zs', site.circuit, loop(value)).says('zs', site.circuit)).toMatchObject({ verdict, code })
  })

  it('takes two thirds of the voltage under the IEC regime', () => {
    const site = new Installation()
    site.regime = iec
    // 2/3 * 230 / 160 = 0.958 ohm, and no fifth comes off that again.
    expect(site.take('zs', site.circuit, loop(0.97)).says('zs', site.circuit).verdict).toBe('close')
    expect(site.take('zs', site.circuit, loop(1.5)).says('zs', site.circuit).verdict).toBe('outside')
    expect(new Installation().take('zs', site.circuit, loop(0.97)).says('zs', site.circuit).verdict).toBe('within')
  })

  // BS 7671 tables 41.2 and 41.4 (from memory): 32 A gG has 0.99 ohm in 0.4 s, 1.7 ohm in 5 s; four fifths of it 1.36.
  it.each([
    ['final', 'outside'],
    ['distribution', 'within'],
  ] as const)('behind a fuse, 1.2 ohm of a %s circuit is %s', (role, verdict) => {
    const site = new Installation({ circuit: { device: 'gG', role } })
    expect(site.take('zs', site.circuit, loop(1.2)).says('zs', site.circuit).verdict).toBe(verdict)
  })

  it('lets the residual current device stand in where the breaker would be too slow', () => {
    const site = new Installation({ rcd: {}, circuit: { device: 'C' } })
    site.take('zs', site.circuit, loop(0.9))
    // Before its sum is known nobody can say that nothing is loose, so nothing stands in.
    expect(site.says('zs', site.circuit).verdict).toBe('outside')
    site.take('ze', site.supply, ze(0.3)).take('r1r2', site.circuit, { r1r2: read(0.5) })
    expect(site.says('zs', site.circuit)).toMatchObject({ verdict: 'close', code: 'zs.rcd-stands-in' })
    expect(site.take('zs', site.circuit, loop(1.9)).says('zs', site.circuit).verdict).toBe('outside')
  })

  it('in TT is a matter of touch voltage: a socket that reads more than the electrode is no fault', () => {
    const site = new Installation({ supply: { arrangement: 'TT', declaredZe_ohm: null }, rcd: {} })
    expect(site.take('zs', site.circuit, loop(27.4)).says('zs', site.circuit)).toMatchObject({
      verdict: 'not-yet',
      code: 'zs.no-sum-for-rcd',
    })
    site.take('ze', site.supply, ze(26.9)).take('r1r2', site.circuit, { r1r2: read(0.4) })
    expect(site.says('zs', site.circuit).verdict).toBe('within')
    // Far above its own sum there is a joint, whatever the electrode would allow.
    expect(site.take('zs', site.circuit, loop(400)).says('zs', site.circuit).verdict).toBe('outside')
    site.take('ze', site.supply, ze(395))
    expect(site.says('zs', site.circuit).verdict).toBe('close')
    site.take('ze', site.supply, ze(1690)).take('zs', site.circuit, loop(1700))
    expect(site.says('zs', site.circuit).verdict).toBe('outside')
  })

  it('points at a joint where it is clearly above Ze + (R1+R2)', () => {
    const site = new Installation()
    site.take('ze', site.supply, ze(0.2)).take('r1r2', site.circuit, { r1r2: read(0.4) })
    // 0.6 and a fifth, and a joint of 0.05: 0.77 ohm.
    expect(site.take('zs', site.circuit, loop(0.7)).says('zs', site.circuit).code).toBe('zs.within')
    const high = site.take('zs', site.circuit, loop(0.95)).says('zs', site.circuit)
    expect(high).toMatchObject({ verdict: 'close', code: 'zs.above-sum' })
    expect(causes(high.evaluation, high.one).map((one) => one.code)).toContain('loose-terminal')
  })

  it('says so where it is less than Ze alone', () => {
    const site = new Installation()
    site.take('ze', site.supply, ze(0.3))
    const found = site.take('zs', site.circuit, loop(0.1)).says('zs', site.circuit)
    expect(found).toMatchObject({ verdict: 'close', code: 'zs.below-ze' })
  })

  it('may be put together from Ze and R1+R2, once both are known', () => {
    const site = new Installation()
    const sum = { 'loop-method': choose('calculated') }
    const before = site.take('zs', site.circuit, sum).says('zs', site.circuit)
    expect(before).toMatchObject({ verdict: 'not-yet', code: 'zs.no-sum' })
    site.take('ze', site.supply, ze(0.2)).take('r1r2', site.circuit, { r1r2: read(0.4) })
    const after = site.says('zs', site.circuit)
    expect(after.verdict).toBe('within')
    expect(after.one.counting!.judgement.rule!.measured!.text).toBe('0.600')
    const lines = linesOf(after.evaluation, after.one)
    expect(lines.map((line) => line.code)).toEqual(['zs.sum', 'zs.in-time-final', 'zs.limit-device', 'zs.cold'])
  })

  it('takes the spread of repeats as uncertainty', () => {
    const site = new Installation()
    const three = { ...loop(0.9), 'zs-2': read(1.08), 'zs-3': read(0.92) }
    const { one, verdict } = site.take('zs', site.circuit, three).says('zs', site.circuit)
    expect(one.counting!.judgement.rule!.measured).toMatchObject({ value: 1.08, whisker: expect.closeTo(0.09, 9) })
    expect(verdict).toBe('within')
  })

  it('is caught before it is read where the method would trip a device', () => {
    const site = new Installation({ rcd: {} })
    const trap = (method: string) => site.trap('zs', site.circuit, { 'loop-method': choose(method) })
    expect(trap('high-current')).toMatchObject({ code: 'zs.would-trip', figures: { rcd: 'RCD1' } })
    expect(trap('non-trip')).toBeNull()
    expect(site.take('zs', site.circuit, loop(0.5, 'high-current')).says('zs', site.circuit).verdict).toBe('not-yet')
  })
})

describe('Ze', () => {
  it.each([
    [{}, 0.3, 'within'],
    [{}, 0.36, 'outside'],
    [{ declaredZe_ohm: null }, 0.36, 'outside'],
    [{ arrangement: 'TN-S' as const, declaredZe_ohm: null }, 0.7, 'within'],
    [{ arrangement: 'TN-S' as const, declaredZe_ohm: null }, 0.81, 'outside'],
  ])('of %j, %f ohm is %s', (supply, value, verdict) => {
    const site = new Installation({ supply })
    expect(site.take('ze', site.supply, ze(value)).says('ze', site.supply).verdict).toBe(verdict)
  })

  it('in TT follows the device that asks most, and waits for one', () => {
    const tt = { arrangement: 'TT' as const, declaredZe_ohm: null }
    const bare = new Installation({ supply: tt })
    expect(bare.take('ze', bare.supply, ze(18)).says('ze', bare.supply).code).toBe('ze.no-device')
    const site = new Installation({ supply: tt, rcd: { rated_mA: 300 } })
    expect(site.take('ze', site.supply, ze(160)).says('ze', site.supply).verdict).toBe('within')
    expect(site.take('ze', site.supply, ze(168)).says('ze', site.supply).verdict).toBe('outside')
  })

  it('of a generator or a battery is held against what it declares, never against what networks do', () => {
    const own = (supply: object) => {
      const site = new Installation({ supply: { source: 'generator', arrangement: 'TN-S', ...supply } })
      return site.take('ze', site.supply, ze(0.5)).says('ze', site.supply)
    }
    expect(own({ declaredZe_ohm: null })).toMatchObject({ verdict: 'not-yet', code: 'ze.nothing-declared' })
    expect(own({ declaredZe_ohm: 0.6 }).verdict).toBe('within')
    expect(own({ declaredZe_ohm: 0.4 }).verdict).toBe('outside')
    expect(own({ source: 'mains', declaredZe_ohm: null }).verdict).toBe('within')
  })

  it('proves nothing with the earthing conductor still on', () => {
    const site = new Installation()
    const slots = { 'earthing-conductor': choose('earth-still-on'), ze: read(0.1) }
    const found = site.take('ze', site.supply, slots).says('ze', site.supply)
    expect(found).toMatchObject({ verdict: 'not-yet', code: 'ze.earth-still-on' })
  })
})

describe('fault currents', () => {
  const currents = (pefc: number, pscc: number) => ({ pefc: read(pefc, 'A', 0), pscc: read(pscc, 'A', 0) })

  it('are below what the weakest device breaks: 860 and 815 A below 6 kA (common practice)', () => {
    const site = new Installation()
    const found = site.take('fault-current', site.board, currents(860, 815)).says('fault-current', site.board)
    expect(found.verdict).toBe('within')
    expect(found.one.finding.figures.ipf_kA).toBeCloseTo(0.86, 9)
  })

  it('cannot be less than Ze alone gives: 860 A against 0.21 ohm', () => {
    const site = new Installation()
    site.take('ze', site.supply, ze(0.21))
    const found = site.take('fault-current', site.board, currents(860, 815)).says('fault-current', site.board)
    expect(found).toMatchObject({ verdict: 'not-yet', code: 'fault-current.below-ze' })
  })

  it('count twice the line-neutral current with three phases', () => {
    const site = new Installation({ supply: { phases: 3 } })
    const found = site.take('fault-current', site.board, currents(2000, 3100)).says('fault-current', site.board)
    expect(found).toMatchObject({ verdict: 'outside' })
    expect(found.one.finding.figures.ipf_kA).toBeCloseTo(6.2, 9)
  })

  it('are a reading and no verdict where no breaking capacity is entered', () => {
    const site = new Installation({ circuit: { breaking_kA: null } })
    const found = site.take('fault-current', site.board, currents(860, 815)).says('fault-current', site.board)
    expect(found).toMatchObject({ verdict: 'not-yet', code: 'fault-current.no-device' })
  })
})

describe('R1+R2', () => {
  // IEC 60228 (from memory): 20 m of 2.5 and 1.5 mm2 is 0.390 ohm; a fifth more and a joint of 0.05 is 0.518.
  it.each([
    [0.4, 'within', 'r1r2.within'],
    [0.6, 'outside', 'r1r2.outside'],
    [0.15, 'close', 'r1r2.too-low'],
  ])('of 20 m reading %f ohm is %s', (value, verdict, code) => {
    const site = new Installation()
    const found = site.take('r1r2', site.circuit, { r1r2: read(value) }).says('r1r2', site.circuit)
    expect(found).toMatchObject({ verdict, code })
  })

  describe('of the protective conductor by itself', () => {
    const alone = (own: object, value: number) => {
      const site = new Installation({ circuit: own })
      const slots = { 'continuity-way': choose('protective-alone'), 'r2-alone': read(value) }
      return { site, found: site.take('r1r2', site.circuit, slots).says('r1r2', site.circuit) }
    }

    // IEC 60228 (from memory): 20 m of 1.5 mm2 is 0.242 ohm; a fifth more and a joint of 0.05 is 0.340.
    it.each([
      [0.25, 'within', 'r1r2.within'],
      [0.39, 'outside', 'r1r2.outside'],
      [0.1, 'close', 'r1r2.too-low'],
    ])('20 m reading %f ohm is %s', (value, verdict, code) => {
      expect(alone({}, value).found).toMatchObject({ verdict, code })
    })

    it('proves that conductor to what is switched on after it, and is no loop by itself', () => {
      const { site, found } = alone({}, 0.25)
      expect(found.one.judgement!.rule?.expected?.value).toBeCloseTo(0.242, 9)
      const gate = site.says('zs', site.circuit).one.gates.find(({ id }) => id === 'protective-proved')
      expect(gate).toMatchObject({ met: true, hard: true })
    })

    it('of a ring is a quarter, and is held against nothing where its conductor is not entered', () => {
      expect(alone({ layout: 'ring', length_m: 80 }, 0.25).found.verdict).toBe('within')
      expect(alone({ line_mm2: null }, 0.25).found.verdict).toBe('within')
      expect(alone({ protective_mm2: null }, 0.25).found).toMatchObject({
        verdict: 'not-yet',
        code: 'r1r2.no-conductors',
      })
    })
  })

  it('of a cable of aluminium is held against aluminium', () => {
    const own = { line_mm2: 25, protective_mm2: 16, length_m: 200 }
    const verdictOf = (metal: 'copper' | 'aluminium') => {
      const site = new Installation({ circuit: { ...own, metal } })
      return site.take('r1r2', site.circuit, { r1r2: read(0.62) }).says('r1r2', site.circuit).verdict
    }
    // (1.20 + 1.91) x 0.2 is 0.622 ohm; of copper it would be 0.375.
    expect([verdictOf('aluminium'), verdictOf('copper')]).toEqual(['within', 'outside'])
  })

  it('is held against the device where no conductors are entered, and against nothing where there is none', () => {
    const bare = new Installation({ circuit: { length_m: null } })
    // Four fifths of 1.366 ohm behind B32 is the most that both conductors alone may have.
    expect(bare.take('r1r2', bare.circuit, { r1r2: read(0.4) }).says('r1r2', bare.circuit).verdict).toBe('within')
    expect(bare.take('r1r2', bare.circuit, { r1r2: read(1.2) }).says('r1r2', bare.circuit).verdict).toBe('outside')
    const site = new Installation({ circuit: { length_m: null, device: null } })
    const found = site.take('r1r2', site.circuit, { r1r2: read(0.4) }).says('r1r2', site.circuit)
    expect(found).toMatchObject({ verdict: 'not-yet', code: 'r1r2.no-conductors' })
  })
})

describe('AC insulation', () => {
  const setUp = { pairing: choose('pair-by-pair'), devices: choose('all-on'), surge: choose('none-there') }
  const pairs = { 'l-n': over(999, 'Mohm'), 'l-pe': read(500, 'Mohm', 0), 'n-pe': over(999, 'Mohm') }

  it('is judged by the lowest pair', () => {
    const site = new Installation()
    const found = site.take('ac-insulation', site.circuit, { ...setUp, ...pairs }).says('ac-insulation', site.circuit)
    expect(found.verdict).toBe('within')
    const low = { ...setUp, ...pairs, 'n-pe': read(0.3, 'Mohm') }
    expect(site.take('ac-insulation', site.circuit, low).says('ac-insulation', site.circuit).verdict).toBe('outside')
  })

  it('names a load only where the live conductors do not speak against it', () => {
    const why = (more: Record<string, SlotValue>): string[] => {
      const site = new Installation()
      site.take('ac-insulation', site.circuit, { ...setUp, ...pairs, ...more })
      const { evaluation, one } = site.says('ac-insulation', site.circuit)
      return causes(evaluation, one).map(({ code, fit }) => `${code} ${fit}`)
    }
    const cable = ['damaged-cable may-fit', 'damp-accessory may-fit']
    expect(why({ 'n-pe': read(0.3, 'Mohm') })).toEqual(cable)
    expect(why({ 'l-n': read(0.1, 'Mohm') })).toEqual(['load-connected fits', ...cable])
    expect(why({ 'l-n': read(0.4, 'Mohm'), 'l-pe': read(0.2, 'Mohm') })).toEqual([...cable, 'load-connected may-fit'])
    // Joined to earth nothing is known of the live conductors: a load cannot be told from a cable.
    const joined = {
      pairing: choose('all-joined'),
      electronics: choose('electronics-in'),
      'joined-to-pe': read(0.2, 'Mohm'),
    }
    const site = new Installation()
    site.take('ac-insulation', site.circuit, { ...setUp, ...joined })
    const { evaluation, one } = site.says('ac-insulation', site.circuit)
    expect(causes(evaluation, one).map(({ code }) => code)).toEqual([
      'damaged-cable',
      'damp-accessory',
      'load-connected',
    ])
  })

  it('proves nothing with devices off, or through an RCD', () => {
    const site = new Installation({ rcd: {} })
    const off = {
      ...setUp,
      devices: choose('some-off'),
      'tested-from': choose('beyond-rcd'),
      'l-pe': over(999, 'Mohm'),
    }
    expect(site.take('ac-insulation', site.circuit, off).says('ac-insulation', site.circuit)).toMatchObject({
      verdict: 'not-yet',
      code: 'ac-insulation.open-ends',
    })
    const through = { ...setUp, ...pairs, 'tested-from': choose('through-rcd') }
    expect(site.take('ac-insulation', site.circuit, through).says('ac-insulation', site.circuit)).toMatchObject({
      verdict: 'not-yet',
      code: 'ac-insulation.through-rcd',
    })
  })

  it.each([
    [{ earthing: choose('earth-not-connected') }, 'earth-off'],
    [{ electronics: choose('electronics-in') }, 'across-electronics'],
  ])('proves nothing with %j, and is stopped before it is read', (wrong, code) => {
    const site = new Installation()
    const found = site.take('ac-insulation', site.circuit, { ...setUp, ...pairs, ...wrong })
    const { one, verdict } = found.says('ac-insulation', site.circuit)
    expect([verdict, one.finding.code]).toEqual(['not-yet', `ac-insulation.${code}`])
    expect(site.trap('ac-insulation', site.circuit, { ...setUp, ...wrong })!.code).toBe(`ac-insulation.${code}`)
  })

  it('may be read line and neutral apart, each to earth, with electronics in circuit', () => {
    const apart = (over: Record<string, SlotValue>) => {
      const site = new Installation()
      const slots = { ...setUp, pairing: choose('each-to-pe'), 'l-pe': read(90, 'Mohm'), 'n-pe': read(80, 'Mohm') }
      return site.take('ac-insulation', site.circuit, { ...slots, ...over }).says('ac-insulation', site.circuit)
    }
    const isIn = { electronics: choose('electronics-in') }
    expect(apart(isIn).verdict).toBe('within')
    expect(apart({ ...isIn, 'n-pe': read(0.4, 'Mohm') }).verdict).toBe('outside')
    // Where nothing would suffer live to live is read as well.
    expect(apart({}).verdict).toBe('not-yet')
    expect(apart({ 'live-to-live': read(90, 'Mohm') }).verdict).toBe('within')
  })

  it('wants both of them, each to earth', () => {
    const site = new Installation()
    const slots = { ...setUp, pairing: choose('each-to-pe'), electronics: choose('electronics-in') }
    site.take('ac-insulation', site.circuit, { ...slots, 'l-pe': read(90, 'Mohm') })
    expect(site.says('ac-insulation', site.circuit).verdict).toBe('not-yet')
  })

  it('may be read joined with electronics in circuit', () => {
    const site = new Installation()
    const joined = {
      ...setUp,
      pairing: choose('all-joined'),
      electronics: choose('electronics-in'),
      'joined-to-pe': read(90, 'Mohm'),
    }
    expect(site.take('ac-insulation', site.circuit, joined).says('ac-insulation', site.circuit).verdict).toBe('within')
  })

  it('keeps the volts that were delivered, and proves nothing with too few', () => {
    const at = (applied: SlotValue) => {
      const site = new Installation()
      return site
        .take('ac-insulation', site.circuit, { ...setUp, ...pairs, applied })
        .says('ac-insulation', site.circuit)
    }
    expect(at(read(512, 'V', 0)).verdict).toBe('within')
    expect(at(over(499, 'V')).verdict).toBe('not-yet')
    const weak = at(read(430, 'V', 0))
    expect([weak.verdict, weak.code]).toEqual(['not-yet', 'ac-insulation.applied-too-low'])
    expect(weak.one.finding.figures).toMatchObject({ applied: '430', volts: 500 })
  })

  it('says that surge protection was left in, and tests at 250 V', () => {
    const site = new Installation()
    const slots = { ...setUp, ...pairs, surge: choose('left-in') }
    const { one } = site.take('ac-insulation', site.circuit, slots).says('ac-insulation', site.circuit)
    expect(one.flags).toContain('surge-left-in')
    expect(one.finding.figures.volts).toBe(250)
  })

  describe('of a whole board at once', () => {
    const board = (value: number) => ({
      ...setUp,
      pairing: choose('whole-board'),
      'board-to-pe': read(value, 'Mohm'),
      'live-to-live': read(200, 'Mohm'),
    })
    const alone = (value: number) => ({ ...setUp, ...pairs, 'l-pe': read(value, 'Mohm') })
    const many = () => {
      const site = new Installation({ rcd: {} })
      const more = ['2', '3', '4'].map((tag) => site.build.part({ ...exampleCircuit, tag }))
      const all = [site.circuit, ...more]
      const keep = (value: number): void => {
        const { one, evaluation } = site.says('ac-insulation', site.circuit)
        const body = readingBody({ slots: { ...board(value), 'tested-from': choose('beyond-rcd') } })
        const shared = sharedReadings(evaluation, one, body)
        site.take('ac-insulation', site.circuit, body.slots)
        for (const other of shared) site.take('ac-insulation', other.part.id, other.body.slots)
      }
      return { site, more, all, keep }
    }

    it('clears every circuit of it, and asks none what it has not', () => {
      const { site, all, more, keep } = many()
      keep(30)
      for (const id of all) expect(site.says('ac-insulation', id).verdict).toBe('within')
      const slots = site.says('ac-insulation', more[0]!).one.counting!.entry.body.slots
      expect(Object.keys(slots)).not.toContain('tested-from')
    })

    it('that is low decides on none, and halves the board until the low one is named', () => {
      const { site, all, keep } = many()
      keep(0.4)
      for (const id of all) expect(site.says('ac-insulation', id).code).toBe('ac-insulation.board-low')
      const why = () => {
        const { one, evaluation } = site.says('ac-insulation', site.circuit)
        return {
          causes: causes(evaluation, one).map((cause) => [cause.code, cause.next.figures]),
          rest: linesOf(evaluation, one).at(-1)!,
        }
      }
      expect(why().causes).toEqual([['low-among', expect.objectContaining({ half: '1, 2', tags: '1, 2, 3, 4' })]])
      site.take('ac-insulation', all[1]!, alone(300)).take('ac-insulation', all[2]!, alone(200))
      // 1/0.4 less 1/300 and 1/200 leaves 0.4013 between circuits 1 and 4.
      expect(why().rest).toMatchObject({ code: 'ac-insulation.rest', result: { value: expect.closeTo(0.40134, 4) } })
      site.take('ac-insulation', all[3]!, alone(0.41))
      expect(why().causes[0]).toEqual(['low-circuit', { tag: '4' }])
      expect(why().rest).toMatchObject({ code: 'ac-insulation.rest-clear', figures: { tags: '1' } })
    })
  })

  it('asks three phases for ten pairs and refuses theirs on one phase', () => {
    const check = (phases: 1 | 3) => {
      const site = new Installation({ circuit: { phases } })
      return site.check('ac-insulation', site.circuit, { slots: { 'l1-l2': read(300, 'Mohm', 0) } })
    }
    expect(check(1)).toMatchObject({ state: 'refused', code: 'slot-not-here' })
    expect(check(3).state).toBe('fine')
  })
})

describe('the trips of a device', () => {
  const ms = (value: number): SlotValue => read(value, 'ms', 1)
  const all = {
    'half-0': over(1999, 'ms'),
    'half-180': over(1999, 'ms'),
    'once-0': ms(37.2),
    'once-180': ms(29.3),
    'five-0': ms(14.1),
    'five-180': ms(8.4),
  }

  it('are one under the newer school and six under the older', () => {
    const site = new Installation({ rcd: {} })
    expect(site.take('rcd-trips', site.rcd!, { 'once-0': ms(37.2) }).says('rcd-trips', site.rcd!).verdict).toBe(
      'within',
    )
    const old = new Installation({ rcd: {} })
    old.regime = classic
    const found = old.take('rcd-trips', old.rcd!, all).says('rcd-trips', old.rcd!)
    expect(found.verdict).toBe('within')
    // The longest at five times goes on the schedule.
    expect(found.one.counting!.judgement.rule!.measured!.text).toBe('14.1')
  })

  it.each([
    [{ 'once-0': ms(310) }, 'outside', 'rcd.too-slow'],
    [{ 'half-0': ms(640) }, 'outside', 'rcd.half-tripped'],
    [{ 'half-180': over(300, 'ms') }, 'not-yet', 'rcd.half-too-short'],
    [{ ramp: read(12, 'mA', 1) }, 'outside', 'rcd.ramp-too-sensitive'],
    [{ 'five-180': ms(40) }, 'close', 'rcd.time-close'],
  ])('with %j are %s', (own, verdict, code) => {
    const site = new Installation({ rcd: {} })
    site.regime = classic
    const found = site.take('rcd-trips', site.rcd!, { ...all, ...own }).says('rcd-trips', site.rcd!)
    expect(found).toMatchObject({ verdict, code })
  })

  it('cannot take no time, and are asked about where they stand in each other’s places', () => {
    const site = new Installation({ rcd: {} })
    site.regime = classic
    const check = (slots: Record<string, SlotValue>, confirmed: string[] = []) =>
      site.check('rcd-trips', site.rcd!, { slots, confirmed })
    expect(check({ 'once-0': ms(0) })).toMatchObject({ state: 'refused', code: 'no-time', slot: 'once-0' })
    const swapped = { 'once-0': ms(14.1), 'five-0': ms(37.2) }
    expect(check(swapped)).toMatchObject({ state: 'ask', code: 'slower-at-five', slot: 'five-0' })
    expect(check(swapped, ['slower-at-five']).state).toBe('fine')
    expect(check({ 'once-0': ms(37.2), 'five-0': ms(14.1) }).state).toBe('fine')
  })
})

describe('an electrode', () => {
  const base = { 'electrode-method': choose('three-lead'), 'electrode-lead': choose('taken-off') }
  const three = (a: number, b: number, c: number) => ({ 're-1': read(a), 're-2': read(b), 're-3': read(c) })

  it.each([
    [{ ...base, ...three(18.3, 17.7, 18.3) }, 'within', 'electrode.within'],
    [{ ...base, ...three(18.3, 16.4, 19.7) }, 'not-yet', 'electrode.spread-wide'],
    [{ ...base, 're-1': read(18.3) }, 'close', 'electrode.single-reading'],
    [{ ...base, ...three(240, 241, 242) }, 'close', 'electrode.may-not-be-stable'],
    [
      { ...base, 'electrode-lead': choose('still-connected'), ...three(4, 4, 4) },
      'not-yet',
      'electrode.still-connected',
    ],
  ])('reading %j is %s', (slots, verdict, code) => {
    const site = new Installation({ supply: { arrangement: 'TT' }, rcd: {} })
    const id = site.build.part(exampleElectrode)
    expect(site.take('electrode', id, slots).says('electrode', id)).toMatchObject({ verdict, code })
  })

  it('by the loop takes the long lead off: 96 less 2 is 94 ohm', () => {
    const site = new Installation({ supply: { arrangement: 'TT' }, rcd: {} })
    const id = site.build.part(exampleElectrode)
    const slots = { ...base, 'electrode-method': choose('loop-method'), 're-loop': read(96), 're-lead': read(2) }
    const { one, verdict } = site.take('electrode', id, slots).says('electrode', id)
    expect(verdict).toBe('within')
    expect(one.finding.figures.mean).toBe(94)
  })

  it('says where the spikes stand, by school', () => {
    const site = new Installation({ rcd: {} })
    const id = site.build.part(exampleElectrode)
    const slots = { ...base, ...three(18.3, 17.7, 18.3), 'spike-distance': read(40, 'm', 0) }
    const { evaluation, one } = site.take('electrode', id, slots).says('electrode', id)
    const all = linesOf(evaluation, one)
    expect(all[0]).toMatchObject({ code: 'electrode.places-sixty-two', result: { value: 24.8 } })
    // One rod of 3 m reads 18.1 ohm: the soil has 54 ohm m, and a second rod brings it to 10.5 (BS 7430, from memory).
    const further = all.filter((line) => line.code === 'electrode.further-rods')
    expect(further).toHaveLength(2)
    expect(further[0]).toMatchObject({ figures: { count: 2, soil: expect.closeTo(54.04, 1) } })
    expect(further[0]!.result!.value).toBeCloseTo(10.48, 1)
  })
})

describe('the gates of the AC side', () => {
  it('hold everything back until it was proved dead, and the live tests until the earth is back', () => {
    const site = new Installation({ rcd: {} })
    const electrode = site.build.part(exampleElectrode)
    const gateOf = (step: string, part: string) => site.says(step, part).code
    expect(gateOf('r1r2', site.circuit)).toBe('held-back.proved-dead')
    expect(gateOf('ze', site.supply)).toBe('held-back.proved-dead')
    expect(gateOf('zs', site.circuit)).toMatch(/^held-back/)
    site.take('prove-dead', site.supply, {})
    expect(gateOf('ze', site.supply)).toBe('held-back.electrode-back')
    site.take('electrode-back', electrode, {})
    expect(site.says('ze', site.supply).verdict).toBe('not-yet')
    site.take('r1r2', site.circuit, { r1r2: read(0.4) }).take('ac-polarity', site.circuit, {})
    expect(gateOf('zs', site.circuit)).toBe('held-back.earth-back')
    site.take('earth-back', site.supply, {})
    expect(gateOf('zs', site.circuit)).toBe('held-back.ac-insulation')
    site.take('ac-insulation', site.circuit, {
      pairing: choose('all-joined'),
      electronics: choose('electronics-in'),
      'joined-to-pe': read(300, 'Mohm', 0),
    })
    expect(site.says('zs', site.circuit).verdict).toBe('not-yet')
  })

  it('keep the supply off where a circuit is the wrong way round, and where nobody looked', () => {
    const site = new Installation({ rcd: {} })
    site.take('earth-back', site.supply, {})
    const shut = () =>
      site
        .says('zs', site.circuit)
        .one.gates.filter((gate) => !gate.met)
        .map((gate) => [gate.id, gate.hard])
    const unread = [
      ['protective-proved', true],
      ['ac-polarity', true],
      ['ac-insulation', false],
    ]
    expect(shut()).toEqual(unread)
    site.take('ac-polarity', site.circuit, { polarity: choose('reversed') })
    expect(shut()).toEqual(unread)
    site.take('ac-polarity', site.circuit, {}).take('r1r2', site.circuit, { r1r2: read(0.4) })
    expect(shut()).toEqual([['ac-insulation', false]])
  })
})
