import { spawnSync } from 'node:child_process'
import { readFileSync } from 'node:fs'
import { resolve } from 'node:path'
import { describe, expect, it } from 'vitest'
import { recordToSeal } from '@/server/seal/recordToSeal'
import { verifySeal } from '@/server/seal/verifySeal'
import { FactsBuilder } from '@/core/testing/factsBuilder'
import { coreVersion } from '../../scripts/lib/coreVersion'
import { calc } from '../support/calc'

/** A record that was sealed by the core before judgements, gates and readings took their present shape. */
const old = JSON.parse(readFileSync(`${import.meta.dirname}/data/seal-core-0.2.0.json`, 'utf8'))

describe('a seal of an earlier core', () => {
  it('still holds, here and at the command line', () => {
    expect(old.record.coreVersion).toBe('0.2.0')
    expect(verifySeal(old)).toMatchObject({ whole: true })
    expect(calc('verify-seal', old).out).toMatchObject({ whole: true })
  })

  it('is checked by the name of its file, from whatever folder', () => {
    const upstand = resolve(import.meta.dirname, '../../upstand')
    const check = (...names: string[]) =>
      spawnSync(upstand, ['verify-seal', ...names], { cwd: `${import.meta.dirname}/data`, encoding: 'utf8' })
    expect(JSON.parse(check('seal-core-0.2.0.json').stdout)).toMatchObject({ whole: true })
    for (const wrong of [[], ['no-such.json'], ['seal-core-0.2.0.json', 'another']]) {
      const { status, stderr } = check(...wrong)
      expect([status, stderr]).toEqual([2, expect.stringContaining('Name the sealed record')])
    }
  })

  it('breaks where a figure of it is changed', () => {
    const changed = structuredClone(old)
    changed.record.evaluation.steps[0].verdict = 'outside'
    expect(verifySeal(changed)).toMatchObject({ whole: false, brokenAt: expect.stringContaining('/record/evaluation') })
  })
})

describe('the version of the core', () => {
  it('comes from what it holds and stands in every seal', () => {
    expect(coreVersion()).toMatch(/^core-[0-9a-f]{12}$/)
    const record = recordToSeal(new FactsBuilder().facts(), new Date(0), 'Ada')
    expect(record.coreVersion).toBe(coreVersion())
  })
})
