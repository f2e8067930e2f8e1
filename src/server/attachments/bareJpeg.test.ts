import sharp from 'sharp'
import { describe, expect, it } from 'vitest'
import { isBareJpeg } from './bareJpeg'

const picture = (options: object = {}): Promise<Buffer> =>
  sharp({
    create: {
      width: 64,
      height: 48,
      channels: 3,
      background: 'grey',
      noise: { type: 'gaussian', mean: 128, sigma: 40 },
    },
  })
    .jpeg(options)
    .toBuffer()

/** A segment put in behind the start of a file. */
function withSegment(bytes: Buffer, marker: number, text: string): Buffer {
  const length = text.length + 2
  const head = Buffer.from([0xff, marker, length >> 8, length & 0xff])
  return Buffer.concat([bytes.subarray(0, 2), head, Buffer.from(text), bytes.subarray(2)])
}

describe('a picture that holds nothing else', () => {
  it.each([{}, { progressive: true }, { restartInterval: 2 }, { quality: 10 }, { mozjpeg: true }])(
    'is bare: %o',
    async (options) => {
      expect(isBareJpeg(await picture(options))).toBe(true)
    },
  )

  it.each([
    ['a remark', 0xfe],
    ['what a camera writes', 0xe1],
    ['a colour profile', 0xe2],
    ['a program’s own', 0xe4],
    ['a print setting', 0xed],
  ])('is not, with %s in it', async (_, marker) => {
    expect(isBareJpeg(withSegment(await picture(), marker, 'where I live'))).toBe(false)
  })

  it('may have the colour profile of a browser’s own drawing, and no longer one', async () => {
    const profile = (length: number) => `ICC_PROFILE\0${'p'.repeat(length)}`
    expect(isBareJpeg(withSegment(await picture(), 0xe2, profile(458)))).toBe(true)
    expect(isBareJpeg(withSegment(await picture(), 0xe2, profile(2000)))).toBe(false)
  })

  it('is not, with another one behind it, cut short, or of other bytes', async () => {
    const bytes = await picture()
    expect(isBareJpeg(Buffer.concat([bytes, bytes]))).toBe(false)
    expect(isBareJpeg(Buffer.concat([bytes, Buffer.from('x')]))).toBe(false)
    for (const length of [0, 1, 2, 3, 20, bytes.length - 1]) expect(isBareJpeg(bytes.subarray(0, length))).toBe(false)
    expect(isBareJpeg(Buffer.from('GIF89a'))).toBe(false)
  })
})
