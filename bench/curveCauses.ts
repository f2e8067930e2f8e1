/** Causes of curves: how long one takes, how often the true one is named by fault and light, and how often a sound string is not. */
import Papa from 'papaparse'
import { curvesOf, readCurveTable } from '@/core/curve/curveFile'
import { curveOf } from '@/core/curve/curveValue'
import { featuresOf } from '@/core/curve/features'
import { ParallelStrings } from '@/core/curve/stringCurve'
import { faults, trial } from '../tests/support/causeTrials'
import { time, written } from './measure'
import type { Row } from './run'

const LIGHTS_Wm2 = [400, 600, 800, 1000]
const EACH = 25
const SOUND = 1000
const CURVES = 1000
const POINTS = 100

export function curveCausesBench(): Row[] {
  return [...once(), ...table(), alarms(), file()]
}

function once(): Row[] {
  const seeds = [1, 2, 3, 4, 5]
  const taken = time(() => seeds.map((seed) => trial('shade', 800, seed)), 7)
  const swept = time(() => seeds.map((seed) => sweepOf(seed)), 7)
  const per = { median: taken.median / 5, least: taken.least / 5, most: taken.most / 5 }
  return [
    {
      what: 'causes of one curve',
      reach: 'under 150 ms',
      figure: written(per),
      against: `one exact sweep of such a string: ${written({ median: swept.median / 5, least: swept.least / 5, most: swept.most / 5 })}`,
    },
  ]
}

const diode = { kind: 'diode', saturationCurrent_A: 3e-7, slope_V: 0.03 } as const
function sweepOf(seed: number): number[] {
  const group = {
    photocurrent_A: 10 + seed / 100,
    saturationCurrent_A: 3e-10,
    modifiedIdeality_V: 0.55,
    seriesResistance_ohm: 0.08,
    shuntResistance_ohm: 120,
    bypass: diode,
  }
  const array = new ParallelStrings([
    { seriesResistance_ohm: 0.4, modules: [{ reversed: false, groups: Array.from({ length: 45 }, () => group) }] },
  ])
  const { voc_V } = array.features()
  return Array.from({ length: POINTS }, (_, k) => array.currentAt((voc_V * k) / POINTS))
}

function table(): Row[] {
  return faults
    .filter((fault) => fault !== 'sound')
    .map((fault) => {
      const cells = LIGHTS_Wm2.map((light_Wm2) => {
        let [told, first, three] = [0, 0, 0]
        for (let seed = 0; seed < EACH; seed++) {
          const { explained } = trial(fault, light_Wm2, 977 * seed + light_Wm2)
          if (!explained.canTell || explained.isSound) continue
          const at = explained.ranked.findIndex(({ id }) => id === fault)
          told++
          if (at === 0) first++
          if (at < 3) three++
        }
        return `${light_Wm2}: ${first}/${three}/${told}`
      })
      return {
        what: `${fault}, by light in W/m2: first / in three / told apart`,
        reach: '90 % / 99 % of those told',
        figure: cells.join('  '),
        against: `of ${EACH} each; the rest say that they cannot tell`,
      }
    })
}

function alarms(): Row {
  let wrong = 0
  for (let seed = 0; seed < SOUND; seed++)
    if (!trial('sound', 400 + (600 * seed) / SOUND, 7 * seed + 3).explained.isSound) wrong++
  return {
    what: 'sound strings for which a cause is believed',
    reach: 'under 5 of 1000',
    figure: `${wrong} of ${SOUND}`,
    against: 'strings made without a fault',
  }
}

/** A file of curves read, told apart, and each looked at. */
function file(): Row {
  const rows: string[] = ['Memory;Voltage (V);Current (A)']
  for (let n = 0; n < CURVES; n++) {
    const currents = Array.from({ length: POINTS }, (_, k) => 10 * (1 - Math.exp(((k - POINTS + 1) * 4.5) / 20)))
    for (const [k, current] of currents.entries())
      rows.push(`${n + 1};${(k * 4.5).toFixed(2)};${(current + 0.01 * Math.sin(n * k)).toFixed(3)}`)
  }
  const text = rows.join('\n')
  const ours = time(
    () => {
      const table = readCurveTable(text)
      if (typeof table === 'string') throw new Error(table)
      return curvesOf(text, table.columns).map(({ points }) => [featuresOf(points), curveOf(points)])
    },
    3,
    1,
  )
  const bare = time(() => Papa.parse(text), 3, 1)
  return {
    what: `a file of ${CURVES} curves of ${POINTS} points read and looked at`,
    reach: 'under 20 s',
    figure: written(ours),
    against: `the table parsed and nothing else: ${written(bare)}`,
  }
}
