/** A kept reading in a few words: its main figure, or what its answers come to. */
import { unitSpellings } from '@/core/quantity/unit'
import type { Body, SlotValue } from '@/core/record/entry'
import { CHECK_SOUND } from '@/core/steps/slot'
import { type AnyStep, isChecklist, isRead, mainSlot } from '@/core/steps/step'
import type { Verdict } from '@/core/verdict/verdict'
import { quantity, say, sayCode } from './say'

/** The value of one slot in words, empty where it was not answered. */
export function valueText(value: SlotValue | undefined): string {
  if (!value) return ''
  if ('choice' in value) return sayCode('choice', value.choice)
  if ('curve' in value) return say('reading.points', { count: value.curve.voltages_V.length })
  const { written } = unitSpellings[value.unit]
  return value.unit === 'deg' ? `${value.text}${written}` : `${value.text} ${written}`
}

/** The main figure; of several alike the one that stands for them, mostly the lowest; of a list of checks how many are as they should be. */
export function readingText(step: AnyStep, { slots }: Pick<Body<'reading'>, 'slots'>): string {
  if (!isRead(step) || step.stands === 'none') return ''
  const worked = step.standing?.({ slots })
  if (worked) return quantity(worked.value, worked.unit, worked.decimals)
  const main = mainSlot(step)
  if (!main) return ''
  if (main.kind === 'check') {
    const lines = step.slots.filter((slot) => slot.id in slots)
    const sound = lines.filter((slot) => {
      const value = slots[slot.id]
      return value && 'choice' in value && value.choice === CHECK_SOUND
    })
    return say('reading.checks', { sound: sound.length, count: lines.length })
  }
  if (main.kind !== 'number') return valueText(slots[main.id])
  const numbers = step.slots.filter((slot) => slot.kind === 'number' && slot.id in slots)
  const first = numbers.find((slot) => !slot.optional) ?? numbers[0]
  const alike = numbers.filter((slot) => slot.measures === first?.measures)
  const values = alike.map((slot) => slots[slot.id]!).filter((value) => 'value' in value)
  const sign = step.stands === 'highest' ? -1 : 1
  const standing = values.reduce((best, value) => (sign * value.value < sign * best.value ? value : best), values[0]!)
  return standing ? valueText(standing) : ''
}

/** The word of a verdict: a defect that somebody saw is to be mended, only a figure lies outside of something. */
export const verdictWord = (verdict: Verdict, step: AnyStep): string =>
  say(verdict === 'outside' && isChecklist(step) ? 'verdict.to-mend' : `verdict.${verdict}`)
