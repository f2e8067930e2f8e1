/** What every route shares: parse, check the right, call, answer; refusals as problem details (RFC 9457). */
import type { z } from 'zod'
import { OFFICE_TIME, PERSON } from '@/core/record/exchange'
import type { Figures } from '@/core/verdict/verdict'
import { inLanguage } from '@/words/language'
import '@/words/doors'
import { languageOf } from '@/words/languages'
import { say, type WordKey } from '@/words/say'
import { database, isAway, isFull, withoutValues } from './db/client'
import type { Role } from './db/schema'
import { allowedOrigins, env } from './env'
import type { Member } from './people/people'
import { type Asker, whoAsks } from './people/whoAsks'

/** A refusal with its status and its sentence. */
export class Refused extends Error {
  constructor(
    readonly status: number,
    readonly key: WordKey,
    readonly figures: Figures = {},
  ) {
    super(say(key, figures))
  }
}

export function problem(status: number, key: WordKey, figures: Figures = {}): Response {
  const body = { type: `about:blank#${key}`, title: say(key, figures), status }
  return Response.json(body, {
    status,
    headers: { 'content-type': 'application/problem+json', 'cache-control': 'no-store' },
  })
}

type Handler<Context> = (request: Request, context: Context) => Promise<Response>

/** Wraps a route: refusals become their sentence, anything else is logged and answered without its inside. */
export function door<Context>(handler: Handler<Context>): Handler<Context> {
  return async (request, context) => {
    try {
      if (request.method !== 'GET' && request.method !== 'HEAD') checkOrigin(request)
      return stamped(await handler(request, context))
    } catch (error) {
      const language = await languageOf(request.headers.get('accept-language'))
      const answer = (status: number, key: WordKey, figures: Figures = {}): Response =>
        inLanguage(language, () => problem(status, key, figures))
      if (error instanceof Refused) return stamped(answer(error.status, error.key, error.figures))
      // Whoever asked has gone: the device sends again, nobody is left to answer.
      if (request.signal.aborted) return new Response(null, { status: 499 })
      const about = [new Date().toISOString(), request.method, new URL(request.url).pathname] as const
      if (isAway(error)) {
        console.error(...about, 'the database does not answer')
        return stamped(answer(503, 'door.database-away'))
      }
      if (isFull(error)) {
        console.error(...about, 'the disk of the database is full')
        return stamped(answer(507, 'door.database-full'))
      }
      console.error(...about, withoutValues(error))
      return answer(500, 'door.server')
    }
  }
}

function stamped(response: Response): Response {
  if (!response.headers.has('cache-control')) response.headers.set('cache-control', 'no-store')
  response.headers.set(OFFICE_TIME, new Date().toISOString())
  if (env().UPSTAND_URL?.startsWith('https:')) response.headers.set('strict-transport-security', 'max-age=31536000')
  return response
}

/** A browser names the page that sends; instruments, which carry a token, name none. */
function checkOrigin(request: Request): void {
  const origin = request.headers.get('origin')
  if (origin === null) {
    const site = request.headers.get('sec-fetch-site')
    if (site !== null && site !== 'same-origin' && site !== 'none') throw new Refused(403, 'door.wrong-origin')
    return
  }
  if (!allowedOrigins().includes(origin)) throw new Refused(403, 'door.wrong-origin')
}

async function askerIn(request: Request, jobId: string, tools: readonly string[] = []): Promise<Asker> {
  const asker = await whoAsks(database(), request, jobId, tools)
  if (!asker) throw new Refused(401, 'door.sign-in-first')
  const named = request.headers.get(PERSON)
  const { id, name } = asker.member
  if (named !== null && named !== id) throw new Refused(409, 'door.another-person', { name })
  return asker
}

/** The signed-in person. */
export async function signedIn(request: Request): Promise<Member> {
  return (await askerIn(request, '')).member
}

const rank: Record<Role, number> = { viewer: 0, tester: 1, supervisor: 2 }

/** The signed-in person, who must have at least `least` in the job; whoever may not see it learns nothing of it. */
export async function memberIn(request: Request, jobId: string, least: Role): Promise<Member & { right: Role }> {
  return (await memberWithKit(request, jobId, least, [])).member
}

