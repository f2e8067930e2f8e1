/**
 * What one press of a live test gives besides its own figure: volts, the loops of the other pairs, the currents that
 * follow. It is kept, and it tells: which conductor the ohms are in, whether line and neutral are changed over, whether
 * figures of one press go together. It never makes a test within. Source: Kirchhoff's law; common practice.
 */
import { standingFor } from '../../quantity/span'
import { type Cause, causeOf } from '../../verdict/cause'
import type { Ruling } from '../../verdict/judgement'
import type { WorkingLine } from '../../verdict/working'
import { ruled, saying } from '../holding'
import { type Figure, figureOf, figuresOf } from '../reading'
import { besidesSlot, isThreePhase, LINES, type NumberSlot } from '../slot'
import type { AnyContext } from '../step'
import { supplyVolts, touchVolts } from './supplyVolts'

type Context = AnyContext
type Asks = NonNullable<NumberSlot['only']>

/** What figures of one press may differ by, per cent [D]: by the figures themselves, for a worse instrument must not make them right. */
const AGREE_PCT = 15

const oneLine: Asks = (part) => !isThreePhase(part)
const volts = (id: string, pair: string, only?: Asks): NumberSlot =>
  besidesSlot(`volts-${id}`, 'ac-voltage', 'V', 2, { pair }, only ? { only } : {})

const lineVolts: readonly NumberSlot[] = [
  volts('l-n', 'L-N', oneLine),
  volts('l-pe', 'L-PE', oneLine),
  ...LINES.flatMap((line) => [
    volts(`${line}-n`, `${line.toUpperCase()}-N`, isThreePhase),
    volts(`${line}-pe`, `${line.toUpperCase()}-PE`, isThreePhase),
  ]),
]
const neutralVolts = volts('n-pe', 'N-PE')

/** Volts that every live test may show. */
export const voltsBesides: readonly NumberSlot[] = [...lineVolts, neutralVolts]

const loop = (id: string, pair: string): NumberSlot =>
  besidesSlot(id, 'loop-impedance', 'ohm', 2, { pair }, { only: oneLine })
const current = (id: string, pair: string): NumberSlot =>
  besidesSlot(id, 'fault-current', 'A', 2, { pair }, { only: oneLine })

/** The loop of line and protective conductor, where the current through it is the test's own figure. */
export const earthLoop = loop('loop-l-pe', 'L-PE')
const neutralLoop = loop('loop-l-n', 'L-N')
const neutralEarthLoop = loop('loop-n-pe', 'N-PE')
const earthCurrent = current('pefc-besides', 'L-PE')
const neutralCurrent = current('pscc-besides', 'L-N')

/** Loops of the other pairs, and the currents that follow from them. */
export const loopsBesides: readonly NumberSlot[] = [neutralLoop, neutralEarthLoop]
export const currentsBesides: readonly NumberSlot[] = [earthCurrent, neutralCurrent]

/** Volts on metalwork while a residual current device is tried, at its rated current. */
export const touchBesides = besidesSlot('touch-besides', 'ac-voltage', 'V', 2, { pair: 'PE-earth' })

/** Volts of lines as they should be, or to be looked at: what a network delivers is not the circuit's fault. */
function voltsRulings(context: Context): Ruling[] {
  const touch_V = context.limit('earth.touch-voltage').value
  const lines = figuresOf(context, lineVolts).map((one) => {
    const ruling = supplyVolts(context, one, 'besides-volts')
    if (ruling.verdict !== 'outside') return ruling
    // Next to nothing against a line that is on: that conductor is not there, or line and neutral are changed over.
    return one.span.most <= touch_V
      ? saying(ruling, 'besides-volts.missing')
      : saying(ruling, 'besides-volts.off', {}, 'close')
  })
  const neutral = figureOf(context, neutralVolts)
  return neutral ? [...lines, touchVolts(context, neutral, 'besides-neutral', 'besides.neutral')] : lines
}

export type Shares = { line_ohm: number; neutral_ohm: number; earth_ohm: number; highest_ohm: number }

/** What each conductor has of three loops that were read at one place, ohm; null where one of them is not known. */
export function sharesOf(context: Context, lineEarth: Figure | null): Shares | null {
  const [lineNeutral, neutralEarth] = [figureOf(context, neutralLoop), figureOf(context, neutralEarthLoop)]
  if (!lineEarth || !lineNeutral || !neutralEarth) return null
  const three = [lineEarth, lineNeutral, neutralEarth]
  if (three.some(({ span }) => span.bound !== 'exact')) return null
  const [le, ln, ne] = three.map(({ read }) => read.value) as [number, number, number]
  return {
    line_ohm: (le + ln - ne) / 2,
    neutral_ohm: (ln + ne - le) / 2,
    earth_ohm: (le + ne - ln) / 2,
    highest_ohm: Math.max(le, ln, ne),
  }
}

