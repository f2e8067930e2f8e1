import { database } from '@/server/db/client'
import { door, memberIn } from '@/server/door'
import { certificateFile } from '@/server/report/certificateFile'

type Context = { params: Promise<{ id: string }> }

/** The certificate as PDF: an issue by its letter, or a draft. */
export const GET = door<Context>(async (request, { params }) => {
  const { id } = await params
  await memberIn(request, id, 'viewer')
  const issue = new URL(request.url).searchParams.get('issue')
  const file = await certificateFile(database(), id, issue === null ? null : issue.slice(0, 4), Date.now())
  return new Response(new Uint8Array(file.bytes), {
    headers: { 'content-type': 'application/pdf', 'content-disposition': `attachment; filename="${file.name}"` },
  })
})
