import { describe, expect, it } from 'vitest'
import { readValueOf } from '@/core/quantity/readValue'
import { stepById } from '@/core/steps'
import { readingText, valueText } from './reading'
import { fill, partName, stepShort } from './say'

const step = (id: string) => stepById(id)!

describe('a reading in a few words', () => {
  it('is its figure with its unit', () => {
    expect(readingText(step('pv-voc'), { slots: { voltage: readValueOf(380, 'V', 1) } })).toBe('380.0 V')
    expect(readingText(step('sensors'), { slots: { tilt: readValueOf(35, 'deg', 0) } })).toBe('35°')
  })

  it('is the lowest of several alike, as it counts', () => {
    const slots = {
      'negative-to-earth': readValueOf(350, 'Mohm', 0),
      'positive-to-earth': readValueOf(12, 'Mohm', 0),
      applied: readValueOf(512, 'V', 0),
    }
    expect(readingText(step('pv-insulation'), { slots })).toBe('12 MΩ')
  })

  it('is the answer where there is no figure', () => {
    expect(readingText(step('pv-polarity'), { slots: { polarity: { choice: 'reversed' } } })).toBe('Reversed')
  })

  it('counts the lines of a list that are as they should be', () => {
    const slots = {
      starts: { choice: 'as-it-should' },
      restarts: { choice: 'not-as-it-should', note: 'does not' },
      'dc-switch-on': { choice: 'check-left-out', note: 'no key' },
    }
    expect(readingText(step('reconnect'), { slots })).toBe('1 of 3 ok')
  })

  it('is nothing where nothing was read', () => {
    expect(readingText(step('pv-voc'), { slots: {} })).toBe('')
    expect(readingText(step('design-voltage'), { slots: {} })).toBe('')
    expect(valueText(undefined)).toBe('')
  })
})

describe('names', () => {
  const part = (kind: string, tag: string) => ({ data: { kind, tag } })

  it('of parts say kind and tag, and a site needs none', () => {
    expect(partName(part('string', '2'))).toBe('string 2')
    expect(partName(part('row', 'R1'))).toBe('row R1')
    expect(partName(part('site', 'Site'))).toBe('the site')
  })

  it('of steps carry the tag where there may be several', () => {
    expect(stepShort({ step: { id: 'pv-voc' }, part: part('string', '2') })).toBe('Voltage 2')
    expect(stepShort({ step: { id: 'inspection' }, part: part('site', 'Site') })).toBe('Inspection')
  })

  it('of slots and ratings stand in sentences by their words', () => {
    expect(fill('{what:slot}', { what: 'labels' })).toContain('live in daylight')
    expect(fill('{what:rating}', { what: 'isc-switch' })).toBe('Current through the switch')
    expect(fill('{what:rating}', { what: 'nobody' })).toBe('nobody')
  })
})
