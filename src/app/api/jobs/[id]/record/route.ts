import { database } from '@/server/db/client'
import { door, memberIn, Refused } from '@/server/door'
import { sealedBytes } from '@/server/seal/sealJob'

type Context = { params: Promise<{ id: string }> }

/** A sealed record as JSON, the bytes as they were sealed. */
export const GET = door<Context>(async (request, { params }) => {
  const { id } = await params
  await memberIn(request, id, 'viewer')
  const issue = (new URL(request.url).searchParams.get('issue') ?? '').slice(0, 4)
  const bytes = await sealedBytes(database(), id, issue)
  if (bytes === null) throw new Refused(404, 'door.no-issue', { issue })
  return new Response(bytes, {
    headers: {
      'content-type': 'application/json',
      'content-disposition': `attachment; filename="record-${issue}.json"`,
    },
  })
})
