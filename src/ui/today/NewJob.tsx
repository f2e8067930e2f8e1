'use client'
import { Alert, Button, Select } from 'antd'
import { useEffect, useState } from 'react'
import { v7 as uuid } from 'uuid'
import { say, type WordKey } from '@/words/say'
import { Answered, ask } from '../device/api'
import { defaultRegime } from '@/core/regime/shipped'
import type { Regime } from '@/core/regime/regime'
import { Choice, Field, Form, Labelled, Said } from '../shell/Form'
import { DayPicker } from './PlanDialog'

const DEFAULT_REGIME = defaultRegime.id
const CREW = 'upstand.crew'

/** The newest version of each regime: a new job is pinned to no older one. */
function newest(all: readonly Regime[]): Regime[] {
  const found = new Map<string, Regime>()
  for (const one of all) if (one.version > (found.get(one.id)?.version ?? 0)) found.set(one.id, one)
  return [...found.values()]
}

/** A new job: number, name, place, and who works on it. */
export function NewJob({ onClose }: { onClose(): void }) {
  const [number, setNumber] = useState('')
  const [name, setName] = useState('')
  const [place, setPlace] = useState('')
  const [message, setMessage] = useState<string | null>(null)
  const [people, setPeople] = useState<{ id: string; name: string; role: string }[]>([])
  const [chosen, setChosen] = useState<string[]>([])
  const [dueOn, setDueOn] = useState<string | null>(null)
  const [regimes, setRegimes] = useState<Regime[]>([])
  const [regime, setRegime] = useState('')
  useEffect(() => {
    void ask<{ people: { id: string; name: string; role: string }[] }>('/api/people').then(
      (answer) => {
        const workers = answer.people.filter((one) => one.role !== 'supervisor')
        setPeople(workers)
        // Who worked on the job made before works on this one as well, until somebody says otherwise.
        const before = JSON.parse(localStorage.getItem(CREW) ?? '[]') as string[]
        setChosen(workers.map((one) => one.id).filter((id) => before.includes(id)))
      },
      () => undefined,
    )
    void ask<{ regimes: Regime[] }>('/api/regimes').then(
      (answer) => setRegimes(newest(answer.regimes)),
      () => undefined,
    )
  }, [])
  const make = async (): Promise<void> => {
    if (!number.trim() || !name.trim()) return setMessage(say('today.new-job-needs'))
    const id = uuid()
    const pinned = regimes.find((one) => one.id === regime)
    try {
      await ask('/api/jobs', {
        id,
        visitId: uuid(),
        number: number.trim(),
        name: name.trim(),
        place: place.trim(),
        people: chosen,
        ...(dueOn === null ? {} : { dueOn }),
        ...(pinned ? { regime: { id: pinned.id, version: pinned.version } } : {}),
      })
      localStorage.setItem(CREW, JSON.stringify(chosen))
      window.location.assign(`/job#${id}/plant`)
    } catch (error) {
      setMessage(error instanceof Answered ? error.message : say('record.needs-reception'))
    }
  }
  return (
    <Form onSubmit={() => void make()}>
      <div className="two wide">
        <Field label={say('today.job-number')} value={number} onValue={setNumber} most={20} />
        <Field label={say('today.job-name')} value={name} onValue={setName} most={80} />
        <Field label={say('today.job-place')} value={place} onValue={setPlace} most={160} />
        {regimes.length > 0 && (
          <Choice
            label={say('office.regime')}
            value={regime || DEFAULT_REGIME}
            onValue={setRegime}
            options={regimes.map((one) => ({
              value: one.id,
              text: say('office.regime-version', { name: one.name, version: one.version }),
            }))}
          />
        )}
      </div>
      <div className="two wide">
        <Labelled label={say('today.job-people')}>
          {(id) => (
            <Select<string[]>
              id={id}
              mode="multiple"
              optionFilterProp="label"
              value={chosen}
              onChange={setChosen}
              data-testid="job-people"
              options={people.map((one) => ({
                value: one.id,
                label: `${one.name}, ${say(`role.${one.role}` as WordKey)}`,
              }))}
            />
          )}
        </Labelled>
        <Labelled label={say('today.plan-day')}>
          {(id) => <DayPicker id={id} value={dueOn} onValue={setDueOn} />}
        </Labelled>
      </div>
      {people.length > 0 && chosen.length === 0 && <Alert type="info" title={say('today.nobody-why')} />}
      <Said message={message} />
      <div style={{ display: 'flex', gap: 10 }}>
        <Button type="primary" htmlType="submit">
          {say('today.make-job')}
        </Button>
        <Button onClick={onClose}>{say('action.close')}</Button>
      </div>
    </Form>
  )
}
