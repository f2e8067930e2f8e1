import { closeOut } from './closeOut'
import { combinerPolarity } from './combinerPolarity'
import { designSteps } from './design'
import { earthContinuity } from './earthContinuity'
import { leadNull } from './leadNull'
import { operating } from './operating'
import { plugsLocked } from './plugsLocked'
import { pvInsulation } from './pvInsulation'
import { pvIsc } from './pvIsc'
import { pvPolarity } from './pvPolarity'
import { pvVoc } from './pvVoc'
import { reconnect } from './reconnect'
import { safeIsolation } from './safeIsolation'
import { sensorsInPlane } from './sensorsInPlane'
import { siteInspection } from './siteInspection'
import type { AnyStep } from './step'

/** Every test of the trade, in working order. */
export const steps: readonly AnyStep[] = [
  siteInspection,
  ...designSteps,
  leadNull,
  safeIsolation,
  sensorsInPlane,
  earthContinuity,
  pvPolarity,
  combinerPolarity,
  pvVoc,
  pvIsc,
  pvInsulation,
  plugsLocked,
  reconnect,
  operating,
  closeOut,
]

const byId = new Map(steps.map((step) => [step.id, step]))

export function stepById(id: string): AnyStep | null {
  return byId.get(id) ?? null
}
