/** Everything that is known of a plug, state by state: what its tests read, and what is being answered now. */
import { pilotBand } from '../../pilot/state'
import { gravest } from '../../verdict/verdict'
import type { PlugColumn, PlugPanel } from '../panel'
import { choiceIn, numberIn } from '../reading'
import type { Reading, VerdictOf } from '../step'
import type { PointContext } from './point'
import { OFF, type StateRow, stateRows, stateRulings } from './stateRows'

/** The tests whose answers stand in it. */
const FROM = ['point-states', 'point-pretest', 'point-pilot-short', 'point-current'] as const
type From = (typeof FROM)[number]
type Readings = Readonly<Record<From, Pick<Reading, 'slots'>>>
const NOTHING = { slots: {} }

/** Between these the pilot swings to its lower level, once the point says how much. */
const SWINGING = new Set(['B', 'C', 'D'])

/** @param own the step that is on the bench: its answers are those of the context. */
export function plugPanel(own: string, context: PointContext, verdictOf: VerdictOf): PlugPanel {
  const readingOf = (step: From): Pick<Reading, 'slots'> =>
    step === own ? context.reading : (context.counted(step, context.part.id) ?? NOTHING)
  const readings = Object.fromEntries(FROM.map((step) => [step, readingOf(step)])) as Readings
  const columns = stateRows(context.part.data).map((row) => columnOf(own, context, row, readings))
  const at = columns.findIndex((one) => one.state === 'F')
  return { kind: 'plug', columns: [...columns.slice(0, at), shortColumn(readings, verdictOf), ...columns.slice(at)] }
}

function columnOf(own: string, context: PointContext, row: StateRow, readings: Readings): PlugColumn {
  const states = readings['point-states']
  const duty = numberIn(readings['point-current'], 'duty-full')
  // A state that nobody made is drawn bare.
  const isMade = !row.ask.optional || choiceIn(states, `adapter-${row.id}`) !== null
  const swings = isMade && SWINGING.has(row.state)
  const level = numberIn(states, `level-${row.id}`)
  const rulings = stateRulings(context, states, row)
  return {
    group: own === 'point-states' ? row.id : null,
    id: row.id,
    state: row.state,
    must: row.outlet,
    mustHold: row.holds,
    band: pilotBand(row.state),
    level_V: level?.bound === 'exact' ? level.value : null,
    duty_pct: swings && duty?.bound === 'exact' ? duty.value : null,
    swings,
    adapter: choiceIn(states, `adapter-${row.id}`),
    shown: choiceIn(states, `shown-${row.id}`),
    ...padOf(row.id, readings),
    verdict: rulings === null ? 'not-yet' : gravest(rulings.map((one) => one.verdict)),
    isAsked: !row.ask.optional,
  }
}

const padOf = (id: string, { 'point-pretest': pretest }: Readings): Pick<PlugColumn, 'pad' | 'pad_V'> => ({
  pad: choiceIn(pretest, `pad-${id}`),
  pad_V: numberIn(pretest, `earth-volts-${id}`)?.text ?? null,
})

/** The pilot shorted: a test of its own. */
function shortColumn(readings: Readings, verdictOf: VerdictOf): PlugColumn {
  const fault = readings['point-pilot-short']
  return {
    group: null,
    id: 'e',
    state: 'E',
    must: OFF,
    mustHold: false,
    band: pilotBand('E'),
    level_V: null,
    duty_pct: null,
    swings: false,
    adapter: choiceIn(fault, 'outlet-after'),
    shown: choiceIn(fault, 'fault-sign'),
    ...padOf('e', readings),
    verdict: verdictOf('point-pilot-short'),
    isAsked: true,
  }
}
