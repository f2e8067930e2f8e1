import { createHash } from 'node:crypto'
import sharp from 'sharp'
import { v7 as uuid } from 'uuid'
import { expect } from 'vitest'
import { coverHash } from '@/core/record/signature'
import { base, cookieOf, knock } from './server'
import { TestJob } from './testJob'

/** A test's own job with a picture and sealed issues. */
export class SealedJob extends TestJob {
  async picture(): Promise<string> {
    const bytes = await sharp({ create: { width: 40, height: 30, channels: 3, background: 'grey' } })
      .jpeg()
      .toBuffer()
    const id = uuid()
    const sent = await fetch(`${base}/api/jobs/${this.id}/attachments/${id}`, {
      method: 'POST',
      headers: { cookie: await cookieOf('tester'), origin: base, 'content-type': 'image/jpeg' },
      body: new Uint8Array(bytes),
    })
    expect(sent.ok).toBe(true)
    const sha256 = createHash('sha256').update(bytes).digest('hex')
    await this.fatesOf([
      this.entry({ kind: 'photo', v: 1, attachment: id, sha256, takenAt: null, caption: 'the roof' }),
    ])
    return id
  }

  /** Signs as tested and as checked, and seals. */
  async seal(): Promise<void> {
    for (const [role, who, printedName] of [
      ['tested', 'tester', 'Tam Brackley'],
      ['checked', 'supervisor', 'Isolde Marrow'],
    ] as const) {
      const coversHash = coverHash(await this.entries())
      const signature = this.entry({ kind: 'signature', v: 1, role, printedName, statement: 'so it is', coversHash })
      expect(await this.fatesOf([signature], who)).toEqual(['kept'])
    }
    expect((await knock('supervisor', `/api/jobs/${this.id}/seal`, {})).status).toBe(201)
  }

  async sealedIssue(issue: string) {
    return (await knock<Record<string, unknown>>('tester', `/api/jobs/${this.id}/record?issue=${issue}`)).body
  }
}
