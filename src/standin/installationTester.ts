/** A simulated multifunction tester on a simulated installation: its modes, and the mistakes that life has with them. */
import type { PartData } from '@/core/plant/part'
import { steps } from '@/core/steps'
import type { SlotOf } from '@/core/steps/slot'
import { slotsOf } from '@/core/steps/step'
import type { Bench } from './bench'
import { Installation, type Line, type Shape, type Spikes } from './installation'
import { pressAtPlug } from './plugAdapter'
import { chance, seedOf } from './random'
import { type Besides, type Pressed, shownOn, withBesides } from './shown'

type Of<Kind extends PartData['kind']> = { id: string; data: Extract<PartData, { kind: Kind }> }

/** How long it waits at half the current, ms. */
const WAITS_ms = 2000
/** A low-current test in a noisy installation, and the ohms of a light touch. */
const NOISE_ohm = 0.03
const TOUCH_ohm = 0.03
const LEADS_ohm = 0.42
const ELECTRONICS_Mohm = 0.09
/** A bond of a few metres. */
const BOND_ohm = 0.013
const LONG_LEAD_ohm = 0.84
/** How far the current spike stands where nobody says. */
const USUAL_WAY_m = 40

const notHere: Pressed = { state: 'refused', code: 'standin-not-here' }

/** Presses the key of a quantity on a part of the AC side. */
export function pressOnInstallation(bench: Bench): Pressed {
  const site = new Installation(bench.others, bench.mended)
  const { part } = bench
  switch (part.data.kind) {
    case 'circuit':
      return onCircuit(bench, site, part as Of<'circuit'>)
    case 'supply':
      return onSupply(bench, site)
    case 'board':
      if (bench.key === 'ac-voltage') return show(bench, volts_V(bench, site))
      if (bench.key === 'insulation') return show(bench, site.board_Mohm(part.id))
      return bench.key === 'fault-current' ? onBoard(bench, site) : notHere
    case 'electrode':
      return onElectrode(bench, site, part as Of<'electrode'>)
    case 'rcd':
      return onRcd(bench, site, part as Of<'rcd'>)
    case 'charge-point':
      return pressAtPlug(bench, site, slotOf(bench))
    default:
      return notHere
  }
}

const show = ({ instrument, key, at_ms }: Bench, value: number): Pressed => shownOn(instrument, key, value, at_ms)
/** What stands between line, neutral and earth of a sound supply, and on metalwork while a device is tried. */
function withVolts(bench: Bench, site: Installation, own: Pressed, more: readonly Besides[] = []): Pressed {
  const line_V = site.nominal_V * (1.005 + 0.02 * draw(bench, 'volts'))
  const lineName = lineOf(bench).toUpperCase() || 'L'
  const besides: Besides[] = [
    ['ac-voltage', `${lineName}-N` as 'L-N', line_V],
    ['ac-voltage', `${lineName}-PE` as 'L-PE', line_V - 1],
    ['ac-voltage', 'N-PE', 1 + 2 * draw(bench, 'neutral')],
  ]
  return withBesides(bench.instrument, own, [...besides, ...more], bench.at_ms)
}
const draw = ({ instrument, at_ms }: Bench, what: string): number =>
  chance(seedOf(`${instrument.id}:${what}:${at_ms}`))()
/** The ohms of the probe's contact: less the firmer it is pressed, and nobody presses the same twice. */
const touch = (bench: Bench): number => TOUCH_ohm * draw(bench, 'touch') ** 3

/** Which of several figures each slot of each kind of part holds: its line, pair, place, multiple. */
const ofSlots: ReadonlyMap<string, SlotOf> = new Map(
  steps.flatMap((step) =>
    slotsOf(step).flatMap((slot) =>
      slot.kind === 'number' && slot.of ? [[`${step.appliesTo} ${slot.id}`, slot.of] as const] : [],
    ),
  ),
)
const slotOf = ({ part, setting }: Bench): SlotOf => ofSlots.get(`${part.data.kind} ${setting.slot}`) ?? {}
const lineOf = (bench: Bench): Line => slotOf(bench).line ?? ''

/** At the origin: the network's loop, its volts, and the conductors from the main earthing terminal outward. */
function onSupply(bench: Bench, site: Installation): Pressed {
  if (bench.key === 'loop-impedance')
    return withVolts(bench, site, show(bench, site.ze_ohm(lineOf(bench)) + touch(bench)))
  if (bench.key === 'ac-voltage') return show(bench, volts_V(bench, site))
  if (bench.key === 'continuity') return show(bench, BOND_ohm + 2 * touch(bench) + (bench.nulled ? 0 : LEADS_ohm))
  return notHere
}

/** What stands between the two conductors of a slot where the supply is sound. */
function volts_V(bench: Bench, site: Installation): number {
  const pair = slotOf(bench).pair ?? ''
  if (pair === 'N-PE') return 1 + 2 * draw(bench, 'neutral')
  return site.nominal_V * (1.005 + 0.02 * draw(bench, pair)) - (pair.endsWith('PE') ? 1 : 0)
}

function onBoard(bench: Bench, site: Installation): Pressed {
  const [one, other] = (slotOf(bench).pair ?? '').toLowerCase().split('-') as [Line, Line]
  if (other?.startsWith('l')) {
    const loop = site.lineLine_ohm(one, other)
    return show(bench, (Math.sqrt(3) * site.nominal_V) / (loop + touch(bench)))
  }
  const line = lineOf(bench)
  const toEarth = bench.setting.slot.startsWith('pefc')
  const loop = toEarth ? site.withParallelPaths_ohm(line) : site.lineNeutral_ohm(line)
  return withVolts(bench, site, show(bench, site.nominal_V / (loop + touch(bench))))
}

