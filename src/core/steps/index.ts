import { acFunctional } from './acFunctional'
import { acInsulation } from './acInsulation'
import { acPolarity } from './acPolarity'
import { closeOut } from './closeOut'
import { combinerPolarity } from './combinerPolarity'
import { designSteps } from './design'
import { earthBack } from './earthBack'
import { earthContinuity } from './earthContinuity'
import { electrode } from './electrode'
import { electrodeBack } from './electrodeBack'
import { faultCurrentStep } from './faultCurrentStep'
import { leadNull } from './leadNull'
import { operating } from './operating'
import { r1r2 } from './r1r2'
import { plugsLocked } from './plugsLocked'
import { proveDead } from './proveDead'
import { pvInsulation } from './pvInsulation'
import { pvIsc } from './pvIsc'
import { pvPolarity } from './pvPolarity'
import { pvVoc } from './pvVoc'
import { rcdButton } from './rcdButton'
import { rcdCascade } from './rcdCascade'
import { rcdTrips } from './rcdTrips'
import { reconnect } from './reconnect'
import { safeIsolation } from './safeIsolation'
import { sensorsInPlane } from './sensorsInPlane'
import { siteInspection } from './siteInspection'
import type { AnyStep } from './step'
import { ze } from './ze'
import { zs } from './zs'

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
  proveDead,
  r1r2,
  acInsulation,
  acPolarity,
  electrode,
  electrodeBack,
  ze,
  earthBack,
  faultCurrentStep,
  zs,
  rcdTrips,
  rcdButton,
  acFunctional,
  rcdCascade,
  closeOut,
]

const byId = new Map(steps.map((step) => [step.id, step]))

export function stepById(id: string): AnyStep | null {
  return byId.get(id) ?? null
}
