/** One side of a job as a record by itself: an electrical sheet, or one of the array, each whole. */
import { kindOf } from '../plant/kinds'
import type { Sheet } from '../plant/kinds/descriptor'
import type { Part } from '../plant/part'
import { PlantIndex } from '../plant/plantIndex'
import type { AnyStep } from '../steps/step'
import { remember, wholeBehind } from './run'
import type { Evaluation } from './types'

const SIDES = { pv: 'dc', electrical: 'ac' } as const

/** Whether a part is told on a sheet: the site on each. */
function isOn(part: Part, sheet: Sheet): boolean {
  const { side } = kindOf(part.data.kind)
  return side === 'site' || side === SIDES[sheet]
}

const isOfSheet = ({ sheets }: AnyStep, sheet: Sheet): boolean => sheets?.includes(sheet) ?? true

/**
 * What a sheet tells of a job: parts, tests, snags and photos of its side. Verdicts are those of the whole job: nothing
 * is judged anew, and what a test waits for on the other side it waits for here as well.
 */
export function onSheet(evaluation: Evaluation, sheet: Sheet): Evaluation {
  const parts = new Map([...evaluation.parts].filter(([, part]) => isOn(part, sheet)))
  const plant = new PlantIndex(new Map([...evaluation.plant.parts].filter(([, part]) => isOn(part, sheet))))
  const steps = evaluation.steps.filter(({ step, part }) => isOn(part, sheet) && isOfSheet(step, sheet))
  const keys = new Set(steps.map(({ key }) => key))
  const isTold = ({ step, partId }: { step: string | null; partId: string | null }): boolean =>
    step === null || partId === null || keys.has(`${step}:${partId}`)
  const told: Evaluation = {
    ...evaluation,
    parts,
    plant,
    steps,
    snags: evaluation.snags.filter(isTold),
    photos: evaluation.photos.filter(isTold),
  }
  remember(told, wholeBehind(evaluation))
  return told
}
