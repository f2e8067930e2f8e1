/**
 * A simulated charge point and the car's end of its pilot, as two ends of one wire: levels, duty, contactor, lock, earth
 * watch, residual current device, detector, reset, its own display. Its physics are the stand-in's own.
 */
import { remedyKey } from './remedyKey'
import type { PartData } from '@/core/plant/part'
import { chance, seedOf } from './random'

export const pointFaults = [
  'contactor-welded',
  'no-lock',
  'blind-to-short',
  'tries-at-once',
  'duty-off',
  'duty-over-cable',
  'detector-sensitive',
  'detector-blind',
  'earth-open',
  'line-and-neutral-swapped',
  'pen-held',
  'clock-unset',
] as const
export type PointFault = (typeof pointFaults)[number]

/** Points in a hundred that were built with each fault. */
const IN_A_HUNDRED = 3

/** What a point was built with; the same id gives the same point every time. */
export function faultsOf(id: string): readonly PointFault[] {
  const next = chance(seedOf(`${id}:point`))
  return pointFaults.filter(() => next() * 100 < IN_A_HUNDRED)
}

/** The tests that find each fault: whoever mends what one of them found has put that right, and nothing else. */
const foundBy: Readonly<Record<PointFault, readonly string[]>> = {
  'contactor-welded': ['point-states', 'point-pilot-short', 'point-earth-lost'],
  'no-lock': ['point-states'],
  'blind-to-short': ['point-pilot-short'],
  'tries-at-once': ['point-pilot-short'],
  'duty-off': ['point-current'],
  'duty-over-cable': ['point-current'],
  'detector-sensitive': ['point-detector'],
  'detector-blind': ['point-detector'],
  'earth-open': ['point-pretest', 'point-voltages', 'point-zs'],
  'line-and-neutral-swapped': ['point-voltages'],
  'pen-held': ['point-lost-pen'],
  'clock-unset': ['point-settings'],
}

/** What is still wrong with a point. @param mended keys of remedies. */
export const faultsLeft = (id: string, mended: ReadonlySet<string>): readonly PointFault[] =>
  faultsOf(id).filter((fault) => !foundBy[fault].some((step) => mended.has(remedyKey(step, id))))

export const knobs = ['A', 'B', 'C', 'D', 'E'] as const
export type Knob = (typeof knobs)[number]
export type Shown = 'ready' | 'waiting' | 'charging' | 'fault' | 'nothing'

type Data = Extract<PartData, { kind: 'charge-point' }>
export type Built = { id: string; data: Data; faults: readonly PointFault[] }

/** Upper level of the pilot by what the car's end puts on it, V; a source of 12 V over 1 kohm. */
const LEVELS_V: Readonly<Record<Knob, number>> = { A: 12, B: 9, C: 6, D: 3, E: 0 }
/** Amperes a per cent of duty, below and above 51 A. */
const SLOPE = 0.6
const HIGH = { slope: 2.5, from_pct: 64, above_A: 51 }
const OFF_pct = 5.5
const LEAST_A = 6

/** Between these its contactor takes to close, ms. */
const CLOSES_ms = { least: 600, most: 2400 }
/** A person looks after so long: whatever closes has closed. */
export const LOOKS_AFTER_ms = 5000

/**
 * One point with an adapter in it, and its own clock: what opens does so at once, what closes takes its time, and after a
 * reset it is its model's seconds until it is ready.
 */
export class PointMachine {
  private knob: Knob = 'A'
  private tripped = false
  private wasClosed = false
  private earthCut = false
  private faultStands = false
  private now_ms = 0
  /** Since when it means to be closed; null where it does not. */
  private closingSince: number | null = null
  /** Line of the reset words that comes next, and since when it starts anew. */
  private line = 0
  private startsUntil_ms = 0
  readonly closes_ms: number

  constructor(private readonly own: Built) {
    const drawn = chance(seedOf(`${own.id}:contactor`))()
    this.closes_ms = CLOSES_ms.least + (CLOSES_ms.most - CLOSES_ms.least) * drawn
  }

  private has(fault: PointFault): boolean {
    return this.own.faults.includes(fault)
  }

