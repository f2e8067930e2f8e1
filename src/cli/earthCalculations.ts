/** Calculations of electrodes, rods and residual current devices on the command line. */
import { z } from 'zod'
import { electrodeMethods, judgeElectrode } from '../core/earth/electrode'
import { MOST_RODS, planOf, rodResistance_ohm, rodsInLine_ohm, rodsNeeded } from '../core/earth/rods'
import { judgeRcd, rcdPlaces, type Trip } from '../core/rcd/judgeRcd'
import { halfSchools, type Multiple, multiples, rcdKinds, rcdTypes, waveforms } from '../core/rcd/limits'
import { shippedRegimes } from '../core/regime/shipped'
import { sources } from '../core/regime/sources'
import { exactly, type Span } from '../core/quantity/span'
import { boundOf, boundSchema, spanRead } from './bound'
import { CalcProblem } from './problem'

/** Below 1 mA somebody typed amperes: no device is made for less. */
const ratedResidualCurrent_mA = z.number().min(1, 'a rated residual current in milliamperes: 30, not 0.03').max(10_000)

export const electrodeSchema = z
  .strictObject({
    readings_ohm: z.array(boundSchema).min(1).max(200),
    leads_ohm: z.number().min(0).max(1000).default(0),
    method: z.enum(electrodeMethods),
    ratedResidualCurrents_mA: z.array(ratedResidualCurrent_mA).max(50),
  })
  .superRefine(({ readings_ohm, leads_ohm }, context) => {
    readings_ohm.forEach((read, k) => {
      const { value, bound } = boundOf(read)
      if (value > leads_ohm || (bound === 'more-than' && value > 0)) return
      const message = 'the lead alone would be more than this: measure the lead again'
      context.addIssue({ code: 'custom', path: ['readings_ohm', k], message })
    })
  })

export function electrode(input: z.infer<typeof electrodeSchema>) {
  const { limits } = shippedRegimes[0]!
  const {
    mean,
    spread_pct,
    verdict,
    limits: against,
    findings,
  } = judgeElectrode({
    readings: input.readings_ohm.map(spanRead),
    leads: exactly(input.leads_ohm),
    method: input.method,
    ratedResidualCurrents_mA: input.ratedResidualCurrents_mA,
    spreadSchool: 'range',
    touch_V: limits['earth.touch-voltage']!.value,
    spread_pct: limits['earth.spread']!.value,
    unstable_ohm: limits['earth.unstable']!.value,
  })
  return {
    mean_ohm: shown(mean),
    spread_pct,
    limits: against.map(({ ratedResidualCurrent_mA, limit_ohm, verdict: own }) => ({
      ratedResidualCurrent_mA,
      limit_ohm,
      verdict: own,
    })),
    verdict,
    findings,
    sources: [sources['bs7671-electrode'], sources['electrode-practice']],
  }
}

export const rodsSchema = z
  .strictObject({
    resistivity_ohm_m: z.number().positive().max(1e6),
    length_m: z.number().positive().max(200),
    diameter_m: z.number().positive().max(1),
    count: z.number().int().min(1).max(MOST_RODS, `the table of rods in line ends at ${MOST_RODS}`),
    spacing_m: z.number().positive().max(1000),
    target_ohm: z.number().positive().max(1e6).optional(),
  })
  .refine(
    ({ length_m, spacing_m, count, target_ohm }) => spacing_m >= length_m || (count === 1 && target_ohm === undefined),
    {
      path: ['spacing_m'],
      message: 'rods nearer than their own length are no longer two: the formula ends there',
    },
  )
  .refine(({ length_m, diameter_m }) => diameter_m < length_m, {
    path: ['diameter_m'],
    message: 'a rod is thinner than it is long: the diameter is in metres',
  })

export function rods({ count, spacing_m, target_ohm, ...rod }: z.infer<typeof rodsSchema>) {
  const { length_m, diameter_m } = rod
  return {
    single_ohm: rodResistance_ohm(rod),
    combined_ohm: rodsInLine_ohm(rod, count, spacing_m),
    rodsNeeded: target_ohm === undefined ? null : rodsNeeded(rod, spacing_m, target_ohm),
    plan: planOf({ form: 'rods', depth_m: null, length_m, diameter_m }, rod.resistivity_ohm_m, spacing_m),
    sources: [sources['bs7430-rods']],
  }
}

