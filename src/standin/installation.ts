/**
 * A simulated installation as it was really built: a network of impedances, electrodes in soil, residual current devices
 * with their spread, and a few faults that nobody wrote down. The physics are the stand-in's own.
 */
import type { PartData } from '@/core/plant/part'
import { chance, seedOf } from './random'

type Built = { id: string; data: PartData }
type Of<Kind extends PartData['kind']> = { id: string; data: Extract<PartData, { kind: Kind }> }
/** Where the spikes of an electrode test stand. */
export type Spikes = { share: number; way_m: number; bearing_deg: number | null }
/** A line of three phases; empty where there is one. */
export type Line = '' | 'l1' | 'l2' | 'l3'
export type CircuitFault = 'none' | 'loose-terminal' | 'low-insulation'
export type RcdFault = 'none' | 'slow' | 'sensitive'

/** Circuits and devices in a hundred that were built with each fault. */
const LOOSE = 4
const LEAKY = 5
const SLOW = 4
const SENSITIVE = 3

/** Of each metal, milliohm mm2 per metre. */
const COPPER_mohm_mm2 = 17.6
const ALUMINIUM_mohm_mm2 = 29
const each_mohm_mm2 = ({ data }: Of<'circuit'>): number =>
  data.metal === 'aluminium' ? ALUMINIUM_mohm_mm2 : COPPER_mohm_mm2
const USUAL = { line_mm2: 2.5, protective_mm2: 1.5, length_m: 15 }
/** How much of a reading a pipe right along the way takes off at the current spike. */
const PIPE_TAKES = 0.5
const SOIL_ohm_m = { least: 40, most: 110 }

/** Shortest time and spread of sound devices at a multiple of their rated current, ms. */
const TIMES_ms = {
  general: { 1: [20, 16], 2: [14, 12], 5: [9, 9] },
  selective: { 1: [175, 60], 2: [105, 30], 5: [62, 20] },
} as const
/** How much more current a ramp of another shape takes than an alternating one. */
const SHAPES = { ac: 1, pulsating: 1.05, dc: 1.5 } as const
export type Shape = keyof typeof SHAPES

const between = (next: () => number, least: number, most: number): number => least + (most - least) * next()

export function circuitFault(id: string): CircuitFault {
  const draw = 100 * chance(seedOf(`${id}:circuit`))()
  return draw < LOOSE ? 'loose-terminal' : draw < LOOSE + LEAKY ? 'low-insulation' : 'none'
}

export function rcdFault(id: string): RcdFault {
  const draw = 100 * chance(seedOf(`${id}:rcd`))()
  return draw < SLOW ? 'slow' : draw < SLOW + SENSITIVE ? 'sensitive' : 'none'
}

export class Installation {
  constructor(
    private readonly parts: readonly Built[],
    /** Parts on which somebody wrote that they were mended. */
    private readonly mended: ReadonlySet<string>,
  ) {}

  private ofKind<Kind extends PartData['kind']>(kind: Kind): Of<Kind>[] {
    return this.parts.filter((one): one is Of<Kind> => one.data.kind === kind)
  }

  get supply(): Of<'supply'> | null {
    return this.ofKind('supply')[0] ?? null
  }

  get nominal_V(): number {
    return this.supply?.data.nominal_V ?? 230
  }

  /** One conductor of the network up to the origin, ohm: a line, or the neutral where none is named. */
  private wire_ohm(line: Line = ''): number {
    const usual = between(chance(seedOf(`${this.supply?.id ?? ''}:line`)), 0.07, 0.14)
    return line ? usual * between(chance(seedOf(`${this.supply?.id ?? ''}:${line}`)), 0.96, 1.05) : usual
  }

  /** Loop line to neutral at the origin, ohm. */
  lineNeutral_ohm(line: Line = ''): number {
    return this.wire_ohm(line) + this.wire_ohm()
  }

  /** Loop of two lines at the origin, ohm. */
  lineLine_ohm(one: Line, other: Line): number {
    return this.wire_ohm(one) + this.wire_ohm(other)
  }

