/** Calculations of a charge point's plug on the command line: pilot, proximity, detector of direct current. */
import { z } from 'zod'
import { CODED_A, codedBy, dutyFor, takenBy } from '../core/pilot/duty'
import { type DetectorReading, judgeDetectorReadings, polarities } from '../core/pilot/detector'
import { cableBy } from '../core/pilot/proximity'
import { stateAt } from '../core/pilot/state'
import { sources } from '../core/regime/sources'
import { boundOf, boundSchema, spanRead } from './bound'

/** Beyond this nobody measured a pilot, V. */
const PILOT_MOST_V = 60

export const pilotSchema = z
  .strictObject({
    duty_pct: z.number().min(0).max(100),
    current_A: z.number().min(CODED_A.least).max(CODED_A.most),
    voltage_V: z.number().min(-PILOT_MOST_V).max(PILOT_MOST_V),
  })
  .partial()
  .superRefine((input, context) => {
    const given = Object.values(input).filter((value) => value !== undefined).length
    if (given !== 1)
      context.addIssue({ code: 'custom', path: [], message: 'one of duty_pct, current_A and voltage_V, and no second' })
  })

export function pilot({ duty_pct, current_A, voltage_V }: z.infer<typeof pilotSchema>) {
  const from = { sources: [sources['iec-61851-pilot']] }
  if (duty_pct !== undefined) return { ...codedBy(duty_pct), vehicle: takenBy(duty_pct), ...from }
  if (voltage_V !== undefined) return { state: stateAt(voltage_V), ...from }
  const duty = dutyFor(current_A!)
  return { duty_pct: duty, current_A: codedBy(duty).current_A, ...from }
}

export const proximitySchema = z.strictObject({ resistance_ohm: z.number().min(0).max(1e9) })

export function proximity({ resistance_ohm }: z.infer<typeof proximitySchema>) {
  const code = cableBy(resistance_ohm)
  return {
    current_A: code?.current_A ?? null,
    currentSinglePhase_A: code?.currentSinglePhase_A ?? null,
    sources: [sources['iec-61851-proximity']],
  }
}

const readingSchema = z
  .strictObject({
    polarity: z.enum(polarities),
    ramp_mA: boundSchema.optional(),
    time_ms: boundSchema.optional(),
    atCurrent_mA: z.number().positive().max(1000).optional(),
  })
  .superRefine(({ ramp_mA, time_ms, atCurrent_mA }, context) => {
    const issue = (path: string, message: string): void => context.addIssue({ code: 'custom', path: [path], message })
    if (ramp_mA === undefined && atCurrent_mA === undefined)
      issue('ramp_mA', 'the current of a ramp, or else a steady current (atCurrent_mA) with its time')
    if (ramp_mA !== undefined && atCurrent_mA !== undefined)
      issue('atCurrent_mA', 'a ramp has no steady current: give one or the other')
    if (atCurrent_mA !== undefined && time_ms === undefined) issue('time_ms', 'a steady current needs its time')
    if (ramp_mA !== undefined && boundOf(ramp_mA).value === 0)
      issue('ramp_mA', 'no detector opens at 0 mA: it was open already, or nothing was connected')
    if (time_ms !== undefined && boundOf(time_ms).value === 0)
      issue('time_ms', 'no detector opens in 0 ms: it was open already, or nothing was connected')
  })

export const dcDetectorVerdictSchema = z.strictObject({ readings: z.array(readingSchema).max(100) })

function readingOf({ polarity, ramp_mA, time_ms, atCurrent_mA }: z.infer<typeof readingSchema>): DetectorReading {
  if (ramp_mA !== undefined) return { polarity, kind: 'ramp', current: spanRead(ramp_mA) }
  return { polarity, kind: 'timed', at_mA: atCurrent_mA!, time: spanRead(time_ms!) }
}

export const dcDetectorVerdict = ({ readings }: z.infer<typeof dcDetectorVerdictSchema>) => ({
  ...judgeDetectorReadings(readings.map(readingOf)),
  sources: [sources['iec-62955']],
})
