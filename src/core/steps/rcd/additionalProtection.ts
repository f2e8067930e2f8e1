/**
 * A circuit that wants additional protection has a device of at most 30 mA ahead of it: from the plant alone, before
 * anybody drives out. Source: IEC 60364-4-41 415.1.1 (from memory). Which circuits want it is said on the circuit, for
 * that is a matter of the local rules: socket-outlets, bathrooms, cables in walls, what is used out of doors.
 */
import { ADDITIONAL_PROTECTION_mA } from '../../rcd/limits'
import { decide } from '../../verdict/judgement'
import { ruled } from '../holding'
import type { ComputedStep } from '../step'
import { exampleCircuit, exampleRcd } from '../worked'

const EXAMPLE_RCD = '00000000-0000-7000-8000-0000000000aa'

export const additionalProtection: ComputedStep<'circuit'> = {
  kind: 'computed',
  id: 'additional-protection',
  order: 'A9',
  appliesTo: 'circuit',
  of: (part) => part.data.rcdFor === 'additional',
  station: 'rcd',
  protects: true,
  tag: 'dead',
  gates: [],
  cautions: [{ id: 'purpose-is-local', hard: false }],
  hookup: {
    drawing: 'additional-protection',
    leads: [
      { balloon: 1, code: 'device-ahead' },
      { balloon: 2, code: 'what-it-feeds' },
    ],
  },
  minutes: 0,
  sources: ['iec-60364-415'],
  judge(context) {
    const devices = context.plant.rcdsOf(context.part)
    const device = devices.reduce<(typeof devices)[number] | null>(
      (least, one) => (least && least.data.rated_mA <= one.data.rated_mA ? least : one),
      null,
    )
    const most = { most_mA: ADDITIONAL_PROTECTION_mA }
    const source = 'iec-60364-415' as const
    if (!device)
      return decide([
        ruled(context, 'outside', 'additional.none', { code: 'additional.none', figures: most, source }, most),
      ])
    const figures = { ...most, device: device.data.tag, rated_mA: device.data.rated_mA }
    const isSmall = device.data.rated_mA <= ADDITIONAL_PROTECTION_mA
    const code = isSmall ? 'additional.is' : 'additional.too-large'
    return decide([
      ruled(context, isSmall ? 'within' : 'outside', code, { code: 'additional.rated', figures, source }, figures),
    ])
  },
  example: {
    source: 'IEC 60364-4-41 415.1.1, from memory: at most 30 mA; a circuit behind a 30 mA device',
    named: { id: EXAMPLE_RCD, data: exampleRcd },
    part: { ...exampleCircuit, rcdId: EXAMPLE_RCD, rcdFor: 'additional' },
    reading: null,
    verdict: 'within',
  },
}
