/** A picture as a camera gives it, made small and clean on the device before it is kept or sent. */
import { sha256 } from '@noble/hashes/sha2.js'
import { bytesToHex } from '@noble/hashes/utils.js'
import exifr from 'exifr'

/** What a camera file may have, what is kept of it, and how small it becomes. */
export const MOST_FILE_BYTES = 60_000_000
const MOST_EDGE_px = 1600
const MOST_KEPT_BYTES = 1_200_000
const QUALITIES = [0.82, 0.65, 0.45]

export type SmallPhoto = { blob: Blob; sha256: string; takenAt: string | null }
export type PhotoRefusal = { code: 'photo.file-too-large' | 'photo.none' }

/** Scales, draws upright and writes anew: nothing that the camera wrote into the file survives but the time. */
export async function shrinkPhoto(file: File): Promise<SmallPhoto | PhotoRefusal> {
  if (file.size > MOST_FILE_BYTES) return { code: 'photo.file-too-large' }
  const bitmap = await createImageBitmap(file, { imageOrientation: 'from-image' }).catch(() => null)
  if (!bitmap || bitmap.width === 0) return { code: 'photo.none' }
  const takenAt = await timeOf(file)
  const scale = Math.min(1, MOST_EDGE_px / Math.max(bitmap.width, bitmap.height))
  const canvas = new OffscreenCanvas(Math.round(bitmap.width * scale), Math.round(bitmap.height * scale))
  const pen = canvas.getContext('2d')
  if (!pen) return { code: 'photo.none' }
  pen.drawImage(bitmap, 0, 0, canvas.width, canvas.height)
  bitmap.close()
  for (const quality of QUALITIES) {
    const blob = await canvas.convertToBlob({ type: 'image/jpeg', quality })
    if (blob.size > MOST_KEPT_BYTES && quality !== QUALITIES.at(-1)) continue
    return { blob, sha256: bytesToHex(sha256(new Uint8Array(await blob.arrayBuffer()))), takenAt }
  }
  return { code: 'photo.none' }
}

/** When it was taken, as the camera wrote it; a file without that has the time at which it was saved. */
async function timeOf(file: File): Promise<string | null> {
  const tags = await exifr.parse(file, ['DateTimeOriginal']).catch(() => null)
  const at: unknown = tags?.DateTimeOriginal
  const time = at instanceof Date ? at.getTime() : file.lastModified
  return Number.isFinite(time) && time > 0 ? new Date(time).toISOString() : null
}
