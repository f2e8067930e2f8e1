import { z } from 'zod'
import { type Unit, units } from '../quantity/unit'
import { type SourceId, sources } from './sources'

/** Every limit and figure of judgement that a company can change. Names are never renamed. */
export const limitIds = [
  'pv.expectation.measured',
  'pv.expectation.estimated',
  'pv.sisters',
  'pv.least-light',
  'pv.light-moved',
  'pv.isolation-current',
  'pv.sensor-tilt',
  'pv.sensor-azimuth',
  'pv.continuity',
  'pv.continuity-joint',
  'pv.insulation-group',
  'pv.operating',
  'pv.curve-fill',
  'pv.curve-ledge',
  'pv.current-factor',
  'pv.fuse-low',
  'pv.fuse-high',
  'pv.cold-flat',
  'ac.voltage-factor',
  'ac.cold-share',
  'ac.loop-above',
  'ac.joint',
  'ac.supply-low',
  'ac.supply-high',
  'ac.drop-lighting',
  'ac.drop-other',
  'point.lost-pen',
  'point.duty',
  'earth.touch-voltage',
  'earth.spread',
  'earth.unstable',
  'close.two-sided',
  'close.insulation',
  'conditions.apart',
] as const
export type LimitId = (typeof limitIds)[number]

/** Where competent people do one thing in several ways. The first of each is the default [D]. */
export const schoolOptions = {
  'work.order': ['pv-first', 'ac-first'],
  'pv.cold-voltage': ['beta', 'table', 'flat'],
  'pv.insulation-voltage': ['table', 'fixed', 'twice'],
  'pv.continuity-judged': ['set-limit', 'by-conductor'],
  'pv.curves': ['category-2', 'always'],
  'rcd.sequence': ['single', 'three-multiples', 'four-multiples'],
  'rcd.half': ['two-seconds', 'three-hundred'],
  'rcd.half-when': ['half-first', 'half-last'],
  'rcd.five': ['five-times', 'quarter-amp'],
  'earth.spread-rule': ['range', 'deviation'],
  'earth.probe': ['sixty-two', 'halfway'],
  'loop.rcd-stands-in': ['near-the-sum', 'only-in-tt'],
  'point.sequence': ['six-and-two', 'twelve', 'ramps'],
  'point.waveform': ['alternating', 'of-its-type'],
  'point.fault-sign': ['only-close', 'asked'],
  cites: ['national', 'international'],
} as const satisfies Record<string, readonly string[]>
export type SchoolId = keyof typeof schoolOptions
export const schoolIds = Object.keys(schoolOptions) as SchoolId[]

const limitSchema = z.strictObject({
  value: z.number(),
  unit: z.enum(Object.keys(units) as [Unit, ...Unit[]]),
  source: z.enum(Object.keys(sources) as [SourceId, ...SourceId[]]),
})
export type Limit = z.infer<typeof limitSchema>

const schoolsSchema = z.strictObject({
  'work.order': z.enum(schoolOptions['work.order']),
  'pv.cold-voltage': z.enum(schoolOptions['pv.cold-voltage']),
  'pv.insulation-voltage': z.enum(schoolOptions['pv.insulation-voltage']),
  'pv.continuity-judged': z.enum(schoolOptions['pv.continuity-judged']),
  'pv.curves': z.enum(schoolOptions['pv.curves']),
  'rcd.sequence': z.enum(schoolOptions['rcd.sequence']),
  'rcd.half': z.enum(schoolOptions['rcd.half']),
  'rcd.half-when': z.enum(schoolOptions['rcd.half-when']),
  'rcd.five': z.enum(schoolOptions['rcd.five']),
  'earth.spread-rule': z.enum(schoolOptions['earth.spread-rule']),
  'earth.probe': z.enum(schoolOptions['earth.probe']),
  'loop.rcd-stands-in': z.enum(schoolOptions['loop.rcd-stands-in']),
  'point.sequence': z.enum(schoolOptions['point.sequence']),
  'point.waveform': z.enum(schoolOptions['point.waveform']),
  'point.fault-sign': z.enum(schoolOptions['point.fault-sign']),
  cites: z.enum(schoolOptions.cites),
})
export type Schools = z.infer<typeof schoolsSchema>

/** A named, versioned, immutable set of limits and schools; a job is pinned to one at its start and prints it. */
export const regimeSchema = z.strictObject({
  id: z.string().regex(/^[a-z0-9-]{3,60}$/),
  version: z.number().int().min(1),
  name: z.string().min(3).max(120),
  /** A copy that lacks a figure gives readings without a verdict where a step needs it. */
  limits: z.partialRecord(z.enum(limitIds), limitSchema),
  schools: schoolsSchema,
  /** What it was copied from and why, null for those that ship. */
  changed: z
    .strictObject({ from: z.string().max(80), reason: z.string().trim().min(3).max(500), by: z.string().max(80) })
    .nullable(),
})
export type Regime = z.infer<typeof regimeSchema>

/** Figures that a regime lacks: what needs them is read and not judged. */
export const lackingLimits = ({ limits }: Regime): LimitId[] => limitIds.filter((id) => limits[id] === undefined)
