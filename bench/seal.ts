import { generateKeyPairSync } from 'node:crypto'
import { coreVersion } from '../scripts/lib/coreVersion'
import { keyRecord } from '@/server/seal/keyChain'
import { makeSeal } from '@/server/seal/makeSeal'
import { recordToSeal } from '@/server/seal/recordToSeal'
import { verifySeal } from '@/server/seal/verifySeal'
import { manyStrings } from './facts'
import { time, written } from './measure'
import type { Row } from './run'

/** Sealing and verifying a 40-string job against writing the same record as plain JSON. */
export function sealBench(): Row[] {
  process.env.UPSTAND_CORE_VERSION ??= coreVersion()
  const facts = manyStrings(40)
  const { privateKey } = generateKeyPairSync('ed25519')
  const record = recordToSeal(facts, new Date(0), 'bench')
  const about = { jobId: facts.job.id, jobNumber: facts.job.number, sealedAt: new Date(0).toISOString() }
  const keys = [keyRecord(privateKey, about.sealedAt, undefined, null)]
  const plain = time(() => JSON.stringify(record), 10)
  const sealed = makeSeal(record, about, [], privateKey, keys)
  return [
    {
      what: 'seal a 40-string job',
      reach: '',
      figure: written(time(() => makeSeal(record, about, [], privateKey, keys), 7)),
      against: `plain JSON of the record: ${written(plain)}`,
    },
    {
      what: 'verify that seal',
      reach: '',
      figure: written(time(() => verifySeal(sealed), 7)),
      against: `plain JSON of the record: ${written(plain)}`,
    },
  ]
}
