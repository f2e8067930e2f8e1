'use client'
import { Button, Modal } from 'antd'
import { useState } from 'react'
import { parseReading } from '@/core/quantity/parseReading'
import type { ReadValue } from '@/core/quantity/readValue'
import type { Unit } from '@/core/quantity/unit'
import type { WithoutMeter } from '@/core/evaluate'
import { isAirInReach, refuseConditions } from '@/core/pv/conditions'
import type { Mounting } from '@/core/pv/cellTemperature'
import type { Conditions } from '@/core/record/entry'
import { copyForReading, type Instrument, type Measurable } from '@/core/record/instrument'
import { say, sayCode, type WordKey } from '@/words/say'
import { Choice, Field, Form, Said } from '../shell/Form'
import { DialogActions } from '../shell/ReasonDialog'

const ways = ['back', 'air', 'voltage'] as const
type Way = (typeof ways)[number]
const mountings: Mounting[] = ['open-rack', 'close-roof', 'insulated-back']

type Props = {
  instruments: readonly Instrument[]
  mounting: Mounting
  modules: number
  onClose(): void
  onSet(conditions: Conditions): void
  /** There is no light meter today; the air as somebody read or guessed it. */
  onWithout(air: WithoutMeter['air']): void
  onLive: (() => void) | null
  onLogger(): void
}

type Read = { ok: true; read: ReadValue } | { ok: false; why: string }

function readField(text: string, unit: Unit): Read {
  const parsed = parseReading(text, unit)
  if (parsed.state === 'read' && parsed.reading.bound === 'exact') return { ok: true, read: parsed.reading }
  if (parsed.state === 'read') return { ok: false, why: say('refused.conditions-unusable') }
  if (parsed.state === 'refused')
    return { ok: false, why: sayCode('refused', parsed.code, { text: parsed.text, unit }) }
  const [decimal, thousand] = parsed.choices
  return {
    ok: false,
    why: say('refused.thousand-or-decimal', { text, decimal: String(decimal.value), thousand: String(thousand.value) }),
  }
}

function kitCopy(instruments: readonly Instrument[], measures: Measurable) {
  const found = instruments.find((one) => one.ranges.some((range) => range.measures === measures))
  return found && !found.standIn ? copyForReading(found, measures) : null
}

/** Light and cell temperature by hand, the temperature by one of three ways; or that there is no light meter today. */
export function ConditionsDialog({
  instruments,
  mounting,
  modules,
  onClose,
  onSet,
  onWithout,
  onLive,
  onLogger,
}: Props) {
  const [hasMeter, setMeter] = useState<'meter' | 'none'>('meter')
  const [light, setLight] = useState('')
  const [way, setWay] = useState<Way>('back')
  const [value, setValue] = useState('')
  const [mounted, setMounted] = useState<Mounting>(mounting)
  const [count, setCount] = useState(String(modules))
  const [message, setMessage] = useState<string | null>(null)

  const goWithout = (): void => {
    if (value.trim() === '') return onWithout(null)
    const air = readField(value, 'degC')
    if (!air.ok) return setMessage(`${say('conditions.way.air')}: ${air.why}`)
    if (!isAirInReach(air.read.value))
      return setMessage(sayCode('refused', 'air-out-of-reach', { temperature: air.read.value }))
    onWithout({ read: air.read, instrument: kitCopy(instruments, 'air-temperature') })
  }
  const keep = (): void => {
    if (hasMeter === 'none') return goWithout()
    const g = readField(light, 'Wm2')
    const t = readField(value, way === 'voltage' ? 'V' : 'degC')
    if (!g.ok) return setMessage(`${say('conditions.light')}: ${g.why}`)
    if (!t.ok) return setMessage(`${say(`conditions.way.${way}` as WordKey)}: ${t.why}`)
    const conditions: Conditions = {
      irradiance: { read: g.read, instrument: kitCopy(instruments, 'irradiance') },
      cell:
        way === 'back'
          ? { way, read: t.read, mounting: mounted, instrument: kitCopy(instruments, 'module-back-temperature') }
          : way === 'air'
            ? { way, read: t.read, instrument: kitCopy(instruments, 'air-temperature') }
            : {
                way,
                read: t.read,
                modulesInSeries: Math.max(1, Math.min(60, Number(count) || modules)),
                instrument: null,
              },
      at: new Date().toISOString(),
      how: 'typed',
    }
    const refused = refuseConditions(conditions)
    if (refused) return setMessage(sayCode('refused', refused, { irradiance: g.read.value, temperature: t.read.value }))
    onSet(conditions)
  }

  return (
    <Modal open title={say('conditions.title')} onCancel={onClose} footer={null} destroyOnHidden>
      <Form focused onSubmit={keep}>
        {hasMeter === 'none' && <p data-testid="without-meter">{say('conditions.without')}</p>}
        {hasMeter === 'meter' && (
          <>
            <Field label={`${say('conditions.light')}, W/m²`} value={light} onValue={setLight} mode="decimal" />
            <Choice<Way>
              label={say('conditions.way')}
              value={way}
              onValue={setWay}
              options={ways.map((one) => ({ value: one, text: say(`conditions.way.${one}`) }))}
            />
          </>
        )}
        <div className="two">
          <Field
            label={
              hasMeter === 'none'
                ? say('conditions.air-about')
                : `${say(`conditions.value.${way}`)}, ${way === 'voltage' ? 'V' : '°C'}`
            }
            value={value}
            onValue={setValue}
            mode="decimal"
          />
          {hasMeter === 'meter' && way === 'back' && (
            <Choice<Mounting>
              label={say('conditions.mounting')}
              value={mounted}
              onValue={setMounted}
              options={mountings.map((one) => ({ value: one, text: say(`mounting.${one}`) }))}
            />
          )}
          {hasMeter === 'meter' && way === 'voltage' && (
            <Field label={say('conditions.modules')} value={count} onValue={setCount} mode="numeric" />
          )}
        </div>
        <Said message={message} />
        <DialogActions action={say('conditions.use')} onClose={onClose}>
          {hasMeter === 'meter' && (
            <Button onClick={() => setMeter('none')} data-testid="no-meter">
              {say('conditions.meter.none')}
            </Button>
          )}
          <Button onClick={onLogger} data-testid="from-logger">
            {say('conditions.logger')}
          </Button>
          {onLive && <Button onClick={onLive}>{say('conditions.live')}</Button>}
        </DialogActions>
      </Form>
    </Modal>
  )
}
