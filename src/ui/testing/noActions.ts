import type { BenchActions } from '../bench/types'

const nothing = (): undefined => undefined

/** What a bench can be asked to do, where a test looks at something else. */
export const noActions: BenchActions = {
  keep: async () => true,
  press: async () => null,
  next: nothing,
  back: nothing,
  leaveOut: nothing,
  override: nothing,
  confirmPlant: nothing,
  typeConditions: nothing,
  noteThen: nothing,
  nullLeads: null,
  sequence: nothing,
  guide: nothing,
  found: null,
  mend: nothing,
  keepCurves: async () => true,
  remark: nothing,
}