  private soil_ohm_m(electrode: Of<'electrode'>): number {
    return between(chance(seedOf(`${electrode.id}:soil`)), SOIL_ohm_m.least, SOIL_ohm_m.most)
  }

  /** One of an electrode's rods or discs by itself, ohm. */
  oneRod_ohm(electrode: Of<'electrode'>): number {
    const soil = this.soil_ohm_m(electrode)
    const { form, length_m, diameter_mm } = electrode.data
    if (form === 'disc') return soil / (4 * ((diameter_mm ?? 600) / 1000))
    const long = length_m ?? 2.4
    return (soil / (2 * Math.PI * long)) * (Math.log((8000 * long) / (diameter_mm ?? 16)) - 1)
  }

  /** One electrode in its soil, ohm: a rod by its length, several nearly by their number. */
  electrode_ohm(electrode: Of<'electrode'>): number {
    const { rods } = electrode.data
    return (this.oneRod_ohm(electrode) * 1.15 ** Math.min((rods ?? 1) - 1, 3)) / (rods ?? 1)
  }

  /**
   * What is read between the electrode and the potential spike, ohm: the fields of electrode and current spike in even
   * soil, and what a metal pipe beside them takes over.
   */
  potentialRead_ohm(electrode: Of<'electrode'>, { share, way_m, bearing_deg }: Spikes): number {
    const own = this.electrode_ohm(electrode)
    const reach_m = this.soil_ohm_m(electrode) / (2 * Math.PI * own)
    const at_m = share * way_m
    const field = 1 - reach_m * (1 / at_m + 1 / way_m - 1 / (way_m - at_m))
    return own * field * (1 - PIPE_TAKES * this.besidePipe(bearing_deg, way_m) * share)
  }

  /** How much metal runs beside the way: 1 where a pipe lies right along it, 0 where none is near. */
  private besidePipe(bearing_deg: number | null, way_m: number): number {
    if (bearing_deg === null) return 0
    const each = this.ofKind('buried-service').map(({ data }) => {
      if (data.material !== 'metal') return 0
      const along = Math.abs(Math.sin(((bearing_deg - data.bearing_deg) * Math.PI) / 180)) ** 4
      return along * Math.max(0, 1 - (3 * data.away_m) / way_m)
    })
    return Math.max(0, ...each)
  }

  /** All electrodes of the installation together, ohm; null where there is none. */
  private get ownEarth_ohm(): number | null {
    const each = this.ofKind('electrode').map((one) => this.electrode_ohm(one))
    return each.length === 0 ? null : 1 / each.reduce((sum, one) => sum + 1 / one, 0)
  }

  /** Earth of the network's own transformer in TT, ohm. */
  private get transformer_ohm(): number {
    return between(chance(seedOf(`${this.supply?.id ?? ''}:transformer`)), 1.2, 4)
  }

  /** Loop outside the installation, its earthing conductor off, ohm. */
  ze_ohm(line: Line = ''): number {
    const arrangement = this.supply?.data.arrangement ?? 'TN-C-S'
    const wire = this.wire_ohm(line)
    if (arrangement === 'TN-C-S') return wire + this.wire_ohm()
    if (arrangement === 'TN-S') return wire + between(chance(seedOf(`${this.supply?.id}:sheath`)), 0.15, 0.4)
    return wire + this.transformer_ohm + (this.ownEarth_ohm ?? 60)
  }

  /** From the line through an electrode that is taken off, back through the network, ohm. */
  electrodeLoop_ohm(electrode: Of<'electrode'>): number {
    return this.wire_ohm() + this.transformer_ohm + this.electrode_ohm(electrode)
  }

  /** Earth loop at a board with everything connected: pipes and structure help. */
  withParallelPaths_ohm(line: Line = ''): number {
    const share = between(chance(seedOf(`${this.supply?.id ?? ''}:pipes`)), 0.72, 0.94)
    return this.ze_ohm(line) * share
  }

