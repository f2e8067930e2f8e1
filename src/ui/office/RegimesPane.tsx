'use client'
import '@/words/regime'
import { Alert, Button } from 'antd'
import { useState } from 'react'
import {
  type LimitId,
  limitIds,
  type Regime,
  type SchoolId,
  type Schools,
  schoolIds,
  schoolOptions,
  lackingLimits,
} from '@/core/regime/regime'
import { ancestorOf } from '@/core/regime/difference'
import { defaultRegime } from '@/core/regime/shipped'
import { unitSpellings } from '@/core/quantity/unit'
import { say, sayCode } from '@/words/say'
import { ask } from '../device/api'
import { Choice, Field, Form, Said } from '../shell/Form'
import { LimitTable, nameOf, rowsOf } from './LimitTable'
import { quietly, useAsked, whyNot } from './useAsked'

const keyOf = (regime: Regime): string => `${regime.id} ${regime.version}`

/** Named, versioned sets of limits and schools: every version stays as it was, and a change makes the next. */
export function RegimesPane({ mayChange }: { mayChange: boolean }) {
  const [asked, again] = useAsked<{ regimes: Regime[] }>('/api/regimes')
  const [chosen, setChosen] = useState<string | null>(null)
  const [changing, setChanging] = useState(false)
  if (asked.state !== 'here') return <p style={{ padding: '20px 0' }}>{quietly(asked)}</p>
  const { regimes } = asked.value
  const shown = regimes.find((one) => keyOf(one) === (chosen ?? keyOf(defaultRegime))) ?? regimes[0]
  if (!shown) return null
  return (
    <>
      <p className="src" style={{ padding: '10px 0' }}>
        {say('office.regimes-about')}
      </p>
      <div className="acts-row" style={{ alignItems: 'end' }}>
        <Choice
          label={say('office.regime')}
          value={keyOf(shown)}
          onValue={(key) => {
            setChosen(key)
            setChanging(false)
          }}
          options={regimes.map((one) => ({
            value: keyOf(one),
            text: say('office.regime-version', { name: one.name, version: one.version }),
          }))}
        />
        {mayChange && !changing && (
          <Button onClick={() => setChanging(true)} data-testid="change-regime">
            {say('office.change-regime')}
          </Button>
        )}
      </div>
      {shown.changed && <p className="src">{say('office.changed', shown.changed)}</p>}
      {lackingLimits(shown).length > 0 && (
        <Alert
          type="warning"
          showIcon
          data-testid="regime-lacks"
          message={say('office.regime-lacks', {
            what: lackingLimits(shown)
              .map((id) => sayCode('limit', id))
              .join('; '),
          })}
        />
      )}
      {changing ? (
        <ChangeForm
          key={keyOf(shown)}
          regime={shown}
          onClose={() => setChanging(false)}
          onMade={(made) => {
            setChanging(false)
            setChosen(keyOf(made))
            again()
          }}
        />
      ) : (
        <Limits key={keyOf(shown)} regime={shown} known={regimes} />
      )}
    </>
  )
}

const NOTHING = 'nothing'

/** All figures of a regime; or beside another one what differs. */
function Limits({ regime, known }: { regime: Regime; known: readonly Regime[] }) {
  const others = known.filter((one) => keyOf(one) !== keyOf(regime))
  const ancestor = ancestorOf(regime, known)
  const [besideKey, setBeside] = useState(NOTHING)
  const beside = others.find((one) => keyOf(one) === besideKey) ?? null
  const rows = rowsOf(regime, beside)
  return (
    <>
      <div className="acts-row" style={{ alignItems: 'end' }}>
        <Choice
          label={say('office.compare')}
          value={besideKey}
          onValue={setBeside}
          testId="compare-regime"
          options={[
            { value: NOTHING, text: say('office.compare-nothing') },
            ...others.map((one) => ({
              value: keyOf(one),
              text: one === ancestor ? say('office.compare-ancestor', { name: nameOf(one) }) : nameOf(one),
            })),
          ]}
        />
        {beside && (
          <p className="src" data-testid="compare-count">
            {say('office.compare-count', { count: rows.length })}
          </p>
        )}
      </div>
      <LimitTable regime={regime} beside={beside} rows={rows} />
    </>
  )
}

/** The unit of a figure, of what ships where the regime lacks it. */
const unitOf = (regime: Regime, id: LimitId) => (regime.limits[id] ?? defaultRegime.limits[id]!).unit

type ChangeProps = { regime: Regime; onClose(): void; onMade(regime: Regime): void }

function ChangeForm({ regime, onClose, onMade }: ChangeProps) {
  const [name, setName] = useState(regime.changed ? regime.name : say('office.copy-name', { name: regime.name }))
  const [reason, setReason] = useState('')
  const [limits, setLimits] = useState<Record<string, string>>(() =>
    Object.fromEntries(limitIds.map((id) => [id, String(regime.limits[id]?.value ?? '')])),
  )
  const [schools, setSchools] = useState<Schools>(regime.schools)
  const [message, setMessage] = useState<string | null>(null)
  const make = async (): Promise<void> => {
    const changed: Partial<Record<LimitId, number>> = {}
    for (const id of limitIds) {
      const value = Number((limits[id] ?? '').trim().replace(',', '.') || Number.NaN)
      if (Number.isNaN(value) && !regime.limits[id]) continue
      if (Number.isNaN(value)) return setMessage(say('office.no-figure', { what: sayCode('limit', id) }))
      if (value !== regime.limits[id]?.value) changed[id] = value
    }
    if (reason.trim().length < 3) return setMessage(say('office.reason-needed'))
    if (name.trim().length < 3) return setMessage(say('office.name-needed'))
    try {
      const from = { id: regime.id, version: regime.version }
      const wish = { from, name: name.trim(), limits: changed, schools, reason: reason.trim() }
      const made = await ask<{ regime: Regime }>('/api/regimes', wish)
      onMade(made.regime)
    } catch (error) {
      setMessage(whyNot(error))
    }
  }
  return (
    <Form focused onSubmit={() => void make()}>
      <div className="two">
        <Field label={say('office.regime-name')} value={name} onValue={setName} most={120} testId="regime-name" />
        <Field label={say('office.reason')} value={reason} onValue={setReason} most={500} testId="regime-reason" />
      </div>
      <div className="two">
        {schoolIds.map((id) => (
          <Choice
            key={id}
            label={sayCode('school', id)}
            value={schools[id]}
            onValue={(option) => setSchools((before) => ({ ...before, [id as SchoolId]: option }))}
            options={schoolOptions[id].map((option) => ({
              value: option,
              text: sayCode('school', `${id}.${option}`),
            }))}
          />
        ))}
      </div>
      <div className="two wide">
        {limitIds.map((id) => (
          <Field
            key={id}
            label={[sayCode('limit', id), unitSpellings[unitOf(regime, id)].written].filter(Boolean).join(', ')}
            value={limits[id] ?? ''}
            onValue={(value) => setLimits((before) => ({ ...before, [id]: value }))}
            mode="decimal"
            testId={`limit-${id}`}
          />
        ))}
      </div>
      <Said message={message} />
      <div className="acts-row">
        <Button type="primary" htmlType="submit" data-testid="make-regime">
          {say('office.make-regime')}
        </Button>
        <Button onClick={onClose}>{say('action.close')}</Button>
      </div>
    </Form>
  )
}
