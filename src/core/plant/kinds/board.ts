import { z } from 'zod'
import { idSchema, phasesSchema, tagSchema, wordsSchema } from '../basics'
import type { PartDescriptor } from './descriptor'

const schema = z.strictObject({
  kind: z.literal('board'),
  tag: tagSchema,
  name: z.string().trim().max(60),
  /** The board that feeds it, null at the origin. */
  boardId: idSchema.nullable(),
  /** The supply of a board at the origin, where there are several; left away it is the only one. */
  supplyId: idSchema.nullable().optional(),
  /** How many come in; null or left away where it is the supply's own. */
  phases: phasesSchema.nullable().optional(),
  /** Where it hangs, and the maker's mark. */
  place: wordsSchema(60),
  make: wordsSchema(60),
  /** Surge protection in it: type and what it takes. */
  surge: wordsSchema(60),
})

export const board: PartDescriptor<typeof schema> = {
  schema,
  side: 'ac',
  station: 'board',
  prefix: 'DB',
  fields: [
    { id: 'tag', label: 'tag' },
    { id: 'name', label: 'board-name' },
    { id: 'boardId', label: 'fed-from', names: { kind: 'board', else: 'none' } },
    { id: 'supplyId', label: 'supply-of', names: { kind: 'supply', else: 'only' } },
    { id: 'phases', label: 'phases' },
    { id: 'place', label: 'board-place', on: ['electrical'] },
    { id: 'make', label: 'board-make', on: ['electrical'] },
    { id: 'surge', label: 'board-surge', on: ['electrical'] },
  ],
  blank: (tag, { boardId, phases = 1 }) => ({ kind: 'board', tag, name: '', boardId, phases }),
}