function onCircuit(bench: Bench, site: Installation, circuit: Of<'circuit'>): Pressed {
  const { choices } = bench.setting
  if (bench.key === 'continuity') {
    return show(bench, conductors_ohm(bench, site, circuit) + (bench.nulled ? 0 : LEADS_ohm))
  }
  if (bench.key === 'insulation') {
    // Ends that are connected to nothing leak nowhere.
    if (choices.devices === 'some-off') return show(bench, Number.POSITIVE_INFINITY)
    const pair = slotOf(bench).pair ?? 'L-PE'
    if (choices.earthing === 'earth-not-connected' && pair.endsWith('-PE')) return show(bench, Number.POSITIVE_INFINITY)
    // Electronics between line and neutral conduct.
    if (choices.electronics === 'electronics-in' && pair === 'L-N') return show(bench, ELECTRONICS_Mohm)
    if (choices.pairing === 'whole-board')
      return show(bench, pair === 'L-N' ? site.boardLive_Mohm(circuit) : site.board_Mohm(circuit.data.boardId))
    return show(bench, site.pair_Mohm(circuit, pair))
  }
  if (bench.key !== 'loop-impedance') return notHere
  const [nearest] = site.rcdsOf(circuit)
  if (choices['loop-method'] === 'high-current' && nearest)
    return { state: 'refused', code: 'standin-tripped', rcd: nearest.data.tag }
  const noise = choices['loop-method'] === 'non-trip' ? NOISE_ohm * (draw(bench, 'noise') - 0.35) : 0
  const own = show(bench, site.zs_ohm(circuit, lineOf(bench)) + noise + touch(bench))
  return withVolts(bench, site, own, circuit.data.phases === 3 ? [] : otherLoops(site, circuit))
}

/** The loops of the other pairs at the end of a circuit, and what flows in a fault there. */
function otherLoops(site: Installation, circuit: Of<'circuit'>): Besides[] {
  const { line, neutral, earth } = site.conductorsOf(circuit)
  return [
    ['loop-impedance', 'L-N', line + neutral],
    ['loop-impedance', 'N-PE', neutral + earth],
    ['fault-current', 'L-PE', site.nominal_V / (line + earth)],
    ['fault-current', 'L-N', site.nominal_V / (line + neutral)],
  ]
}

/** What a continuity test of a circuit shows: an end of a ring, its conductors crossed at a point, or both in a row. */
function conductors_ohm(bench: Bench, site: Installation, circuit: Of<'circuit'>): number {
  const { slot } = bench.setting
  const end = (['r1', 'rn', 'r2'] as const).find((one) => slot === `ring-${one}`)
  if (end) return site.ringEnd_ohm(circuit, end)
  if (slot === 'r2-alone') return site.r2_ohm(circuit)
  if (!slot.startsWith('cross-')) return site.r1r2_ohm(circuit, lineOf(bench))
  return site.ringCrossed_ohm(circuit, slot.startsWith('cross-l-n') ? 'rn' : 'r2', slot.endsWith('-highest'))
}

/** Where the potential spike stands, by the name of its slot; the way and its direction as far as they are known. */
function spikesOf(bench: Bench): Spikes {
  const { share } = slotOf(bench)
  const { slot, figures = {} } = bench.setting
  const moved = slot === 're-2' ? -0.1 : slot === 're-3' ? 0.1 : 0
  return {
    share: share ?? 0.62 + moved,
    way_m: figures['spike-distance'] ?? USUAL_WAY_m,
    bearing_deg: figures['spike-bearing'] ?? null,
  }
}

function onElectrode(bench: Bench, site: Installation, electrode: Of<'electrode'>): Pressed {
  const { slot } = bench.setting
  if (bench.key === 'earth-resistance') {
    if (slot === 're-single') return show(bench, site.oneRod_ohm(electrode))
    const scatter = 1 + 0.006 * (draw(bench, slot) - 0.5)
    return show(bench, site.potentialRead_ohm(electrode, spikesOf(bench)) * scatter)
  }
  if (bench.key === 'continuity') return show(bench, LONG_LEAD_ohm)
  return bench.key === 'loop-impedance' ? show(bench, site.electrodeLoop_ohm(electrode) + LONG_LEAD_ohm) : notHere
}

function onRcd(bench: Bench, site: Installation, rcd: Of<'rcd'>): Pressed {
  const { multiple = 1, angle_deg = 0, waveform = 'ac' } = slotOf(bench)
  if (bench.key === 'rcd-current') {
    const shape: Shape = waveform
    return show(bench, site.ramp_mA(rcd, shape, bench.at_ms))
  }
  if (bench.key !== 'rcd-time') return notHere
  const time_ms = site.trip_ms(rcd, multiple, angle_deg ?? 0, bench.at_ms)
  const own = show(bench, time_ms === null || time_ms > WAITS_ms ? Number.POSITIVE_INFINITY : time_ms)
  const touch_V = (site.withParallelPaths_ohm() * rcd.data.rated_mA) / 1000
  return withVolts(bench, site, own, [['ac-voltage', 'PE-earth', touch_V]])
}
