/** The plant of earth and the AC side as the certificate prints it: supply, boards, circuits, devices, electrodes. */
import '@/words/plant'
import type { Evaluation } from '@/core/evaluation/types'
import { hasWords, say, sayCode, type WordKey } from '@/words/say'
import { type Cell, left, type Table } from './stepTable'

const right = (text: string): Cell => ({ text, align: 'right' })
const figure = (value: number | null, unit = ''): string => (value === null ? '–' : `${value}${unit ? ` ${unit}` : ''}`)

type Column<One> = { label: WordKey; text(one: One): string; figures?: boolean }

function table<One>(id: string, title: WordKey, ones: readonly One[], columns: readonly Column<One>[]): Table | null {
  if (ones.length === 0) return null
  return {
    id,
    title: say(title),
    columns: columns.map(({ label, figures }) => ({ label: say(label), align: figures ? 'right' : 'left' })),
    rows: ones.map((one) => columns.map(({ text, figures }) => (figures ? right(text(one)) : left(text(one) || '–')))),
  }
}

/** A word of a plate where there is one, else what the plate says. */
const plate = (option: string): string =>
  hasWords(`plate-option.${option}`) ? sayCode('plate-option', option) : option

/** Schedule of circuits, devices and electrodes; a plant without any has none of them. */
export function plantTables({ plant }: Evaluation): Table[] {
  const tagOf = (id: string | null): string => (id ? (plant.parts.get(id)?.data.tag ?? '') : '')
  const circuits = table('circuits', 'plant.section.circuit', plant.ofKind('circuit'), [
    { label: 'certificate.part', text: ({ data }) => data.tag },
    { label: 'plant.feeds', text: ({ data }) => data.feeds },
    { label: 'plant.board-of', text: (one) => plant.boardOf(one)?.data.tag ?? '' },
    { label: 'plant.circuit-layout', text: ({ data }) => plate(data.layout ?? 'radial') },
    { label: 'plant.phases', text: ({ data }) => String(data.phases), figures: true },
    { label: 'plant.device', text: ({ data }) => `${data.device ?? ''}${data.rating_A ?? ''}` },
    { label: 'plant.breaking', text: ({ data }) => figure(data.breaking_kA), figures: true },
    { label: 'plant.rcd-of', text: ({ data }) => tagOf(data.rcdId) },
    { label: 'plant.line-area', text: ({ data }) => figure(data.line_mm2), figures: true },
    { label: 'certificate.protective', text: ({ data }) => figure(data.protective_mm2), figures: true },
    { label: 'plant.circuit-length', text: ({ data }) => figure(data.length_m), figures: true },
  ])
  const devices = table('rcds', 'plant.section.rcd', plant.ofKind('rcd'), [
    { label: 'certificate.part', text: ({ data }) => data.tag },
    { label: 'plant.rcd-form', text: ({ data }) => plate(data.form ?? 'rccb') },
    { label: 'plant.rcd-type', text: ({ data }) => data.type },
    { label: 'plant.rcd-rated', text: ({ data }) => figure(data.rated_mA), figures: true },
    { label: 'plant.rcd-delay', text: ({ data }) => plate(data.delay) },
    { label: 'plant.rcd-standard', text: ({ data }) => plate(data.standard) },
    { label: 'plant.rcd-upstream', text: ({ data }) => tagOf(data.upstreamId) },
  ])
  const electrodes = table('electrodes', 'plant.section.electrode', plant.ofKind('electrode'), [
    { label: 'certificate.part', text: ({ data }) => data.tag },
    { label: 'plant.electrode-form', text: ({ data }) => plate(data.form ?? 'rods') },
    { label: 'plant.rods', text: ({ data }) => figure(data.rods), figures: true },
    { label: 'plant.rod-length', text: ({ data }) => figure(data.length_m), figures: true },
    { label: 'plant.rod-diameter', text: ({ data }) => figure(data.diameter_mm), figures: true },
    { label: 'plant.rod-spacing', text: ({ data }) => figure(data.spacing_m), figures: true },
    { label: 'plant.electrode-depth', text: ({ data }) => figure(data.depth_m ?? null), figures: true },
  ])
  const services = table('services', 'plant.section.buried-service', plant.ofKind('buried-service'), [
    { label: 'certificate.part', text: ({ data }) => data.tag },
    { label: 'plant.service-what', text: ({ data }) => plate(data.what) },
    { label: 'plant.service-material', text: ({ data }) => plate(data.material) },
    { label: 'plant.service-away', text: ({ data }) => figure(data.away_m), figures: true },
    { label: 'plant.service-bearing', text: ({ data }) => figure(data.bearing_deg), figures: true },
  ])
  return [circuits, devices, electrodes, services].filter((one) => one !== null)
}

/** Supply and earthing in two lines of the particulars; none where no supply is entered. */
export function supplyParticulars({ plant }: Evaluation): [string, string][] {
  return plant.ofKind('supply').flatMap(({ data }): [string, string][] => {
    const { arrangement, phases, nominal_V, declaredZe_ohm, faultLevel_kA } = data
    const level = { ze: figure(declaredZe_ohm, 'Ω'), level: figure(faultLevel_kA, 'kA') }
    return [
      [say('plant.section.supply'), say('plant.supply', { arrangement, phases, volts: nominal_V })],
      [say('certificate.declared'), say('plant.supply-declared', level)],
    ]
  })
}
