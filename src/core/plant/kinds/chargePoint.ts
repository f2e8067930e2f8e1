import { z } from 'zod'
import { CODED_A } from '../../pilot/duty'
import { idSchema, tagSchema } from '../basics'
import { chargePointModelSchema } from '../chargePointModel'
import type { PartDescriptor } from './descriptor'

/** How a point keeps its earth where the supply's own is combined with its neutral. */
export const pointEarthings = ['of-supply', 'own-electrode', 'device-inside', 'device-outside'] as const

const loadSchema = z.strictObject({
  /** Points that share one limit carry the same mark. */
  group: z.string().trim().max(20).nullable(),
  limit_A: z.number().min(CODED_A.least).max(1000).nullable(),
})

const schema = z.strictObject({
  kind: z.literal('charge-point'),
  tag: tagSchema,
  /** Where it stands. */
  place: z.string().trim().max(60),
  /** A copy: editing the library later changes no verdict. Null where nobody said which model it is. */
  model: chargePointModelSchema.nullable(),
  serial: z.string().trim().max(40),
  circuitId: idSchema.nullable(),
  earthing: z.enum(pointEarthings).nullable(),
  /** What its own settings let it give, A; its rating where nobody set it lower. */
  setTo_A: z.number().min(CODED_A.least).max(CODED_A.most).nullable(),
  load: loadSchema.nullable(),
  /** The place is ventilated: cars that gas may charge. */
  ventilated: z.boolean(),
})

export const chargePoint: PartDescriptor<typeof schema> = {
  schema,
  side: 'ac',
  station: 'charge-point',
  prefix: 'CP',
  hasSheet: true,
  fields: [
    { id: 'tag', label: 'tag', prints: true },
    { id: 'place', label: 'point-place', prints: true },
    { id: 'model', label: 'point-model', library: 'charge-point', wanted: true, prints: true },
    { id: 'serial', label: 'serial', prints: true },
    { id: 'circuitId', label: 'point-circuit', names: { kind: 'circuit', else: 'none' }, wanted: true, prints: true },
    { id: 'earthing', label: 'point-earthing', prints: true },
    { id: 'setTo_A', label: 'point-set', prints: true },
    { id: 'load.limit_A', label: 'load-limit', prints: true },
    { id: 'load.group', label: 'load-group' },
    { id: 'ventilated', label: 'point-ventilated', yesNo: ['ventilated', 'not-ventilated'] },
  ],
  blank: (tag) => ({
    kind: 'charge-point',
    tag,
    place: '',
    model: null,
    serial: '',
    circuitId: null,
    earthing: null,
    setTo_A: null,
    load: null,
    ventilated: false,
  }),
}
