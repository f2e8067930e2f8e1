import { acFunctional } from './ac/acFunctional'
import { acInspection } from './ac/acInspection'
import { acInsulation } from './ac/acInsulation'
import { acPolarity } from './ac/acPolarity'
import { bonding } from './ac/bonding'
import { circuitOff } from './ac/circuitOff'
import { earthBack } from './ac/earthBack'
import { faultCurrentStep } from './ac/faultCurrentStep'
import { insulationConnected } from './ac/insulationConnected'
import { proveDead } from './ac/proveDead'
import { r1r2 } from './ac/r1r2'
import { ringEnds } from './ac/ringEnds'
import { boardPolarity, supplyPolarity } from './ac/supplyPolarity'
import { ze } from './ac/ze'
import { zs } from './ac/zs'
import { pointCurrent } from './charge-point/pointCurrent'
import { pointDesign } from './charge-point/pointDesign'
import { pointDetector } from './charge-point/pointDetector'
import { pointEarthLost, pointPilotShort } from './charge-point/pointFaults'
import { pointInspection } from './charge-point/pointInspection'
import { pointLocksOff, pointLocksOn } from './charge-point/pointLocks'
import { pointLostPen } from './charge-point/pointLostPen'
import { pointPretest } from './charge-point/pointPretest'
import { pointLoad, pointShare } from './charge-point/pointShare'
import { pointSettings } from './charge-point/pointSettings'
import { pointStates } from './charge-point/pointStates'
import { pointTrips } from './charge-point/pointTrips'
import { pointVoltages } from './charge-point/pointVoltages'
import { pointZs } from './charge-point/pointZs'
import { pvCurve } from './curve/pvCurve'
import { combinerPolarity } from './dc/combinerPolarity'
import { earthContinuity } from './dc/earthContinuity'
import { earthFaultHunt } from './dc/earthFaultHunt'
import { gridWatch } from './dc/gridWatch'
import { operating } from './dc/operating'
import { plugsLocked } from './dc/plugsLocked'
import { pvInsulation } from './dc/pvInsulation'
import { pvIsc } from './dc/pvIsc'
import { pvPolarity } from './dc/pvPolarity'
import { pvVoc } from './dc/pvVoc'
import { acProved, reconnect } from './dc/reconnect'
import { safeIsolation } from './dc/safeIsolation'
import { sensorsInPlane } from './dc/sensorsInPlane'
import { surgeBack } from './dc/surgeBack'
import { designSteps } from './design/design'
import { overload } from './design/overload'
import { voltageDrop } from './design/voltageDrop'
import { electrode, electrodeLoop } from './earth/electrode'
import { electrodeBack, electrodeLoopBack } from './earth/electrodeBack'
import { additionalProtection } from './rcd/additionalProtection'
import { rcdButton } from './rcd/rcdButton'
import { rcdCascade } from './rcd/rcdCascade'
import { rcdKind } from './rcd/rcdKind'
import { rcdTrips } from './rcd/rcdTrips'
import { closeOut, closeOutAc } from './site/closeOut'
import { leadNull } from './site/leadNull'
import { siteInspection } from './site/siteInspection'
import type { Regime } from '../regime/regime'
import { type AnyReadStep, type AnyStep, isRead } from './step'

/**
 * Every test of the trade in the usual working order: the DC side up to the locked plugs, then earth and the AC side, and
 * only then is anything switched on.
 */
export const steps: readonly AnyStep[] = [
  siteInspection,
  ...designSteps,
  pointDesign,
  additionalProtection,
  rcdKind,
  overload,
  voltageDrop,
  acInspection,
  pointInspection,
  leadNull,
  safeIsolation,
  sensorsInPlane,
  earthContinuity,
  pvPolarity,
  combinerPolarity,
  pvVoc,
  pvIsc,
  pvInsulation,
  earthFaultHunt,
  pvCurve,
  surgeBack,
  plugsLocked,
  proveDead,
  bonding,
  ringEnds,
  r1r2,
  acInsulation,
  acPolarity,
  insulationConnected,
  circuitOff,
  electrode,
  electrodeBack,
  supplyPolarity,
  ze,
  electrodeLoop,
  electrodeLoopBack,
  earthBack,
  boardPolarity,
  faultCurrentStep,
  zs,
  rcdTrips,
  rcdButton,
  acFunctional,
  rcdCascade,
  pointLocksOff,
  pointPretest,
  pointStates,
  pointPilotShort,
  pointEarthLost,
  pointCurrent,
  pointShare,
  pointLoad,
  pointVoltages,
  pointZs,
  pointTrips,
  pointDetector,
  pointLostPen,
  pointSettings,
  pointLocksOn,
  acProved,
  reconnect,
  operating,
  gridWatch,
  closeOut,
  closeOutAc,
]

const byId = new Map(steps.map((step) => [step.id, step]))

export function stepById(id: string): AnyStep | null {
  return byId.get(id) ?? null
}

/**
 * A step that is read, by its id.
 * @throws Error where there is none: the caller knows its id.
 */
export function readStepById(id: string): AnyReadStep {
  const step = stepById(id)
  if (!step || !isRead(step)) throw new Error(`readStepById: expected a step that is read, got ${id}`)
  return step
}

type OrderSchool = Regime['schools']['work.order']
const starts =
  (letters: string) =>
  (step: AnyStep): boolean =>
    letters.includes(step.order[0]!)

/** What is done once both sides are proved. */
const isLast = (step: AnyStep): boolean =>
  step === acProved || step === reconnect || step === operating || step === gridWatch
const isFirst = starts('A')
/** Earth, the AC side and what hangs on it, which a school takes before the DC side. */
const isAc = starts('CDEF')
const isDc = (step: AnyStep): boolean => starts('B')(step) && !isLast(step)

const orders: Record<OrderSchool, readonly AnyStep[]> = {
  'pv-first': steps,
  'ac-first': [
    ...steps.filter(isFirst),
    ...steps.filter(isAc),
    ...steps.filter(isDc),
    ...steps.filter(isLast),
    ...steps.filter(starts('G')),
  ],
}

/** Every test in the working order of a regime; neither order switches on before its own circuit was proved. */
export const stepsOf = ({ schools }: Regime): readonly AnyStep[] => orders[schools['work.order']]
