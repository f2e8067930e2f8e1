'use client'
import { Button } from 'antd'
import { useEffect, useState } from 'react'
import { v7 as uuid } from 'uuid'
import type { PartData } from '@/core/plant/part'
import type { PlantIndex } from '@/core/plant/plantIndex'
import { say } from '@/words/say'
import { Choice, Field, Form, Said } from '../shell/Form'
import { usualSite } from '@/core/plant/kinds/site'
import { fieldsOfKind, type Libraries, newPart, readPart, tagTaken, textsOf } from './partForm'
import { PartField } from './PartRow'
import { TypeSelect } from './TypeSelect'

const MOST_AT_ONCE = 400
const NEW = 'new'

type Props = {
  libraries: Libraries
  plant: PlantIndex
  onNewType(): void
  onAdd(list: { id: string; data: PartData }[]): void
}

/** Strings alike are entered once and multiplied; the first ones bring site and array with them. */
export function StringsForm({ libraries, plant, onNewType, onAdd }: Props) {
  const types = libraries.module
  const strings = plant.ofKind('string')
  const arrays = plant.ofKind('array')
  const lastString = strings.at(-1)
  const [typeId, setTypeId] = useState(lastString?.data.moduleType.id ?? types.at(-1)?.id ?? '')
  const [count, setCount] = useState('1')
  const [modules, setModules] = useState(lastString ? String(lastString.data.modulesInSeries) : '')
  const [from, setFrom] = useState(String(nextNumber(strings.map((one) => one.data.tag))))
  const [arrayId, setArrayId] = useState(arrays.at(-1)?.id ?? NEW)
  const [plane, setPlane] = useState(() => textsOf(newPart('array', say('plant.array-tag'))))
  const [input, setInput] = useState('')
  const [combinerId, setCombinerId] = useState('')
  const [message, setMessage] = useState<string | null>(null)
  const chosen = types.find((type) => type.id === typeId) ?? types.at(-1)
  useEffect(() => {
    const newest = types.at(-1)
    if (newest && !lastString) setTypeId(newest.id)
  }, [types, lastString])
  const combiners = plant.ofKind('combiner')

  const add = (): void => {
    const list: { id: string; data: PartData }[] = []
    if (!chosen) return setMessage(say('plant.type-first'))
    const many = Number(count)
    if (!Number.isInteger(many) || many < 1 || many > MOST_AT_ONCE) return setMessage(say('plant.count-bad', { count }))
    const first = Number(from)
    if (!Number.isInteger(first) || first < 1) return setMessage(say('plant.from-bad', { from: from || '–' }))
    if (plant.site?.revision === '') list.push({ id: plant.site.id, data: usualSite })
    let array = arrayId
    if (arrayId === NEW) {
      const read = readPart(newPart('array', '?'), plane, libraries)
      if ('message' in read) return setMessage(read.message)
      if (tagTaken(arrays, 'array', read.data.tag, null))
        return setMessage(say('plant.tag-taken', { part: say('part.array', { tag: read.data.tag }) }))
      array = uuid()
      list.push({ id: array, data: read.data })
    }
    const base: PartData = { kind: 'string', tag: '1', arrayId: array, modulesInSeries: 1, moduleType: chosen }
    const alike = readPart(base, { ...textsOf(base), modulesInSeries: modules, input, combinerId }, libraries)
    if ('message' in alike) return setMessage(alike.message)
    for (let k = 0; k < many; k++) {
      const tag = String(first + k)
      if (tagTaken(strings, 'string', tag, null))
        return setMessage(say('plant.tag-taken', { part: say('part.string', { tag }) }))
      list.push({ id: uuid(), data: { ...alike.data, tag } })
    }
    onAdd(list)
  }
  return (
    <Form onSubmit={() => add()}>
      <div className="two">
        {types.length > 0 ? (
          <TypeSelect types={types} value={chosen?.id ?? ''} onValue={setTypeId} />
        ) : (
          <Button onClick={onNewType}>{say('plant.add-type')}</Button>
        )}
        <Field label={say('plant.modules')} value={modules} onValue={setModules} mode="numeric" testId="modules" />
        <Field label={say('plant.count')} value={count} onValue={setCount} mode="numeric" testId="count" />
        <Field label={say('plant.from')} value={from} onValue={setFrom} mode="numeric" testId="from" />
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
        {arrays.length > 0 && <Field label={say('plant.input')} value={input} onValue={setInput} testId="input" />}
        {combiners.length > 0 && (
          <Choice
            label={say('plant.combiner-of')}
            value={combinerId}
            onValue={setCombinerId}
            options={[
              { value: '', text: say('plant.none') },
              ...combiners.map((one) => ({ value: one.id, text: one.data.tag })),
            ]}
          />
        )}
      </div>
      {arrayId === NEW && (
        <div className="two">
          {fieldsOfKind('array').map((field) => (
            <PartField
              key={field.id}
              field={field}
              value={plane[field.id] ?? ''}
              onValue={(value) => setPlane((before) => ({ ...before, [field.id]: value }))}
              plant={plant}
              libraries={libraries}
            />
          ))}
        </div>
      )}
      <Said message={message} />
      <Button type="primary" htmlType="submit" data-testid="make-strings">
        {say('plant.make-strings')}
      </Button>
    </Form>
  )
}

const nextNumber = (tags: readonly string[]): number =>
  1 + Math.max(0, ...tags.map((one) => Number.parseInt(one, 10) || 0))