const readingSchema = z
  .strictObject({
    multiple: z.number().refine((one): one is Multiple => (multiples as readonly number[]).includes(one), {
      message: `a multiple is one of ${multiples.join(', ')}`,
    }),
    angle_deg: z.literal([0, 180], 'the half-wave on which it was tripped: 0 or 180 degrees'),
    waveform: z.enum(waveforms).default('ac'),
    time_ms: boundSchema,
    ramp_mA: boundSchema,
  })
  .partial()
  .superRefine((reading, context) => {
    const issue = (path: string, message: string): void => context.addIssue({ code: 'custom', path: [path], message })
    if ((reading.time_ms === undefined) === (reading.ramp_mA === undefined))
      issue('time_ms', 'a reading is a time at a multiple, or the current of a ramp')
    else if (reading.time_ms !== undefined && reading.multiple === undefined)
      issue('multiple', 'a time needs the multiple at which it was read')
    if (reading.time_ms !== undefined && boundOf(reading.time_ms).value === 0)
      issue('time_ms', 'no device trips in 0 ms: it was open already, or nothing was connected')
    if (reading.ramp_mA !== undefined && boundOf(reading.ramp_mA).value === 0)
      issue('ramp_mA', 'no device trips at 0 mA: it was open already, or nothing was connected')
  })

/** How a product standard is named: today's (61008, 61009, 62423, 60947-2) or the older BS 4293. */
const standardSchema = z
  .string()
  .max(80)
  .regex(/61008|61009|62423|60947|4293/, 'the standard is one like BS EN 61008, IEC 61009-1 or BS 4293')

const regimeSchema = z.string().refine((text) => regimeNamed(text) !== undefined, {
  message: `the regime is one of ${shippedRegimes.map((one) => one.id).join(', ')}`,
})

const regimeNamed = (text: string) => shippedRegimes.find((one) => one.id === text || one.name === text)

export const rcdVerdictSchema = z.strictObject({
  type: z.enum(rcdTypes),
  kind: z.enum(rcdKinds),
  ratedResidualCurrent_mA,
  standard: standardSchema,
  regime: regimeSchema,
  readings: z.array(readingSchema).max(100),
  place: z.enum(rcdPlaces).default('circuit'),
})

type Reading = z.infer<typeof readingSchema>

function tripOf(reading: Reading): Trip {
  const shared = { angle_deg: reading.angle_deg ?? null, waveform: reading.waveform ?? ('ac' as const) }
  if (reading.ramp_mA !== undefined) return { ...shared, kind: 'ramp', current: spanRead(reading.ramp_mA) }
  return { ...shared, kind: 'time', multiple: reading.multiple!, time: spanRead(reading.time_ms!) }
}

/** A span as it was given: a figure, or a bound. */
const shown = ({ least, most, bound }: Span): number | string =>
  bound === 'exact' ? least : bound === 'more-than' ? `>${least}` : `<${most}`

export function rcdVerdict(input: z.infer<typeof rcdVerdictSchema>) {
  const regime = regimeNamed(input.regime)
  if (!regime) throw new CalcProblem([{ path: ['regime'], message: 'not known' }])
  const rcd = {
    type: input.type,
    kind: input.kind,
    rated_mA: input.ratedResidualCurrent_mA,
    standard: input.standard.includes('4293') ? ('bs-4293' as const) : ('iec-61008' as const),
  }
  const { verdict, findings, recorded } = judgeRcd(rcd, input.readings.map(tripOf), {
    sequence: regime.schools['rcd.sequence'],
    halfWait_ms: halfSchools[regime.schools['rcd.half']],
    place: input.place,
  })
  return {
    verdict,
    findings,
    recorded_ms: recorded && shown(recorded),
    sources: [sources['iec-61008']],
  }
}
