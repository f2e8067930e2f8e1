/** Parts and conditions of the worked examples that stand in the steps. */
import type { ChargePointModel, PartData, StringData } from '../plant/part'
import { readValueOf } from '../quantity/readValue'
import type { Conditions } from '../record/entry'

/** An ordinary module of 60 cells; the figures are our own. */
export const exampleModule = {
  pmax_W: 282,
  voc_V: 37.4,
  isc_A: 9.6,
  vmp_V: 31,
  imp_A: 9.1,
  alpha_pctPerK: 0.05,
  beta_pctPerK: -0.31,
  gamma_pctPerK: -0.4,
  cellsInSeries: 60,
} as const

export const exampleSite = {
  kind: 'site',
  tag: 'Site',
  lowestTemperature_C: -10,
  highestCellTemperature_C: 70,
} as const satisfies PartData

export function exampleString(modulesInSeries: number): StringData {
  return {
    kind: 'string',
    tag: '1',
    arrayId: null,
    modulesInSeries,
    moduleType: { id: '00000000-0000-7000-8000-000000000001', make: 'Example', name: 'Sixty', data: exampleModule },
  }
}

export function exampleConditions(irradiance_Wm2: number, back_C: number): Conditions {
  return {
    irradiance: { read: readValueOf(irradiance_Wm2, 'Wm2', 0), instrument: null },
    cell: { way: 'back', read: readValueOf(back_C, 'degC', 1), mounting: 'insulated-back', instrument: null },
    at: '2026-05-14T11:00:00.000Z',
    how: 'typed',
  }
}

export const exampleSupply = {
  kind: 'supply',
  tag: 'Supply',
  arrangement: 'TN-C-S',
  phases: 1,
  nominal_V: 230,
  declaredZe_ohm: 0.35,
  faultLevel_kA: 16,
} as const satisfies PartData

export const exampleCircuit = {
  kind: 'circuit',
  tag: '1',
  feeds: 'Sockets',
  boardId: null,
  rcdId: null,
  phases: 1,
  device: 'B',
  rating_A: 32,
  breaking_kA: 6,
  line_mm2: 2.5,
  protective_mm2: 1.5,
  length_m: 20,
} as const satisfies PartData

export const exampleRcd = {
  kind: 'rcd',
  tag: 'RCD1',
  boardId: null,
  upstreamId: null,
  type: 'A',
  delay: 'general',
  rated_mA: 30,
  standard: 'iec-61008',
} as const satisfies PartData

export const exampleBoard = { kind: 'board', tag: 'DB1', name: 'Main board', boardId: null } as const satisfies PartData

export const exampleElectrode = {
  kind: 'electrode',
  tag: 'E1',
  rods: 1,
  length_m: 3,
  diameter_mm: 16,
  spacing_m: null,
} as const satisfies PartData

/** A socket of 32 A with its own detector; the figures are our own. */
export const exampleModel: ChargePointModel = {
  id: '00000000-0000-7000-8000-000000000002',
  make: 'Example',
  name: 'Post',
  data: {
    phases: 1,
    rated_A: 32,
    outlet: 'socket',
    cable_A: null,
    rcdType: 'A',
    rcdRated_mA: 30,
    dcDetector: true,
    penDevice: true,
    faultSign: true,
    reset: ['Cable out', 'Lever down, then up'],
    ready_s: 20,
    shows: { ready: 'green', waiting: 'blue', charging: 'blue, slowly flashing', fault: 'red' },
  },
}

export const exampleChargePoint = {
  kind: 'charge-point',
  tag: 'CP1',
  place: 'Drive',
  model: exampleModel,
  serial: '',
  circuitId: null,
  earthing: 'device-inside',
  setTo_A: null,
  load: null,
  ventilated: false,
} as const satisfies PartData
