/** Lines of a list that the tool can answer by itself, or say what it knows of: instruments in date, ranges enough. */
import type { Slot } from '../steps/slot'
import type { Finding } from '../verdict/verdict'
import type { Evaluation } from './types'

/** What is known of a line: as it should be, or what speaks against it; then somebody answers who looks. */
export type Known = { sound: boolean; finding: Finding }

export function knownOf(evaluation: Evaluation, slot: Slot): Known | null {
  return slot.kind === 'check' && slot.knows === 'kit' ? kitKnown(evaluation) : null
}

/** The kit of the job against its calibration dates, and against what the tests of this plant ask of it. */
function kitKnown({ facts, outOfDate, steps }: Evaluation): Known | null {
  const { instruments } = facts
  if (instruments.length === 0) return null
  const tagsOf = (list: typeof instruments): string => list.map(({ tag }) => tag).join(', ')
  const out = instruments.filter(({ id }) => outOfDate.includes(id))
  if (out.length > 0) return { sound: false, finding: { code: 'known.kit-out', figures: { tags: tagsOf(out) } } }
  const undated = instruments.filter(({ calibrationDue }) => calibrationDue === null)
  if (undated.length > 0)
    return { sound: false, finding: { code: 'known.kit-undated', figures: { tags: tagsOf(undated) } } }
  // Of every part: one string may be longer than the others.
  for (const { gates } of steps) {
    const weak = gates.find(({ id, met }) => !met && KIT_GATES.has(id))
    if (weak) return { sound: false, finding: weak.finding }
  }
  const until = instruments.map(({ calibrationDue }) => calibrationDue!).sort()[0]!
  return { sound: true, finding: { code: 'known.kit-fine', figures: { count: instruments.length, until } } }
}

/** Gates that the kit itself shuts. */
const KIT_GATES: ReadonlySet<string> = new Set(['kit-lacks', 'tester-unknown', 'tester-rating'])
