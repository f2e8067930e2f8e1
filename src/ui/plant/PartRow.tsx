'use client'
import { Button } from 'antd'
import { type KeyboardEvent, useState } from 'react'
import { type ModuleType, type Part, type PartData, type StringData, mountingSchema } from '@/core/plant/part'
import type { PlantIndex } from '@/core/plant/plantIndex'
import { figure, hasWords, partName, say, sayCode, type WordKey } from '@/words/say'
import { Choice, Field, Form, Said } from '../shell/Form'
import { type FieldSpec, fieldsOf, readPart, tagTaken, textsOf } from './partForm'
import { TypeSelect } from './TypeSelect'

type Props = {
  part: Part
  plant: PlantIndex
  types: readonly ModuleType[]
  canWrite: boolean
  open: boolean
  setOpen(open: boolean): void
  change(part: Part, after: PartData | null): Promise<void>
}

/** One part on the line, and its editing in place: Enter keeps, Escape leaves it as it was. */
export function PartRow(props: Props) {
  const { part, plant, canWrite, open, setOpen } = props
  const [first, second] = describe(part, plant)
  return (
    <>
      <div className="plantrow" data-part={part.data.kind}>
        <span className={part.data.kind === 'string' ? 'tagbig' : 'tagbig mid'}>
          {part.data.kind === 'site' ? '–' : part.data.tag}
        </span>
        <span>
          {first}
          {second && (
            <>
              <br />
              <span className="small quiet">{second}</span>
            </>
          )}
        </span>
        {canWrite && (
          <button
            type="button"
            className="slim-btn"
            aria-expanded={open}
            aria-label={say('plant.change-part', { part: partName(part) })}
            onClick={() => setOpen(!open)}
          >
            {say('plant.change')}
          </button>
        )}
      </div>
      {open && <PartEdit {...props} />}
    </>
  )
}

function PartEdit({ part, plant, types, setOpen, change }: Props) {
  const [texts, setTexts] = useState(() => textsOf(part.data))
  const [message, setMessage] = useState<string | null>(null)
  const keep = async (): Promise<void> => {
    const read = readPart(part.data, texts, types)
    if ('message' in read) return setMessage(read.message)
    const { kind, tag } = read.data
    if (tagTaken(plant.parts.values(), kind, tag, part.id))
      return setMessage(say('plant.tag-taken', { part: partName(read) }))
    await change(part, read.data)
    setOpen(false)
  }
  const onKey = (event: KeyboardEvent): void => {
    if (event.key !== 'Escape') return
    event.stopPropagation()
    setOpen(false)
  }
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: Escape leaves the form that is inside
    <div onKeyDown={onKey}>
      <Form focused onSubmit={() => void keep()}>
        <div className="two">
          {fieldsOf[part.data.kind].map((field) => (
            <PartField
              key={field.id}
              field={field}
              value={texts[field.id] ?? ''}
              onValue={(value) => setTexts((before) => ({ ...before, [field.id]: value }))}
              plant={plant}
              types={types}
            />
          ))}
        </div>
        <Said message={message} />
        <div className="acts-row">
          <Button type="primary" htmlType="submit" data-testid="keep-part">
            {say('plant.keep')}
          </Button>
          {part.data.kind !== 'site' && <Button onClick={() => void change(part, null)}>{say('plant.retire')}</Button>}
        </div>
      </Form>
    </div>
  )
}

type FieldProps = {
  field: FieldSpec
  value: string
  onValue(value: string): void
  plant: PlantIndex
  types: readonly ModuleType[]
}

export function PartField({ field, value, onValue, plant, types }: FieldProps) {
  const label = field.optional ? `${say(field.label)} ${say('plate.optional')}` : say(field.label)
  switch (field.kind) {
    case 'module-type':
      return <TypeSelect types={types} value={value} onValue={onValue} />
    case 'mounting':
      return (
        <Choice
          label={label}
          value={value}
          onValue={onValue}
          options={mountingSchema.options.map((one) => ({ value: one as string, text: say(`mounting.${one}`) }))}
        />
      )
    case 'choice':
      return (
        <Choice
          label={label}
          value={value}
          onValue={onValue}
          options={[
            ...(field.optional ? [{ value: '', text: say('plant.none') }] : []),
            ...field.options!.map((one) => ({ value: String(one), text: optionText(one) })),
          ]}
        />
      )
    case 'array':
    case 'inverter':
    case 'board':
    case 'rcd':
    case 'electrode':
    case 'combiner': {
      const options = plant.ofKind(field.kind).map((one) => ({ value: one.id, text: one.data.tag }))
      return (
        <Choice
          label={label}
          value={value}
          onValue={onValue}
          options={[{ value: '', text: say('plant.none') }, ...options]}
        />
      )
    }
    default:
      return (
        <Field
          label={label}
          value={value}
          onValue={onValue}
          mode={field.kind === 'number' ? (field.whole ? 'numeric' : 'decimal') : 'text'}
          testId={`part-${field.id}`}
        />
      )
  }
}

