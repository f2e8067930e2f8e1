/**
 * Why an entry cannot be kept. Who made it, which part, visit, entry or picture it speaks of, and whether that is there,
 * is decided here from what the office holds; facts are never refused because of a gate or a seal.
 */
import type { Lookup } from '@/core/evaluation/lookup'
import type { Body, SentEntry } from '@/core/record/entry'
import { instrumentsNamed } from '@/core/record/kitCopies'
import type { Instrument } from '@/core/record/instrument'
import { isNameOf } from '@/core/record/signature'
import { refuseConditions } from '@/core/pv/conditions'
import { stepById } from '@/core/steps'
import { choiceIn } from '@/core/steps/reading'
import { CHECK_BAD } from '@/core/steps/slot'
import { isRead } from '@/core/steps/step'
import type { Figures } from '@/core/verdict/verdict'
import type { Role } from '../db/schema'
import type { HeldJob } from './heldJob'

export type Author = { id: string; name: string; right: Role }

/** What the office holds outside the job's entries, of all that a batch names. */
export type Beside = {
  kit: ReadonlyMap<string, Instrument>
  /** SHA-256 of the pictures of this job. */
  pictures: ReadonlyMap<string, string>
  /** Parts which belong to another job. */
  foreignParts: ReadonlySet<string>
}

export type Refusal = { code: string; figures?: Figures; family?: string }

type Asked = { held: HeldJob; view: Lookup; beside: Beside; author: Author; one: SentEntry }

/** The reason why an entry cannot be kept, null where it can. */
export function refusalOf(asked: Asked): Refusal | null {
  const { author, one, view } = asked
  if (one.jobId !== view.facts.job.id) return { code: 'wrong-job' }
  if (!view.facts.visits.some((visit) => visit.id === one.visitId)) return { code: 'wrong-visit' }
  if (author.right === 'viewer') return { code: 'read-only' }
  return refusedPlace(asked) ?? refusedTool(asked) ?? refusedBody(asked)
}

/** The part and the step that an entry speaks of. */
function refusedPlace({ one, view, beside }: Asked): Refusal | null {
  const { partId, step, body } = one
  if (step !== null && !stepById(step)) return { code: 'no-step', figures: { step } }
  if (body.kind === 'plant-change') {
    if (partId === null) return { code: 'no-part' }
    if (beside.foreignParts.has(partId)) return { code: 'part-of-another-job' }
    // What is not there cannot be taken out.
    return body.after === null && !view.parts.has(partId) ? { code: 'no-part' } : null
  }
  return partId !== null && !view.parts.has(partId) ? { code: 'no-part' } : null
}

function refusedTool({ one, beside }: Asked): Refusal | null {
  return instrumentsNamed(one.body).every((id) => beside.kit.has(id)) ? null : { code: 'no-instrument' }
}

function refusedBody(asked: Asked): Refusal | null {
  const { author, one, beside, view } = asked
  const { body } = one
  switch (body.kind) {
    case 'signature':
      return refusedSignature(author, body)
    case 'question':
      if (author.right !== 'supervisor') return { code: 'ask-right' }
      return one.step !== null && one.partId !== null ? null : { code: 'ask-of-nothing' }
    case 'answer':
      return ownTargetOf(asked, body.question, ['question']) ? null : { code: 'answer-of-nothing' }
    case 'amendment':
      return author.right === 'supervisor' ? null : { code: 'sign-right', figures: { role: 'amendment' } }
    case 'regime-move':
      return { code: 'regime-by-office' }
    case 'conditions':
      return refusedLight(asked, body)
    case 'void':
      return refusedVoid(asked, body.target)
    case 'choice':
      return ownTargetOf(asked, body.target, ['reading']) ? null : { code: 'no-target' }
    case 'class':
      return refusedClass(asked, body)
    case 'remedy':
      if (!ownTargetOf(asked, body.snag, ['reading', 'snag'])) return { code: 'remedy-of-nothing' }
      return body.repeat.every((step) => stepById(step))
        ? null
        : { code: 'no-step', figures: { step: body.repeat.join() } }
    case 'photo':
      return beside.pictures.get(body.attachment) === body.sha256 ? null : { code: 'photo-not-there' }
    case 'reading':
      return refusedReading(view, one, body)
    default:
      return null
  }
}

