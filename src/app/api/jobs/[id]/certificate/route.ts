import { z } from 'zod'
import { database } from '@/server/db/client'
import { bodyOf, door, memberIn } from '@/server/door'
import { certificate } from '@/server/longWork/printed'
import { progressStream } from '@/server/longWork/progressStream'

const sheetSchema = z.enum(['pv', 'electrical'])

type Context = { params: Promise<{ id: string }> }

/** The certificate as PDF: an issue by its letter, or a draft; whole, or the sheet of one side. */
export const GET = door<Context>(async (request, { params }) => {
  const { id } = await params
  await memberIn(request, id, 'viewer')
  const asked = new URL(request.url).searchParams
  const issue = asked.get('issue')?.slice(0, 4) ?? null
  // A sheet that nobody knows is none: the whole is what is meant.
  const sheet = sheetSchema.safeParse(asked.get('sheet')).data ?? null
  const file = await certificate(database(), { jobId: id, issue, sheet }, Date.now())
  return new Response(new Uint8Array(file.bytes), {
    headers: { 'content-type': 'application/pdf', 'content-disposition': `attachment; filename="${file.name}"` },
  })
})

const schema = z.strictObject({ issue: z.string().max(4).nullable(), sheet: sheetSchema.nullable().default(null) })

/** Has it drawn and says how far it is, line by line; GET gives it then at once. */
export const POST = door<Context>(async (request, { params }) => {
  const { id } = await params
  await memberIn(request, id, 'viewer')
  const { issue, sheet } = await bodyOf(request, schema)
  return progressStream(async (onProgress) => {
    const { name, bytes } = await certificate(database(), { jobId: id, issue, sheet }, Date.now(), onProgress)
    return { name, size: bytes.length }
  })
})
