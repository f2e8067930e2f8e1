/** What was done in the company besides testing: by whom, when, about whom or what. A supervisor reads it. */
import { desc, lt } from 'drizzle-orm'
import type { Queries } from '../db/client'
import { audit } from '../db/schema'

export const auditActions = [
  'signed-in',
  'first-person',
  'invited',
  'invitation-withdrawn',
  'joined',
  'role-changed',
  'disabled',
  'enabled',
  'reset-given',
  'password-reset',
  'password-changed',
  'job-made',
  'job-due',
  'job-regime',
  'job-put-away',
  'job-taken-back',
  'works-on',
  'no-longer-on',
  'sealed',
  'instrument-kept',
  'instrument-retired',
  'module-type-corrected',
  'module-type-retired',
  'feed-key-given',
  'feed-key-taken',
  'regime-made',
  'added-in-terminal',
  'seal-key-changed',
  'restored',
  'company-changed',
  'source-compared',
] as const
export type AuditAction = (typeof auditActions)[number]

/** Names and numbers as they were then: what is renamed later does not change what was done. */
export type About = { person?: string; job?: string; role?: string; what?: string }
export type AuditLine = { id: number; at: string; by: string | null; action: AuditAction; about: About }

/** @param by the person's name, null in the terminal */
export async function writeAudit(
  db: Queries,
  by: string | null,
  action: AuditAction,
  about: About = {},
): Promise<void> {
  await db.insert(audit).values({ at: new Date(), by, action, about })
}

export const AUDIT_PAGE = 100

/** The latest first. @param before the id of the last line that was read */
export async function auditLines(db: Queries, before: number | null): Promise<AuditLine[]> {
  const rows = await db
    .select()
    .from(audit)
    .where(before === null ? undefined : lt(audit.id, before))
    .orderBy(desc(audit.id))
    .limit(AUDIT_PAGE)
  return rows.map((row) => ({ ...row, at: row.at.toISOString(), action: row.action as AuditAction }))
}