type WithKit = Pick<Asker, 'kit' | 'renewedAt'> & { member: Member & { right: Role } }

/** The same, with the instruments that they name. */
export async function memberWithKit(
  request: Request,
  jobId: string,
  least: Role,
  tools: readonly string[],
): Promise<WithKit> {
  // The database takes letters with accents for those without: what is no id is none before it is asked.
  const { member, right, ...rest } = await askerIn(request, /^[0-9a-f-]{36}$/.test(jobId) ? jobId : '', tools)
  if (!right) throw new Refused(404, 'door.not-found')
  if (rank[right] < rank[least]) throw new Refused(403, least === 'tester' ? 'refused.read-only' : 'door.no-right')
  return { ...rest, member: { ...member, right } }
}

/** The signed-in person, who must be a supervisor of the company. */
export async function supervisor(request: Request): Promise<Member> {
  const member = await signedIn(request)
  if (member.role !== 'supervisor') throw new Refused(403, 'door.no-right')
  return member
}

/** The request's JSON, no longer than the door takes. */
export async function jsonOf(request: Request, limit_kB: number): Promise<unknown> {
  const declared = Number(request.headers.get('content-length') ?? 0)
  if (declared > limit_kB * 1024) throw new Refused(413, 'door.too-large', { limit: limit_kB })
  const text = await textUpTo(request, limit_kB)
  try {
    return JSON.parse(text)
  } catch {
    throw new Refused(400, 'door.bad-json')
  }
}

async function textUpTo(request: Request, limit_kB: number): Promise<string> {
  const bytes = await readUpTo(request, limit_kB * 1024, limit_kB)
  return bytes.toString('utf8')
}

/** The request's bytes, no longer than the door takes. */
export async function bytesOf(request: Request, limit_bytes: number): Promise<Buffer> {
  const limit_kB = Math.floor(limit_bytes / 1024)
  const declared = Number(request.headers.get('content-length') ?? 0)
  if (declared > limit_bytes) throw new Refused(413, 'door.too-large', { limit: limit_kB })
  return readUpTo(request, limit_bytes, limit_kB)
}

async function readUpTo(request: Request, limit_bytes: number, limit_kB: number): Promise<Buffer> {
  const reader = request.body?.getReader()
  if (!reader) return Buffer.alloc(0)
  const chunks: Uint8Array[] = []
  let size = 0
  for (;;) {
    const { done, value } = await reader.read()
    if (done) break
    size += value.byteLength
    if (size > limit_bytes) {
      await reader.cancel()
      throw new Refused(413, 'door.too-large', { limit: limit_kB })
    }
    chunks.push(value)
  }
  return Buffer.concat(chunks)
}

/** Whether every text in a value is made of whole characters: half a pair, as a cut text can end in, is none. */
export function isWhole(value: unknown): boolean {
  if (typeof value === 'string') return value.isWellFormed()
  if (Array.isArray(value)) return value.every(isWhole)
  if (value === null || typeof value !== 'object') return true
  return Object.entries(value).every(([key, inner]) => key.isWellFormed() && isWhole(inner))
}

/** Where and why a shape was not met, for people. */
export function whereAndWhy(error: z.ZodError): { where: string; why: string } {
  const issue = error.issues[0]
  return { where: issue?.path.map(String).join('.') || 'the whole', why: issue?.message ?? 'unknown' }
}

/** The request's JSON in a shape. @throws Refused with what is wrong and where. */
export async function bodyOf<T extends z.ZodType>(request: Request, schema: T, limit_kB = 64): Promise<z.infer<T>> {
  const sent = await jsonOf(request, limit_kB)
  if (!isWhole(sent)) throw new Refused(422, 'refused.text-broken')
  return shapeOf(sent, schema)
}

/** What was sent, in a shape. @throws Refused with what is wrong and where. */
export function shapeOf<T extends z.ZodType>(sent: unknown, schema: T): z.infer<T> {
  const parsed = schema.safeParse(sent)
  if (!parsed.success) throw new Refused(422, 'door.bad-shape', whereAndWhy(parsed.error))
  return parsed.data
}
