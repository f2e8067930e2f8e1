/**
 * What follows from a part before anything is read: how the design check holds it, the volts to set, the greatest a loop
 * may be. Judged by the same steps as ever, with the part as it is being typed.
 */
import type { Part, PartData } from '../plant/part'
import { PlantIndex } from '../plant/plantIndex'
import type { SourceId } from '../regime/sources'
import { stepsOf } from '../steps'
import { designOfString } from '../steps/design/design'
import { type AnyStep, isAskedOf, isRead, NOTHING_READ, type StepContext } from '../steps/step'
import type { Judgement, RuleData } from '../verdict/judgement'
import { type Finding, type Verdict, worstFirst } from '../verdict/verdict'
import type { WorkingLine } from '../verdict/working'
import { contextOf, judgeStep } from './judge'
import { stepKey } from './stepKey'
import type { Evaluation } from './types'

export type Consequence = {
  /** Of which step it is. */
  step: string
  /** Null where nothing can be judged before it is read. */
  verdict: Verdict | null
  finding: Finding | null
  /** The figure and how it comes about. */
  line: WorkingLine | null
  rule: RuleData | null
  source: SourceId | null
}

const MOST = 3

/** @param data the part as it is typed, where it is not kept yet. */
export function consequencesOf(evaluation: Evaluation, part: Part, data: PartData = part.data): Consequence[] {
  const typed: Part = { ...part, data }
  const plant = data === part.data ? evaluation.plant : withPart(evaluation, typed)
  const looked = { evaluation, plant }
  const designed = designConsequences(looked, typed).sort((a, b) => worstFirst(a.verdict!, b.verdict!))
  const told = toldBefore(looked, typed)
  // What is told has its place, unless graver things take it.
  const room = Math.max(designed.filter(isGrave).length, MOST - told.length)
  return [...designed.slice(0, room), ...told].slice(0, Math.max(MOST, room))
}

type Looked = { evaluation: Evaluation; plant: PlantIndex }

const isGrave = ({ verdict }: Consequence): boolean => verdict === 'outside'

const withPart = ({ parts }: Evaluation, part: Part): PlantIndex => new PlantIndex(new Map(parts).set(part.id, part))

function contextFor({ evaluation, plant }: Looked, step: AnyStep, part: Part): StepContext {
  const counted: StepContext['counted'] = (other, partId) =>
    evaluation.byKey.get(stepKey(other, partId))?.counting?.entry.body ?? null
  return contextOf(step, part, plant, evaluation.facts, counted, NOTHING_READ) as StepContext
}

/** The design check: of a string by itself, of another part of the sun's side over all arrays, of a point its own. */
function designConsequences(looked: Looked, part: Part): Consequence[] {
  const { plant, evaluation } = looked
  const computed = computedSteps(looked, 'array')
  const [first] = computed
  if (part.data.kind === 'string') {
    const array = plant.arrayOf(part)
    if (!array || !first) return []
    const context = contextFor(looked, first, array) as StepContext<'array'>
    return designOfString(context, part.id).flatMap(({ step, judgement }) => judgedOnly(step, judgement))
  }
  if (part.data.kind === 'array') return judgedOf(looked, part, computed)
  if (onSunSide.has(part.data.kind)) {
    const all = plant.ofKind('array').flatMap((array) => judgedOf(looked, array, computed))
    const asked = askedOf[part.data.kind] ?? []
    return gravestOfEach(all.filter(({ step }) => asked.includes(step)))
  }
  return judgedOf(looked, part, computedSteps(looked, part.data.kind)).filter(
    ({ step }) => evaluation.byKey.has(stepKey(step, part.id)) || part.data.kind === 'charge-point',
  )
}

const onSunSide: ReadonlySet<string> = new Set(['inverter', 'dc-switch', 'surge-protection', 'site'])
/** Which of the design check rests on which device. */
const askedOf: Partial<Record<PartData['kind'], readonly string[]>> = {
  inverter: ['design-voltage', 'design-tracker', 'design-current'],
  'dc-switch': ['design-voltage', 'design-current'],
  'surge-protection': ['design-voltage'],
  site: ['design-voltage', 'design-tracker'],
}

const stepsFor = ({ evaluation }: Looked, kind: PartData['kind']): readonly AnyStep[] =>
  stepsOf(evaluation.facts.regime).filter((step) => step.appliesTo === kind)
const computedSteps = (looked: Looked, kind: PartData['kind']): readonly AnyStep[] =>
  stepsFor(looked, kind).filter((step) => !isRead(step))

const judgedOf = (looked: Looked, part: Part, steps: readonly AnyStep[]): Consequence[] =>
  steps.flatMap((step) => judgedOnly(step.id, judgeStep(step, contextFor(looked, step, part))))

/** What was held against something; what had nothing to be held against says nothing here. */
function judgedOnly(step: string, judgement: Judgement): Consequence[] {
  const { verdict, finding, rule, lines } = judgement
  const deciding = lines.find((line) => line.decides) ?? null
  const sum = lines.find((line) => line.result !== null && line.verdict === undefined) ?? null
  if (verdict === 'not-yet' && !sum) return []
  return [{ step, verdict, finding, line: sum ?? deciding, rule, source: deciding?.source ?? sum?.source ?? null }]
}

function gravestOfEach(all: readonly Consequence[]): Consequence[] {
  const gravest = new Map<string, Consequence>()
  for (const one of all) {
    const known = gravest.get(one.step)
    if (!known || worstFirst(one.verdict!, known.verdict!) < 0) gravest.set(one.step, one)
  }
  return [...gravest.values()]
}

/** What the steps of the part say before anything is read: the last figure of their sums. */
function toldBefore(looked: Looked, part: Part): Consequence[] {
  const { plant, evaluation } = looked
  return stepsFor(looked, part.data.kind)
    .filter((step) => isRead(step) && isAskedOf(step, part, plant, evaluation.facts.regime))
    .flatMap((step) => {
      const { lines } = judgeStep(step, contextFor(looked, step, part))
      const line = lines.findLast((one) => one.result !== null && one.verdict === undefined)
      return line ? [{ step: step.id, verdict: null, finding: null, line, rule: null, source: line.source }] : []
    })
}
