/** All readings of a hunt together: each narrows down where along the string the fault sits. */
import { CLEAN_SHARE, faultBetween, leakBetween } from '../../pv/earthFault'
import { exactly, type Span, sumOf } from '../../quantity/span'
import type { PlaceFound, StringPlacePicture } from '../picture'
import { choiceIn, type Figure, figuresOf } from '../reading'
import type { KeptReading, Reading, StepContext } from '../step'
import { inputOf, isByHalves, minus, minusHalf, openedAfter, plus, plusHalf, slots, whole } from './faultSlots'
import { insulationAsked } from './insulationAsked'

const ends = ({ least, most, whisker }: Span): { least: number; most: number } => ({
  least: Math.max(0, least - whisker),
  most: most + whisker,
})

const readIn = (reading: Reading) => {
  const read = figuresOf({ reading, slots }, [whole, plus, minus, openedAfter, plusHalf, minusHalf])
  return (slot: { id: string }): Figure | null => read.find((one) => one.slot.id === slot.id) ?? null
}

/**
 * What leaks from a string to earth, Mohm, by its three voltages: only where the voltmeter's own resistance is known. Null
 * where it is not, or nobody read all three.
 */
export function leakSpan(reading: Reading): Span | null {
  const of = readIn(reading)
  const [string, high, low] = [of(whole), of(plus), of(minus)]
  const input_Mohm = inputOf(reading)
  if (!string || !high || !low || input_Mohm === null) return null
  const sum = sumOf([high.span, low.span])
  const { least, most } = leakBetween(ends(string.span), ends(sum), input_Mohm)
  const isExact = sum.bound === 'exact' && string.span.bound === 'exact' && Number.isFinite(most) && sum.least > 0
  if (!isExact) return { least, most, bound: 'between', whisker: 0 }
  return exactly(Math.max(0, input_Mohm * (string.read.value / sum.least - 1)), (most - least) / 2)
}

/** Where two voltages to earth put the fault, in modules from the positive end; null where they do not. */
export function placeByVolts(
  reading: Reading,
  modules: number,
  least_Mohm: number,
): Omit<PlaceFound, 'surface' | 'ended'> | null {
  const of = readIn(reading)
  const [string, high, low] = [of(whole), of(plus), of(minus)]
  if (!string || !high || !low) return null
  const sum_V = high.read.value + low.read.value
  const leak = leakSpan(reading)
  const isClean = leak ? leak.least >= least_Mohm : sum_V < CLEAN_SHARE * string.read.value
  if (isClean) return { from: null, to: null, at: null }
  const between = faultBetween(ends(high.span), ends(low.span))
  const isExact = high.span.bound === 'exact' && low.span.bound === 'exact'
  return {
    from: between.from * modules,
    to: between.to * modules,
    at: isExact ? (high.read.value / sum_V) * modules : null,
  }
}

/** After which module the string was opened; null where that is no place of it. */
export function openedAt(reading: Reading, modules: number): number | null {
  const value = readIn(reading)(openedAfter)?.read.value ?? null
  return value !== null && Number.isInteger(value) && value >= 1 && value < modules ? value : null
}

/** Which half was low, in modules from the positive end; clean where neither was, null where that is not known. */
function placeByHalves(
  reading: Reading,
  modules: number,
  least_Mohm: number,
): Omit<PlaceFound, 'surface' | 'ended'> | null {
  const of = readIn(reading)
  const [high, low] = [of(plusHalf), of(minusHalf)]
  const opened = openedAt(reading, modules)
  if (!high || !low || opened === null) return null
  const isLow = ({ span }: Figure): boolean => span.most < least_Mohm
  if (isLow(high)) return { from: 0, to: isLow(low) ? modules : opened, at: null }
  return isLow(low) ? { from: opened, to: modules, at: null } : { from: null, to: null, at: null }
}

/** Nearer than a module and its two plugs nobody looks. */
const ONE_MODULE = 1

/** The readings of a hunt on one string, and what they leave. Null before anything was found out. */
export function stringPlace(context: StepContext<'string'>, kept: readonly KeptReading[]): StringPlacePicture | null {
  const { tag, modulesInSeries: modules } = context.part.data
  const least_Mohm = insulationAsked(context)?.test.minimum_Mohm ?? 0
  const all = [...kept, { reading: context.reading, ended: false }].flatMap(({ reading, ended }) => {
    const place = (isByHalves(reading) ? placeByHalves : placeByVolts)(reading, modules, least_Mohm)
    return place ? [{ place, ended, surface: choiceIn(reading, 'surface'), byHalves: isByHalves(reading) }] : []
  })
  if (all.length === 0) return null
  const found = all.filter(({ place, ended }) => !ended && place.from !== null)
  const from = Math.max(0, ...found.map(({ place }) => place.from!))
  const to = Math.min(modules, ...found.map(({ place }) => place.to!))
  const isUnlike = found.length > 0 && from > to
  const suspect = found.length === 0 || isUnlike ? null : { from, to }
  const halves = all.some((one) => one.byHalves && !one.ended) || isByHalves(context.reading)
  const middle = suspect && Math.round((suspect.from + suspect.to) / 2)
  const isNarrow = suspect !== null && suspect.to - suspect.from <= ONE_MODULE
  return {
    kind: 'string-place',
    tag,
    modules,
    readings: all.map(({ place, surface, ended }) => ({ ...place, surface, ended })),
    suspect,
    isUnlike,
    openNext: halves && middle !== null && !isNarrow && middle >= 1 && middle < modules ? middle : null,
  }
}
