import { describe, expect, it } from 'vitest'
import { evaluate } from '../evaluate'
import { exampleBoard, exampleCircuit, exampleSupply } from '../steps/worked'
import { FactsBuilder } from '../testing/factsBuilder'
import { type DayPlan, dayPlan, type PlaneLight, planesOf, type Shift, type Stretch } from './dayPlan'
import { minutesOf, type Piece, piecesOf } from './dayWork'
import { type Way, walkOf } from './walk'

const HOUR_ms = 3_600_000
const MIDNIGHT = Date.parse('2026-05-14T00:00:00Z')
const at = (hour: number): number => MIDNIGHT + hour * HOUR_ms
const place = { latitude_deg: 52, longitude_deg: 0 }
const shift: Shift = { from: at(8), to: at(18), people: 1, sky: 'clear' }

/** A roof that looks east and west, its house behind it. */
function house(strings = 2) {
  const build = new FactsBuilder()
  const east = build.part({ kind: 'array', tag: 'East', tilt_deg: 45, azimuth_deg: 90, mounting: 'open-rack' })
  const west = build.part({ kind: 'array', tag: 'West', tilt_deg: 45, azimuth_deg: 270, mounting: 'open-rack' })
  for (const [arrayId, face] of [
    [east, 'E'],
    [west, 'W'],
  ] as const)
    for (let n = 1; n <= strings; n++) {
      const id = build.string(`${face}${n}`)
      const data = build.facts().entries.findLast((entry) => entry.partId === id)!.body
      if (data.kind === 'plant-change' && data.after?.kind === 'string') build.part({ ...data.after, arrayId }, id)
    }
  build.part(exampleSupply)
  const board = build.part(exampleBoard)
  const circuitId = build.part({ ...exampleCircuit, boardId: board })
  build.part({ kind: 'inverter', tag: 'INV', maxInput_V: 1000, circuitId })
  return { build, east, west }
}

function laid(made: ReturnType<typeof house>, about: Partial<Shift> = {}, way: Way = 'by-test') {
  const evaluation = evaluate(made.build.facts(), 0)
  const planes = planesOf(evaluation.plant, place, { from: MIDNIGHT, to: at(24) }, 400)
  const pieces = piecesOf(walkOf(evaluation, way), evaluation.plant)
  return { evaluation, planes, pieces, plan: dayPlan(pieces, planes, { ...shift, ...about }) }
}

const inLight = ({ stretches }: DayPlan): Stretch[] => stretches.filter(({ piece }) => piece.arrayId !== null)
const windowOf = (planes: readonly PlaneLight[], id: string) => planes.find(({ array }) => array.id === id)!.windows

/** What no plan may do, whatever it is made of. */
function holdsTogether({ plan, planes, pieces }: ReturnType<typeof laid>, about: Partial<Shift> = {}): void {
  const { from, to, people } = { ...shift, ...about }
  const ends: number[] = pieces.map(() => 0)
  for (const { piece, to: end } of plan.stretches) ends[piece.index] = Math.max(end, ends[piece.index]!)
  const isLeft = new Set(plan.left.map(({ piece }) => piece.index))
  for (const one of plan.stretches) {
    expect(one.from).toBeGreaterThanOrEqual(from)
    expect(one.to).toBeLessThanOrEqual(to)
    expect(one.person).toBeLessThan(people)
    for (const before of one.piece.waitsFor.flat().filter((index) => index < one.piece.index)) {
      expect(isLeft.has(before)).toBe(false)
      expect(ends[before]).toBeLessThanOrEqual(one.from)
    }
    const { arrayId } = one.piece
    if (arrayId !== null)
      expect(windowOf(planes, arrayId).some((window) => window.from <= one.from && one.to <= window.to)).toBe(true)
    for (const other of plan.stretches) {
      if (other === one || other.from >= one.to || other.to <= one.from) continue
      expect(other.person).not.toBe(one.person)
      const parts = new Set(one.units.map((unit) => unit.one.part.id))
      expect(other.units.filter((unit) => parts.has(unit.one.part.id))).toEqual([])
    }
  }
  const laidKeys = plan.stretches.flatMap(({ units }) => units.map(({ one }) => one.key))
  const leftKeys = plan.left.flatMap(({ units }) => units.map(({ one }) => one.key))
  const allKeys = pieces.flatMap(({ units }) => units.map(({ one }) => one.key))
  expect([...laidKeys, ...leftKeys].sort()).toEqual([...allKeys].sort())
}

