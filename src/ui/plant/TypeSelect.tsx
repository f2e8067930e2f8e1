import { compareTags } from '@/core/plant/projection'
import { say } from '@/words/say'
import { Choice } from '../shell/Form'

type Props = {
  /** What it is called; a module type where nothing is said. */
  label?: string
  types: readonly { id: string; make: string; name: string }[]
  value: string
  /** It may stay open. */
  optional?: boolean
  onValue(id: string): void
}

/** One from a library, by make and name. */
export function TypeSelect({ label, types, value, optional = false, onValue }: Props) {
  const options = types.map((type) => ({ value: type.id, text: `${type.make} ${type.name}` }))
  options.sort((a, b) => compareTags(a.text, b.text))
  return (
    <Choice
      label={label ?? say('plant.type')}
      value={value}
      options={optional ? [{ value: '', text: say('plant.none') }, ...options] : options}
      onValue={onValue}
    />
  )
}
