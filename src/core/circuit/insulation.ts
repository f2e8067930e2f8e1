/**
 * Insulation of the AC side: test voltage, least resistance, the pairs to be read, and the verdict on them.
 * Source: BS 7671:2018 643.3 and IEC 60364-6:2016 table 6.1 (from memory).
 */
import type { ReadValue } from '../quantity/readValue'
import { spanOf } from '../quantity/span'
import { atLeast, compare } from '../verdict/compare'
import { type Decided, gravest } from '../verdict/verdict'

export type Resistance = Pick<ReadValue, 'value' | 'bound'>

export const WIRES = ['L', 'L1', 'L2', 'L3', 'N', 'PE'] as const

/** The pairs of a circuit, as the schedule names them. */
export const pairsOf = {
  1: ['L-N', 'L-PE', 'N-PE'],
  3: ['L1-L2', 'L1-L3', 'L2-L3', 'L1-N', 'L2-N', 'L3-N', 'L1-PE', 'L2-PE', 'L3-PE', 'N-PE'],
} as const satisfies Record<1 | 3, readonly string[]>

/** Highest nominal voltage of SELV and PELV, V AC. */
const EXTRA_LOW_V = 50
const ORDINARY_V = 500
/** What is tested at where surge protection stays in circuit. */
export const SURGE_TEST_V = 250
/** From here up a display is as good as over range: nothing that is connected reads so [D]. */
const PERFECT_Mohm = 999

export type AcInsulationTest = { testVoltage_V: number; minimum_Mohm: number }

/**
 * What to test at and the least allowed. With surge protection left in the limit stays as it is.
 * @example acInsulationTest(230, false) // { testVoltage_V: 500, minimum_Mohm: 1 }
 */
export function acInsulationTest(nominal_V: number, surgeInCircuit: boolean): AcInsulationTest {
  const row =
    nominal_V <= EXTRA_LOW_V
      ? { testVoltage_V: 250, minimum_Mohm: 0.5 }
      : nominal_V <= ORDINARY_V
        ? { testVoltage_V: 500, minimum_Mohm: 1 }
        : { testVoltage_V: 1000, minimum_Mohm: 1 }
  return surgeInCircuit ? { ...row, testVoltage_V: SURGE_TEST_V } : row
}

/** Whether a pair is between live conductors; otherwise one of them is the protective conductor. */
export const isLiveLive = (pair: string): boolean => !pair.split('-').includes('PE')

/** A reading too good to be of anything: the classic sign of cable ends that are connected to nothing. */
export const isPerfect = (read: Resistance): boolean =>
  read.bound === 'more-than' || (read.bound === 'exact' && read.value >= PERFECT_Mohm)

/** Each pair against the least, three-valued; one to `closeFactor` times it is close. */
export const pairVerdict = (read: Resistance, minimum_Mohm: number, closeFactor = 2): Decided =>
  compare(spanOf(read, 0), atLeast(minimum_Mohm, minimum_Mohm * closeFactor)).verdict

/** The pair that stands for several: the gravest, and of those alike the lowest. */
export function lowestOf<T extends Resistance>(pairs: readonly T[], minimum_Mohm: number, closeFactor = 2): T | null {
  const verdict = gravest(pairs.map((one) => pairVerdict(one, minimum_Mohm, closeFactor)))
  return pairs
    .filter((one) => pairVerdict(one, minimum_Mohm, closeFactor) === verdict)
    .reduce<T | null>((least, one) => (least === null || one.value < least.value ? one : least), null)
}

export type Pairs<T extends Resistance> = {
  lowest: T | null
  lowestLiveLive: T | null
  lowestLiveEarth: T | null
  verdict: Decided
  /** Perfect readings while breakers or switches stood off: nothing was proved. */
  perfectOnOpenEnds: boolean
  /** Pairs that are asked of such a circuit and were not read. */
  wanting: readonly string[]
}

/** The pairs that a circuit is asked, by what was named of it: three lines, one, or all joined to earth. */
function askedPairs(read: readonly string[]): readonly string[] {
  if (read.some((pair) => /L[123]/.test(pair))) return pairsOf[3]
  return read.includes('L+N-PE') ? ['L+N-PE', 'L-N'] : pairsOf[1]
}

/**
 * The verdict on the pairs of a circuit. One to `closeFactor` times the least is close; a perfect reading with a device
 * off decides nothing, and neither do pairs of which one was not read.
 */
export function judgePairs<T extends Resistance>(
  pairs: Readonly<Record<string, T>>,
  minimum_Mohm: number,
  devicesOn: boolean,
  closeFactor = 2,
): Pairs<T> {
  const read = Object.keys(pairs)
  const of = (wanted: (pair: string) => boolean): T | null =>
    lowestOf(
      Object.entries(pairs).flatMap(([pair, one]) => (wanted(pair) ? [one] : [])),
      minimum_Mohm,
      closeFactor,
    )
  const perfectOnOpenEnds = !devicesOn && Object.values(pairs).some(isPerfect)
  const wanting = askedPairs(read).filter((pair) => !read.includes(pair))
  const verdicts = Object.values(pairs).map((one) => pairVerdict(one, minimum_Mohm, closeFactor))
  return {
    lowest: of(() => true),
    lowestLiveLive: of(isLiveLive),
    lowestLiveEarth: of((pair) => !isLiveLive(pair)),
    verdict: gravest([...verdicts, ...(perfectOnOpenEnds || wanting.length > 0 ? (['not-yet'] as const) : [])]),
    perfectOnOpenEnds,
    wanting,
  }
}

/** Several readings at one place: never by the best try, and a bound decides only what it decides. */
export const repeatsVerdict = (readings: readonly Resistance[], minimum_Mohm: number, closeFactor = 2): Decided =>
  gravest(readings.map((one) => pairVerdict(one, minimum_Mohm, closeFactor)))

/**
 * What the circuits of a board that were not read alone have between them: parallel resistances are taken off the
 * board's one by one. Null where those that were read explain the whole of it; a bound over range leaks as good as
 * nothing.
 * @example restOfBoard_Mohm(0.4, [500, 800]) // 0.4005
 */
export function restOfBoard_Mohm(board_Mohm: number, alone: readonly Resistance[]): number | null {
  const leaks = alone.reduce((sum, one) => sum + (one.bound === 'more-than' ? 0 : 1 / one.value), 0)
  const rest = 1 / board_Mohm - leaks
  // Readings agree within a tenth or so: what is left under that is no leak of its own.
  return rest > 0.1 / board_Mohm ? 1 / rest : null
}
