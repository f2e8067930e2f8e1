/** A part in one line, and what is worth knowing besides in a second. */
import type { Part, PartData, PartKind, StringData } from '@/core/plant/part'
import type { PlantIndex } from '@/core/plant/plantIndex'
import { figure, hasWords, say, sayCode, type WordKey } from '@/words/say'

/** What a choice of a plate is called: by words where there are some, else as the plate has it. */
export const optionText = (option: string | number): string =>
  hasWords(`plate-option.${option}`) ? sayCode('plate-option', String(option)) : String(option)

const rated = (value: number | null | undefined, unit: string): string => (value == null ? '–' : `${value} ${unit}`)

type Lines = [string, string]
type Of<Kind extends PartKind> = Part<Extract<PartData, { kind: Kind }>>
const lines: { [Kind in PartKind]: (part: Of<Kind>, plant: PlantIndex) => Lines } = {
  site: ({ data }) => [
    say('plant.site', { lowest: data.lowestTemperature_C, hottest: data.highestCellTemperature_C }),
    say('plant.site-why'),
  ],
  array: (part, plant) => [
    say('plant.array', {
      tilt: part.data.tilt_deg,
      azimuth: part.data.azimuth_deg,
      mounting: say(`mounting.${part.data.mounting}` as WordKey),
    }),
    `${say('line.count', { count: plant.stringsOf(part).length })}${part.data.category === 2 ? `, ${say('plant.category-2')}` : ''}`,
  ],
  row: (part, plant) => [
    part.data.conductor ? say('plant.row', part.data.conductor) : say('plant.row-unknown'),
    plant.arrayOf(part)?.data.tag ?? '',
  ],
  string: (part, plant) => describeString(part.data, plant.arrayOf(part)?.data.tag ?? null, plant),
  combiner: (part, plant) => [say('plant.combiner', { count: plant.stringsOf(part).length }), ''],
  'surge-protection': ({ data }) => [say('plant.surge', { rated: rated(data.ratedVoltage_V, 'V') }), ''],
  'dc-switch': ({ data }) => [
    `${sayCode('station', data.kind)}: ${rated(data.ratedVoltage_V, 'V')}, ${rated(data.rating_A, 'A')}`,
    data.rating_A === null ? say('plant.plate-missing') : '',
  ],
  inverter: ({ data }) => [
    say('plant.inverter', {
      most: rated(data.maxInput_V, 'V'),
      from: rated(data.trackerMin_V, 'V'),
      to: rated(data.trackerMax_V, 'V'),
      isc: rated(data.maxShortCircuit_A, 'A'),
    }),
    data.maxInput_V === null ? say('plant.plate-missing') : '',
  ],
  supply: ({ data }) => [
    say('plant.supply', { arrangement: data.arrangement, volts: data.nominal_V, phases: data.phases }),
    say('plant.supply-declared', { ze: rated(data.declaredZe_ohm, 'Ω'), level: rated(data.faultLevel_kA, 'kA') }),
  ],
  board: (part, plant) => [
    part.data.name || say('plant.board-unnamed'),
    say('plant.board-count', { count: plant.circuitsOf(part).length }),
  ],
  rcd: (part, plant) => [
    say('plant.rcd', {
      form: optionText(part.data.form ?? 'rccb'),
      type: part.data.type,
      rated: part.data.rated_mA,
      delay: optionText(part.data.delay),
    }),
    say('plant.rcd-above', {
      count: plant.circuitsOf(part).length,
      upper: plant.ofKind('rcd').find((one) => one.id === part.data.upstreamId)?.data.tag ?? say('plant.none'),
    }),
  ],
  circuit: ({ data }, plant) => [
    [data.feeds || say('plant.circuit-unnamed'), data.device && `${data.device}${data.rating_A ?? ''}`]
      .filter(Boolean)
      .join(', '),
    say('plant.circuit', {
      line: rated(data.line_mm2, 'mm²'),
      protective: rated(data.protective_mm2, 'mm²'),
      length: rated(data.length_m, 'm'),
      rcd: plant.ofKind('rcd').find((one) => one.id === data.rcdId)?.data.tag ?? say('plant.no-rcd'),
    }),
  ],
  'charge-point': (part, plant) => describePoint(part, plant),
  electrode: ({ data }) => [
    data.rods === null
      ? say('plant.electrode-unknown')
      : data.form === 'rods' || data.form === undefined
        ? say('plant.electrode', { rods: data.rods })
        : say('plant.electrode-other', { form: optionText(data.form), rods: data.rods }),
    data.form === 'disc'
      ? rated(data.diameter_mm, 'mm')
      : data.length_m === null
        ? ''
        : say('plant.rod', { length: data.length_m, thick: rated(data.diameter_mm, 'mm') }),
  ],
  'buried-service': ({ data }) => [
    `${optionText(data.what)}, ${optionText(data.material)}`,
    say('plant.service', { away: data.away_m, bearing: data.bearing_deg }),
  ],
}

export const partLines = (part: Part, plant: PlantIndex): Lines =>
  (lines[part.data.kind] as (part: Part, plant: PlantIndex) => Lines)(part, plant)

function describePoint(part: Of<'charge-point'>, plant: PlantIndex): Lines {
  const { model, earthing, load } = part.data
  const more = say('plant.charge-point-more', {
    circuit: plant.circuitOfPoint(part)?.data.tag ?? say('plant.point-no-circuit'),
    earthing: earthing ? optionText(earthing) : say('plant.point-no-earthing'),
  })
  const limit = load?.limit_A ?? null
  const second = limit === null ? more : say('plant.charge-point-limit', { more, limit })
  if (!model) return [say('plant.charge-point-unknown'), second]
  const { phases, rated_A, outlet } = model.data
  const first = { make: model.make, name: model.name, phases, rated: rated_A, outlet: optionText(outlet) }
  return [say('plant.charge-point', first), second]
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
