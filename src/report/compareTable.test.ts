import '@/words/everyTest'
import { describe, expect, it } from 'vitest'
import { evaluate } from '@/core/evaluate'
import { readValueOf } from '@/core/quantity/readValue'
import { exampleString } from '@/core/steps/worked'
import { conditions, FactsBuilder, START_ms } from '@/core/testing/factsBuilder'
import { certificateOf } from './certificate'
import { compareDrawings, compareTables } from './compareTable'

/** Alike strings of eleven modules at these volts, on one roof. */
function roof(volts: readonly number[]) {
  const build = new FactsBuilder()
  const arrayId = build.part({ kind: 'array', tag: 'South', tilt_deg: 35, azimuth_deg: 180, mounting: 'open-rack' })
  const strings = volts.map((value, k) => {
    const id = build.part({ ...exampleString(11), tag: String(k + 1), arrayId })
    build.reading('pv-voc', id, { slots: { voltage: readValueOf(value, 'V', 1) }, conditions: conditions() })
    return id
  })
  return { build, strings, evaluation: evaluate(build.facts(), START_ms) }
}
const textsIn = (nodes: readonly { text?: string }[]): string[] => nodes.flatMap(({ text }) => text ?? [])

describe('strings side by side in print', () => {
  it('are drawn as on the screen: a ring each by its tag, the odd one crossed and named', () => {
    const [group] = compareDrawings(roof([370, 371, 369.5, 336]).evaluation)
    expect(group!.title).toContain('South')
    const [strip] = group!.drawings
    const texts = textsIn(strip!.nodes).map((one) => one.replaceAll('\u00a0', ' '))
    expect(texts).toEqual(expect.arrayContaining(['Voltage', '1', '2', '3', '4: 1 module short']))
    expect(texts).not.toContain('4')
    expect(strip!.label).toContain('4: 1 module short')
    // Nothing of it lies outside of the drawing.
    for (const { attrs } of strip!.nodes)
      if (typeof attrs.cx === 'number') expect(attrs.cx > 0 && attrs.cx < strip!.wide).toBe(true)
  })

  it('are dots without a name where there are many', () => {
    const many = Array.from({ length: 40 }, (_, k) => 368 + (k % 7) / 2)
    const [strip] = compareDrawings(roof(many).evaluation)[0]!.drawings
    expect(strip!.nodes.filter(({ tag }) => tag === 'circle')).toHaveLength(40)
    expect(textsIn(strip!.nodes)).not.toContain('17')
  })

  it('are none where a string is alone, and stand beside their table else', () => {
    expect(compareDrawings(roof([370]).evaluation)).toEqual([])
    const { evaluation } = roof([370, 371])
    expect(compareDrawings(evaluation).map(({ title }) => title)).toEqual(
      compareTables(evaluation).map(({ title }) => title),
    )
  })
})

describe('a hunt for an earth fault in print', () => {
  it('is drawn as it went, also when it is over; one that nobody went on is no part of the record', () => {
    const { build, strings } = roof([370, 371])
    const said = (choices: Record<string, string>) =>
      Object.fromEntries(Object.entries(choices).map(([id, choice]) => [id, { choice }]))
    const insulation = (read: number) =>
      build.reading('pv-insulation', strings[0]!, {
        slots: {
          ...said({
            method: 'joined-to-earth',
            'set-voltage': 'v1000',
            behaviour: 'steady',
            surface: 'dry',
            surge: 'none-there',
          }),
          joined: readValueOf(read, 'Mohm', 1),
        },
      })
    const sheet = () => certificateOf(build.facts(), START_ms, null)
    const drawn = () => sheet().drawings.find(({ key }) => key.startsWith('earth-fault'))
    const bad = insulation(0.1)
    expect(drawn()).toBeUndefined()
    expect(sheet().tables.some(({ id }) => id === 'earth-fault')).toBe(false)
    build.reading('earth-fault', strings[0]!, {
      slots: {
        ...said({ method: 'two-voltages', surface: 'wet' }),
        'plus-to-minus': readValueOf(400, 'V', 0),
        'plus-volts': readValueOf(100, 'V', 0),
        'minus-volts': readValueOf(175, 'V', 0),
      },
    })
    expect(textsIn(drawn()!.drawings[0]!.nodes)).toContain('Wet')
    build.add(
      { kind: 'remedy', v: 1, snag: bad, text: 'plug remade', repeat: ['pv-insulation', 'earth-fault'] },
      { step: 'pv-insulation', partId: strings[0]! },
    )
    insulation(300)
    expect(textsIn(drawn()!.drawings[0]!.nodes)).toContain('Wet, before it was mended')
    expect(sheet().tables.some(({ id }) => id === 'earth-fault')).toBe(true)
  })
})
