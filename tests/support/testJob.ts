/** A job of a test's own with one string, so that what is done to it changes nothing elsewhere. */
import { v7 as uuid } from 'uuid'
import { expect } from 'vitest'
import type { Body, Conditions, Entry } from '@/core/record/entry'
import { exampleString } from '@/core/steps/worked'
import { conditions, readingBody } from '@/core/testing/factsBuilder'
import { demo, knock, type Who } from './server'

export type SentFate = { id: string; fate: string; code?: string; reason?: string; entry?: Entry }
export type Fates = { fates: SentFate[] }
export type Sent = { id: string; deviceTime: string; clockOffset_ms: number; body: unknown } & Record<string, unknown>

/** Light and warmth as read from an instrument that is in the demo's kit. */
export function inKit(read: Conditions, id = demo.meter02): Conditions {
  const { irradiance } = read
  return { ...read, irradiance: { ...irradiance, instrument: { ...irradiance.instrument!, id } } }
}

export class TestJob {
  readonly id = uuid()
  readonly visitId = uuid()
  string = { id: uuid(), revision: '' }

  async open(
    number: string,
    people: readonly string[] = [demo.person.tester, demo.person.viewer],
    regime?: { id: string; version: number },
  ): Promise<this> {
    const named = { id: this.id, visitId: this.visitId, number, name: `Test job ${number}`, place: '', people }
    const wanted = regime ? { ...named, regime } : named
    expect((await knock('supervisor', '/api/jobs', wanted)).status).toBe(201)
    const change = this.entry(
      { kind: 'plant-change', v: 1, before: null, after: { ...exampleString(11), tag: '2' }, base: null },
      { partId: this.string.id },
    )
    expect(await this.fatesOf([change], 'supervisor')).toEqual(['kept'])
    this.string.revision = change.id
    return this
  }

  entry(body: unknown, about: Record<string, unknown> = {}): Sent {
    return {
      id: uuid(),
      jobId: this.id,
      visitId: this.visitId,
      partId: null,
      step: null,
      deviceTime: new Date().toISOString(),
      clockOffset_ms: 0,
      body,
      ...about,
    }
  }

  remark(text: string): Sent {
    return this.entry({ kind: 'remark', v: 1, text })
  }

  /** A voltage of the string, with light from the kit's meter. */
  volts(value: number, rest: Record<string, unknown> = {}): Sent {
    return this.entry(this.voltageBody(value, rest), { partId: this.string.id, step: 'pv-voc' })
  }

  voltageBody(value: number, rest: Record<string, unknown> = {}): Body<'reading'> {
    return readingBody({
      slots: { voltage: { text: String(value), value, bound: 'exact', unit: 'V' } },
      conditions: inKit(conditions(742, 43.6, new Date().toISOString())),
      plantRevision: this.string.revision,
      ...rest,
    })
  }

  send(entries: readonly unknown[], who: Who = 'tester') {
    return knock<Fates>(who, `/api/jobs/${this.id}/entries`, { entries })
  }

  async fatesOf(entries: readonly unknown[], who: Who = 'tester'): Promise<string[]> {
    return (await this.send(entries, who)).body.fates.map((one) => one.fate)
  }

  /** The only fate of one entry. */
  async fateOf(entry: unknown, who: Who = 'tester'): Promise<SentFate> {
    const { body } = await this.send([entry], who)
    return body.fates[0]!
  }

  async entries(): Promise<Entry[]> {
    const { body } = await knock<{ facts: { entries: Entry[] } }>('supervisor', `/api/jobs/${this.id}/facts`)
    return body.facts.entries
  }
}
