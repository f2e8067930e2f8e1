import type { Facts } from '@/core/record/facts'
import { type Certificate, certificateOf } from '@/report/certificate'
import type { Queries } from '../db/client'
import { Refused } from '../door'
import { picturesOf } from '../attachments/attachments'
import { regimeFrom } from '@/core/regime/shipped'
import { loadFacts } from '../jobs/facts'
import { type SealedRecord, sealedRecordSchema } from '../seal/sealedRecord'
import type { OnProgress, Task } from '../longWork/tasks'
import { sealedBytes } from '../seal/sealJob'
import { keyFingerprint } from '../seal/keyChain'
import { certificatePdf, type SealLines } from './pdf'

type Wanted = Omit<Extract<Task, { kind: 'certificate' }>, 'kind'>

export type CertificateFile = { name: string; bytes: Buffer }

/** The certificate of an issue, drawn from its sealed facts; without an issue a draft of what stands now. */
export async function certificateFile(
  db: Queries,
  { jobId, issue, sheet, now_ms: now }: Wanted,
  onProgress: OnProgress = () => undefined,
): Promise<CertificateFile> {
  onProgress({ stage: 'reading' })
  const sheetWord = sheet === null ? '' : `-${sheet}`
  const drawn = async (certificate: Certificate, seal: SealLines | null): Promise<Buffer> => {
    onProgress({ stage: 'drawing' })
    const ids = certificate.photos.map((one) => one.attachment)
    return certificatePdf(certificate, seal, await picturesOf(db, jobId, ids))
  }
  if (issue === null) {
    const facts = await loadFacts(db, jobId)
    if (!facts) throw new Refused(404, 'door.not-found')
    onProgress({ stage: 'judging' })
    return {
      name: `${fileWord(facts.job.number)}-draft${sheetWord}.pdf`,
      bytes: await drawn(certificateOf(facts, now, null, sheet), null),
    }
  }
  const bytes = await sealedBytes(db, jobId, issue)
  if (bytes === null) throw new Refused(404, 'door.no-issue', { issue })
  const sealed = sealedRecordSchema.parse(JSON.parse(bytes))
  const stored = sealed.record.facts as Omit<Facts, 'seals'>
  // Sealed by an older version: what the regime did not know then is completed, and asks of nothing that was read.
  const facts: Facts = { ...stored, regime: regimeFrom(stored.regime), seals: [] }
  const name = `${fileWord(facts.job.number)}-${issue}`
  onProgress({ stage: 'judging' })
  const pdf = await drawn(certificateOf(facts, Date.parse(sealed.seal.sealedAt), issue, sheet), {
    hash: sealed.seal.hash,
    keys: keysOf(sealed),
    attachment: { name: `${name}.json`, bytes },
  })
  return { name: `${name}${sheetWord}.pdf`, bytes: pdf }
}

/** Fingerprints of the company's keys as the record carries them, that which signed it last. */
function keysOf(sealed: SealedRecord): string[] {
  const own = keyFingerprint(sealed.seal.publicKey)
  const others = sealed.v === 2 ? sealed.keys.map((one) => keyFingerprint(one.publicKey)) : []
  return [...others.filter((one) => one !== own), own]
}

/** A job's number as part of a file name. */
const fileWord = (number: string): string => number.replace(/[^\w-]+/g, '_') || 'record'
