import { z } from 'zod'
import { rcdKinds, rcdStandards, rcdTypes } from '../../rcd/limits'
import { idSchema, tagSchema } from '../basics'
import type { PartDescriptor } from './descriptor'

export const rcdForms = ['rccb', 'rcbo'] as const
/** Whether current may flow through it either way; where something feeds back it has to. */
export const rcdDirections = ['both-ways', 'one-way'] as const
const schema = z.strictObject({
  kind: z.literal('rcd'),
  tag: tagSchema,
  boardId: idSchema.nullable(),
  /** The device above it in series, null where there is none. */
  upstreamId: idSchema.nullable(),
  /** By itself, or in one device with the breaker of a circuit; left away it is by itself. */
  form: z.enum(rcdForms).optional(),
  type: z.enum(rcdTypes),
  delay: z.enum(rcdKinds),
  rated_mA: z.number().positive().max(10_000),
  standard: z.enum(rcdStandards),
  direction: z.enum(rcdDirections).nullable().optional(),
})

export const rcd: PartDescriptor<typeof schema> = {
  schema,
  side: 'ac',
  station: 'rcd',
  prefix: 'RCD',
  scheduled: 2,
  fields: [
    { id: 'tag', label: 'tag', prints: true },
    { id: 'boardId', label: 'board-of', names: { kind: 'board', else: 'only' } },
    { id: 'form', label: 'rcd-form', usual: 'rccb', prints: true },
    { id: 'type', label: 'rcd-type', prints: true },
    { id: 'rated_mA', label: 'rcd-rated', prints: true },
    { id: 'delay', label: 'rcd-delay', prints: true },
    { id: 'standard', label: 'rcd-standard', prints: true },
    { id: 'direction', label: 'rcd-direction', prints: true },
    { id: 'upstreamId', label: 'rcd-upstream', names: { kind: 'rcd', else: 'none' }, prints: true },
  ],
  blank: (tag, { boardId }) => ({
    kind: 'rcd',
    tag,
    boardId,
    upstreamId: null,
    type: 'A',
    delay: 'general',
    rated_mA: 30,
    standard: 'iec-61008',
  }),
}
