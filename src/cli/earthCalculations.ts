/** Calculations of electrodes, rods and residual current devices on the command line. */
import { z } from 'zod'
import { electrodeMethods, judgeElectrode } from '../core/earth/electrode'
import { MOST_RODS, planOf, rodResistance_ohm, rodsInLine_ohm, rodsNeeded } from '../core/earth/rods'
import { judgeRcd, rcdPlaces, type Time, type Trip } from '../core/rcd/judgeRcd'
import { type Multiple, multiples, rcdKinds, rcdTypes, waveforms } from '../core/rcd/limits'
import { shippedRegimes } from '../core/regime/shipped'
import { sources } from '../core/regime/sources'
import { boundOf, boundSchema } from './bound'
import { CalcProblem } from './problem'

const ratedResidualCurrent_mA = z.number().positive().max(10_000)

export const electrodeSchema = z
  .strictObject({
    readings_ohm: z.array(z.number().positive('a resistance is above nought').max(1e6)).min(1).max(200),
    leads_ohm: z.number().min(0).max(1000).default(0),
    method: z.enum(electrodeMethods),
    ratedResidualCurrents_mA: z.array(ratedResidualCurrent_mA).max(50),
  })
  .superRefine(({ readings_ohm, leads_ohm }, context) => {
    readings_ohm.forEach((read, k) => {
      if (read > leads_ohm) return
      const message = 'the lead alone would be more than this: measure the lead again'
      context.addIssue({ code: 'custom', path: ['readings_ohm', k], message })
    })
  })

export function electrode(input: z.infer<typeof electrodeSchema>) {
  const { limits } = shippedRegimes[0]!
  const judged = judgeElectrode({
    ...input,
    spreadSchool: 'range',
    touch_V: limits['earth.touch-voltage'].value,
    spread_pct: limits['earth.spread'].value,
    unstable_ohm: limits['earth.unstable'].value,
  })
  return { ...judged, sources: [sources['bs7671-electrode'], sources['electrode-practice']] }
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
    angle_deg: z.union([z.literal(0), z.literal(180)]),
    waveform: z.enum(waveforms).default('ac'),
    time_ms: boundSchema,
    ramp_mA: z.number().positive().max(100_000),
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
  if (reading.ramp_mA !== undefined) return { ...shared, kind: 'ramp', current_mA: reading.ramp_mA }
  const { value, bound } = boundOf(reading.time_ms!)
  return { ...shared, kind: 'time', multiple: reading.multiple!, time: { value_ms: value, bound } }
}

const asText = ({ value_ms, bound }: Time): number | string =>
  bound === 'exact' ? value_ms : `${bound === 'more-than' ? '>' : '<'}${value_ms}`

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
    half: regime.schools['rcd.half'],
    place: input.place,
  })
  return { verdict, findings, recorded_ms: recorded && asText(recorded), sources: [sources['iec-61008']] }
}
