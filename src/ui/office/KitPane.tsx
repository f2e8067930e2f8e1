'use client'
import '@/words/ac'
import '@/words/plant'
import { Button, Checkbox } from 'antd'
import { useState } from 'react'
import { abilities, type Instrument } from '@/core/record/instrument'
import { say, sayCode } from '@/words/say'
import { ask } from '../device/api'
import { Mark } from '../mark/Mark'
import { Field, Form, Said } from '../shell/Form'
import { shortDay } from '../shell/time'
import { calibrationVerdict, daysLeft } from '@/core/record/calibration'
import { FeedKey } from './FeedKey'
import { kitTexts, measurables, rangeLines, readKit, type RangeTexts } from './kitForm'
import { quietly, useAsked, whyNot } from './useAsked'

/** The kit: what each instrument measures, how well, until when, and with which leads. */
export function KitPane({ mayChange, now }: { mayChange: boolean; now: number }) {
  const [asked, again] = useAsked<{ instruments: Instrument[] }>('/api/instruments')
  const [open, setOpen] = useState<string | null>(null)
  if (asked.state !== 'here') return <p style={{ padding: '20px 0' }}>{quietly(asked)}</p>
  const kit = [...asked.value.instruments].sort((a, b) => a.tag.localeCompare(b.tag, 'en', { numeric: true }))
  const done = (): void => {
    setOpen(null)
    again()
  }
  return (
    <>
      <p className="src" style={{ padding: '10px 0' }}>
        {say('kit.about')}
      </p>
      {mayChange && (
        <div className="acts-row" style={{ paddingBottom: 8 }}>
          <Button className="small" onClick={() => setOpen(open === 'new' ? null : 'new')} data-testid="add-tool">
            {say('kit.add')}
          </Button>
        </div>
      )}
      {open === 'new' && <KitForm tool={null} onDone={done} />}
      <div className="plantlist">
        {kit.map((tool) => (
          <div key={tool.id}>
            <div className="plantrow">
              <span className="tagbig">{tool.tag}</span>
              <span>
                <b>{tool.name}</b> {tool.serial}{' '}
                {tool.standIn && <span className="quiet">{say('slot.simulated')}</span>}
                <br />
                <span className="small quiet">{rangeLines(tool).join('; ')}</span>
                {tool.leadSets && (
                  <>
                    <br />
                    <span className="small quiet">
                      {say('kit.leads')}: {tool.leadSets.map((one) => one.name).join(', ')}
                    </span>
                  </>
                )}
              </span>
              <Due tool={tool} now={now} />
              {mayChange && (
                <button
                  type="button"
                  className="slim-btn"
                  aria-expanded={open === tool.id}
                  aria-label={say('kit.change', { tag: tool.tag })}
                  onClick={() => setOpen(open === tool.id ? null : tool.id)}
                >
                  {say('plant.change')}
                </button>
              )}
            </div>
            {open === tool.id && (
              <>
                <KitForm tool={tool} onDone={done} />
                <FeedKey tool={tool} onRetired={done} />
              </>
            )}
          </div>
        ))}
      </div>
    </>
  )
}

function Due({ tool, now }: { tool: Instrument; now: number }) {
  if (!tool.calibrationDue) return <span className="small quiet">{say('slot.uncalibrated')}</span>
  const days = daysLeft(tool.calibrationDue, now)
  const date = shortDay(tool.calibrationDue, 'UTC')
  return (
    <span className="small">
      <Mark verdict={calibrationVerdict(days)} size={16} named={false} />{' '}
      {days < 0 ? say('today.ran-out', { date }) : say('slot.until', { date })}
    </span>
  )
}

function KitForm({ tool, onDone }: { tool: Instrument | null; onDone(): void }) {
  const [texts, setTexts] = useState(() => kitTexts(tool))
  const [message, setMessage] = useState<string | null>(null)
  const keep = async (): Promise<void> => {
    const read = readKit(texts, tool)
    if ('message' in read) return setMessage(read.message)
    try {
      await ask('/api/instruments', read.tool)
      onDone()
    } catch (error) {
      setMessage(whyNot(error))
    }
  }
  const set = (part: Partial<typeof texts>): void => setTexts((before) => ({ ...before, ...part }))
  return (
    <Form focused onSubmit={() => void keep()}>
      <div className="two">
        <Field label={say('kit.tag')} value={texts.tag} onValue={(tag) => set({ tag })} most={12} testId="kit-tag" />
        <Field
          label={say('kit.name')}
          value={texts.name}
          onValue={(name) => set({ name })}
          most={60}
          testId="kit-name"
        />
        <Field label={say('kit.serial')} value={texts.serial} onValue={(serial) => set({ serial })} most={40} />
        <Field label={say('kit.due')} value={texts.due} onValue={(due) => set({ due })} type="date" testId="kit-due" />
        <Field label={say('kit.lead-sets')} value={texts.leads} onValue={(leads) => set({ leads })} most={200} />
      </div>
      <div>
        {measurables.map((measures) => (
          <RangeRow
            key={measures}
            name={sayCode('measures', measures)}
            range={texts.ranges[measures]}
            onRange={(range) => set({ ranges: { ...texts.ranges, [measures]: range } })}
          />
        ))}
      </div>
      <Checkbox.Group
        aria-label={say('kit.can')}
        value={[...texts.can]}
        onChange={(can) => set({ can })}
        options={abilities.map((value) => ({ value, label: sayCode('need', value) }))}
      />
      <Said message={message} />
      <div className="acts-row">
        <Button type="primary" htmlType="submit" data-testid="keep-tool">
          {say('kit.keep')}
        </Button>
        <Button onClick={onDone}>{say('action.close')}</Button>
      </div>
    </Form>
  )
}

type RangeProps = { name: string; range: RangeTexts; onRange(range: RangeTexts): void }

function RangeRow({ name, range, onRange }: RangeProps) {
  const field = (key: 'most' | 'ofReading' | 'digits' | 'decimals') => (
    <Field
      label={say(`kit.${key}`)}
      value={range[key]}
      onValue={(value) => onRange({ ...range, [key]: value })}
      mode="decimal"
    />
  )
  return (
    <div className="range">
      <Checkbox checked={range.on} onChange={(event) => onRange({ ...range, on: event.target.checked })}>
        {name}
      </Checkbox>
      {range.on && (
        <div className="two">
          {field('most')}
          {field('ofReading')}
          {field('digits')}
          {field('decimals')}
        </div>
      )}
    </div>
  )
}
