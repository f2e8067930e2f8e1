/** Pictures of a job: small JPEGs that a device has scaled and stripped. Their bytes never change. */
import { createHash } from 'node:crypto'
import { and, eq, inArray } from 'drizzle-orm'
import sharp from 'sharp'
import { database, DUPLICATE_KEY, type Database, errnoOf } from '../db/client'
import { attachment } from '../db/schema'
import { Refused } from '../door'
import { isBareJpeg } from './bareJpeg'

/** What a device scales to; the door takes nothing larger. */
export const MOST_BYTES = 1_500_000
export const MOST_EDGE_px = 2000
const JPEG = 'image/jpeg'

/**
 * Keeps a picture under the id its device gave it. The same again is the same; another under that id is refused.
 *
 * @throws Refused where it is no JPEG, too large, or still carries what a camera writes into it.
 */
export async function keepPicture(db: Database, jobId: string, id: string, bytes: Buffer): Promise<string> {
  await checkPicture(bytes)
  const sha256 = createHash('sha256').update(bytes).digest('hex')
  try {
    await db.insert(attachment).values({ id, jobId, sha256, mediaType: JPEG, bytes })
  } catch (error) {
    if (errnoOf(error) !== DUPLICATE_KEY) throw error
    const [known] = await db
      .select({ sha256: attachment.sha256, jobId: attachment.jobId })
      .from(attachment)
      .where(eq(attachment.id, id))
    if (known?.jobId !== jobId || known.sha256 !== sha256) throw new Refused(409, 'refused.conflict')
  }
  return sha256
}

async function checkPicture(bytes: Buffer): Promise<void> {
  if (bytes.length > MOST_BYTES) throw new Refused(413, 'photo.too-large', { most: MOST_BYTES / 1e6 })
  // Only the decoder that matches is let near the bytes.
  if (bytes[0] !== 0xff || bytes[1] !== 0xd8) throw new Refused(422, 'photo.none')
  const found = await sharp(bytes, { limitInputPixels: false })
    .metadata()
    .catch(() => null)
  if (found?.format !== 'jpeg') throw new Refused(422, 'photo.none')
  if (Math.max(found.width, found.height) > MOST_EDGE_px)
    throw new Refused(422, 'photo.not-scaled', { most: MOST_EDGE_px })
  // Drawn once, so that what is kept can be drawn later: its size is known to be small by now.
  const whole = sharp(bytes, { limitInputPixels: MOST_EDGE_px * MOST_EDGE_px, failOn: 'error' })
  await whole.stats().catch(() => {
    throw new Refused(422, 'photo.none')
  })
  if (!isBareJpeg(bytes)) throw new Refused(422, 'photo.not-stripped')
}

/** The bytes of one picture of a job, null where there is none. */
export async function pictureOf(jobId: string, id: string): Promise<Buffer | null> {
  const [found] = await database()
    .select({ bytes: attachment.bytes })
    .from(attachment)
    .where(and(eq(attachment.id, id), eq(attachment.jobId, jobId)))
  return found ? Buffer.from(found.bytes as Uint8Array) : null
}

/** Pictures by id, for the print; those that have not arrived yet are not among them. */
export async function picturesOf(
  db: Pick<Database, 'select'>,
  jobId: string,
  ids: readonly string[],
): Promise<Map<string, Buffer>> {
  if (ids.length === 0) return new Map()
  const rows = await db
    .select({ id: attachment.id, bytes: attachment.bytes })
    .from(attachment)
    .where(and(eq(attachment.jobId, jobId), inArray(attachment.id, [...ids])))
  return new Map(rows.map((row) => [row.id, Buffer.from(row.bytes as Uint8Array)]))
}
