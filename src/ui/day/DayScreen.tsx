'use client'
import '@/words/day'
import '@/words/charts'
import './day.css'
import { Alert, Button, Segmented, Table, TimePicker } from 'antd'
import dayjs from 'dayjs'
import { useMemo, useState } from 'react'
import {
  type DayPlan,
  dayPlan,
  type Left,
  type PlaneLight,
  planesOf,
  type Shift,
  type Stretch,
} from '@/core/evaluation/dayPlan'
import { changesOf, minutesOf, type Piece, piecesOf } from '@/core/evaluation/dayWork'
import { lightBetween } from '@/core/evaluation/sunOfDay'
import type { Evaluation } from '@/core/evaluation/types'
import { type Way, walkOf, ways } from '@/core/evaluation/walk'
import { quantity, say } from '@/words/say'
import { Chart } from '../chart/Chart'
import { usePalette } from '../chart/palette'
import { Form, Labelled, Said } from '../shell/Form'
import type { JobRoute } from '../shell/route'
import { clockTime, fullDay } from '../shell/time'
import { DayPicker } from '../today/PlanDialog'
import { type DayDrawn, dayHeight, dayMarks, dayOption } from './dayOption'
import { leftText, partsText, planeText, whoText } from './dayWords'
import { WorkLink, WorkList } from './WorkList'
import { type ShiftForm, shiftAt, shiftOn, timeAt, wholeDay } from './shift'

type Props = { evaluation: Evaluation; now: number; route: JobRoute; go(route: JobRoute): void }

type Asked = ShiftForm & { people: 1 | 2; sky: Shift['sky']; way: Way }

/** The sun over each plane, and the work that is left laid under it. */
export function DayScreen({ evaluation, now, route, go }: Props) {
  const { timeZone } = evaluation.facts.job
  const [asked, setAsked] = useState<Asked>(() => ({
    ...shiftAt(now, timeZone),
    people: 1,
    sky: 'clear',
    way: 'by-test',
  }))
  const day = useDay(evaluation, asked)
  const set = (about: Partial<Asked>): void => setAsked((before) => ({ ...before, ...about }))
  // Another day begins in the morning, and not at the time that it is now.
  const setDay = (day: string): void => set(day === asked.day ? {} : { day, from: shiftOn(day, now, timeZone).from })
  const toSite = (): void =>
    go({ ...route, view: 'plant', step: null, partId: evaluation.plant.site?.id ?? route.jobId })
  const isBackward = asked.to <= asked.from
  return (
    <div className="cols" data-view="day">
      <aside className="rail" aria-label={say('day.title')}>
        <div className="head">
          <b>{say('day.title')}</b>
          <a href={`#${route.jobId}`}>{say('runsheet.title')}</a>
        </div>
        <ShiftFields asked={asked} set={set} setDay={setDay} message={isBackward ? say('day.shift-bad') : null} />
      </aside>
      <section className="pane day" aria-labelledby="day-says">
        {day && <Laid evaluation={evaluation} day={day} asked={asked} route={route} />}
      </section>
      <aside className="margin" aria-label={say('day.planes')}>
        {day && <Beside day={day} timeZone={timeZone} toSite={toSite} route={route} />}
      </aside>
    </div>
  )
}

type Day = DayDrawn & { pieces: readonly Piece[]; hasPlace: boolean; hasPlanes: boolean }

/** The day as it is asked for; null where the shift is none. */
function useDay(evaluation: Evaluation, asked: Asked): Day | null {
  return useMemo(() => {
    const { plant, facts } = evaluation
    const { timeZone } = facts.job
    if (asked.to <= asked.from) return null
    const whole = wholeDay(asked.day, timeZone)
    const shift: Shift = {
      from: timeAt(asked.day, asked.from, timeZone),
      to: timeAt(asked.day, asked.to, timeZone),
      people: asked.people,
      sky: asked.sky,
    }
    const { latitude_deg, longitude_deg } = plant.site?.data ?? {}
    const place = latitude_deg != null && longitude_deg != null ? { latitude_deg, longitude_deg } : null
    const least_Wm2 = facts.regime.limits['pv.least-light']?.value ?? null
    const planes = place && least_Wm2 !== null ? planesOf(plant, place, whole, least_Wm2) : []
    const pieces = piecesOf(walkOf(evaluation, asked.way), plant)
    return {
      planes,
      pieces,
      shift,
      least_Wm2,
      plan: dayPlan(pieces, planes, shift),
      measured: lightBetween(evaluation, whole.from, whole.to),
      hasPlace: place !== null,
      hasPlanes: plant.ofKind('array').length > 0,
    }
  }, [evaluation, asked])
}

