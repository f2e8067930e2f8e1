import type { ModuleType } from '@/core/plant/part'
import { compareTags } from '@/core/plant/projection'
import { say } from '@/words/say'
import { Choice } from '../shell/Form'

/** One of the module types, by make and name. */
export function TypeSelect({
  types,
  value,
  onValue,
}: {
  types: readonly ModuleType[]
  value: string
  onValue(id: string): void
}) {
  const options = types.map((type) => ({ value: type.id, text: `${type.make} ${type.name}` }))
  options.sort((a, b) => compareTags(a.text, b.text))
  return <Choice label={say('plant.type')} value={value} options={options} onValue={onValue} />
}
