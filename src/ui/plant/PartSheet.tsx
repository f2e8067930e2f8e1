'use client'
import { Button, Checkbox, Collapse, Dropdown, Form as AntForm, InputNumber, Space } from 'antd'
import { type KeyboardEvent, useEffect, useMemo, useRef, useState } from 'react'
import { type AddedKind, alikeTo, mayComeAt } from '@/core/plant/additions'
import type { RuledField } from '@/core/plant/kinds'
import { MILD_SITE } from '@/core/plant/kinds/site'
import { valueAt } from '@/core/plant/missing'
import type { Part, PartData } from '@/core/plant/part'
import { isOpenField, particularsOf, sheetsOf } from '@/core/evaluation/particulars'
import type { Evaluation } from '@/core/evaluation/types'
import { partName, say } from '@/words/say'
import { kindName } from './drawing/PlantDrawing'
import { Follows } from './Follows'
import { Brings } from './Brings'
import {
  fieldsOfKind,
  type Libraries,
  readField,
  readPart,
  tagTaken,
  type Texts,
  textsAfter,
  textsOf,
} from './partForm'
import { SheetField } from './SheetField'

type Props = {
  part: Part
  evaluation: Evaluation
  libraries: Libraries
  canWrite: boolean
  /** The fields are to have the focus, once. */
  wantsFocus: boolean
  onFocused(): void
  /** With the parts that were alike, where they are to stay so. */
  onKeep(data: PartData, together: readonly Part[]): void
  onAdd(kind: AddedKind): void
  onCopies(count: number): void
  onTakeOut(): void
  onNewType(field: RuledField): void
  onBack(): void
}

type Message = { field: string; text: string }
const MOST_COPIES = 400

/** The part that is chosen: its fields, kept as they are left, what follows from it, and what it brings. */
export function PartSheet(props: Props) {
  const { part, evaluation, libraries, canWrite, wantsFocus, onFocused } = props
  const { plant } = evaluation
  const [texts, setTexts] = useState<Texts>(() => textsOf(part.data))
  const [message, setMessage] = useState<Message | null>(null)
  const alike = useMemo(() => alikeTo(part, plant), [part, plant])
  const [together, setTogether] = useState(false)
  const form = useRef<HTMLDivElement>(null)
  const kept = useRef(part.data)
  const isLeaving = useRef(false)
  // Somebody else, an undo or a choice changed it: what is being typed meanwhile stays.
  useEffect(() => {
    const before = kept.current
    if (before === part.data) return
    kept.current = part.data
    setTexts((texts) => textsAfter(texts, before, part.data))
  }, [part.data])
  useEffect(() => {
    if (!wantsFocus) return
    focusFirst(form.current, part)
    onFocused()
  }, [wantsFocus, onFocused, part])
  const typed = useMemo(() => readPart(part.data, texts, libraries), [part.data, texts, libraries])
  const data = 'data' in typed && !isSame(typed.data, part.data) ? typed.data : part.data

  const keep = (field: RuledField, value: string): void => {
    if (isLeaving.current) return
    const wanted = { ...texts, [field.id]: value }
    setTexts(wanted)
    const { kind, tag: ownTag } = part.data
    const taken = tagTaken(plant.parts.values(), kind, wanted.tag ?? ownTag, part.id)
    if (taken && field.id === 'tag')
      return setMessage({ field: 'tag', text: say('plant.tag-taken', { part: partName(taken) }) })
    // A tag that is taken holds nothing else back.
    const read = readField(part.data, taken ? { ...wanted, tag: ownTag } : wanted, field.id, libraries)
    if ('message' in read) return setMessage({ field: read.field, text: read.message })
    if (taken) setMessage({ field: 'tag', text: say('plant.tag-taken', { part: partName(taken) }) })
    else if (message?.field === field.id || !read.lacks) setMessage(null)
    setTexts((before) => ({ ...before, [field.id]: textsOf(read.data)[field.id] ?? '' }))
    if (!isSame(read.data, part.data)) props.onKeep(read.data, together && field.id !== 'tag' ? alike : [])
  }
  const onKey = (event: KeyboardEvent): void => {
    if (event.key === 'Escape') {
      event.stopPropagation()
      setTexts(textsOf(part.data))
      setMessage(null)
      // The field is left on the way; what was typed in it is not to be kept.
      isLeaving.current = true
      props.onBack()
      isLeaving.current = false
    }
    if (event.key === 'Enter' && event.target instanceof HTMLInputElement && event.target.type !== 'search') {
      event.preventDefault()
      focusNext(form.current, event.target)
    }
  }
  const mild = mildOf(data)
  const particulars = useMemo(() => particularsOf(part, sheetsOf(plant)), [part, plant])
  const open = particulars.filter((field) => isOpenField(part, field)).length
  const fieldOf = (field: RuledField) => (
    <SheetField
      key={field.id}
      field={field}
      part={part}
      value={texts[field.id] ?? ''}
      message={message?.field === field.id ? message.text : null}
      plant={plant}
      libraries={libraries}
      onValue={(value) => setTexts((before) => ({ ...before, [field.id]: value }))}
      onKeep={(value) => keep(field, value)}
      onNewType={props.onNewType}
    />
  )
  return (
    <section className="part-sheet" aria-label={partName(part)} data-testid="part-sheet">
      <header>
        <h2>{partName(part)}</h2>
        <small>{whereOf(part, evaluation)}</small>
      </header>
      {canWrite && alike.length > 0 && (
        <Checkbox checked={together} onChange={(event) => setTogether(event.target.checked)} data-testid="together">
          {say('plant.together', { count: alike.length })}
        </Checkbox>
      )}
      {/* biome-ignore lint/a11y/noStaticElementInteractions: Escape and Enter of the fields inside */}
      <div ref={form} onKeyDown={onKey}>
        <AntForm layout="vertical" className="columns12" component="div" disabled={!canWrite}>
          {fieldsOfKind(part.data.kind)
            .filter(({ on, when }) => !on && (!when || when.is.includes(texts[when.field] ?? '')))
            .map(fieldOf)}
        </AntForm>
        {particulars.length > 0 && (
          <Collapse
            ghost
            size="small"
            styles={{ header: { paddingInline: 0 }, body: { padding: 0 } }}
            defaultActiveKey={part.data.kind === 'site' ? ['all'] : []}
            items={[
              {
                key: 'all',
                label: open > 0 ? say('plant.for-the-record-open', { count: open }) : say('plant.for-the-record'),
                children: (
                  <AntForm layout="vertical" className="columns12" component="div" disabled={!canWrite}>
                    {particulars.map(fieldOf)}
                  </AntForm>
                ),
              },
            ]}
          />
        )}
      </div>
      {canWrite && part.data.kind !== 'site' && <Multiply {...props} />}
      {canWrite && mild && (
        <Button className="small" onClick={() => props.onKeep(mild, [])} data-testid="holds">
          {say('plant.holds', { lowest: mild.lowestTemperature_C, hottest: mild.highestCellTemperature_C })}
        </Button>
      )}
      <Follows evaluation={evaluation} part={part} data={data} />
      <Brings evaluation={evaluation} part={part} />
      {canWrite && <AddHere part={part} evaluation={evaluation} onAdd={props.onAdd} />}
    </section>
  )
}

