/** How a need of the kit is told where nothing in it meets it: at the step, and in the list of jobs before one drives out. */
import type { KitNeed, KitReach } from '../steps/step'
import type { Figures } from '../verdict/verdict'

export const isReach = (need: KitNeed): need is KitReach => typeof need === 'object'

/** Which sentence says that a need is not met. */
export const lackCode = (need: KitNeed): 'kit-lacks' | 'kit-lacks-up-to' =>
  isReach(need) ? 'kit-lacks-up-to' : 'kit-lacks'

export const needFigures = (need: KitNeed): Figures =>
  isReach(need) ? { what: need.measures, upTo_mA: need.upTo_mA } : { what: need }
