import { database } from '@/server/db/client'
import { door, memberIn } from '@/server/door'
import { sealJob } from '@/server/seal/sealJob'

type Context = { params: Promise<{ id: string }> }

/** Seals what stands now as the job's next issue. */
export const POST = door<Context>(async (request, { params }) => {
  const { id } = await params
  const member = await memberIn(request, id, 'supervisor')
  const { seal } = await sealJob(database(), id, member, new Date())
  return Response.json({ issue: seal.issue, hash: seal.hash, sealedAt: seal.sealedAt }, { status: 201 })
})
