import type { Slot } from '@/core/steps/slot'
import { valueText } from '@/words/reading'
import { sayCode } from '@/words/say'
import type { Heard } from './liveFeed'

/** What an instrument shows, as a slot would take it: a figure with its unit, or an answer in words. */
export const shownText = (slot: Slot, { read }: Heard): string =>
  slot.kind === 'choice' && slot.told ? sayCode('choice', slot.told(read.value)) : valueText(read)