  /** Lets time pass; what begins on the way, begins when it is due. */
  wait(ms: number): this {
    const until_ms = this.now_ms + ms
    if (this.isStarting && this.startsUntil_ms < until_ms) {
      this.now_ms = this.startsUntil_ms
      this.settle()
    }
    this.now_ms = until_ms
    return this.settle()
  }

  /** Turns the knob of the adapter; the car's earth is whole again. */
  turn(knob: Knob): this {
    this.knob = knob
    this.earthCut = false
    if (knob !== 'A') this.line = 0
    return this.settle()
  }

  /** Opens the earth of the car. */
  cutEarth(): this {
    this.earthCut = true
    return this.settle()
  }

  /** A residual current that it must open on. */
  trip(): this {
    if (this.outletLive) this.tripped = true
    return this.settle()
  }

  /**
   * One line of its model's reset words, counted from 0. A line out of turn begins its menu anew, and nothing of it helps
   * unless the adapter stands in A. After the last one it starts up.
   */
  follow(line: number): this {
    const lines = this.own.data.model?.data.reset.length ?? 1
    this.line = this.knob === 'A' && line === this.line ? line + 1 : 0
    if (this.line >= lines) {
      this.line = 0
      this.tripped = false
      this.startsUntil_ms = this.now_ms + 1000 * (this.own.data.model?.data.ready_s ?? 0)
    }
    return this.settle()
  }

  /** All of its reset words in their order, and the wait until it is ready. */
  reset(): this {
    const lines = Math.max(1, this.own.data.model?.data.reset.length ?? 1)
    for (let line = 0; line < lines; line++) this.follow(line)
    return this.wait(1000 * (this.own.data.model?.data.ready_s ?? 0))
  }

  private get isStarting(): boolean {
    return this.now_ms < this.startsUntil_ms
  }

  private settle(): this {
    const { ventilated } = this.own.data
    const asks = this.knob === 'C' || (this.knob === 'D' && ventilated)
    const short = this.knob === 'E' && !this.has('blind-to-short')
    this.faultStands = short || (this.earthCut && this.knob !== 'A') || (this.knob === 'D' && !ventilated)
    const mayClose = !this.tripped && !this.faultStands && !this.isStarting
    const stays = this.knob === 'E' && this.has('blind-to-short') && this.closed
    if (!(asks || stays) || !mayClose) this.closingSince = null
    else this.closingSince ??= this.now_ms
    this.wasClosed ||= this.closed
    return this
  }

  private get closed(): boolean {
    return this.closingSince !== null && this.now_ms - this.closingSince >= this.closes_ms
  }

  get outletLive(): boolean {
    return this.closed || (this.has('contactor-welded') && this.wasClosed && !this.tripped)
  }
  get shows(): Shown {
    const { model } = this.own.data
    if (this.isStarting) return 'nothing'
    if (this.tripped || this.faultStands) return model && !model.data.faultSign ? 'nothing' : 'fault'
    if (this.closed) return 'charging'
    return this.knob === 'A' ? 'ready' : 'waiting'
  }
  get plugHeld(): boolean {
    return this.knob !== 'A' && !this.has('no-lock')
  }
  /** It tries again by itself while the fault stands. */
  get triesAgain(): boolean {
    return this.faultStands && this.has('tries-at-once')
  }
  /** Upper level of its pilot, V. */
  get level_V(): number {
    const own = chance(seedOf(`${this.own.id}:pilot`))()
    return LEVELS_V[this.knob] === 0 ? 0.1 * own : LEVELS_V[this.knob] + 0.3 * (own - 0.5)
  }
  /** Volts that a meter finds between the earth of the plug and the hand. */
  get earth_V(): number {
    const drawn = chance(seedOf(`${this.own.id}:earth`))()
    return this.has('earth-open') && this.outletLive ? 82 + 30 * drawn : 0.2 + 0.4 * drawn
  }

