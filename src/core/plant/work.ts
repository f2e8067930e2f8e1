import type { PlantIndex } from './plantIndex'

/**
 * Whether what stood before is looked at again, and nothing new was built: some tests are then asked only where somebody
 * wants them. What nobody said is new work, of which all is asked.
 */
export const isPeriodicWork = (plant: PlantIndex): boolean =>
  plant.ofKind('site').some(({ data }) => data.work === 'periodic')
