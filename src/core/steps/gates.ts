/** Gates that several tests share. */
import type { Part } from '../plant/part'
import type { PlantIndex } from '../plant/plantIndex'
import { isPeriodicWork } from '../plant/work'
import type { GateRule } from './step'

/** No plug is parted before isolation of this visit. */
export const isolatedGate: GateRule = { id: 'isolated', hard: true, state: 'isolated', on: 'site' }

/** A reversed string stops everything that takes current or puts voltage on it. */
export const notReversed: GateRule = {
  id: 'reversed-polarity',
  hard: true,
  waitsFor: 'pv-polarity',
  until: 'not-outside',
}

/** Nothing is touched before the installation was proved dead. */
export const deadGate: GateRule = { id: 'proved-dead', hard: true, state: 'dead', on: 'supply' }

/** Leads that were not nulled in this visit show their own resistance. */
export const nulledGate: GateRule = { id: 'leads-nulled', hard: false, state: 'nulled', on: 'site' }

const isTt = (part: Part, plant: PlantIndex): boolean => plant.supplyOf(part)?.data.arrangement === 'TT'
const hasBy =
  (way: 'spikes' | 'loop') =>
  (_: Part, plant: PlantIndex): boolean =>
    plant.ofKind('electrode').some(({ data }) => (data.testedBy ?? 'spikes') === way)
const goodBy =
  (way: 'spikes' | 'loop') =>
  (part: Part, plant: PlantIndex): boolean =>
    isTt(part, plant) && hasBy(way)(part, plant)

/** The earthing conductor and, in TT, a good electrode are on before anything is energised. */
export const earthGates: readonly GateRule[] = [
  {
    id: 'electrode-good',
    hard: true,
    waitsFor: 'electrode',
    until: 'done',
    on: 'electrodes-by-spikes',
    only: goodBy('spikes'),
  },
  {
    id: 'electrode-good-by-loop',
    hard: true,
    waitsFor: 'electrode-loop',
    until: 'done',
    on: 'electrodes-by-loop',
    only: goodBy('loop'),
  },
  {
    id: 'electrode-back',
    hard: true,
    state: 'electrode-on',
    on: 'electrodes',
    // In TT there must be one; elsewhere one that is there may have been taken off.
    only: (part, plant) => isTt(part, plant) || plant.ofKind('electrode').length > 0,
  },
  { id: 'earth-back', hard: true, state: 'earth-on', on: 'supply' },
]

/** Before Ze only the electrodes that were read by spikes are back: the others come off with it. */
export const spikedElectrodesBack: GateRule = {
  id: 'electrode-back',
  hard: true,
  state: 'electrode-on',
  on: 'electrodes-by-spikes',
  only: hasBy('spikes'),
}

/** A circuit that is not sound stays off and locked, and what else hangs on the board goes on. */
const keptOff = { spares: 'kept-off' } as const

/** Gates on the circuits that come on: one circuit, those of a board or device, or that of an inverter. */
export const provedOn = (on: 'part' | 'circuits' | 'inverter-circuit'): readonly GateRule[] => [
  { id: 'protective-proved', hard: true, waitsFor: 'r1r2', until: 'done', on, ...keptOff },
  ...(on === 'inverter-circuit' ? [] : [ringProved, ringSound]),
  { id: 'ac-polarity', hard: true, waitsFor: 'ac-polarity', until: 'done', on, ...keptOff },
  { id: 'low-insulation', hard: true, waitsFor: 'ac-insulation', until: 'not-outside', on, ...keptOff },
  { id: 'ac-insulation', hard: false, waitsFor: 'ac-insulation', until: 'done', on, ...keptOff },
]

const isRing = ({ data }: Part): boolean => data.kind === 'circuit' && data.layout === 'ring'
const hasRing = (part: Part, plant: PlantIndex): boolean =>
  part.data.kind === 'circuit' ? isRing(part) : plant.circuitsOf(part).some(isRing)

const ringProved: GateRule = {
  id: 'ring-proved',
  hard: true,
  waitsFor: 'ring-ends',
  until: 'done',
  on: 'rings',
  ...keptOff,
  only: (part, plant) => hasRing(part, plant) && !isPeriodicWork(plant),
}

/** In a periodic inspection its ends are only offered; a ring that was read there and is open holds back all the same. */
const ringSound: GateRule = {
  id: 'ring-sound',
  hard: true,
  waitsFor: 'ring-ends',
  until: 'not-outside',
  on: 'rings',
  ...keptOff,
  only: (part, plant) => isPeriodicWork(plant) && hasRing(part, plant),
}

/** Soft: an old installation is tested though its bonding is thin, with a reason. What nobody read holds nothing back. */
const bondingSound: GateRule = {
  id: 'bonding-sound',
  hard: false,
  waitsFor: 'bonding',
  until: 'not-outside',
  on: 'supply',
}

/**
 * What stands before every live test of a circuit, device or board. A fault current through an open protective conductor
 * makes metalwork live: continuity and polarity of every circuit that comes on are proved first. Insulation that is low
 * holds back hard, insulation that nobody read softly.
 */
export const liveGates: readonly GateRule[] = [...earthGates, ...provedOn('circuits'), bondingSound]
