/**
 * Certificates that were drawn already, kept in the database so that every process finds them: the same is not drawn
 * twice. Nothing depends on them; they go after a while.
 */
import { createHash } from 'node:crypto'
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import type { Sheet } from '@/core/plant/kinds/descriptor'
import { and, desc, eq, lt } from 'drizzle-orm'
import type { Database, Queries } from '../db/client'
import { entry, printed, seal } from '../db/schema'
import { Refused } from '../door'
import { loadFrame } from '../jobs/facts'
import { canonicalHash } from '../seal/canonical'
import { longWork } from './longWork'
import type { CertificateDone, OnProgress } from './tasks'

const KEPT_days = 30
const DAY_ms = 86_400_000
const HOUR_ms = 3_600_000
/** What the database takes in one piece, with room for the rest of the statement. */
const MOST_BYTES = 24 * 1024 * 1024

const holder = globalThis as { upstandBuild?: string; upstandPrints?: Map<string, Promise<CertificateDone>> }

/** Another version may draw the same otherwise. */
function build(): string {
  holder.upstandBuild ??= readFileSync(join(process.cwd(), '.next', 'BUILD_ID'), 'utf8').trim()
  return holder.upstandBuild
}

/** An issue by its letter or a draft, whole or one sheet of it. */
export type Wanted = { jobId: string; issue: string | null; sheet: Sheet | null }

/** All that a certificate is drawn from, in few words: whoever has the same key has the same certificate. */
async function keyOf(db: Queries, { jobId, issue, sheet }: Wanted, now: number): Promise<string> {
  const about = issue === null ? await draftOf(db, jobId, now) : await issueOf(db, jobId, issue)
  return createHash('sha256')
    .update([build(), jobId, sheet ?? '', ...about].join('\n'))
    .digest('hex')
}

async function issueOf(db: Queries, jobId: string, issue: string): Promise<string[]> {
  // The database takes letters with accents for those without.
  if (!/^[A-Z]{1,4}$/.test(issue)) throw new Refused(404, 'door.no-issue', { issue })
  const [row] = await db
    .select({ hash: seal.hash })
    .from(seal)
    .where(and(eq(seal.jobId, jobId), eq(seal.issue, issue)))
  if (!row) throw new Refused(404, 'door.no-issue', { issue })
  return [issue, row.hash]
}

async function draftOf(db: Queries, jobId: string, now: number): Promise<string[]> {
  const frame = await loadFrame(db, jobId)
  if (!frame) throw new Refused(404, 'door.not-found')
  const [last] = await db
    .select({ id: entry.id, seq: entry.seq })
    .from(entry)
    .where(eq(entry.jobId, jobId))
    .orderBy(desc(entry.seq))
    .limit(1)
  // What is due depends on the day: a draft is drawn anew each hour.
  return ['draft', canonicalHash(frame), last ? `${last.seq} ${last.id}` : '', String(Math.floor(now / HOUR_ms))]
}

/**
 * The certificate of an issue, or a draft of what stands now: as it was drawn before, or drawn in its turn.
 * @throws Refused
 */
export async function certificate(
  db: Database,
  wanted: Wanted,
  now: number,
  onProgress?: OnProgress,
): Promise<CertificateDone> {
  const key = await keyOf(db, wanted, now)
  const [known] = await db
    .select({ name: printed.name, bytes: printed.bytes })
    .from(printed)
    .where(eq(printed.key, key))
  if (known) return { name: known.name, bytes: Buffer.from(known.bytes as Uint8Array) }
  holder.upstandPrints ??= new Map()
  const prints = holder.upstandPrints
  const running = prints.get(key) ?? drawn(db, key, wanted, now, onProgress).finally(() => prints.delete(key))
  prints.set(key, running)
  return running
}

async function drawn(
  db: Database,
  key: string,
  { jobId, issue, sheet }: Wanted,
  now: number,
  onProgress?: OnProgress,
): Promise<CertificateDone> {
  const made = await longWork({ kind: 'certificate', jobId, issue, sheet, now_ms: now }, onProgress)
  if (made.bytes.length <= MOST_BYTES) {
    const row = { key, jobId, name: made.name, madeAt: new Date(now), bytes: made.bytes }
    await db.insert(printed).ignore().values(row)
    await db.delete(printed).where(lt(printed.madeAt, new Date(now - KEPT_days * DAY_ms)))
  }
  return made
}
