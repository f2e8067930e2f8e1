/**
 * Light sensor in the plane of that array, cell sensor on a module's back: a roof with two faces needs two readings.
 * Common practice, no source; how far a plane may be off is our own (house rule 8).
 */
import { readValueOf } from '../../quantity/readValue'
import type { LimitId } from '../../regime/regime'
import { bandAround } from '../../verdict/compare'
import { decide, type Ruling } from '../../verdict/judgement'
import { checksRuling } from '../checks'
import { hold, ruled, saying } from '../holding'
import { figureOf } from '../reading'
import { check, type NumberSlot, numberSlot } from '../slot'
import type { ReadStep, StepContext } from '../step'

const tilt = numberSlot('tilt', 'tilt', 'deg', 1, {
  entered: (part) => (part.kind === 'array' ? part.tilt_deg : null),
})
const azimuth = numberSlot('azimuth', 'azimuth', 'deg', 2, {
  optional: true,
  entered: (part) => (part.kind === 'array' ? part.azimuth_deg : null),
})

/** How far a direction is from another, the short way round, degrees. */
const turn = (a: number, b: number): number => ((a - b + 540) % 360) - 180

/** One direction of the sensor against the plane entered for the array. */
function direction(
  context: StepContext<'array'>,
  slot: NumberSlot,
  limitId: LimitId,
  entered_deg: number,
): Ruling | null {
  const read = figureOf(context, slot)
  if (!read) return null
  const limit = context.limit(limitId)
  // Around the compass 355 and 3 degrees are 8 apart: the reading is turned to lie beside what was entered.
  const value = slot === azimuth ? entered_deg + turn(read.span.least, entered_deg) : read.span.least
  const off_deg = Math.abs(value - entered_deg)
  const exact = read.span.bound === 'exact'
  const span = exact ? { ...read.span, least: value, most: value } : read.span
  const band = {
    ...bandAround(0, 0, 0),
    low: entered_deg - limit.value,
    high: entered_deg + limit.value,
    closeLow: null,
    closeHigh: null,
  }
  const ruling = hold(context, {
    step: 'sensors',
    span,
    text: read.read.text,
    unit: 'deg',
    band,
    source: limit.source,
    expected: { value: entered_deg, uncertainty: 0 },
    limit: { id: limitId, value: limit.value },
    line: { code: `sensors.${slot.id}`, figures: { entered_deg, read: read.read.text }, decimals: 0 },
    figures: { off_deg, entered_deg },
  })
  return ruling.verdict === 'outside' ? saying(ruling, `sensors.${slot.id}-off`) : ruling
}

export const sensorsInPlane: ReadStep<'array'> = {
  kind: 'read',
  id: 'sensors',
  order: 'B2',
  appliesTo: 'array',
  station: 'modules',
  tag: 'live-in-daylight',
  slots: [tilt, azimuth, check('light-in-plane', 1), check('cell-sensor-on-back', 3)],
  counts: 'latest',
  placesMeter: true,
  leftOutAs: ['no-light-meter'],
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
  expect: ({ part }) => ({ value: part.data.tilt_deg, uncertainty: 0 }),
  judge(context) {
    const { tilt_deg, azimuth_deg } = context.part.data
    const { source, value: flat_deg } = context.limit('pv.sensor-tilt')
    const byTilt =
      direction(context, tilt, 'pv.sensor-tilt', tilt_deg) ??
      ruled(context, 'not-yet', 'sensors.no-tilt', { code: 'sensors.no-tilt', source })
    // A plane that is as good as flat faces nowhere.
    const byCompass =
      direction(context, azimuth, 'pv.sensor-azimuth', azimuth_deg) ??
      (tilt_deg > flat_deg
        ? ruled(context, 'close', 'sensors.no-azimuth', {
            code: 'sensors.no-azimuth',
            figures: { entered_deg: azimuth_deg },
            source,
          })
        : null)
    return decide([byTilt, ...(byCompass ? [byCompass] : []), checksRuling(context, 'house-plane')])
  },
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
