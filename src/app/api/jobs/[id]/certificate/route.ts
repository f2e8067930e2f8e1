import { z } from 'zod'
import { database } from '@/server/db/client'
import { bodyOf, door, memberIn } from '@/server/door'
import { certificate } from '@/server/longWork/printed'
import { progressStream } from '@/server/longWork/progressStream'

type Context = { params: Promise<{ id: string }> }

/** The certificate as PDF: an issue by its letter, or a draft. */
export const GET = door<Context>(async (request, { params }) => {
  const { id } = await params
  await memberIn(request, id, 'viewer')
  const issue = new URL(request.url).searchParams.get('issue')
  const file = await certificate(database(), id, issue === null ? null : issue.slice(0, 4), Date.now())
  return new Response(new Uint8Array(file.bytes), {
    headers: { 'content-type': 'application/pdf', 'content-disposition': `attachment; filename="${file.name}"` },
  })
})

const schema = z.strictObject({ issue: z.string().max(4).nullable() })

/** Has it drawn and says how far it is, line by line; GET gives it then at once. */
export const POST = door<Context>(async (request, { params }) => {
  const { id } = await params
  await memberIn(request, id, 'viewer')
  const { issue } = await bodyOf(request, schema)
  return progressStream(async (onProgress) => {
    const { name, bytes } = await certificate(database(), id, issue, Date.now(), onProgress)
    return { name, size: bytes.length }
  })
})
