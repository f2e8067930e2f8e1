/** What one model of charge point is and how it is handled: entered once, and copied into each point of that model. */
import { z } from 'zod'
import { CODED_A } from '../pilot/duty'
import { idSchema, phasesSchema } from './basics'

export const outlets = ['socket', 'tethered'] as const
export const builtInRcds = ['A', 'F', 'B'] as const
/** What a point can show by itself, as its lamp or display has it; nothing is shown where no words stand. */
export const shownStates = ['ready', 'waiting', 'charging', 'fault'] as const
export type ShownState = (typeof shownStates)[number]

const MOST_RESET_LINES = 6
/** Nobody waits longer than this for a point to come back, s. */
const MOST_READY_s = 600
const rating = z.number().min(CODED_A.least).max(CODED_A.most)
const shown = z.string().trim().max(40)

export const chargePointDataSchema = z
  .strictObject({
    phases: phasesSchema,
    /** Current that it is made for, A a phase. */
    rated_A: rating,
    outlet: z.enum(outlets),
    /** What the fixed cable carries; null on a socket, whose cable says so itself. */
    cable_A: rating.nullable(),
    /** Residual current device inside, null where there is none. */
    rcdType: z.enum(builtInRcds).nullable(),
    rcdRated_mA: z.number().positive().max(1000).nullable(),
    /** Detects 6 mA of smooth direct current by itself. */
    dcDetector: z.boolean(),
    /** Opens by itself where the protective and neutral conductor of the supply is lost. */
    penDevice: z.boolean(),
    /** It shows a fault: by a lamp, a display, a sound. */
    faultSign: z.boolean(),
    /** What a person does to reset it after a trip, one thing a line. */
    reset: z.array(z.string().trim().min(1).max(80)).max(MOST_RESET_LINES),
    /** From the last of these until it is ready. */
    ready_s: z.number().min(0).max(MOST_READY_s),
    shows: z.strictObject({ ready: shown, waiting: shown, charging: shown, fault: shown }),
  })
  .refine((data) => (data.outlet === 'tethered') === (data.cable_A !== null), {
    path: ['cable_A'],
    message: 'a fixed cable has its current, a socket has none',
  })
  .refine((data) => (data.rcdType === null) === (data.rcdRated_mA === null), {
    path: ['rcdRated_mA'],
    message: 'a device inside has its IΔn, and none has none',
  })
export type ChargePointData = z.infer<typeof chargePointDataSchema>

export const chargePointModelSchema = z.strictObject({
  id: idSchema,
  make: z.string().trim().min(1).max(60),
  name: z.string().trim().min(1).max(60),
  data: chargePointDataSchema,
})
export type ChargePointModel = z.infer<typeof chargePointModelSchema>
