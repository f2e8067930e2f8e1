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
import { ringEnds } from './ringEnds'
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
import type { Regime } from '../regime/regime'
import type { AnyStep } from './step'
import { ze } from './ze'
import { zs } from './zs'

/** Every test of the trade, in the usual working order: the DC side first. */
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
  ringEnds,
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

type OrderSchool = Regime['schools']['work.order']
/** Earth and the AC side, which a school takes before the DC side. */
const AC_LETTERS = 'CDE'
const isAcStep = (step: AnyStep): boolean => AC_LETTERS.includes(step.order[0]!)
const isDcStep = (step: AnyStep): boolean => step.order.startsWith('B')

const orders: Record<OrderSchool, readonly AnyStep[]> = {
  'pv-first': steps,
  'ac-first': [
    ...steps.filter((step) => step.order.startsWith('A')),
    ...steps.filter(isAcStep),
    ...steps.filter(isDcStep),
    ...steps.filter((step) => !step.order.startsWith('A') && !isAcStep(step) && !isDcStep(step)),
  ],
}

/** Every test in the working order of a regime. IEC 62446-1 is read both ways (from memory); neither side waits for the other. */
export const stepsOf = ({ schools }: Regime): readonly AnyStep[] => orders[schools['work.order']]