  private faultOf(circuit: Of<'circuit'>): CircuitFault {
    return this.mended.has(circuit.id) ? 'none' : circuitFault(circuit.id)
  }

  /** What a loose terminal adds, in the protective conductor. */
  private looseOf(circuit: Of<'circuit'>): number {
    const isLoose = this.faultOf(circuit) === 'loose-terminal'
    return isLoose ? between(chance(seedOf(`${circuit.id}:loose`)), 1.1, 2.4) : 0
  }

  /** Line and protective conductor of a circuit, ohm. */
  r1r2_ohm(circuit: Of<'circuit'>, line: Line = ''): number {
    const next = chance(seedOf(`${circuit.id}:conductors${line}`))
    const { line_mm2, protective_mm2, length_m } = circuit.data
    const own = {
      line: line_mm2 ?? USUAL.line_mm2,
      protective: protective_mm2 ?? USUAL.protective_mm2,
      length: length_m ?? USUAL.length_m,
    }
    const whole = (each_mohm_mm2(circuit) * own.length * (1 / own.line + 1 / own.protective)) / 1000
    const copper = circuit.data.layout === 'ring' ? whole / 4 : whole
    const joints = 2 * between(next, 0.002, 0.012)
    const loose = this.looseOf(circuit)
    return copper * between(next, 0.97, 1.02) + joints + loose
  }

  /** The protective conductor of a circuit by itself, ohm: its share of both, with whatever is loose in it. */
  r2_ohm(circuit: Of<'circuit'>): number {
    const { line_mm2, protective_mm2 } = circuit.data
    const [line, protective] = [line_mm2 ?? USUAL.line_mm2, protective_mm2 ?? USUAL.protective_mm2]
    const loose = this.looseOf(circuit)
    return (this.r1r2_ohm(circuit) - loose) * (line / (line + protective)) + loose
  }

  /** One conductor of a ring from end to end, ohm. */
  ringEnd_ohm(circuit: Of<'circuit'>, conductor: 'r1' | 'rn' | 'r2'): number {
    const { line_mm2, protective_mm2, length_m } = circuit.data
    const area = conductor === 'r2' ? (protective_mm2 ?? USUAL.protective_mm2) : (line_mm2 ?? USUAL.line_mm2)
    const joints = between(chance(seedOf(`${circuit.id}:${conductor}`)), 0.004, 0.02)
    const loose = conductor === 'r1' && this.faultOf(circuit) === 'loose-terminal' ? 1.4 : 0
    return (each_mohm_mm2(circuit) * (length_m ?? USUAL.length_m)) / area / 1000 + joints + loose
  }

  /** Line and another conductor of a ring crossed at the board, read at a point of it: alike at all of a sound one. */
  ringCrossed_ohm(circuit: Of<'circuit'>, other: 'rn' | 'r2', highest: boolean): number {
    const ends = this.ringEnd_ohm(circuit, 'r1') + this.ringEnd_ohm(circuit, other)
    const joints = between(chance(seedOf(`${circuit.id}:crossed:${other}`)), 0.002, 0.012)
    return ends / 4 + (highest ? joints : 0)
  }

  zs_ohm(circuit: Of<'circuit'>, line: Line = ''): number {
    return this.withParallelPaths_ohm(line) + this.r1r2_ohm(circuit, line)
  }

  /** What each conductor has of the loops at the end of a circuit, ohm: a loose terminal is in the protective one. */
  conductorsOf(circuit: Of<'circuit'>, line: Line = ''): { line: number; neutral: number; earth: number } {
    const { line_mm2, length_m, layout } = circuit.data
    const copper = (each_mohm_mm2(circuit) * (length_m ?? USUAL.length_m)) / (line_mm2 ?? USUAL.line_mm2) / 1000
    const own = layout === 'ring' ? copper / 4 : copper
    const upToLine = this.wire_ohm(line) + own
    return { line: upToLine, neutral: this.wire_ohm() + own, earth: this.zs_ohm(circuit, line) - upToLine }
  }

