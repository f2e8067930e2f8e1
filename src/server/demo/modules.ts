/** Module types of invented makes; figures are plausible for their kind and belong to nobody. */
import type { ModuleType } from '@/core/plant/part'
import { demoId } from './instruments'

export const tarnlight: ModuleType = {
  id: demoId(0x201),
  make: 'Tarnlight',
  name: 'TL-405 half-cell',
  data: {
    pmax_W: 405,
    voc_V: 37.2,
    isc_A: 13.78,
    vmp_V: 31.1,
    imp_A: 13.03,
    alpha_pctPerK: 0.046,
    beta_pctPerK: -0.26,
    gamma_pctPerK: -0.34,
    cellsInSeries: 54,
    noct_C: 44,
    tolerance_pct: 3,
    maxSystemVoltage_V: 1500,
    maxSeriesFuse_A: 25,
  },
}

export const corvane: ModuleType = {
  id: demoId(0x202),
  make: 'Corvane',
  name: 'CV-330',
  data: {
    pmax_W: 330,
    voc_V: 40.8,
    isc_A: 10.31,
    vmp_V: 33.9,
    imp_A: 9.74,
    alpha_pctPerK: 0.05,
    beta_pctPerK: -0.28,
    gamma_pctPerK: -0.37,
    cellsInSeries: 60,
    noct_C: 45,
    maxSystemVoltage_V: 1000,
    maxSeriesFuse_A: 20,
  },
}

export const demoModules: readonly ModuleType[] = [tarnlight, corvane]

/** The inverter of a usual roof. */
export const inverter = {
  kind: 'inverter',
  tag: 'INV',
  maxInput_V: 1000,
  reconnect_s: 60,
  trackerMin_V: 200,
  trackerMax_V: 850,
  maxShortCircuit_A: 40,
} as const
