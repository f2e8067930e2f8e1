/** Markers of a JPEG file (ITU-T T.81, table B.1; from memory), the second byte behind 0xFF. */
const START = 0xd8
const END = 0xd9
const SCAN = 0xda
const RESTARTS = { first: 0xd0, last: 0xd7 }
/** The plain head of a file without a small picture in it. */
const PLAIN_HEAD = 0xe0
const HEAD_LENGTH = 16
/** A colour profile, as a browser writes it into what it draws; a longer one could hold anything. */
const PROFILE = 0xe2
const PROFILE_NAME = 'ICC_PROFILE\0'
const MOST_PROFILE = 1024
/** What a picture needs to be drawn: frames, tables, restart intervals, the plain head, how colours are coded. */
const NEEDED = new Set([0xc0, 0xc1, 0xc2, 0xc4, 0xdb, 0xdd, SCAN, PLAIN_HEAD, PROFILE, 0xee])

/**
 * Whether a JPEG holds nothing but its picture: no remark, nothing that a camera or a program wrote beside it, no second
 * picture behind it.
 */
export function isBareJpeg(bytes: Uint8Array): boolean {
  if (bytes[0] !== 0xff || bytes[1] !== START) return false
  let at = 2
  while (at + 3 < bytes.length) {
    if (bytes[at] !== 0xff) return false
    const marker = bytes[at + 1]!
    if (!NEEDED.has(marker)) return false
    const length = bytes[at + 2]! * 256 + bytes[at + 3]!
    if (marker === PLAIN_HEAD && length !== HEAD_LENGTH) return false
    if (marker === PROFILE && !isProfile(bytes, at + 4, length)) return false
    at += 2 + length
    if (marker === SCAN) at = endOfScan(bytes, at)
    if (bytes[at] === 0xff && bytes[at + 1] === END) return at + 2 === bytes.length
  }
  return false
}

function isProfile(bytes: Uint8Array, at: number, length: number): boolean {
  const name = String.fromCharCode(...bytes.subarray(at, at + PROFILE_NAME.length))
  return name === PROFILE_NAME && length <= MOST_PROFILE
}

/** Where the coded data of a scan end: at the next marker that is neither stuffing nor a restart. */
function endOfScan(bytes: Uint8Array, from: number): number {
  for (let at = from; at + 1 < bytes.length; at++) {
    const next = bytes[at + 1]!
    const isCoded = next === 0 || next === 0xff || (next >= RESTARTS.first && next <= RESTARTS.last)
    if (bytes[at] === 0xff && !isCoded) return at
  }
  return bytes.length
}