/** What a choice of a plate is called: by words where there are some, else as the plate has it. */
const optionText = (option: string | number): string =>
  hasWords(`plate-option.${option}`) ? sayCode('plate-option', String(option)) : String(option)

/** A part in one line, and what is worth knowing besides in a second. */
function describe(part: Part, plant: PlantIndex): [string, string] {
  const { data } = part
  const rated = (value: number | null | undefined, unit: string): string => (value == null ? '–' : `${value} ${unit}`)
  switch (data.kind) {
    case 'site':
      return [
        say('plant.site', { lowest: data.lowestTemperature_C, hottest: data.highestCellTemperature_C }),
        say('plant.site-why'),
      ]
    case 'array':
      return [
        say('plant.array', {
          tilt: data.tilt_deg,
          azimuth: data.azimuth_deg,
          mounting: say(`mounting.${data.mounting}` as WordKey),
        }),
        say('line.count', { count: plant.stringsOf(part).length }),
      ]
    case 'row':
      return [
        data.conductor ? say('plant.row', data.conductor) : say('plant.row-unknown'),
        plant.arrayOf(part)?.data.tag ?? '',
      ]
    case 'string':
      return describeString(data, plant.arrayOf(part)?.data.tag ?? null, plant)
    case 'combiner':
      return [say('plant.combiner', { count: plant.stringsOf(part).length }), '']
    case 'surge-protection':
      return [say('plant.surge', { rated: rated(data.ratedVoltage_V, 'V') }), '']
    case 'dc-switch':
      return [
        `${sayCode('station', data.kind)}: ${rated(data.ratedVoltage_V, 'V')}, ${rated(data.rating_A, 'A')}`,
        data.rating_A === null ? say('plant.plate-missing') : '',
      ]
    case 'inverter':
      return [
        say('plant.inverter', {
          most: rated(data.maxInput_V, 'V'),
          from: rated(data.trackerMin_V, 'V'),
          to: rated(data.trackerMax_V, 'V'),
          isc: rated(data.maxShortCircuit_A, 'A'),
        }),
        data.maxInput_V === null ? say('plant.plate-missing') : '',
      ]
    case 'supply':
      return [
        say('plant.supply', { arrangement: data.arrangement, volts: data.nominal_V, phases: data.phases }),
        say('plant.supply-declared', { ze: rated(data.declaredZe_ohm, 'Ω'), level: rated(data.faultLevel_kA, 'kA') }),
      ]
    case 'board':
      return [
        data.name || say('plant.board-unnamed'),
        say('plant.board-count', { count: plant.circuitsOf(part).length }),
      ]
    case 'rcd':
      return [
        say('plant.rcd', {
          form: optionText(data.form ?? 'rccb'),
          type: data.type,
          rated: data.rated_mA,
          delay: optionText(data.delay),
        }),
        say('plant.rcd-above', {
          count: plant.circuitsOf(part).length,
          upper: plant.ofKind('rcd').find((one) => one.id === data.upstreamId)?.data.tag ?? say('plant.none'),
        }),
      ]
    case 'circuit':
      return [
        [data.feeds || say('plant.circuit-unnamed'), data.device && `${data.device}${data.rating_A ?? ''}`]
          .filter(Boolean)
          .join(', '),
        say('plant.circuit', {
          line: rated(data.line_mm2, 'mm²'),
          protective: rated(data.protective_mm2, 'mm²'),
          length: rated(data.length_m, 'm'),
          rcd: plant.ofKind('rcd').find((one) => one.id === data.rcdId)?.data.tag ?? say('plant.no-rcd'),
        }),
      ]
    case 'electrode':
      return [
        data.rods === null
          ? say('plant.electrode-unknown')
          : say(data.form === 'disc' ? 'plant.discs' : 'plant.electrode', { rods: data.rods }),
        data.form === 'disc'
          ? rated(data.diameter_mm, 'mm')
          : data.length_m === null
            ? ''
            : say('plant.rod', { length: data.length_m, thick: rated(data.diameter_mm, 'mm') }),
      ]
    case 'buried-service':
      return [
        `${optionText(data.what)}, ${optionText(data.material)}`,
        say('plant.service', { away: data.away_m, bearing: data.bearing_deg }),
      ]
  }
}

function describeString(data: StringData, array: string | null, plant: PlantIndex): [string, string] {
  const { modulesInSeries: modules, moduleType } = data
  const plate = moduleType.data
  const combiner = plant.ofKind('combiner').find((one) => one.id === data.combinerId)?.data.tag
  const where = [
    array,
    combiner && say('plant.at-combiner', { tag: combiner }),
    data.input && say('plant.at-input', { input: data.input }),
  ].filter(Boolean)
  return [
    `${say('plant.string', { modules, make: moduleType.make, name: moduleType.name })}${where.length > 0 ? `, ${where.join(', ')}` : ''}`,
    say('plant.string-sum', {
      voc: figure(modules * plate.voc_V, 1),
      isc: figure(plate.isc_A, 2),
      watt: figure(modules * plate.pmax_W, 0),
    }),
  ]
}