  /**
   * Duty of its pilot with a cable of so many amperes, %.
   * @param charging so many points behind its load limit charge at once, itself included: each gets as much.
   */
  duty_pct(cable_A: number, charging = 1): number {
    const { model, setTo_A, load } = this.own.data
    const rated_A = model?.data.rated_A ?? 16
    const shared_A = load?.limit_A == null ? rated_A : Math.floor(load.limit_A / charging)
    // Less than a pilot can say: its car waits.
    if (shared_A < LEAST_A) return 100
    const bounds = [rated_A, setTo_A ?? rated_A, shared_A]
    const allowed_A = Math.min(...bounds, this.has('duty-over-cable') ? rated_A : cable_A)
    const duty = allowed_A <= HIGH.above_A ? allowed_A / SLOPE : allowed_A / HIGH.slope + HIGH.from_pct
    return duty + (this.has('duty-off') ? OFF_pct : 0)
  }
}

const MECHANISM_ms = { 1: [19, 14], 5: [8, 9] } as const

/** How its residual current device and its detector answer. */
export class PointProtection {
  constructor(private readonly own: Built) {}

  private drawn(what: string): number {
    return chance(seedOf(`${this.own.id}:${what}`))()
  }
  private has(fault: PointFault): boolean {
    return this.own.faults.includes(fault)
  }
  private get rated_mA(): number {
    return this.own.data.model?.data.rcdRated_mA ?? 30
  }

  /** Time to trip at a multiple, ms; null where it holds. */
  trip_ms(multiple: number, angle_deg: number, at_ms: number): number | null {
    if (multiple < 1) return null
    const [from, spread] = MECHANISM_ms[multiple >= 5 ? 5 : 1]
    return from + spread * this.drawn('mechanism') + (angle_deg === 180 ? 4 : 0) + 3 * this.drawn(`trip:${at_ms}`)
  }

  /** Current at which a slow ramp ends, mA: pulsating current has a mean, and the detector sees that first. */
  ramp_mA(pulsating: boolean, at_ms: number): number {
    const own = this.rated_mA * (0.6 + 0.2 * this.drawn('toroid') + 0.02 * this.drawn(`ramp:${at_ms}`))
    if (!pulsating || !this.own.data.model?.data.dcDetector) return own
    return (this.direct_mA('plus') ?? Number.POSITIVE_INFINITY) * (Math.PI / 2)
  }

  /** Smooth direct current at which its own device opens, mA; null where its type does not see it. */
  smooth_mA(polarity: 'plus' | 'minus', at_ms: number): number | null {
    if (this.own.data.model?.data.rcdType !== 'B') return null
    return this.rated_mA * (0.9 + 0.3 * this.drawn(`smooth:${polarity}`) + 0.02 * this.drawn(`ramp:${at_ms}`))
  }

  /** Smooth direct current at which its detector opens, mA; null where it never does. */
  direct_mA(polarity: 'plus' | 'minus'): number | null {
    if (this.has('detector-blind') && polarity === 'minus') return null
    const drawn = this.drawn(`detector:${polarity}`)
    return this.has('detector-sensitive') ? 2.1 + 0.5 * drawn : 4.1 + 1.2 * drawn
  }

  /** How long 6 mA flows until it opens, ms; null where it holds. */
  six_ms(polarity: 'plus' | 'minus', at_ms: number): number | null {
    return this.direct_mA(polarity) === null ? null : 420 + 1600 * this.drawn(`six:${polarity}:${at_ms}`)
  }

  /** How long a lost PEN stands until it opens, ms, and what opens. */
  get lostPen(): { time_ms: number; opens: 'all' | 'live-only' } {
    return { time_ms: 340 + 1500 * this.drawn('pen'), opens: this.has('pen-held') ? 'live-only' : 'all' }
  }
}

/** Volts at the adapter with the outlet live. */
export function plugVolts(own: Built, pair: string): number {
  const toNeutral = 232 + 8 * chance(seedOf(`${own.id}:volts`))()
  const between = 0.4 + 1.6 * chance(seedOf(`${own.id}:neutral`))()
  const [from, to] = own.faults.includes('line-and-neutral-swapped') ? swapped(pair) : pair.split('-')
  if (from === 'N' || to === 'L') return from === 'N' && to === 'PE' ? between : toNeutral
  return to === 'N' ? toNeutral : toNeutral - between
}

/** Where line and neutral are swapped the neutral's socket has the line. */
const swapped = (pair: string): [string, string] => {
  if (pair === 'N-PE') return ['L', 'PE']
  return pair.endsWith('-PE') ? ['N', 'PE'] : ['L', 'N']
}
