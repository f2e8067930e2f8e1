/** Calculations of I-V curves on the command line: strings of unlike cell groups, and translation to other conditions. */
import { z } from 'zod'
import type { CellGroup } from '../core/curve/cellGroup'
import { explain } from '../core/curve/explain'
import { featuresOf } from '../core/curve/features'
import { fitDiode } from '../core/curve/fitDiode'
import type { CurveRefusal } from '../core/curve/points'
import { ParallelStrings } from '../core/curve/stringCurve'
import { byProcedure1, byProcedure2 } from '../core/curve/translate'
import { moduleDataSchema } from '../core/pv/moduleData'
import { moduleModel } from '../core/pv/stringModel'
import { sources } from '../core/regime/sources'
import '../words/curve'
import { say } from '../words/say'
import { CalcProblem } from './problem'

const MOST_MODULES = 60
const MOST_GROUPS = 12
const MOST_STRINGS = 50
const MOST_VOLTAGES = 10_000
const MOST_POINTS = 1_000_000

const bypassSchema = z.discriminatedUnion('kind', [
  z.strictObject({
    kind: z.literal('diode'),
    saturationCurrent_A: z.number().positive().max(1),
    slope_V: z.number().min(0.001).max(10),
  }),
  z.strictObject({ kind: z.literal('short'), resistance_ohm: z.number().positive().max(1e6) }),
  z.strictObject({ kind: z.literal('open') }),
])
const groupSchema = z.strictObject({
  photocurrent_A: z.number().min(0).max(1e3),
  saturationCurrent_A: z.number().positive().max(1),
  modifiedIdeality_V: z.number().positive().max(1e3),
  seriesResistance_ohm: z.number().min(0).max(1e4),
  shuntResistance_ohm: z.number().positive().max(1e9),
  bypass: bypassSchema,
})
const moduleSchema = z.strictObject({
  reversed: z.boolean(),
  groups: z.array(groupSchema).min(1).max(MOST_GROUPS),
})

export const stringCurveSchema = z.strictObject({
  strings: z
    .array(
      z.strictObject({
        seriesResistance_ohm: z.number().min(0).max(1e4),
        modules: z.array(moduleSchema).min(1).max(MOST_MODULES),
      }),
    )
    .min(1)
    .max(MOST_STRINGS),
  voltages_V: z.array(z.number().min(-1e4).max(1e4)).max(MOST_VOLTAGES),
})

export function stringCurve({ strings, voltages_V }: z.infer<typeof stringCurveSchema>) {
  const array = new ParallelStrings(
    strings.map(({ seriesResistance_ohm, modules }) => ({
      seriesResistance_ohm,
      modules: modules.map(({ reversed, groups }) => ({ reversed, groups: groups as CellGroup[] })),
    })),
  )
  return { currents_A: voltages_V.map((voltage) => array.currentAt(voltage)), ...array.features() }
}

const conditionsSchema = z.strictObject({
  irradiance_Wm2: z.number().min(1).max(1600),
  cellTemperature_C: z.number().min(-50).max(110),
})
const resistance_ohm = z.number().min(0).max(1e4)
const kappa_ohmPerK = z.number().min(-100).max(100)
const pointsSchema = z
  .array(z.tuple([z.number().min(-1e5).max(1e5), z.number().min(-1e5).max(1e5)]))
  .min(1)
  .max(MOST_POINTS)
const shared = {
  points: pointsSchema,
  from: conditionsSchema,
  to: conditionsSchema,
}

export const translateSchema = z.discriminatedUnion('procedure', [
  z.strictObject({
    ...shared,
    procedure: z.literal(1),
    parameters: z.strictObject({
      isc_A: z.number().positive().max(1e5),
      alpha_AperK: z.number().min(-100).max(100),
      beta_VperK: z.number().min(-1000).max(1000),
      seriesResistance_ohm: resistance_ohm,
      kappa_ohmPerK,
    }),
  }),
  z.strictObject({
    ...shared,
    procedure: z.literal(2),
    parameters: z.strictObject({
      voc_V: z.number().positive().max(1e5),
      alphaRel_perK: z.number().min(-0.1).max(0.1),
      betaRel_perK: z.number().min(-0.1).max(0.1),
      a: z.number().min(-1).max(1),
      seriesResistance_ohm: resistance_ohm,
      kappa_ohmPerK,
    }),
  }),
])

export function translate(input: z.infer<typeof translateSchema>) {
  const carry = input.procedure === 1 ? byProcedure1(input.parameters) : byProcedure2(input.parameters)
  return { points: carry(input.points, input.from, input.to), sources: [sources['iec-60891']] }
}

/** What was found on a curve, or why the points are none. */
function soundOrRefused<Found extends object>(found: Found | CurveRefusal): Found {
  if (typeof found === 'string') throw new CalcProblem([{ path: ['points'], message: say(`curve.refused-${found}`) }])
  return found
}

export const featuresSchema = z.strictObject({ points: pointsSchema })

export const features = ({ points }: z.infer<typeof featuresSchema>) => soundOrRefused(featuresOf(points))

export const fitSchema = z.strictObject({ points: pointsSchema, sigma_A: z.number().positive().max(1e4).optional() })

export const fit = ({ points, sigma_A }: z.infer<typeof fitSchema>) => soundOrRefused(fitDiode(points, sigma_A ?? null))

export const causesSchema = z.strictObject({
  points: pointsSchema,
  module: moduleDataSchema,
  modulesInSeries: z.number().int().min(1).max(60),
  stringsInParallel: z.number().int().min(1).max(50).optional(),
  irradiance_Wm2: z.number().min(1).max(1600),
  cellTemperature_C: z.number().min(-50).max(110),
  /** Uncertainties with k = 2; what most sensors and tracers are good for where they are left away. */
  irradianceUncertainty_Wm2: z.number().min(0).max(400).optional(),
  cellTemperatureUncertainty_K: z.number().min(0).max(30).optional(),
  instrument_pct: z.number().min(0).max(20).optional(),
})

/** Where nobody says otherwise: light to 3 %, cells to 2 K, volts and amperes to 1 %. */
const USUAL = { light_pct: 3, cell_K: 2, instrument_pct: 1 }

/** What explains a curve, best first, with how sure that is. */
export function causes(input: z.infer<typeof causesSchema>) {
  const { parameters } = moduleModel(input.module)
  if (!parameters)
    throw new CalcProblem([{ path: ['module'], message: 'module has no single-diode solution; check its data sheet' }])
  const { ranked, isSound, canTell, ahead_sigma } = soundOrRefused(
    explain({
      ...input,
      stringsInParallel: input.stringsInParallel ?? 1,
      parameters,
      irradianceUncertainty_Wm2: input.irradianceUncertainty_Wm2 ?? (input.irradiance_Wm2 * USUAL.light_pct) / 100,
      cellTemperatureUncertainty_K: input.cellTemperatureUncertainty_K ?? USUAL.cell_K,
      instrument_pct: input.instrument_pct ?? USUAL.instrument_pct,
    }),
  )
  return {
    sound: isSound,
    canTell,
    ahead_sigma,
    causes: ranked.map(({ id, figures, behind_sigma, probability }) => ({ id, figures, behind_sigma, probability })),
  }
}
