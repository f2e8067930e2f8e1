'use client'
import '@/words/plant'
import { Button } from 'antd'
import { useMemo, useState } from 'react'
import { v7 as uuid } from 'uuid'
import type { ModuleType } from '@/core/plant/part'
import { moduleDoubts } from '@/core/pv/moduleData'
import { say } from '@/words/say'
import { Field, Form } from '../shell/Form'
import { corrected, type PlateKey, type PlateTexts, plateFields, plateOf, readPlate } from './dataPlate'

/** A module type from its data plate: a person with a data sheet in hand types it from top to bottom. */
type Props = {
  /** A type that is put right: it stays the same one. */
  type?: ModuleType
  onAdd(type: ModuleType): void
  onClose(): void
}

export function TypeForm({ type, onAdd, onClose }: Props) {
  const [make, setMake] = useState(type?.make ?? '')
  const [name, setName] = useState(type?.name ?? '')
  const [texts, setTexts] = useState<PlateTexts>(() => (type ? plateOf(type.data) : {}))
  const [tried, setTried] = useState(false)
  const [confirmed, setConfirmed] = useState(false)
  const read = useMemo(() => readPlate(texts), [texts])
  const doubts = read.data ? moduleDoubts(read.data) : []
  const add = (): void => {
    setTried(true)
    if (!read.data || !make.trim() || !name.trim()) return
    if (doubts.length > 0 && !confirmed) return setConfirmed(true)
    onAdd({ id: type?.id ?? uuid(), make: make.trim(), name: name.trim(), data: corrected(type?.data, read.data) })
  }
  return (
    <Form focused onSubmit={() => add()}>
      <p>{say('plate.about')}</p>
      <div className="two">
        <Field
          label={say('plate.make')}
          value={make}
          onValue={setMake}
          most={60}
          testId="plate-make"
          message={tried && !make.trim() ? say('plant.needed') : null}
        />
        <Field
          label={say('plate.name')}
          value={name}
          onValue={setName}
          most={60}
          testId="plate-name"
          message={tried && !name.trim() ? say('plant.needed') : null}
        />
      </div>
      <div className="two">
        {plateFields.map(({ key, needed }) => (
          <PlateField
            key={key}
            name={key}
            needed={needed}
            text={texts[key] ?? ''}
            message={tried || (texts[key] ?? '') !== '' ? (read.messages[key] ?? null) : null}
            onText={(text) => setTexts((before) => ({ ...before, [key]: text }))}
          />
        ))}
      </div>
      {confirmed && doubts.length > 0 && (
        <div className="ask" role="alert">
          {doubts.map((doubt) => (
            <p key={doubt.code}>{say(`plate.doubt.${doubt.code}`, doubt)}</p>
          ))}
        </div>
      )}
      <div style={{ display: 'flex', gap: 10 }}>
        <Button type="primary" htmlType="submit" data-testid="keep-type">
          {say(confirmed && doubts.length > 0 ? 'plate.keep-anyway' : 'plate.keep')}
        </Button>
        <Button onClick={onClose}>{say('action.close')}</Button>
      </div>
    </Form>
  )
}

function PlateField({
  name,
  needed,
  text,
  message,
  onText,
}: {
  name: PlateKey
  needed: boolean
  text: string
  message: string | null
  onText(text: string): void
}) {
  return (
    <Field
      label={`${say(`plate.${name}`)} ${needed ? '' : say('plate.optional')}`}
      value={text}
      mode="text"
      message={message}
      onValue={onText}
      testId={`plate-${name}`}
    />
  )
}
