/**
 * Who sends, what they may do and with which instruments, as the database said it last: kept in mind, so that a save need
 * not ask again before it writes. Nothing rests on it. The statement that writes asks whether all of it still holds, and
 * where anything does not, it writes nothing and the save begins anew with what holds now.
 */
import type { Instrument } from '@/core/record/instrument'
import { PERSON } from '@/core/record/exchange'
import type { Role } from '../db/schema'
import { SESSION_RENEWED_AFTER_s } from './auth'
import type { Member } from './people'

export type Standing = {
  token: string
  member: Member & { right: Role }
  kit: ReadonlyMap<string, Instrument>
  /** When the session was renewed last; what is old is left to the sign-in library. */
  renewedAt: Date
}

const MOST_REMEMBERED = 1000
const remembered = new Map<string, Standing>()
const keyOf = (token: string, jobId: string): string => `${jobId} ${token}`

/** Keeps it in mind for the next save; of the instruments known before, those that are not named now are kept too. */
export function remember(jobId: string, standing: Standing): void {
  const key = keyOf(standing.token, jobId)
  const kit = new Map([...(remembered.get(key)?.kit ?? []), ...standing.kit])
  remembered.delete(key)
  remembered.set(key, { ...standing, kit })
  const oldest = remembered.size > MOST_REMEMBERED ? remembered.keys().next().value : undefined
  if (oldest !== undefined) remembered.delete(oldest)
}

/** As it was last; null where it is not known, or not all of what is named. */
export function standingBefore(
  request: Request,
  token: string,
  jobId: string,
  tools: readonly string[],
): Standing | null {
  const standing = remembered.get(keyOf(token, jobId))
  if (!standing || !tools.every((id) => standing.kit.has(id))) return null
  if (Date.now() - standing.renewedAt.getTime() > SESSION_RENEWED_AFTER_s * 1000) return null
  const named = request.headers.get(PERSON)
  return named === null || named === standing.member.id ? standing : null
}

/** A condition as it is sent, with what stands for its question marks: written once, for to compose it takes longer than to ask it. */
export type Condition = { text: string; values: unknown[] }

// Another spelling is another name.
const SIGNED_IN = `EXISTS (SELECT 1 FROM session INNER JOIN person ON person.user_id = session.user_id AND person.active
  AND person.id = ? AND person.role = ? AND BINARY person.name = ? WHERE session.token = ? AND session.expires_at > ?)`
const ASSIGNED = 'EXISTS (SELECT 1 FROM job_person WHERE job_id = ? AND person_id = ?)'
const AS_IN_KIT = 'EXISTS (SELECT 1 FROM instrument WHERE id = ? AND data = ?)'

/** Whether it still holds, every word of it, to be asked in the statement that relies on it. */
export function stillStands({ token, member, kit }: Standing, jobId: string, tools: readonly string[]): Condition {
  const { id, name, role } = member
  const texts = [SIGNED_IN]
  const values: unknown[] = [id, role, name, token, new Date()]
  if (role !== 'supervisor') {
    texts.push(ASSIGNED)
    values.push(jobId, id)
  }
  for (const tool of tools) {
    texts.push(AS_IN_KIT)
    values.push(tool, JSON.stringify(kit.get(tool)))
  }
  return { text: texts.join(' AND '), values }
}