/** What a place of mild winters has, where nobody said how cold and hot this one gets. */
const mildOf = (data: PartData) =>
  data.kind === 'site' && (data.lowestTemperature_C === null || data.highestCellTemperature_C === null)
    ? { ...data, ...MILD_SITE }
    : null

/** As the fields show it: what the data leaves away and what is usual for it are one. */
const isSame = (a: PartData, b: PartData): boolean => JSON.stringify(textsOf(a)) === JSON.stringify(textsOf(b))

/** Beside the name: on what it hangs. */
function whereOf(part: Part, { plant }: Evaluation): string {
  const { kind } = part.data
  if (kind === 'string' || kind === 'row') return plant.arrayOf(part)?.data.tag ?? ''
  const board = plant.ofKind('board').find((one) => one.id === (part.data as { boardId?: string | null }).boardId)
  return board ? [board.data.tag, board.data.name].filter(Boolean).join(' ') : ''
}

/** The first field whose figure is wanted and open, or else the first after the tag. */
function focusFirst(form: HTMLElement | null, part: Part): void {
  const fields = fieldsOfKind(part.data.kind)
  const wanted =
    fields.find((field) => field.wanted && valueAt(part.data, field.id) === null) ??
    fields.find((field) => field.id !== 'tag' && field.rule.takes !== 'part') ??
    fields[0]
  const name = wanted && `part-${wanted.id.slice(wanted.id.indexOf('.') + 1)}`
  const well = form?.querySelector<HTMLElement>(`[data-testid="${name}"]`)
  const input = well instanceof HTMLInputElement ? well : well?.querySelector<HTMLInputElement>('input')
  input?.focus()
  if (input?.type === 'text') input.select()
}

function focusNext(form: HTMLElement | null, from: HTMLInputElement): void {
  const all = [...(form?.querySelectorAll<HTMLInputElement>('input:not([disabled])') ?? [])]
  const next = all[all.indexOf(from) + 1]
  if (next) next.focus()
  else from.blur()
}

function Multiply({ onCopies, onTakeOut }: Props) {
  const [count, setCount] = useState(1)
  const step = (by: number): void => setCount((before) => Math.min(MOST_COPIES, Math.max(1, before + by)))
  return (
    <div className="multiply">
      <Space.Compact>
        <Button className="small" aria-label={say('plant.fewer')} onClick={() => step(-1)}>
          −
        </Button>
        <InputNumber
          controls={false}
          min={1}
          max={MOST_COPIES}
          precision={0}
          value={count}
          aria-label={say('plant.how-many')}
          data-testid="copies"
          onChange={(value) => setCount(value ?? 1)}
          onPressEnter={() => onCopies(count)}
        />
        <Button className="small" aria-label={say('plant.more')} onClick={() => step(1)}>
          +
        </Button>
      </Space.Compact>
      <Button className="small" onClick={() => onCopies(count)} data-testid="make-copies">
        {say('plant.make-alike', { count })}
      </Button>
      <Dropdown
        trigger={['click']}
        menu={{ items: [{ key: 'out', label: say('plant.retire'), danger: true, onClick: onTakeOut }] }}
      >
        <Button className="small" aria-label={say('plant.more-actions')} data-testid="part-more">
          …
        </Button>
      </Dropdown>
    </div>
  )
}

/** What may come at this part, by a digit each: the same as the places in the drawing. */
function AddHere({ part, evaluation, onAdd }: { part: Part; evaluation: Evaluation; onAdd(kind: AddedKind): void }) {
  const kinds = mayComeAt(part, evaluation.plant)
  if (kinds.length === 0) return null
  const onKey = (event: KeyboardEvent): void => {
    const kind = kinds[Number(event.key) - 1]
    if (!kind) return
    event.preventDefault()
    onAdd(kind)
  }
  return (
    <fieldset onKeyDown={onKey} className="add-here" aria-label={say('drawing.add-here')}>
      <legend>{say('drawing.add-here')}</legend>
      {kinds.map((kind, k) => (
        <Button key={kind} className="small" type="dashed" onClick={() => onAdd(kind)} data-testid={`add-${kind}`}>
          + {kindName(kind)} <kbd>{k + 1}</kbd>
        </Button>
      ))}
    </fieldset>
  )
}
