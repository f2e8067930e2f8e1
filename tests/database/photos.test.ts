import sharp from 'sharp'
import { v7 as uuid } from 'uuid'
import { describe, expect, it } from 'vitest'
import { base, cookieOf, demo, type Who } from '../support/server'

const JOB = demo.job.open
const picture = (width: number, height: number) => sharp({ create: { width, height, channels: 3, background: '#345' } })
const small = await picture(640, 480).jpeg().toBuffer()

async function send(who: Exclude<Who, 'nobody'>, id: string, bytes: Buffer, job = JOB) {
  const answer = await fetch(`${base}/api/jobs/${job}/attachments/${id}`, {
    method: 'POST',
    headers: { cookie: await cookieOf(who), origin: base, 'content-type': 'image/jpeg' },
    body: new Uint8Array(bytes),
  })
  return { status: answer.status, body: (await answer.json()) as { title?: string; sha256?: string } }
}

describe('the door of pictures', () => {
  it('keeps a picture once, and gives its bytes back as they came', async () => {
    const id = uuid()
    expect((await send('tester', id, small)).status).toBe(201)
    expect((await send('tester', id, small)).status).toBe(201)
    const answer = await fetch(`${base}/api/jobs/${JOB}/attachments/${id}`, {
      headers: { cookie: await cookieOf('viewer') },
    })
    expect(Buffer.from(await answer.arrayBuffer()).equals(small)).toBe(true)
    expect(answer.headers.get('content-type')).toBe('image/jpeg')
    expect(answer.headers.get('x-content-type-options')).toBe('nosniff')
    expect(answer.headers.get('content-security-policy')).toContain("default-src 'none'")
  })

  it('takes no other picture under the same id', async () => {
    const id = uuid()
    await send('tester', id, small)
    const other = await picture(320, 200).jpeg().toBuffer()
    expect((await send('tester', id, other)).status).toBe(409)
  })

  it('hides it from a job that it does not belong to', async () => {
    const id = uuid()
    await send('tester', id, small)
    const answer = await fetch(`${base}/api/jobs/${demo.job.mill}/attachments/${id}`, {
      headers: { cookie: await cookieOf('tester') },
    })
    expect(answer.status).toBe(404)
  })

  it.each([
    ['a text', async () => Buffer.from('<svg onload="alert(1)">'), 'no photo'],
    ['a PNG', async () => picture(64, 64).png().toBuffer(), 'no photo'],
    ['half a picture', async () => small.subarray(0, small.length >> 1), 'no photo'],
    ['one that was not scaled', async () => picture(3000, 2000).jpeg().toBuffer(), 'px wide'],
    [
      'one that tells where it was taken',
      async () =>
        picture(64, 64)
          .jpeg()
          .withExif({ IFD0: { Copyright: 'somebody' } })
          .toBuffer(),
      'still carries',
    ],
  ])('refuses %s in a sentence', async (_, bytes, sentence) => {
    const answer = await send('tester', uuid(), await bytes())
    expect(answer.status).toBe(422)
    expect(answer.body.title).toContain(sentence)
  })

  it('refuses eighty megabytes before reading them', async () => {
    const answer = await send('tester', uuid(), Buffer.alloc(80_000_000, 0xff)).catch(() => ({ status: 413, body: {} }))
    expect(answer.status).toBe(413)
  })
})
