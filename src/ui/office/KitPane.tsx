'use client'
import '@/words/everyTest'
import '@/words/plant'
import { Button, Checkbox, Radio, Table } from 'antd'
import { useState } from 'react'
import { abilities, halfWaits_ms, type Instrument, type Measurable } from '@/core/record/instrument'
import { quantity, say, sayCode } from '@/words/say'
import { ask } from '../device/api'
import { Mark } from '../mark/Mark'
import { Field, Form, Said } from '../shell/Form'
import { ThinRule } from '../rule/ThinRule'
import { ChevronDown } from '../shell/ChevronDown'
import { yearDay } from '../shell/time'
import { calibrationVerdict, daysLeft } from '@/core/record/calibration'
import { FeedKey } from './FeedKey'
import {
  kitTexts,
  measurables,
  measuredNames,
  type RangeTexts,
  isFigure,
  rangeText,
  readKit,
  ruleOfRange,
  unitOf,
} from './kitForm'
import { quietly, useAsked, whyNot } from './useAsked'

/** The kit: what each instrument measures, how well, until when, and with which leads. */
export function KitPane({ mayChange, now }: { mayChange: boolean; now: number }) {
  const [asked, again] = useAsked<{ instruments: Instrument[] }>('/api/instruments')
  const [open, setOpen] = useState<string | null>(null)
  const [shown, setShown] = useState<readonly string[]>([])
  if (asked.state !== 'here') return <p style={{ padding: '20px 0' }}>{quietly(asked)}</p>
  const kit = [...asked.value.instruments].sort((a, b) => a.tag.localeCompare(b.tag, 'en', { numeric: true }))
  const done = (): void => {
    setOpen(null)
    again()
  }
  const change = (id: string): void => {
    setOpen(open === id ? null : id)
    if (open !== id) setShown((before) => [...new Set([...before, id])])
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
      <div className="kit-table">
        <Table<Instrument>
          rowKey="id"
          size="small"
          pagination={false}
          dataSource={kit}
          expandable={{
            columnWidth: 44,
            expandedRowKeys: [...shown],
            onExpand: (isOpen, { id }) =>
              setShown((before) => (isOpen ? [...before, id] : before.filter((one) => one !== id))),
            expandedRowRender: (tool) =>
              open === tool.id ? (
                <>
                  <KitForm tool={tool} onDone={done} />
                  <FeedKey tool={tool} onRetired={done} />
                </>
              ) : (
                <Ranges tool={tool} />
              ),
            expandIcon: ({ expanded, onExpand, record }) => (
              <Button
                type="text"
                aria-expanded={expanded}
                aria-label={say('kit.ranges', { tag: record.tag })}
                icon={<ChevronDown folded={!expanded} />}
                onClick={(event) => onExpand(record, event)}
              />
            ),
          }}
          columns={[
            {
              title: say('kit.instrument'),
              render: (_, tool) => (
                <>
                  <b>
                    {tool.tag} {tool.name}
                  </b>{' '}
                  {tool.serial} {tool.standIn && <span className="quiet">{say('slot.simulated')}</span>}
                </>
              ),
            },
            {
              title: say('kit.measures'),
              width: 420,
              responsive: ['lg'],
              render: (_, tool) => <span className="kit-measures">{measuredNames(tool)}</span>,
            },
            { title: say('kit.until'), render: (_, tool) => <Due tool={tool} now={now} /> },
            ...(mayChange
              ? [
                  {
                    title: '',
                    render: (_: unknown, tool: Instrument) => (
                      <Button
                        className="small"
                        aria-expanded={open === tool.id}
                        aria-label={say('kit.change', { tag: tool.tag })}
                        onClick={() => change(tool.id)}
                      >
                        {say('plant.change')}
                      </Button>
                    ),
                  },
                ]
              : []),
          ]}
        />
      </div>
    </>
  )
}

function Due({ tool, now }: { tool: Instrument; now: number }) {
  if (!tool.calibrationDue) return <span className="small quiet">{say('slot.uncalibrated')}</span>
  const days = daysLeft(tool.calibrationDue, now)
  const date = yearDay(tool.calibrationDue, 'UTC')
  return (
    <span className="small">
      <Mark verdict={calibrationVerdict(days)} size={16} named={false} />{' '}
      {days < 0 ? say('today.ran-out', { date }) : say('slot.until', { date })}
    </span>
  )
}

const RULE_WIDE = 220

/** How far an instrument reads and how well: each range as a rule whose limit is its highest value. */
function Ranges({ tool }: { tool: Instrument }) {
  return (
    <div className="kit-ranges">
      {tool.ranges.map((range) => (
        <div key={range.measures}>
          <b>{sayCode('measures', range.measures)}</b>
          {isFigure(range) && <ThinRule rule={ruleOfRange(range)} verdict="not-yet" wide={RULE_WIDE} low />}
          {isFigure(range) && <span>{rangeText(range)}</span>}
          {isFigure(range) && <span className="quiet">{say('kit.shown', { decimals: range.decimals })}</span>}
        </div>
      ))}
      {tool.halfWait_ms && (
        <p className="small quiet">
          {say('kit.half-wait')}: {quantity(tool.halfWait_ms, 'ms', 0)}
        </p>
      )}
      {tool.joining && (
        <p className="small quiet">
          {say('kit.joining')}: {quantity(tool.joining.most_V, 'V', 0)}, {quantity(tool.joining.most_A, 'A', 0)}
        </p>
      )}
      {tool.leadSets && (
        <p className="small quiet">
          {say('kit.leads')}: {tool.leadSets.map((one) => one.name).join(', ')}
        </p>
      )}
    </div>
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
            measures={measures}
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
      {texts.ranges.insulation.on && (
        <div className="two">
          <Field
            label={say('kit.joins-volts')}
            value={texts.joins_V}
            onValue={(joins_V) => set({ joins_V })}
            mode="decimal"
            testId="kit-joins-volts"
          />
          <Field
            label={say('kit.joins-amps')}
            value={texts.joins_A}
            onValue={(joins_A) => set({ joins_A })}
            mode="decimal"
            testId="kit-joins-amps"
          />
        </div>
      )}
      {texts.ranges['rcd-time'].on && (
        <fieldset>
          <legend>{say('kit.half-wait')}</legend>
          <Radio.Group
            optionType="button"
            value={texts.halfWait}
            data-testid="kit-half-wait"
            onChange={({ target }) => set({ halfWait: target.value as string })}
            options={['', ...halfWaits_ms.map(String)].map((value) => ({
              value,
              label: value === '' ? say('kit.half-unknown') : quantity(Number(value), 'ms', 0),
            }))}
          />
        </fieldset>
      )}
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

type RangeProps = { measures: Measurable; range: RangeTexts; onRange(range: RangeTexts): void }

function RangeRow({ measures, range, onRange }: RangeProps) {
  const unit = unitOf(measures)
  const field = (key: 'most' | 'ofReading' | 'digits' | 'decimals') => (
    <Field
      label={key === 'most' ? say(unit ? 'kit.most' : 'kit.most-bare', { unit }) : say(`kit.${key}`)}
      hint={say('kit.as-manual')}
      value={range[key]}
      onValue={(value) => onRange({ ...range, [key]: value })}
      mode="decimal"
    />
  )
  return (
    <div className="range">
      <Checkbox checked={range.on} onChange={(event) => onRange({ ...range, on: event.target.checked })}>
        {sayCode('measures', measures)}
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