/** Three loops of which one is more than the other two together were not read at one place, or one contact was bad. */
function loopsRulings(context: Context, lineEarth: Figure | null): Ruling[] {
  const shares = sharesOf(context, lineEarth)
  if (!shares) return []
  const { value: noise_ohm } = context.limit('ac.joint')
  const least = Math.min(shares.line_ohm, shares.neutral_ohm, shares.earth_ohm)
  if (least + noise_ohm + (shares.highest_ohm * AGREE_PCT) / 100 >= 0) return []
  const line = { code: 'besides.loops-apart', source: 'loop-practice' } as const
  return [
    ruled(
      context,
      'close',
      'besides.loops-apart',
      line,
      {},
      loopsBesides.map(({ id }) => id),
    ),
  ]
}

/** A current that does not follow from its loop, whichever volts the instrument takes for it. */
function currentRuling(
  context: Context,
  loopRead: Figure | null,
  amps: Figure | null,
  pair: 'L-PE' | 'L-N',
): Ruling | null {
  if (loopRead?.span.bound !== 'exact' || amps?.span.bound !== 'exact' || loopRead.read.value === 0) return null
  const nominal_V = context.plant.supplyOf(context.part)?.data.nominal_V
  const own = figuresOf(context, lineVolts).find(({ slot }) => slot.of?.pair === pair)?.read.value
  const all_V = [nominal_V, own].filter((one) => one !== undefined)
  if (all_V.length === 0) return null
  const agrees = (one_V: number): boolean =>
    Math.abs((amps.read.value * loopRead.read.value) / one_V - 1) * 100 <= AGREE_PCT
  if (all_V.some(agrees)) return null
  const figures = { loop: loopRead.read.text, read: amps.read.text, gives: all_V[0]! / loopRead.read.value }
  const line = { code: 'besides.current-apart', figures, source: 'loop-practice' } as const
  return ruled(context, 'close', 'besides.current-apart', line, figures, [amps.slot.id])
}

/** The figures of a loop test that were its own: line to earth, and its currents where they are. */
export type OwnFigures = { lineEarth: Figure | null; pefc?: Figure | null; pscc?: Figure | null }

/** What the figures beside a test's own say of it: none of them makes it better. */
export function besidesRulings(context: Context, own: OwnFigures): readonly Ruling[] {
  if (!own.pefc && !own.pscc && !isAnyBesides(context)) return NONE
  const currents = [
    currentRuling(context, own.lineEarth, own.pefc ?? figureOf(context, earthCurrent), 'L-PE'),
    currentRuling(context, figureOf(context, neutralLoop), own.pscc ?? figureOf(context, neutralCurrent), 'L-N'),
  ]
  const touch = figureOf(context, touchBesides)
  return [
    ...voltsRulings(context),
    ...loopsRulings(context, own.lineEarth),
    ...currents.filter((one) => one !== null),
    ...(touch ? [touchVolts(context, touch, 'besides-touch', 'besides.touch')] : []),
  ]
}

const NONE: readonly Ruling[] = []
const besidesIds = new Set([...loopsBesides, ...currentsBesides, ...voltsBesides, touchBesides].map(({ id }) => id))
function isAnyBesides({ reading }: Context): boolean {
  for (const id in reading.slots) if (besidesIds.has(id)) return true
  return false
}

/** Whether what came besides is a fault by itself, whatever the test's own figure is held against. */
export const isGrave = (besides: readonly Ruling[]): boolean => besides.some(({ verdict }) => verdict === 'outside')

/** How the ohms are shared out between the conductors. */
export function shareLines(context: Context, lineEarth: Figure | null): WorkingLine[] {
  const shares = sharesOf(context, lineEarth)
  if (!shares) return []
  const { line_ohm, neutral_ohm, earth_ohm } = shares
  const figures = { line: line_ohm, neutral: neutral_ohm, earth: earth_ohm }
  return [{ code: 'besides.shares', figures, result: null, source: 'loop-practice' }]
}

/** In which conductor the ohms are that a loop has too many of. @param sum_ohm what the loop should be */
export function jointCauses(context: Context, lineEarth: Figure | null, sum_ohm: number): Cause[] {
  const shares = sharesOf(context, lineEarth)
  if (!shares || !lineEarth) return []
  const above_ohm = standingFor(lineEarth.span) - sum_ohm
  // Line and neutral are the same cable: what the line has more than it is in the line.
  const inLine = shares.line_ohm - shares.neutral_ohm > above_ohm / 2
  const figures = { tag: context.part.data.tag, above: above_ohm, ohm: inLine ? shares.line_ohm : shares.earth_ohm }
  return [causeOf(inLine ? 'joint-in-line' : 'joint-in-protective', 'fits', 'halve-the-circuit', figures)]
}
