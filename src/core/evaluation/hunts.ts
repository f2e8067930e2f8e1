/** Hunts: tests that are asked only while another one of the same part is low. They never hold a record up. */
import { isRead } from '../steps/step'
import type { StepEvaluation } from './types'

/** What is said of a hunt that nobody needs, and of one that may be begun. */
export const NOT_NEEDED = 'not-needed'
export const ON_NEED = 'on-need'
/** What is said of a test of new work in a periodic inspection: it may be taken. */
export const OF_NEW_WORK = 'of-new-work'

const isHunt = ({ step }: StepEvaluation): boolean => isRead(step) && step.onNeedOf !== undefined

/** A hunt is no row of the sheet before there is something to hunt for. */
export const isOnSheet = (one: StepEvaluation): boolean =>
  !isHunt(one) || one.readings.length > 0 || one.finding.code !== NOT_NEEDED

/** A hunt that may be begun: it counts as left out until somebody does. */
export const isOffered = (one: StepEvaluation): boolean =>
  one.verdict === 'left-out' &&
  one.counting === null &&
  (one.finding.code === ON_NEED || one.finding.code === OF_NEW_WORK)

/** A hunt that nobody went on, or a test of new work where there is none: it stands on the sheet, and is no part of the record. */
export const isOnlyOffered = (one: StepEvaluation): boolean =>
  one.readings.length === 0 && (isHunt(one) || (one.leftOut === null && one.finding.code === OF_NEW_WORK))