type ClockProps = { id: string; day: string; clock: string; onClock(clock: string): void }

/** A time of the day, typed or picked, as 07:30. */
function ClockPicker({ id, day, clock, onClock }: ClockProps) {
  // The same time is the same object: another one, at any drawing of the page, would wipe what is being typed.
  const time = useMemo(() => dayjs(`${day} ${clock}`), [day, clock])
  return (
    <TimePicker
      id={id}
      format="HH:mm"
      minuteStep={15}
      allowClear={false}
      needConfirm={false}
      value={time}
      onChange={(next) => next && onClock(next.format('HH:mm'))}
      style={{ width: '100%' }}
    />
  )
}

function ShiftFields({
  asked,
  set,
  setDay,
  message,
}: {
  asked: Asked
  set(about: Partial<Asked>): void
  setDay(day: string): void
  message: string | null
}) {
  const clock = (which: 'from' | 'to') => (
    <Labelled label={say(`day.${which}`)}>
      {(id) => (
        <ClockPicker id={id} day={asked.day} clock={asked[which]} onClock={(clock) => set({ [which]: clock })} />
      )}
    </Labelled>
  )
  return (
    <div className="dayfields">
      <Form onSubmit={() => undefined}>
        <Labelled label={say('day.on')}>
          {(id) => <DayPicker id={id} mustBe value={asked.day} onValue={(day) => day && setDay(day)} />}
        </Labelled>
        <div className="pair">
          {clock('from')}
          {clock('to')}
        </div>
        <Said message={message} />
        <Pick
          label={say('day.people')}
          value={asked.people}
          onValue={(people) => set({ people })}
          options={[1, 2] as const}
          text={(one) => say(one === 1 ? 'day.people-1' : 'day.people-2')}
        />
        {asked.people === 2 && <p className="src">{say('day.people-two')}</p>}
        <Pick
          label={say('day.sky')}
          value={asked.sky}
          onValue={(sky) => set({ sky })}
          options={['clear', 'dull'] as const}
          text={(one) => say(one === 'clear' ? 'day.sky-clear' : 'day.sky-dull')}
        />
        <Pick
          label={say('day.order')}
          value={asked.way}
          onValue={(way) => set({ way })}
          options={ways}
          text={(one) => say(`walk.${one}`)}
        />
      </Form>
    </div>
  )
}

type PickProps<T extends string | number> = {
  label: string
  value: T
  options: readonly T[]
  text(one: T): string
  onValue(value: T): void
}

function Pick<T extends string | number>({ label, value, options, text, onValue }: PickProps<T>) {
  return (
    <Labelled label={label}>
      {(id) => (
        <Segmented<T>
          block
          id={id}
          value={value}
          onChange={onValue}
          options={options.map((one) => ({ value: one, label: text(one) }))}
        />
      )}
    </Labelled>
  )
}

const minutesIn = (list: readonly { units: Piece['units'] | readonly Piece['units'][number][] }[]): number =>
  list.reduce((sum, { units }) => sum + minutesOf(units), 0)

/** What the whole comes to, in a sentence. */
function planText({ stretches, left }: DayPlan, timeZone: string): string {
  const laid = minutesIn(stretches)
  if (stretches.length + left.length === 0) return say('day.nothing-left')
  const changes = stretches.reduce((sum, { units }) => sum + changesOf(units), 0)
  if (left.length > 0) return say('day.not-over', { all: laid + minutesIn(left), laid, changes })
  const over = Math.max(...stretches.map(({ to }) => to))
  return say('day.over', { minutes: laid, changes, time: clockTime(over, timeZone) })
}

type LaidProps = { evaluation: Evaluation; day: Day; asked: Asked; route: JobRoute }