function refusedSignature(author: Author, body: Body<'signature'>): Refusal | null {
  if (body.role === 'checked' && author.right !== 'supervisor')
    return { code: 'sign-right', figures: { role: body.role } }
  return isNameOf(body.printedName, author.name) ? null : { code: 'sign-name', figures: { name: author.name } }
}

/** The entry that another one speaks of: of this job, and of one of these kinds. */
function targetOf(asked: Asked, id: string, kinds: readonly string[]) {
  const found = entryIn(asked, id)
  return found && kinds.includes(found.body.kind) ? found : null
}

/** The same, about the same test of the same part where it is about one. */
function ownTargetOf(asked: Asked, id: string, kinds: readonly string[]) {
  const { one } = asked
  const found = targetOf(asked, id, kinds)
  return found && (found.partId ?? one.partId) === one.partId && (found.step ?? one.step) === one.step ? found : null
}

/** An entry of the job; those which this batch adds are not held yet. */
function entryIn({ held, view }: Pick<Asked, 'held' | 'view'>, id: string) {
  return held.entryOf(id) ?? view.facts.entries.slice(held.view.facts.entries.length).find((one) => one.id === id)
}

function refusedLight(asked: Asked, body: Body<'conditions'>): Refusal | null {
  const { irradiance, cell } = body.conditions
  const figures = { irradiance: irradiance.read.value, temperature: cell.read.value }
  const reading = targetOf(asked, body.target, ['reading'])
  const part = reading?.partId ? asked.view.parts.get(reading.partId)?.data : undefined
  const code = refuseConditions(body.conditions, part?.kind === 'string' ? part.moduleType.data : null)
  if (code) return { code, figures }
  return reading ? null : { code: 'no-target' }
}

/** A class is of a reading, a snag or what follows from the plant; with a line, of a list in which it is not as it should be. */
function refusedClass(asked: Asked, body: Body<'class'>): Refusal | null {
  const { target, line } = body
  const step = asked.one.step ? stepById(asked.one.step) : null
  if (target === null) {
    const isComputed = step !== null && !isRead(step) && asked.one.partId !== null && line === null
    return isComputed ? null : { code: 'class-of-nothing' }
  }
  const found = ownTargetOf(asked, target, ['reading', 'snag'])
  if (!found) return { code: 'class-of-nothing' }
  if (line === null) return null
  const isBad = found.body.kind === 'reading' && choiceIn(found.body, line) === CHECK_BAD
  return isBad ? null : { code: 'class-of-nothing' }
}

/**
 * A void is by the author of its target, before anybody signed for it, or by a supervisor. A supervisor's may arrive
 * before its target; anybody else's comes after it out of the same queue.
 */
function refusedVoid({ held, view, author }: Asked, target: string): Refusal | null {
  const found = entryIn({ held, view }, target)
  if (found?.body.kind === 'void') return { code: 'void-target' }
  if (author.right === 'supervisor') return null
  if (!found) return { code: 'void-of-nothing' }
  // What was signed is told by the order in which the office kept it: no clock of a device has a say.
  const { entries } = view.facts
  const isSigned = entries.slice(entries.indexOf(found)).some((one) => one.body.kind === 'signature')
  return found.personId === author.id && !isSigned ? null : { code: 'void-own' }
}

/** The same questions as on the bench: the right part, its slots, nothing absurd, nothing missing. */
function refusedReading(view: Lookup, one: SentEntry, body: Body<'reading'>): Refusal | null {
  const step = one.step ? stepById(one.step) : null
  if (!step) return { code: 'no-step', figures: { step: one.step ?? '' } }
  const found = one.partId ? view.parts.get(one.partId) : undefined
  if (!found) return { code: 'no-part' }
  if (found.data.kind !== step.appliesTo) return { code: 'part-of-another-kind', figures: { step: step.id } }
  if (!isRead(step)) return { code: 'computed-step', figures: { step: step.id } }
  const { check, missing } = view.check(step, found, body)
  if (check.state !== 'fine')
    return { code: check.code, figures: check.figures, family: check.state === 'ask' ? 'ask' : 'refused' }
  const [first] = missing
  return first ? { code: 'incomplete', figures: { slot: first.id, tag: found.data.tag } } : null
}
