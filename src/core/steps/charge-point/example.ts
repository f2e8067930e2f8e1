/** The circuit that the worked examples of charge points hang on, and a point on it. */
import type { PartData } from '../../plant/part'
import { exampleChargePoint, exampleCircuit } from '../worked'

const SERVED = '00000000-0000-7000-8000-0000000000cb'

/** A circuit of its own, made for 40 A. */
export const exampleServed: { id: string; data: PartData } = {
  id: SERVED,
  data: {
    ...exampleCircuit,
    tag: '9',
    feeds: 'Charge point',
    rating_A: 40,
    line_mm2: 6,
    protective_mm2: 6,
    length_m: 18,
    sockets: false,
  },
}

export const examplePoint = { ...exampleChargePoint, circuitId: SERVED } as const satisfies PartData
