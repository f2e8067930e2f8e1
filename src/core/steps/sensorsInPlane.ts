/**
 * Light sensor in the plane of that array, cell sensor on a module's back: a roof with two faces needs two readings.
 * Common practice, no source; how far a plane may be off is our own (house rule 8).
 */
import { readValueOf } from '../quantity/readValue'
import type { Body } from '../record/entry'
import type { Limit } from '../regime/regime'
import { judge } from '../verdict/judge'
import { check, checksSay, plain } from './checks'
import type { Slot, Step, StepContext } from './step'
import { numberIn } from './stringReading'

const slots: readonly Slot[] = [
  { kind: 'number', id: 'tilt', measures: 'tilt', unit: 'deg', balloon: 1 },
  { kind: 'number', id: 'azimuth', measures: 'azimuth', unit: 'deg', balloon: 2, optional: true },
  check('light-in-plane', 1),
  check('cell-sensor-on-back', 3),
]

type Off = { slot: 'tilt' | 'azimuth'; off_deg: number; entered_deg: number; limit: Limit; id: string }

/** How far a direction is from another, the short way round, degrees. */
const turn = (a: number, b: number): number => Math.abs(((a - b + 540) % 360) - 180)

function planeOff({ part, regime }: StepContext<'array'>, reading: Pick<Body<'reading'>, 'slots'>): Off[] {
  const tilt = numberIn(reading, 'tilt')
  const azimuth = numberIn(reading, 'azimuth')
  const list: Off[] = []
  if (tilt)
    list.push({
      slot: 'tilt',
      off_deg: Math.abs(tilt.value - part.data.tilt_deg),
      entered_deg: part.data.tilt_deg,
      limit: regime.limits['pv.sensor-tilt'],
      id: 'pv.sensor-tilt',
    })
  if (azimuth)
    list.push({
      slot: 'azimuth',
      off_deg: turn(azimuth.value, part.data.azimuth_deg),
      entered_deg: part.data.azimuth_deg,
      limit: regime.limits['pv.sensor-azimuth'],
      id: 'pv.sensor-azimuth',
    })
  return list
}

export const sensorsInPlane: Step<'array'> = {
  id: 'sensors',
  order: 'B2',
  appliesTo: 'array',
  station: 'modules',
  tag: 'live-in-daylight',
  slots,
  needsConditions: false,
  counts: 'latest',
  gates: [],
  cautions: [
    { id: 'work-at-height', hard: false },
    { id: 'fetch-sensors-back', hard: false },
  ],
  hookup: {
    drawing: 'sensor-in-plane',
    leads: [
      { balloon: 1, code: 'sensor-in-plane' },
      { balloon: 2, code: 'compass' },
      { balloon: 3, code: 'on-module-back' },
    ],
  },
  minutes: 5,
  sources: ['house-plane', 'king-back'],
  inputs: (part) => `${part.data.tilt_deg}|${part.data.azimuth_deg}`,
  expect: ({ part }) => ({ value: part.data.tilt_deg, uncertainty: 0 }),
  judge(context, reading) {
    const said = checksSay(slots, reading)
    const off = planeOff(context, reading)
    const tilt = numberIn(reading, 'tilt')
    if (!tilt) return plain('not-yet', { code: 'sensors.no-tilt', figures: {} })
    const worst = off.find((one) => one.off_deg > one.limit.value)
    const limits = off.map(({ id, limit }) => ({ id, ...limit }))
    const tiltLimit = context.regime.limits['pv.sensor-tilt']
    const entered = context.part.data.tilt_deg
    const band = {
      low: entered - tiltLimit.value,
      high: entered + tiltLimit.value,
      closeLow: null,
      closeHigh: null,
    }
    const rule = {
      unit: 'deg' as const,
      scale: 'linear' as const,
      measured: { value: tilt.value, bound: tilt.bound, whisker: 0, text: tilt.text },
      expected: { value: entered, uncertainty: 0 },
      band,
      source: tiltLimit.source,
    }
    const figures = { tag: context.part.data.tag, tilt: entered }
    if (worst) {
      const { slot, off_deg, entered_deg, limit } = worst
      const finding = { code: `sensors.${slot}-off`, figures: { ...figures, off_deg, entered_deg, limit: limit.value } }
      return { ...plain('outside', finding), rule, limits }
    }
    const { verdict } = said.verdict === 'within' ? judge(tilt, band, 0) : said
    const finding = said.verdict === 'within' ? { code: 'sensors.within', figures } : said
    return { ...plain(verdict, { code: finding.code, figures: finding.figures }), rule, limits }
  },
  working: (context, reading) =>
    planeOff(context, reading).map(({ slot, off_deg, entered_deg, limit }) => ({
      code: `sensors.${slot}`,
      figures: { entered_deg, limit: limit.value },
      result: { value: off_deg, unit: 'deg', decimals: 0 },
      source: limit.source,
      decides: slot === 'tilt',
    })),
  example: {
    source: 'computed: 28 degrees measured on a roof entered with 35 are 7 off, more than 5',
    part: { kind: 'array', tag: 'South', tilt_deg: 35, azimuth_deg: 355, mounting: 'open-rack' },
    reading: {
      slots: {
        tilt: readValueOf(28, 'deg', 0),
        azimuth: readValueOf(3, 'deg', 0),
        'light-in-plane': { choice: 'as-it-should' },
        'cell-sensor-on-back': { choice: 'as-it-should' },
      },
      conditions: null,
    },
    verdict: 'outside',
  },
}
