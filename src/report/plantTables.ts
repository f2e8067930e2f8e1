/** The plant of earth and the AC side as the certificate prints it: supply, boards, circuits, devices, electrodes. */
import '@/words/plant'
import { isOpenField } from '@/core/evaluation/particulars'
import type { Evaluation } from '@/core/evaluation/types'
import { fieldsOf, type Kind, kinds, nameOf, type RuledField } from '@/core/plant/kinds'
import type { Part, PartKind } from '@/core/plant/part'
import type { PlantIndex } from '@/core/plant/plantIndex'
import { hasWords, say, sayCode, type WordKey } from '@/words/say'
import { type Cell, left, type Table } from './stepTable'

const right = (text: string): Cell => ({ text, align: 'right' })
const figure = (value: number | null, unit = ''): string => (value === null ? '–' : `${value}${unit ? ` ${unit}` : ''}`)

/** A word of a plate where there is one, else what the plate says. */
const plate = (option: string): string =>
  hasWords(`plate-option.${option}`) ? sayCode('plate-option', option) : option

type Values = Record<string, unknown>
const plateOf = ({ data }: Part, id: string): unknown =>
  id.split('.').reduce<unknown>((value, name) => (value as Values | null | undefined)?.[name], data)
const nameIn = (copy: unknown): string => `${(copy as Values).make} ${(copy as Values).name}`

/** What the table of a kind of part prints under one of its fields. */
function cellOf(part: Part, field: RuledField, plant: PlantIndex): string {
  const value = plateOf(part, field.id) ?? field.usual ?? null
  if (field.names) return plant.named(field.names.kind as PartKind, part, field.id)?.data.tag ?? ''
  const after = typeof field.prints === 'object' && field.prints.with ? plateOf(part, field.prints.with) : null
  if (value === null) return after === null ? '' : figure(after as number)
  if (field.rule.takes === 'library') return nameIn(value)
  if (field.yesNo) return plate(field.yesNo[value ? 0 : 1])
  const text = field.rule.takes === 'choice' && !field.rule.isNumber ? plate(String(value)) : String(value)
  return `${text}${after ?? ''}`
}

const isOnlyUnusual = ({ prints }: RuledField): boolean => typeof prints === 'object' && prints.unusual === true

function tableOf(kind: Kind, plant: PlantIndex): Table | null {
  const name = nameOf(kind)
  const parts = plant.ofKind(name) as readonly Part[]
  // A particular that nobody entered of any of them has no column.
  const printed = fieldsOf(kind).filter(
    (field) =>
      field.prints &&
      (!field.on || parts.some((part) => !isOpenField(part, field))) &&
      (!isOnlyUnusual(field) || parts.some((part) => (plateOf(part, field.id) ?? field.usual) !== field.usual)),
  )
  // Its tag alone is no table.
  if (parts.length === 0 || printed.length < 2) return null
  const isFigure = ({ rule }: RuledField): boolean => rule.takes === 'number' || rule.isNumber
  const labelOf = ({ id, label, prints }: RuledField): string => {
    if (id === 'tag') return say('certificate.part')
    return say(`plant.${(typeof prints === 'object' && prints.label) || label}` as WordKey)
  }
  const rows = parts.map((part) =>
    printed.map((field) => (isFigure(field) ? right : left)(cellOf(part, field, plant) || '–')),
  )
  // What is told in the most words has the room.
  const wordsIn = (k: number): number => Math.max(0, ...rows.map((row) => row[k]!.text.split(' ').length))
  const widest = printed.reduce((best, _, k) => (wordsIn(k) > wordsIn(best) ? k : best), printed.length - 1)
  return {
    id: name,
    stretch: widest,
    title: say(`plant.section.${name}` as WordKey),
    columns: printed.map((field) => ({ label: labelOf(field), align: isFigure(field) ? 'right' : 'left' })),
    rows,
  }
}

/** Schedules of what a kind of part prints of itself: circuits, devices, electrodes; those that the plant has. */
export const plantTables = ({ plant }: Evaluation): Table[] =>
  [...kinds]
    .sort((a, b) => (a.scheduled ?? kinds.length) - (b.scheduled ?? kinds.length))
    .flatMap((kind) => tableOf(kind, plant) ?? [])

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
