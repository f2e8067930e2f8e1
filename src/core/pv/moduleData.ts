import { z } from 'zod'

export const moduleDataFields = {
  pmax_W: z.number().positive().max(2000),
  voc_V: z.number().positive().max(400),
  isc_A: z.number().positive().max(60),
  vmp_V: z.number().positive().max(400),
  imp_A: z.number().positive().max(60),
  alpha_pctPerK: z.number().min(-0.02, 'alpha is the coefficient of the current: it is small and positive').max(0.3),
  beta_pctPerK: z.number().min(-0.8).lt(0, 'beta is the coefficient of the voltage: it is negative'),
  gamma_pctPerK: z.number().min(-1).lt(0, 'gamma is the coefficient of the power: it is negative'),
  cellsInSeries: z.number().int().min(1).max(400),
  noct_C: z.number().min(30).max(70).optional(),
  tolerance_pct: z.number().min(0).max(20).optional(),
  /** What Voc and Isc may differ by from the plate, either way. */
  vocIscTolerance_pct: z.number().min(0).max(20).optional(),
  maxSystemVoltage_V: z.number().positive().max(3000).optional(),
  maxSeriesFuse_A: z.number().positive().max(100).optional(),
  seriesResistance_ohm: z.number().min(0).max(20).optional(),
  /** What light on its back adds to Isc, as its maker gives it for dimensioning. */
  bifacialGain_pct: z.number().min(0).max(40).optional(),
}

/**
 * What the data plate and data sheet of a module say, per module. Percentages are per kelvin of the STC value.
 * The same names stand on the command line.
 */
export const moduleDataSchema = z.strictObject(moduleDataFields).superRefine((module, context) => {
  if (module.vmp_V >= module.voc_V) {
    context.addIssue({ code: 'custom', path: ['vmp_V'], message: 'Vmp is below Voc on every module' })
  }
  if (module.imp_A >= module.isc_A) {
    context.addIssue({ code: 'custom', path: ['imp_A'], message: 'Imp is below Isc on every module' })
  }
})

export type ModuleData = z.infer<typeof moduleDataSchema>

/** Volts per cell at open circuit outside which the cell count or Voc of a silicon data plate is probably mistyped. */
export const PLAUSIBLE_CELL_VOLTAGE_V = { least: 0.5, most: 0.8 }
/** Largest difference between Pmax and Vmp * Imp, per cent, that rounding on a data plate explains [D]. */
export const PLAUSIBLE_POWER_GAP_PCT = 3

export type ModuleDoubt = { code: 'power-gap'; gap_pct: number } | { code: 'cell-voltage'; perCell_V: number }

/** What looks mistyped on a data plate although it is possible: asked about, never refused. */
export function moduleDoubts(module: ModuleData): ModuleDoubt[] {
  const doubts: ModuleDoubt[] = []
  const gap_pct = 100 * ((module.vmp_V * module.imp_A) / module.pmax_W - 1)
  if (Math.abs(gap_pct) > PLAUSIBLE_POWER_GAP_PCT) doubts.push({ code: 'power-gap', gap_pct })
  const perCell_V = module.voc_V / module.cellsInSeries
  if (perCell_V < PLAUSIBLE_CELL_VOLTAGE_V.least || perCell_V > PLAUSIBLE_CELL_VOLTAGE_V.most) {
    doubts.push({ code: 'cell-voltage', perCell_V })
  }
  return doubts
}
