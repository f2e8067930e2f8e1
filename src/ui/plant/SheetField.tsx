'use client'
import { Form as AntForm, Input, Select } from 'antd'
import { useId } from 'react'
import type { RuledField } from '@/core/plant/kinds'
import { nameable } from '@/core/plant/additions'
import type { Part, PartKind } from '@/core/plant/part'
import { compareTags } from '@/core/plant/projection'
import type { PlantIndex } from '@/core/plant/plantIndex'
import { hasWords, say, type WordKey } from '@/words/say'
import { type Libraries, labelOf } from './partForm'
import { optionText } from './optionText'
import { typeFigures } from './typeFigures'

/** What is open here is not “none”, only not written yet. */
const WRITTEN: ReadonlySet<string> = new Set(['text', 'date'])
/** Where a particular is read. */
const hintOf = ({ label }: RuledField): string | undefined =>
  hasWords(`plant.hint.${label}`) ? say(`plant.hint.${label}` as WordKey) : undefined

/** Chosen to enter a new one of a library. */
export const NEW_TYPE = 'new'

type Props = {
  field: RuledField
  /** The part it belongs to, null where it is being made. */
  part: Part | null
  value: string
  message: string | null
  plant: PlantIndex
  libraries: Libraries
  /** While it is typed. */
  onValue(value: string): void
  /** What was typed or chosen is to be kept. */
  onKeep(value: string): void
  onNewType(field: RuledField): void
}

/** A text that may be so long is written in several lines. */
const SEVERAL_LINES = 200

/** From so many on the list is found by typing; a library always is. */
const MANY = 6

const units = /^(.*), (m|mm|mm²|A|V|Ω|kA|mA|°C|°)$/

/** Of twelve columns, so many as the name and what is typed want. */
export function spanOf({ rule, id }: RuledField): number {
  if (rule.takes === 'library') return 12
  if (rule.takes === 'tag') return 3
  // “DC1, the only one” on one line.
  if (rule.takes === 'date' || rule.takes === 'part') return 6
  if (rule.takes === 'text') return id === 'input' || id === 'load.group' ? 4 : 9
  if (id.startsWith('fuse.')) return 4
  return 4
}

function spanFor(field: RuledField): number {
  // With a line beneath that says where it is read.
  if (field.on) return field.rule.takes === 'number' || field.rule.takes === 'date' ? 6 : 12
  const [, name = labelOf(field)] = units.exec(labelOf(field)) ?? []
  const own = spanOf(field)
  const wanted = name.length > 28 ? 12 : name.length > 15 ? 6 : own
  return Math.max(own, field.rule.takes === 'tag' ? own : wanted)
}

/** One field of a part: a well under its name, its unit at the end, and what stands against it beneath. */
export function SheetField(props: Props) {
  const { field, message } = props
  const id = useId()
  const label = labelOf(field)
  const [, full = label, unit = ''] = units.exec(label) ?? []
  const hint = hintOf(field)
  const name = field.rule.takes === 'tag' ? say('plant.tag-short') : full
  return (
    <AntForm.Item
      layout="vertical"
      label={name}
      htmlFor={id}
      validateStatus={message ? 'error' : ''}
      help={message ?? undefined}
      extra={hint && <small className="read-where">{hint}</small>}
      style={{ gridColumn: `span ${spanFor(field)}` }}
      className={props.value === '' && field.rule.optional ? 'open' : ''}
    >
      <Well {...props} id={id} unit={unit} />
    </AntForm.Item>
  )
}

function Well({
  field,
  part,
  value,
  message,
  plant,
  libraries,
  onValue,
  onKeep,
  onNewType,
  id,
  unit,
}: Props & { id: string; unit: string }) {
  const testId = `part-${field.id.slice(field.id.indexOf('.') + 1)}`
  const options = optionsOf(field, part, plant, libraries)
  if (options)
    return (
      <Select
        id={id}
        value={value}
        data-testid={testId}
        showSearch={(field.library !== undefined || options.length > MANY) && { optionFilterProp: 'label' }}
        popupMatchSelectWidth={false}
        options={options}
        onChange={(next) => (next === NEW_TYPE ? onNewType(field) : onKeep(next))}
      />
    )
  if ((field.rule.longest ?? 0) >= SEVERAL_LINES)
    return (
      <Input.TextArea
        id={id}
        value={value}
        autoSize={{ minRows: 1, maxRows: 6 }}
        aria-invalid={message ? true : undefined}
        data-testid={testId}
        onChange={(event) => onValue(event.target.value)}
        onBlur={() => onKeep(value)}
      />
    )
  return (
    <Input
      id={id}
      value={value}
      type={field.rule.takes === 'date' ? 'date' : 'text'}
      inputMode={field.rule.takes === 'number' ? (field.rule.whole ? 'numeric' : 'decimal') : 'text'}
      suffix={unit || undefined}
      placeholder={field.rule.optional && !WRITTEN.has(field.rule.takes) ? say('plant.none') : undefined}
      aria-invalid={message ? true : undefined}
      data-testid={testId}
      onChange={(event) => onValue(event.target.value)}
      onBlur={() => onKeep(value)}
    />
  )
}

type Option = { value: string; label: string }

/** What a field offers to choose from; null where something is typed. */
function optionsOf(field: RuledField, part: Part | null, plant: PlantIndex, libraries: Libraries): Option[] | null {
  const offered = offeredBy(field, part, plant, libraries)
  if (!offered) return null
  if (!field.rule.optional) return offered
  // Where nobody said which, the only one there is is meant.
  const only = field.names?.else === 'only' ? plant.only(field.names.kind as PartKind) : null
  const none = only ? say('plant.the-only', { tag: only.data.tag }) : say('plant.none')
  return [{ value: '', label: none }, ...offered]
}

function offeredBy(field: RuledField, part: Part | null, plant: PlantIndex, libraries: Libraries): Option[] | null {
  const { takes, options } = field.rule
  if (field.library) {
    const known = libraries[field.library].map((one) => ({ value: one.id, label: typeFigures(one) }))
    known.sort((a, b) => compareTags(a.label, b.label))
    return [...known, { value: NEW_TYPE, label: say('plant.new-type') }]
  }
  if (takes === 'part') return nameable(part, field, plant).map((one) => ({ value: one.id, label: one.data.tag }))
  const all = takes === 'yes-no' ? field.yesNo! : takes === 'choice' ? options : null
  return all && all.map((one) => ({ value: String(one), label: optionText(one) }))
}
