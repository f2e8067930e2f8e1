import { z } from 'zod'
import { current, idSchema, tagSchema, voltage, wordsSchema } from '../basics'
import type { PartDescriptor } from './descriptor'

const schema = z.strictObject({
  kind: z.literal('inverter'),
  tag: tagSchema,
  maxInput_V: voltage,
  trackerMin_V: voltage.optional(),
  trackerMax_V: voltage.optional(),
  /** Highest short-circuit current of one tracker input, A. */
  maxShortCircuit_A: current.optional(),
  /** The circuit that it feeds; nothing is switched on before that one was proved. */
  circuitId: idSchema.nullable().optional(),
  make: wordsSchema(60),
  model: wordsSchema(60),
  serial: wordsSchema(60),
  /** How long it waits once mains is back before it feeds again, as the network asks. */
  reconnect_s: z.number().positive().max(3600).nullable().optional(),
  /** What it gives to the AC side. */
  rated_W: z.number().positive().max(1e7).nullable().optional(),
  /** The switch on its AC side: what it carries, and where it is. */
  isolator: wordsSchema(60),
})

export const inverter: PartDescriptor<typeof schema> = {
  schema,
  side: 'dc',
  station: 'inverter',
  prefix: 'INV',
  fields: [
    { id: 'tag', label: 'tag', prints: true },
    { id: 'maxInput_V', label: 'inverter-voltage', wanted: true },
    { id: 'trackerMin_V', label: 'tracker-from', wanted: true },
    { id: 'trackerMax_V', label: 'tracker-to', wanted: true },
    { id: 'maxShortCircuit_A', label: 'inverter-current', wanted: true },
    { id: 'circuitId', label: 'inverter-circuit', names: { kind: 'circuit', else: 'none' } },
    { id: 'make', label: 'inverter-make', on: ['pv'], prints: true },
    { id: 'model', label: 'inverter-model', on: ['pv'], prints: true },
    { id: 'serial', label: 'serial', on: ['pv'], prints: true },
    { id: 'reconnect_s', label: 'inverter-reconnect', on: ['pv'], prints: true },
    { id: 'rated_W', label: 'inverter-rated', on: ['pv'], prints: true },
    { id: 'isolator', label: 'inverter-isolator', on: ['pv'], prints: true },
  ],
  blank: (tag) => ({ kind: 'inverter', tag, maxInput_V: null }),
}
