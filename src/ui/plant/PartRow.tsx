'use client'
import { Button } from 'antd'
import { type KeyboardEvent, useState } from 'react'
import type { RuledField } from '@/core/plant/kinds'
import type { Part, PartData, PartKind } from '@/core/plant/part'
import type { PlantIndex } from '@/core/plant/plantIndex'
import { partName, say } from '@/words/say'
import { Choice, Field, Form, Said } from '../shell/Form'
import { fieldsOfKind, type Libraries, labelOf, readPart, tagTaken, textsOf } from './partForm'
import { optionText, partLines } from './partLines'
import { TypeSelect } from './TypeSelect'

type Props = {
  part: Part
  plant: PlantIndex
  libraries: Libraries
  canWrite: boolean
  open: boolean
  setOpen(open: boolean): void
  change(part: Part, after: PartData | null): Promise<void>
}

/** One part on the line, and its editing in place: Enter keeps, Escape leaves it as it was. */
export function PartRow(props: Props) {
  const { part, plant, canWrite, open, setOpen } = props
  const [first, second] = partLines(part, plant)
  return (
    <>
      <div className="plantrow" data-part={part.data.kind}>
        <span className={part.data.kind === 'string' ? 'tagbig' : 'tagbig mid'}>
          {part.data.kind === 'site' ? '–' : part.data.tag}
        </span>
        <span>
          {first}
          {second && (
            <>
              <br />
              <span className="small quiet">{second}</span>
            </>
          )}
        </span>
        {canWrite && (
          <button
            type="button"
            className="slim-btn"
            aria-expanded={open}
            aria-label={say('plant.change-part', { part: partName(part) })}
            onClick={() => setOpen(!open)}
          >
            {say('plant.change')}
          </button>
        )}
      </div>
      {open && <PartEdit {...props} />}
    </>
  )
}

function PartEdit({ part, plant, libraries, setOpen, change }: Props) {
  const [texts, setTexts] = useState(() => textsOf(part.data))
  const [message, setMessage] = useState<string | null>(null)
  const keep = async (): Promise<void> => {
    const read = readPart(part.data, texts, libraries)
    if ('message' in read) return setMessage(read.message)
    const { kind, tag } = read.data
    if (tagTaken(plant.parts.values(), kind, tag, part.id))
      return setMessage(say('plant.tag-taken', { part: partName(read) }))
    await change(part, read.data)
    setOpen(false)
  }
  const onKey = (event: KeyboardEvent): void => {
    if (event.key !== 'Escape') return
    event.stopPropagation()
    setOpen(false)
  }
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: Escape leaves the form that is inside
    <div onKeyDown={onKey}>
      <Form focused onSubmit={() => void keep()}>
        <div className="two">
          {fieldsOfKind(part.data.kind).map((field) => (
            <PartField
              key={field.id}
              field={field}
              value={texts[field.id] ?? ''}
              onValue={(value) => setTexts((before) => ({ ...before, [field.id]: value }))}
              plant={plant}
              libraries={libraries}
            />
          ))}
        </div>
        <Said message={message} />
        <div className="acts-row">
          <Button type="primary" htmlType="submit" data-testid="keep-part">
            {say('plant.keep')}
          </Button>
          {part.data.kind !== 'site' && <Button onClick={() => void change(part, null)}>{say('plant.retire')}</Button>}
        </div>
      </Form>
    </div>
  )
}

type FieldProps = {
  field: RuledField
  value: string
  onValue(value: string): void
  plant: PlantIndex
  libraries: Libraries
}

/** One field of a part: what it takes stands in its kind. */
export function PartField({ field, value, onValue, plant, libraries }: FieldProps) {
  const { rule } = field
  if (field.library)
    return (
      <TypeSelect
        label={labelOf(field)}
        types={libraries[field.library]}
        value={value}
        optional={rule.optional}
        onValue={onValue}
      />
    )
  const label = rule.optional ? `${labelOf(field)} ${say('plate.optional')}` : labelOf(field)
  const options = optionsOf(field, plant)
  if (options)
    return (
      <Choice
        label={label}
        value={value}
        onValue={onValue}
        options={rule.optional ? [{ value: '', text: say('plant.none') }, ...options] : options}
      />
    )
  return (
    <Field
      label={label}
      value={value}
      onValue={onValue}
      mode={rule.takes === 'number' ? (rule.whole ? 'numeric' : 'decimal') : 'text'}
      testId={`part-${field.id.slice(field.id.indexOf('.') + 1)}`}
    />
  )
}

/** What a field offers to choose from; null where something is typed. */
function optionsOf(field: RuledField, plant: PlantIndex): { value: string; text: string }[] | null {
  const { takes, options } = field.rule
  if (takes === 'part')
    return plant.ofKind(field.names!.kind as PartKind).map((one) => ({ value: one.id, text: one.data.tag }))
  const offered = takes === 'yes-no' ? field.yesNo! : takes === 'choice' ? options : null
  return offered && offered.map((one) => ({ value: String(one), text: optionText(one) }))
}
