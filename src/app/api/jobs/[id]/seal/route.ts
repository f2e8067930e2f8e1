import { door, memberIn } from '@/server/door'
import { longWork } from '@/server/longWork/longWork'
import { progressStream, wantsProgress } from '@/server/longWork/progressStream'
import type { OnProgress } from '@/server/longWork/tasks'

type Context = { params: Promise<{ id: string }> }

/** Seals what stands now as the job's next issue; whoever wants to know is told how far it is, line by line. */
export const POST = door<Context>(async (request, { params }) => {
  const { id } = await params
  const { id: personId, name } = await memberIn(request, id, 'supervisor')
  const seal = (onProgress?: OnProgress) =>
    longWork({ kind: 'seal', jobId: id, by: { id: personId, name } }, onProgress)
  return wantsProgress(request) ? progressStream(seal) : Response.json(await seal(), { status: 201 })
})
