import { z } from 'zod'
import { referenceMethods } from '../../circuit/carries'
import { metals } from '../../circuit/conductors'
import { circuitRoles, deviceTypes } from '../../loop/maxZs'
import { area, idSchema, phasesSchema, tagSchema, wordsSchema } from '../basics'
import type { PartDescriptor } from './descriptor'

export const circuitLayouts = ['radial', 'ring'] as const
export const rcdPurposes = ['additional', 'faults'] as const
const schema = z.strictObject({
  kind: z.literal('circuit'),
  tag: tagSchema,
  /** What it feeds. */
  feeds: z.string().trim().max(60),
  /** A circuit that feeds a board may be disconnected later; left away it is a final one. */
  role: z.enum(circuitRoles).optional(),
  /** Socket-outlets, or fixed equipment only: their times differ above 32 A; left away it may have sockets. */
  sockets: z.boolean().nullable().optional(),
  /** What its residual current device is for; left away a device of at most 30 mA is additional protection. */
  rcdFor: z.enum(rcdPurposes).nullable().optional(),
  /** A ring has both ends at the board, and its whole length is entered; left away it is radial. */
  layout: z.enum(circuitLayouts).optional(),
  boardId: idSchema.nullable(),
  rcdId: idSchema.nullable(),
  phases: phasesSchema,
  /** The device against overcurrent; without one a loop is a reading and no verdict. */
  device: z.enum(deviceTypes).nullable(),
  rating_A: z.number().positive().max(2000).nullable(),
  breaking_kA: z.number().positive().max(200).nullable(),
  line_mm2: area.nullable(),
  protective_mm2: area.nullable(),
  length_m: z.number().positive().max(5000).nullable(),
  /** What its cable carries as it lies: in a wall, in a bunch, in the heat. */
  cable_A: z.number().positive().max(2000).nullable().optional(),
  /** The current that it is made for, at its farthest point. */
  design_A: z.number().positive().max(2000).nullable().optional(),
  /** It feeds lamps: they may lose less than other uses. */
  lighting: z.boolean().nullable().optional(),
  /** Of what its conductors are; left away they are copper. */
  metal: z.enum(metals).optional(),
  /** The standard of its device against overcurrent, as its face says. */
  deviceStandard: wordsSchema(30),
  /** What kind of cable it is, how it lies, and how many points it serves. */
  wiring: wordsSchema(40),
  method: z.enum(referenceMethods).nullable().optional(),
  points: z.number().int().min(1).max(999).nullable().optional(),
  /** It has a device against arc faults, whose button is pressed. */
  arcDevice: z.boolean().nullable().optional(),
})
type Circuit = z.infer<typeof schema>

export const circuit: PartDescriptor<typeof schema> = {
  schema,
  side: 'ac',
  station: 'board',
  prefix: '',
  scheduled: 1,
  fields: [
    { id: 'tag', label: 'tag', prints: true },
    { id: 'feeds', label: 'feeds', prints: true },
    { id: 'role', label: 'circuit-role', usual: 'final' },
    { id: 'layout', label: 'circuit-layout', usual: 'radial', prints: true },
    { id: 'sockets', label: 'circuit-sockets', yesNo: ['sockets', 'fixed-only'] },
    { id: 'boardId', label: 'board-of', names: { kind: 'board', else: 'only' }, prints: true },
    { id: 'rcdId', label: 'rcd-of', names: { kind: 'rcd', else: 'none' }, prints: true },
    { id: 'rcdFor', label: 'rcd-for' },
    { id: 'phases', label: 'phases', prints: true },
    { id: 'device', label: 'device', wanted: true, prints: { with: 'rating_A' } },
    { id: 'rating_A', label: 'device-rating', wanted: true },
    { id: 'breaking_kA', label: 'breaking', prints: true },
    { id: 'line_mm2', label: 'line-area', wanted: true, prints: true },
    { id: 'protective_mm2', label: 'protective-area', wanted: true, prints: { label: 'protective-area-short' } },
    { id: 'length_m', label: 'circuit-length', wanted: true, prints: true },
    { id: 'metal', label: 'conductor-metal', usual: 'copper', prints: { unusual: true } },
    { id: 'cable_A', label: 'cable-carries' },
    { id: 'design_A', label: 'design-current' },
    { id: 'lighting', label: 'circuit-uses', yesNo: ['lighting', 'other-uses'] },
    { id: 'deviceStandard', label: 'device-standard', on: ['electrical'], prints: true },
    { id: 'wiring', label: 'wiring', on: ['electrical'], prints: true },
    { id: 'method', label: 'reference-method', on: ['electrical'], prints: true },
    { id: 'points', label: 'points-served', on: ['electrical'], prints: true },
    {
      id: 'arcDevice',
      label: 'arc-device',
      yesNo: ['with-arc-device', 'no-arc-device'],
      on: ['electrical'],
      prints: true,
    },
  ],
  blank: (tag, { boardId, like }) =>
    like
      ? // Circuits of a board are mostly alike: the next one begins as the last one is.
        { ...(like as Circuit), tag, feeds: '' }
      : {
          kind: 'circuit',
          tag,
          boardId,
          feeds: '',
          rcdId: null,
          phases: 1,
          device: null,
          rating_A: null,
          breaking_kA: null,
          line_mm2: null,
          protective_mm2: null,
          length_m: null,
        },
}
