'use client'
import { Button } from 'antd'
import { useEffect, useRef, useState } from 'react'
import { v7 as uuid } from 'uuid'
import type { NewPart } from '@/core/plant/additions'
import type { PartData } from '@/core/plant/part'
import type { PlantIndex } from '@/core/plant/plantIndex'
import { say } from '@/words/say'
import { Choice, Field, Form, Said } from '../shell/Form'
import { fieldsOfKind, type Libraries, newPart, readPart, tagTaken, textsOf } from './partForm'
import { NEW_TYPE, SheetField } from './SheetField'

const MOST_AT_ONCE = 400
const NEW = 'new'

type Props = {
  libraries: Libraries
  plant: PlantIndex
  /** The array that they lie on, null where it comes with them. */
  arrayId: string | null
  onNewType(): void
  onAdd(list: readonly NewPart[]): void
}

const typeField = fieldsOfKind('string').find((field) => field.library === 'module')!

/** Strings alike are entered once and multiplied; the first ones bring site and array with them. */
export function StringsForm({ libraries, plant, arrayId: given, onNewType, onAdd }: Props) {
  const types = libraries.module
  const strings = plant.ofKind('string')
  const arrays = plant.ofKind('array')
  const [typeId, setTypeId] = useState('')
  const [count, setCount] = useState('1')
  const [modules, setModules] = useState('')
  const [from, setFrom] = useState(String(nextNumber(strings.map((one) => one.data.tag))))
  const [arrayId, setArrayId] = useState(given ?? arrays.at(-1)?.id ?? NEW)
  const [plane, setPlane] = useState(() => ({
    ...textsOf(newPart('array', say('plant.array-tag'))),
    tilt_deg: '',
    azimuth_deg: '',
  }))
  const [message, setMessage] = useState<{ field: string; text: string } | null>(null)
  const known = useRef<ReadonlySet<string> | null>(null)
  // Whoever has just entered a type from its plate means that one.
  useEffect(() => {
    const before = known.current
    known.current = new Set(types.map((one) => one.id))
    const fresh = before && before.size > 0 ? types.find((one) => !before.has(one.id)) : undefined
    const newest = fresh ?? (before && types.length === 1 ? types[0] : undefined)
    if (newest) setTypeId(newest.id)
  }, [types])

  const add = (): void => {
    const read = readStrings()
    if ('text' in read) setMessage(read)
    else onAdd(read.list)
  }
  const readStrings = (): { list: NewPart[] } | { field: string; text: string } => {
    const list: NewPart[] = []
    const chosen = types.find((type) => type.id === typeId)
    if (!chosen) return { field: 'moduleType', text: say('plant.type-first') }
    const many = Number(count)
    if (!Number.isInteger(many) || many < 1 || many > MOST_AT_ONCE)
      return { field: 'count', text: say('plant.count-bad', { count: count || '–' }) }
    const first = Number(from)
    if (!Number.isInteger(first) || first < 1)
      return { field: 'from', text: say('plant.from-bad', { from: from || '–' }) }
    let array = arrayId
    if (arrayId === NEW) {
      const read = readPart(newPart('array', '?'), plane, libraries)
      if ('message' in read) return { field: read.field, text: read.message }
      if (tagTaken(arrays, 'array', read.data.tag, null))
        return { field: 'tag', text: say('plant.tag-taken', { part: say('part.array', { tag: read.data.tag }) }) }
      array = uuid()
      list.push({ id: array, data: read.data })
    }
    const base: PartData = { kind: 'string', tag: '1', arrayId: array, modulesInSeries: 1, moduleType: chosen }
    const alike = readPart(base, { ...textsOf(base), modulesInSeries: modules }, libraries)
    if ('message' in alike) return { field: 'modules', text: alike.message }
    for (let k = 0; k < many; k++) {
      const tag = String(first + k)
      if (tagTaken(strings, 'string', tag, null))
        return { field: 'from', text: say('plant.tag-taken', { part: say('part.string', { tag }) }) }
      list.push({ id: uuid(), data: { ...alike.data, tag } })
    }
    return { list }
  }
  const said = (field: string): string | null => (message?.field === field ? message.text : null)
  const isElsewhere = message !== null && !SHOWN.includes(message.field)
  return (
    <Form focused onSubmit={add}>
      <div className="columns12">
        <SheetField
          field={typeField}
          part={null}
          value={typeId}
          message={said('moduleType')}
          plant={plant}
          libraries={libraries}
          onValue={setTypeId}
          onKeep={(value) => (value === NEW_TYPE ? onNewType() : setTypeId(value))}
          onNewType={onNewType}
        />
      </div>
      <div className="thirds">
        <Field
          label={say('plant.modules')}
          value={modules}
          onValue={setModules}
          mode="numeric"
          testId="modules"
          message={said('modules')}
        />
        <Field
          label={say('plant.count')}
          value={count}
          onValue={setCount}
          mode="numeric"
          testId="count"
          message={said('count')}
        />
        <Field
          label={say('plant.from')}
          value={from}
          onValue={setFrom}
          mode="numeric"
          testId="from"
          message={said('from')}
        />
      </div>
      {arrays.length > 0 && (
        <Choice
          label={say('plant.array-of')}
          value={arrayId}
          onValue={setArrayId}
          options={[
            ...arrays.map((one) => ({ value: one.id, text: one.data.tag })),
            { value: NEW, text: say('plant.new-array') },
          ]}
        />
      )}
      {arrayId === NEW && (
        <div className="columns12">
          {fieldsOfKind('array').map((field) => (
            <SheetField
              key={field.id}
              field={field}
              part={null}
              value={plane[field.id as keyof typeof plane] ?? ''}
              message={said(field.id)}
              plant={plant}
              libraries={libraries}
              onValue={(value) => setPlane((before) => ({ ...before, [field.id]: value }))}
              onKeep={(value) => setPlane((before) => ({ ...before, [field.id]: value }))}
              onNewType={onNewType}
            />
          ))}
        </div>
      )}
      <Said message={isElsewhere ? message.text : null} />
      <Button type="primary" htmlType="submit" data-testid="make-strings">
        {say('plant.make-strings')}
      </Button>
    </Form>
  )
}

/** Fields that say themselves what is wrong with them. */
const SHOWN = ['moduleType', 'modules', 'count', 'from', ...fieldsOfKind('array').map((field) => field.id)]

const nextNumber = (tags: readonly string[]): number =>
  1 + Math.max(0, ...tags.map((one) => Number.parseInt(one, 10) || 0))