describe('a day under the sun', () => {
  const made = house()
  const { planes } = laid(made)

  it('light comes to the east in the morning and to the west in the afternoon', () => {
    const [east] = windowOf(planes, made.east)
    const [west] = windowOf(planes, made.west)
    expect(east!.from).toBeLessThan(at(7))
    expect(east!.to).toBeLessThan(at(15))
    expect(west!.from).toBeGreaterThan(at(9))
    expect(west!.to).toBeGreaterThan(at(17))
  })

  it.each(['by-test', 'by-place'] as const)(
    '%s: nothing before what it waits for, light only where there is some',
    (way) => {
      for (const people of [1, 2] as const) {
        const day = laid(made, { people }, way)
        holdsTogether(day, { people })
        expect(inLight(day.plan).length).toBeGreaterThan(0)
      }
    },
  )

  it('the plane that loses its light first is read first, and the meter goes over once', () => {
    const { plan } = laid(made)
    const planesInOrder = inLight(plan).map(({ piece }) => piece.arrayId)
    const turns = planesInOrder.filter((id, k) => k === 0 || id !== planesInOrder[k - 1])
    expect(turns[0]).toBe(made.east)
    expect(turns.slice(0, 2)).toEqual([made.east, made.west])
  })

  it('the meter is set up when its strings can be read, not before their dead tests', () => {
    const { plan } = laid(made)
    const meter = plan.stretches.find(({ piece }) => piece.step?.id === 'sensors')!
    const next = plan.stretches[plan.stretches.indexOf(meter) + 1]!
    expect(next.piece.arrayId).toBe(meter.piece.arrayId)
  })

  it('two people are done sooner than one where no light holds them up', () => {
    const { pieces } = laid(made)
    const ends = ([1, 2] as const).map((people) => {
      const { stretches, left } = dayPlan(pieces, [], { ...shift, people })
      expect(left).toEqual([])
      return Math.max(...stretches.map(({ to }) => to))
    })
    expect(ends[1]).toBeLessThan(ends[0]! - 10 * 60_000)
  })

  it('plugs are locked after the last test that parts them, and nothing is switched on before the dead tests', () => {
    for (const way of ['by-test', 'by-place'] as const) {
      const { stretches } = laid(made, { people: 2 }, way).plan
      const ofStep = (...ids: string[]) =>
        stretches.filter(({ units }) => units.some(({ one }) => ids.includes(one.step.id)))
      const over = (...ids: string[]): number => Math.max(...ofStep(...ids).map(({ to }) => to))
      const begun = (...ids: string[]): number => Math.min(...ofStep(...ids).map(({ from }) => from))
      expect(begun('reconnect')).toBeGreaterThanOrEqual(
        over('pv-voc', 'pv-isc', 'pv-insulation', 'r1r2', 'ac-insulation'),
      )
      expect(begun('zs', 'ac-functional')).toBeGreaterThanOrEqual(over('r1r2', 'ac-insulation'))
      expect(begun('close-out')).toBeGreaterThanOrEqual(over('operating', 'zs'))
    }
  })

  it('what waits for something that the plant does not have is left', () => {
    const lone = new FactsBuilder()
    const boardId = lone.part(exampleBoard)
    lone.part({ ...exampleCircuit, boardId })
    const evaluation = evaluate(lone.facts(), 0)
    const plan = dayPlan(piecesOf(walkOf(evaluation, 'by-test'), evaluation.plant), [], shift)
    expect(plan.left.map(({ piece, why }) => `${piece.step?.id} ${why}`)).toContain('r1r2 waits')
  })

  it('on a dull day all that wants no light is laid, and the rest says what it waits for', () => {
    const { plan } = laid(made, { sky: 'dull' })
    holdsTogether(laid(made, { sky: 'dull' }))
    expect(inLight(plan)).toEqual([])
    expect(plan.stretches.length).toBeGreaterThan(0)
    const why = new Map(plan.left.map(({ piece, why }) => [piece.id, why]))
    expect(why.get(`sensors ${made.east}`)).toBe('light')
    expect(plan.left.some(({ why }) => why === 'waits')).toBe(true)
  })

  it('what finds no time is left, one test or half a piece', () => {
    const short = { from: at(8), to: at(9) }
    const day = laid(house(12), short)
    holdsTogether(day, short)
    expect(day.plan.left.some(({ why }) => why === 'time')).toBe(true)
    const cut = day.plan.left.filter(({ piece, units }) => units.length < piece.units.length)
    expect(cut).toHaveLength(1)
    // What is gone on with later begins with a hand on the leads.
    expect(cut[0]!.units[0]!.isLeadChange).toBe(true)
  })

  it('in a winter in which a plane never has enough, its readings wait for another day', () => {
    const evaluation = evaluate(made.build.facts(), 0)
    const winter = Date.parse('2026-12-21T00:00:00Z')
    const north = planesOf(evaluation.plant, place, { from: winter, to: winter + 24 * HOUR_ms }, 400)
    expect(north.every(({ windows }) => windows.every(({ from, to }) => to - from < 3 * HOUR_ms))).toBe(true)
    expect(
      planesOf(
        evaluation.plant,
        { latitude_deg: 89, longitude_deg: 0 },
        { from: winter, to: winter + 24 * HOUR_ms },
        400,
      ).every(({ most }) => most.irradiance_Wm2 === 0),
    ).toBe(true)
  })

  it('a plane of which nothing is known is laid as if there always were light', () => {
    const evaluation = evaluate(made.build.facts(), 0)
    const pieces = piecesOf(walkOf(evaluation, 'by-test'), evaluation.plant)
    const { left } = dayPlan(pieces, [], shift)
    expect(left).toEqual([])
  })

  it('what is done is not laid again, and its minutes are those of the sheet', () => {
    const evaluation = evaluate(made.build.facts(), 0)
    const walk = walkOf(evaluation, 'by-test')
    const pieces: Piece[] = piecesOf(walk, evaluation.plant)
    const minutes = pieces.reduce((sum, { units }) => sum + minutesOf(units), 0)
    // Planes are kept apart: a change of leads more for each plane after the first of a test.
    expect(minutes).toBeGreaterThanOrEqual(walk.minutesLeft)
    expect(minutes).toBeLessThanOrEqual(walk.minutesLeft + pieces.length)
    expect(pieces.flatMap(({ units }) => units).every(({ one }) => !one.done)).toBe(true)
  })
})
