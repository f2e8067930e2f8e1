/**
 * Electronics on every module, between it and its string. What shuts its module off holds the string's voltage down until
 * it is released, and is then as though it were not there; what converts stands between the cells and the plugs always, so
 * nothing that is read at the plugs says what the cells give. Common practice, no source: figures are its maker's.
 */
import type { PartData, StringData } from './part'

export type ModuleElectronics = NonNullable<StringData['electronics']>
type Any = { data: PartData }

export const electronicsOf = ({ data }: Any): ModuleElectronics | null =>
  data.kind === 'string' && data.electronics?.acts ? data.electronics : null

/** Its short-circuit current, its curve and its voltage by light say nothing of the modules. */
export function convertersOf(part: Any): ModuleElectronics | null {
  const own = electronicsOf(part)
  return own?.acts === 'converts' ? own : null
}

export const hidesItsCells = (part: Any): boolean => convertersOf(part) !== null
