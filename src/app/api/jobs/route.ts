import { database } from '@/server/db/client'
import { bodyOf, door, signedIn, supervisor } from '@/server/door'
import { createJob, newJobSchema } from '@/server/jobs/createJob'
import { jobsFor } from '@/server/jobs/jobList'

export const GET = door(async (request) => {
  const member = await signedIn(request)
  return Response.json({ jobs: await jobsFor(database(), member, Date.now()) })
})

export const POST = door(async (request) => {
  const by = await supervisor(request)
  const wanted = await bodyOf(request, newJobSchema)
  await createJob(database(), wanted, new Date(), by.name)
  return Response.json({ id: wanted.id }, { status: 201 })
})
