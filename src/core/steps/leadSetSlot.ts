import type { ChoiceSlot } from './step'

/** Which leads a resistance was read with: what was nulled holds for that set and no other. */
export const leadSetSlot: ChoiceSlot = {
  kind: 'choice',
  id: 'lead-set',
  measures: null,
  options: [],
  sound: [],
  from: 'lead-sets',
  sticky: true,
  balloon: 1,
}
