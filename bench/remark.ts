/** What the drills save: a remark as a device sends it, and what the office's answer says became of it. */
import { v7 as uuid } from 'uuid'

export const remarkIn = (jobId: string, visitId: string, text: string) => ({
  id: uuid(),
  jobId,
  visitId,
  partId: null,
  step: null,
  deviceTime: new Date().toISOString(),
  clockOffset_ms: 0,
  body: { kind: 'remark', v: 1, text },
})

/** The fate of one entry, or the sentence of a refusal; null where the answer says neither: it is sent again. */
export function fateIn(status: number, text: string): string | null {
  if (status >= 500 || status === 0) return null
  try {
    const { fates, title } = JSON.parse(text) as { fates?: { fate: string }[]; title?: string }
    return fates?.[0]?.fate ?? title ?? `status ${status}`
  } catch {
    return null
  }
}
