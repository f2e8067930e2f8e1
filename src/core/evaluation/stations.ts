import { kinds, nameOf } from '../plant/kinds'
import type { PlantIndex } from '../plant/plantIndex'
import { stationsOfLine } from '../plant/stations'
import { type Verdict, worst } from '../verdict/verdict'
import type { StationState, StepEvaluation } from './types'

/** Stations in the order in which current flows, each with the kinds of part that stand there. */
const stationParts = stationsOfLine.map(({ id }) => ({
  station: id,
  kinds: kinds.filter((kind) => kind.station === id).map(nameOf),
}))

export function stationsOf(all: readonly StepEvaluation[], plant: PlantIndex): StationState[] {
  const entered = stationParts.filter(({ kinds }) => kinds.some((kind) => plant.ofKind(kind).length > 0))
  // What is asked of the site stands at the modules, or where there are none at whatever comes first.
  const first = (entered[0] ?? stationParts[0]!).station
  const shown = entered.length > 0 ? entered.map(({ station }) => station) : [first]
  const own = new Map<string, { verdicts: Set<Verdict>; done: number; total: number }>(
    shown.map((station) => [station, { verdicts: new Set(), done: 0, total: 0 }]),
  )
  for (const one of all) {
    const at = own.get(one.step.station) ?? own.get(first)!
    at.verdicts.add(one.verdict)
    at.total++
    if (one.done) at.done++
  }
  return shown.map((station) => {
    const { verdicts, done, total } = own.get(station)!
    return { station, verdict: total === 0 ? null : worst(verdicts), done, total }
  })
}
