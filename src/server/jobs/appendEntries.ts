/**
 * Takes a batch from a device's queue. Each entry has its own fate in the answer: a bad one is named and the others are
 * kept. Facts are never refused because of a gate or a seal.
 */
import { eq } from 'drizzle-orm'
import { checkBody, type Evaluation, evaluateNext } from '@/core/evaluate'
import { plantFrom } from '@/core/plant/projection'
import { type Entry, type SentEntry, sentEntrySchema } from '@/core/record/entry'
import { refuseConditions } from '@/core/pv/conditions'
import type { Facts } from '@/core/record/facts'
import { inOrder } from '@/core/record/order'
import { stepById } from '@/core/steps'
import { isRead } from '@/core/steps/step'
import type { Figures } from '@/core/verdict/verdict'
import '@/words/ac'
import { sayCode } from '@/words/say'
import { DUPLICATE_KEY, type Database, errnoOf, type Queries, retried } from '../db/client'
import { entry, part, type Role } from '../db/schema'
import { whereAndWhy } from '../door'
import { canonicalHash } from '../seal/canonical'
import { loadFacts } from './facts'

export const MOST_IN_A_BATCH = 200

export type Fate =
  | { id: string; fate: 'kept'; receivedAt: string }
  | { id: string; fate: 'already' }
  | { id: string; fate: 'conflict'; reason: string }
  | { id: string; fate: 'refused'; code: string; reason: string }

type Author = { id: string; right: Role }

const refused = (id: string, code: string, figures: Figures = {}, family = 'refused'): Fate => ({
  id,
  fate: 'refused',
  code,
  reason: sayCode(family, code, figures),
})

export async function appendEntries(
  db: Database,
  jobId: string,
  author: Author,
  batch: readonly unknown[],
): Promise<Fate[]> {
  return retried(() => db.transaction((tx) => appendIn(tx, jobId, author, batch)))
}

async function appendIn(tx: Queries, jobId: string, author: Author, batch: readonly unknown[]): Promise<Fate[]> {
  const facts = await loadFacts(tx, jobId)
  if (!facts) return batch.map((one) => refused(idOf(one), 'wrong-job'))
  const held = new Held(facts)
  const fates: Fate[] = []
  for (const sent of batch) fates.push(await appendOne(tx, held, author, sent))
  return fates
}

/** The job while a batch is taken: evaluated when a reading asks for it, and then only what the batch adds. */
class Held {
  private evaluation: Evaluation | null = null

  constructor(public facts: Facts) {}

  evaluated(): Evaluation {
    this.evaluation = evaluateNext(this.evaluation, this.facts, Date.now())
    return this.evaluation
  }

  add(entry: Entry): void {
    this.facts = { ...this.facts, entries: [...this.facts.entries, entry] }
  }
}

function idOf(sent: unknown): string {
  const id = (sent as { id?: unknown } | null)?.id
  return typeof id === 'string' ? id.slice(0, 64) : ''
}

async function appendOne(tx: Queries, held: Held, author: Author, sent: unknown): Promise<Fate> {
  const id = idOf(sent)
  const parsed = sentEntrySchema.safeParse(sent)
  if (!parsed.success) return refused(id, 'shape', whereAndWhy(parsed.error))
  const one = parsed.data
  const bodyHash = canonicalHash({ ...one, clockOffset_ms: 0 })
  const before = await fateOfKnown(tx, one, bodyHash)
  if (before) return before
  const no = refusalOf(held, author, one)
  if (no) return no

  const receivedAt = new Date()
  try {
    await tx.insert(entry).values({
      id: one.id,
      jobId: one.jobId,
      visitId: one.visitId,
      partId: one.partId,
      step: one.step,
      kind: one.body.kind,
      personId: author.id,
      deviceTime: new Date(one.deviceTime),
      clockOffset_ms: one.clockOffset_ms,
      receivedAt,
      body: one.body,
      bodyHash,
    })
  } catch (error) {
    if (errnoOf(error) !== DUPLICATE_KEY) throw error
    return (await fateOfKnown(tx, one, bodyHash)) ?? conflict(one.id)
  }
  const kept: Entry = { ...one, personId: author.id, receivedAt: receivedAt.toISOString() }
  held.add(kept)
  if (kept.body.kind === 'plant-change' && kept.partId) await projectPart(tx, held.facts, kept.partId)
  return { id: one.id, fate: 'kept', receivedAt: receivedAt.toISOString() }
}

