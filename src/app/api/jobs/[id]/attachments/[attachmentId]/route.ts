import { idSchema } from '@/core/plant/part'
import { keepPicture, MOST_BYTES, pictureOf } from '@/server/attachments/attachments'
import { database } from '@/server/db/client'
import { bytesOf, door, memberIn, Refused } from '@/server/door'

type Context = { params: Promise<{ id: string; attachmentId: string }> }

/** A picture of a job. It never changes, so whoever has it need not ask again. */
export const GET = door<Context>(async (request, { params }) => {
  const { id, attachmentId } = await params
  await memberIn(request, id, 'viewer')
  const bytes = idSchema.safeParse(attachmentId).success ? await pictureOf(id, attachmentId) : null
  if (!bytes) throw new Refused(404, 'door.not-found')
  return new Response(new Uint8Array(bytes), {
    headers: {
      'content-type': 'image/jpeg',
      'x-content-type-options': 'nosniff',
      'cache-control': 'private, max-age=31536000, immutable',
    },
  })
})

/** Takes a picture in that a device has scaled and stripped, under the id the device gave it. */
export const POST = door<Context>(async (request, { params }) => {
  const { id, attachmentId } = await params
  await memberIn(request, id, 'tester')
  if (!idSchema.safeParse(attachmentId).success) throw new Refused(404, 'door.not-found')
  const bytes = await bytesOf(request, MOST_BYTES)
  return Response.json({ sha256: await keepPicture(database(), id, attachmentId, bytes) }, { status: 201 })
})
