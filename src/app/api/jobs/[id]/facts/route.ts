import { database } from '@/server/db/client'
import { door, memberIn, Refused } from '@/server/door'
import { loadFacts } from '@/server/jobs/facts'

type Context = { params: Promise<{ id: string }> }
/** Entries of one batch share a moment: a little overlap loses none of them. */
const OVERLAP_ms = 60_000

/** The facts bundle of a job; with `since`, only entries received after it. */
export const GET = door<Context>(async (request, { params }) => {
  const { id } = await params
  const { right } = await memberIn(request, id, 'viewer')
  const since = Date.parse(new URL(request.url).searchParams.get('since') ?? '')
  const after = Number.isFinite(since) ? new Date(since - OVERLAP_ms) : undefined
  const facts = await loadFacts(database(), id, after)
  if (!facts) throw new Refused(404, 'door.not-found')
  return Response.json({ facts, right, partial: after !== undefined, serverTime: new Date().toISOString() })
})
