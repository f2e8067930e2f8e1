import { generateKeyPairSync, type KeyObject } from 'node:crypto'
import { describe, expect, it } from 'vitest'
import { brokenKey, keyFingerprint, keyRecord, type KeyRecord, publicKeyOf, unvouchedKeys } from './keyChain'
import { makeSeal } from './makeSeal'
import type { Seal, SealedRecord } from './sealedRecord'
import { verifySeal } from './verifySeal'

const newKey = (): KeyObject => generateKeyPairSync('ed25519').privateKey
const [one, two, three] = [newKey(), newKey(), newKey()]
const SINCE = '2026-01-01T00:00:00.000Z'
const first = keyRecord(one, SINCE, undefined, null)
const second = keyRecord(two, SINCE, first, one)

/** A job sealed once with each of these keys, its times as given. */
function sealed(keys: readonly (readonly [KeyObject, readonly KeyRecord[]])[], times: readonly string[]): SealedRecord {
  const chain: Seal[] = []
  let last: SealedRecord | null = null
  for (const [k, [key, known]] of keys.entries()) {
    last = makeSeal(
      { facts: { entries: [], n: k } },
      { jobId: 'j', jobNumber: '7', sealedAt: times[k]! },
      chain,
      key,
      known,
    )
    chain.push(last.seal)
  }
  return last!
}
/** Sealed with the first key, while it is the only one. */
const own = [one, [first]] as const
const times = ['2026-05-01T10:00:00.000Z', '2026-05-02T10:00:00.000Z', '2026-05-03T10:00:00.000Z']

describe('the keys of a company', () => {
  it('hold where each is named and vouched for by the one before', () => {
    expect(brokenKey([first, second, keyRecord(three, SINCE, second, two)])).toBeNull()
    expect(second.previous).toBe(keyFingerprint(publicKeyOf(one)))
  })

  it('say which one follows a key that was lost', () => {
    const lost = keyRecord(three, SINCE, second, null)
    expect(brokenKey([first, second, lost])).toBeNull()
    expect(unvouchedKeys([first, second, lost])).toEqual([3])
  })

  it.each<[string, KeyRecord[], number]>([
    ['another one in the first place', [keyRecord(three, SINCE, undefined, null), second], 2],
    ['one left out', [second], 1],
    ['a time changed', [{ ...first, since: times[0]! }, second], 1],
    ['vouched for by a stranger', [first, keyRecord(two, SINCE, first, three)], 2],
    ['one twice', [first, first], 2],
  ])('break with %s', (_, keys, at) => {
    expect(brokenKey(keys)).toBe(at)
  })
})

describe('the seals of a job', () => {
  it('are whole over a change of the key', () => {
    const both = [first, second]
    const record = sealed(
      [
        [one, [first]],
        [two, both],
        [two, both],
      ],
      times,
    )
    expect(verifySeal(record)).toMatchObject({ whole: true, keyFingerprint: keyFingerprint(publicKeyOf(two)) })
  })

  it('are whole though the office’s clock went back between them', () => {
    const record = sealed([own, own], [times[1]!, times[0]!])
    expect(verifySeal(record)).toMatchObject({ whole: true })
  })

  it('say that a key was lost, and are whole', () => {
    const keys = [first, keyRecord(two, SINCE, first, null)]
    expect(verifySeal(sealed([own, [two, keys]], times))).toMatchObject({ whole: true, unvouchedKeys: [2] })
  })

  it('are broken where one is by a key that none of the company’s is', () => {
    const record = sealed([[three, [first]], own], times)
    expect(verifySeal(record)).toMatchObject({ whole: false, brokenAt: '/keys' })
  })

  it('are broken where the keys do not vouch for one another', () => {
    const keys = [first, keyRecord(two, SINCE, first, three)]
    expect(verifySeal(sealed([own, [two, keys]], times))).toMatchObject({ whole: false, brokenAt: '/keys/1' })
  })

  it('are counted: one left out of the middle is missed', () => {
    const record = sealed([own, own, own], times)
    const without = { ...record, chain: [record.chain[0]!] }
    expect(verifySeal(without)).toMatchObject({ whole: false, brokenAt: 'chain' })
    expect(record.seal).toMatchObject({ number: 3, issue: 'C', jobNumber: '7' })
  })
})
