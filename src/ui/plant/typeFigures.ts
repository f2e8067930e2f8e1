import type { ChargePointModel, ModuleType } from '@/core/plant/part'
import { figure, say } from '@/words/say'
import { optionText } from './optionText'

/** One of a library with the figures by which it is known: whoever chooses sees what each is. */
export function typeFigures(type: ModuleType | ChargePointModel): string {
  const name = `${type.make} ${type.name}`
  if ('voc_V' in type.data)
    return say('plant.type-is', { name, voc: figure(type.data.voc_V, 1), isc: figure(type.data.isc_A, 2) })
  const { rated_A, phases, outlet } = type.data
  return say('plant.model-is', { name, phases, rated: rated_A, outlet: optionText(outlet) })
}