function Laid({ evaluation, day, asked, route }: LaidProps) {
  const { timeZone } = evaluation.facts.job
  const palette = usePalette()
  const option = useMemo(() => dayOption(day, timeZone, palette), [day, timeZone, palette])
  const marks = useMemo(() => dayMarks(day, timeZone), [day, timeZone])
  const { plan, shift, planes } = day
  const planeOf = (arrayId: string | null): string =>
    arrayId === null ? say('day.in-any-light') : (evaluation.parts.get(arrayId)?.data.tag ?? '')
  return (
    <>
      <h1 id="day-says" className="daysays" data-testid="day-says">
        <small>{fullDay(shift.from, timeZone)}</small>
        {planText(plan, timeZone)}
      </h1>
      {(plan.stretches.length > 0 || planes.length > 0) && (
        <Chart
          // Lanes come and go: the chart is as high as they are.
          key={dayHeight(day)}
          name="day"
          option={option}
          height={dayHeight(day)}
          label={say('day.chart', { day: fullDay(shift.from, timeZone) })}
          marks={marks}
        />
      )}
      {plan.stretches.length > 0 && (
        <Table<Stretch>
          size="small"
          pagination={plan.stretches.length > MOST_ROWS ? { pageSize: MOST_ROWS } : false}
          rowKey={(one) => `${one.piece.id} ${one.from}`}
          dataSource={plan.stretches}
          data-testid="day-table"
          columns={[
            {
              title: say('day.column-time'),
              className: 'nowrap',
              render: (_, one) =>
                say('day.window', { from: clockTime(one.from, timeZone), to: clockTime(one.to, timeZone) }),
            },
            ...(asked.people === 2
              ? [{ title: say('day.column-who'), render: (_: unknown, one: Stretch) => whoText(one) }]
              : []),
            {
              title: say('day.column-what'),
              render: (_, one) => (
                <>
                  <WorkLink piece={one.piece} units={one.units} route={route} />
                  <small className="with-what">
                    <span>{partsText(one.piece, one.units)}</span>
                    {one.piece.arrayId !== null && <span>{planeOf(one.piece.arrayId)}</span>}
                  </small>
                </>
              ),
            },
            { ...BESIDE, title: say('day.column-where'), render: (_, one) => partsText(one.piece, one.units) },
            { ...BESIDE, title: say('day.column-light'), render: (_, one) => planeOf(one.piece.arrayId) },
            { title: say('day.column-minutes'), align: 'right', render: (_, one) => minutesOf(one.units) },
          ]}
        />
      )}
    </>
  )
}

const MOST_ROWS = 40
/** A column which a narrow screen shows below what is done. */
const BESIDE = { className: 'beside' } as const

type BesideProps = { day: Day; timeZone: string; route: JobRoute; toSite(): void }

function Beside({ day, timeZone, route, toSite }: BesideProps) {
  const anyLight = day.pieces.filter(({ arrayId }) => arrayId === null)
  return (
    <>
      <section className="note">
        <h2>{say('day.planes')}</h2>
        <Planes planes={day.planes} least_Wm2={day.least_Wm2 ?? 0} timeZone={timeZone} />
        {!day.hasPlanes && <p>{say('day.no-planes')}</p>}
        {day.hasPlanes && day.least_Wm2 === null && <p>{say('day.no-least')}</p>}
        {day.hasPlanes && !day.hasPlace && (
          <Alert
            type="warning"
            title={say('day.no-place')}
            action={
              <Button size="small" onClick={toSite} data-testid="to-site">
                {say('day.to-place')}
              </Button>
            }
          />
        )}
        <p className="src">{say('day.only-plan')}</p>
      </section>
      {day.plan.left.length > 0 && <LeftOver left={day.plan.left} route={route} />}
      {day.hasPlanes && anyLight.length > 0 && (
        <section className="note" data-testid="any-light">
          <h2>{say('day.any-light', { minutes: minutesIn(anyLight) })}</h2>
          <p className="src">{say('day.any-light-why')}</p>
          <WorkList list={anyLight.map((piece) => ({ piece, units: piece.units, says: null }))} route={route} />
        </section>
      )}
    </>
  )
}

function Planes({
  planes,
  least_Wm2,
  timeZone,
}: {
  planes: readonly PlaneLight[]
  least_Wm2: number
  timeZone: string
}) {
  if (planes.length === 0) return null
  return (
    <>
      <ul className="daylist" data-testid="day-planes">
        {planes.map((one) => (
          <li key={one.array.id}>{planeText(one, least_Wm2, timeZone)}</li>
        ))}
      </ul>
      <p className="src">{say('day.least', { least: quantity(least_Wm2, 'Wm2', 0) })}</p>
    </>
  )
}

function LeftOver({ left, route }: { left: readonly Left[]; route: JobRoute }) {
  return (
    <section className="note" data-testid="day-left">
      <h2>{say('day.left', { minutes: minutesIn(left) })}</h2>
      {left.some(({ why }) => why === 'light') && <p className="src">{say('day.left-dull')}</p>}
      <WorkList list={left.map((one) => ({ ...one, says: leftText(one) }))} route={route} />
    </section>
  )
}
