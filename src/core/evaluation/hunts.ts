/** Hunts: tests that are asked only while another one of the same part is low. They never hold a record up. */
import { isRead } from '../steps/step'
import type { StepEvaluation } from './types'

/** What is said of a hunt that nobody needs, and of one that may be begun. */
export const NOT_NEEDED = 'not-needed'
export const ON_NEED = 'on-need'

const isHunt = ({ step }: StepEvaluation): boolean => isRead(step) && step.onNeedOf !== undefined

/** A hunt is no row of the sheet before there is something to hunt for. */
export const isOnSheet = (one: StepEvaluation): boolean =>
  !isHunt(one) || one.readings.length > 0 || one.finding.code !== NOT_NEEDED

/** A hunt that may be begun: it counts as left out until somebody does. */
export const isOffered = (one: StepEvaluation): boolean =>
  one.verdict === 'left-out' && one.counting === null && one.finding.code === ON_NEED

/** A hunt that nobody went on: it stands on the sheet, and is no part of the record. */
export const isOnlyOffered = (one: StepEvaluation): boolean => isHunt(one) && one.readings.length === 0