  /** What a tester sees between two wires, Mohm: their own insulation, and beside it the way through earth. */
  pair_Mohm(circuit: Of<'circuit'>, pair: string): number {
    const own = (one: string) => this.insulation_Mohm(circuit, one.toLowerCase())
    const beside = (a: number, b: number) => 1 / (1 / a + 1 / b)
    if (pair === 'L+N-PE') return beside(own('L-PE'), own('N-PE'))
    const [one, other] = pair.split('-') as [string, string]
    return other === 'PE' ? own(pair) : beside(own(pair), own(`${one}-PE`) + own(`${other}-PE`))
  }

  /** Insulation of one pair by itself, Mohm. */
  private insulation_Mohm(circuit: Of<'circuit'>, pair: string): number {
    const next = chance(seedOf(`${circuit.id}:${pair}`))
    if (this.faultOf(circuit) === 'low-insulation' && pair.endsWith('-pe')) return between(next, 0.12, 0.5)
    return between(next, 280, 2400)
  }

  /** Everything on a board joined, to the protective conductor, Mohm. */
  board_Mohm(boardId: string | null): number {
    const own = this.ofKind('circuit').filter((one) => one.data.boardId === boardId)
    const leaks = own.flatMap((one) => ['l-pe', 'n-pe'].map((pair) => 1 / this.insulation_Mohm(one, pair)))
    return 1 / leaks.reduce((sum, one) => sum + one, 0)
  }

  /** The same between all lines and all neutrals of the board, Mohm. */
  boardLive_Mohm(circuit: Of<'circuit'>): number {
    const own = this.ofKind('circuit').filter((one) => one.data.boardId === circuit.data.boardId)
    return 1 / own.reduce((sum, one) => sum + 1 / this.pair_Mohm(one, one.data.phases === 3 ? 'L1-N' : 'L-N'), 0)
  }

  /** Devices between the supply and a circuit, the nearest first. */
  rcdsOf(circuit: Of<'circuit'>): Of<'rcd'>[] {
    const chain: Of<'rcd'>[] = []
    let id = circuit.data.rcdId
    while (id) {
      const found = this.ofKind('rcd').find((one) => one.id === id)
      if (!found || chain.includes(found)) break
      chain.push(found)
      id = found.data.upstreamId
    }
    return chain
  }

  private rcdFaultOf(rcd: Of<'rcd'>): RcdFault {
    return this.mended.has(rcd.id) ? 'none' : rcdFault(rcd.id)
  }

  /** Time to trip at a multiple, ms; null where it holds. `at_ms` lets every trip differ a little. */
  trip_ms(rcd: Of<'rcd'>, multiple: number, angle_deg: number, at_ms: number): number | null {
    const fault = this.rcdFaultOf(rcd)
    const own = chance(seedOf(`${rcd.id}:mechanism`))()
    const jitter = chance(seedOf(`${rcd.id}:${at_ms}`))()
    if (multiple < 1) return fault === 'sensitive' ? 60 + 80 * jitter : null
    const half = angle_deg === 180 ? 8 : 0
    const slow = fault === 'slow' ? (multiple >= 5 ? 45 : 330) : 0
    const [from, spread] = TIMES_ms[rcd.data.delay][multiple >= 5 ? 5 : multiple >= 2 ? 2 : 1]
    return from + spread * own + half + slow + 5 * jitter
  }

  /** Current at which a slow ramp ends, mA. */
  ramp_mA(rcd: Of<'rcd'>, shape: Shape, at_ms: number): number {
    const own = chance(seedOf(`${rcd.id}:toroid`))()
    const share = (this.rcdFaultOf(rcd) === 'sensitive' ? 0.42 : 0.62 + 0.2 * own) * SHAPES[shape]
    return rcd.data.rated_mA * (share + 0.02 * chance(seedOf(`${rcd.id}:ramp:${at_ms}`))())
  }
}
