/** The keys that seal: which there are, and a new one that follows the last. */
import { createPrivateKey, generateKeyPairSync, type KeyObject } from 'node:crypto'
import { existsSync } from 'node:fs'
import { copyFile, readFile, rename, writeFile } from 'node:fs/promises'
import { type Database, openDatabase } from '@/server/db/client'
import { writeAudit } from '@/server/people/audit'
import { isCurrent, keyRecords, knownKeys, rotateTo } from '@/server/seal/companyKeys'
import { keyFingerprint, type KeyRecord, publicKeyOf } from '@/server/seal/keyChain'
import { withDatabases } from './data'
import { ownPlaces } from './lib/paths'
import { Stop, say } from './lib/say'

const pem = (key: KeyObject): string => key.export({ type: 'pkcs8', format: 'pem' }) as string

const NEW_KEY = `${ownPlaces.sealKey}.new`

const keyIn = async (file: string): Promise<KeyObject> => createPrivateKey(await readFile(file))

/** The key in use. A change that was killed after the new key was made known is finished first. */
async function ownKey(db: Database): Promise<KeyObject> {
  if (existsSync(NEW_KEY) && isCurrent(await keyIn(NEW_KEY), await keyRecords(db)))
    await rename(NEW_KEY, ownPlaces.sealKey)
  return keyIn(ownPlaces.sealKey)
}

function listed(keys: readonly KeyRecord[], own: KeyObject): string {
  return keys
    .map((one) => {
      const inUse = one.publicKey === publicKeyOf(own) ? ', the one in use' : ''
      const vouched = one.previous !== null && one.vouched === null ? ', follows one that was lost' : ''
      return `${one.number}  ${keyFingerprint(one.publicKey)}  since ${one.since.slice(0, 10)}${inUse}${vouched}`
    })
    .join('\n')
}

/** Prints every key's fingerprint: they stand on certificates too. */
export async function sealKeys(): Promise<number> {
  return withDatabases(async ({ appUrl }) => {
    const db = openDatabase(appUrl, 2)
    const own = await ownKey(db)
    say(listed(await knownKeys(db, own, new Date()), own))
    if (!isCurrent(own, await keyRecords(db)))
      say('The key in use is not the last of these: nothing can be sealed with it.')
    await db.close()
    return 0
  })
}

/** Makes a new key and lets the old one vouch for it; the old file stays beside the new. */
export async function newSealKey(isLost: boolean): Promise<number> {
  return withDatabases(async ({ appUrl }) => {
    const db = openDatabase(appUrl, 2)
    const now = new Date()
    const old = await ownKey(db)
    if (!isLost && !isCurrent(old, await knownKeys(db, old, now)))
      throw new Stop(
        `${ownPlaces.sealKey} is not the key that the company signs with. Put that key's file back; where it is lost for good: ./upstand seal-key new --lost`,
      )
    const { privateKey } = generateKeyPairSync('ed25519')
    // Written before it is known: a key that signs and then is lost could never be followed.
    await writeFile(NEW_KEY, pem(privateKey), { mode: 0o600 })
    const record = await rotateTo(db, privateKey, isLost ? null : old, now)
    await writeAudit(db, null, 'seal-key-changed', { what: keyFingerprint(record.publicKey) })
    // There is a key in its place at every moment: else a start would take the company for one without.
    if (!isLost) await copyFile(ownPlaces.sealKey, `${ownPlaces.sealKey}.${record.number - 1}`)
    await rename(NEW_KEY, ownPlaces.sealKey)
    await db.close()
    say(`Key ${record.number} seals from now on: ${keyFingerprint(record.publicKey)}`)
    return 0
  })
}