const conflict = (id: string): Fate => ({ id, fate: 'conflict', reason: sayCode('refused', 'conflict') })

/** Same id and body again: already; same id, other body: conflict. */
async function fateOfKnown(tx: Queries, one: SentEntry, bodyHash: string): Promise<Fate | null> {
  const [known] = await tx.select({ bodyHash: entry.bodyHash }).from(entry).where(eq(entry.id, one.id))
  if (!known) return null
  return known.bodyHash === bodyHash ? { id: one.id, fate: 'already' } : conflict(one.id)
}

function refusalOf(held: Held, author: Author, one: SentEntry): Fate | null {
  const { facts } = held
  if (one.jobId !== facts.job.id) return refused(one.id, 'wrong-job')
  if (!facts.visits.some((visit) => visit.id === one.visitId)) return refused(one.id, 'wrong-visit')
  if (author.right === 'viewer') return refused(one.id, 'read-only')
  switch (one.body.kind) {
    case 'signature':
      if (one.body.role === 'checked' && author.right !== 'supervisor')
        return refused(one.id, 'sign-right', { role: one.body.role })
      return null
    case 'amendment':
      return author.right === 'supervisor' ? null : refused(one.id, 'sign-right', { role: 'amendment' })
    case 'conditions': {
      const code = refuseConditions(one.body.conditions)
      if (!code) return null
      const { irradiance, cell } = one.body.conditions
      return refused(one.id, code, { irradiance: irradiance.read.value, temperature: cell.read.value })
    }
    case 'void':
      return refusedVoid(facts, author, one.id, one.body.target)
    case 'reading':
      return refusedReading(held, one)
    default:
      return null
  }
}

/** A void is by the author before signing or by a supervisor; it may arrive before its target. */
function refusedVoid(facts: Facts, author: Author, id: string, target: string): Fate | null {
  const found = facts.entries.find((entry) => entry.id === target)
  if (found?.body.kind === 'void') return refused(id, 'void-target')
  if (author.right === 'supervisor' || !found) return null
  const signed = facts.entries.some((entry) => entry.body.kind === 'signature' && entry.deviceTime > found.deviceTime)
  return found.personId === author.id && !signed ? null : refused(id, 'void-own')
}

/** The same questions as on the bench: the right part, its slots, nothing absurd, nothing missing. */
function refusedReading(held: Held, one: SentEntry): Fate | null {
  if (one.body.kind !== 'reading') return null
  const step = one.step ? stepById(one.step) : null
  if (!step) return refused(one.id, 'no-step', { step: one.step ?? '' })
  const evaluation = held.evaluated()
  const found = one.partId ? evaluation.parts.get(one.partId) : undefined
  if (!found) return refused(one.id, 'no-part')
  if (found.data.kind !== step.appliesTo) return refused(one.id, 'part-of-another-kind', { step: step.id })
  if (!isRead(step)) return refused(one.id, 'computed-step', { step: step.id })
  const { check, missing } = checkBody(evaluation, { step, part: found }, one.body)
  if (check.state !== 'fine')
    return refused(one.id, check.code, check.figures, check.state === 'ask' ? 'ask' : 'refused')
  const [first] = missing
  return first ? refused(one.id, 'incomplete', { slot: first.id, tag: found.data.tag }) : null
}

async function projectPart(tx: Queries, facts: Facts, partId: string): Promise<void> {
  const now = plantFrom(inOrder(facts.entries)).get(partId)
  if (!now) return
  const { data, revision, retired } = now
  await tx
    .insert(part)
    .values({ id: partId, jobId: facts.job.id, data, revision, retired })
    .onDuplicateKeyUpdate({ set: { data, revision, retired } })
}
