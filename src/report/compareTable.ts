/** Alike strings side by side, as a table of the certificate. */
import '@/words/compare'
import { type Alike, allStrips, type Strip } from '@/core/evaluation/comparing'
import type { Evaluation } from '@/core/evaluation/types'
import type { Part } from '@/core/plant/part'
import { figure, quantity, say, sayCode } from '@/words/say'
import type { Drawing } from './drawing/node'
import { stripDrawing, stripsTitle } from './drawing/strips'
import { type Cell, left, type Table } from './stepTable'

const DECIMALS: Partial<Record<string, number>> = { A: 2, W: 0 }

type Group = { strips: readonly Strip[]; parts: readonly Part[]; title: string }

/** A table for each group of alike strings of which two were read; none where there are no twins. */
export const compareTables = (evaluation: Evaluation): Table[] =>
  groupsOf(evaluation).map((group) => tableOf(evaluation, group))

/** The same drawn, a strip for each test. */
export const compareDrawings = (evaluation: Evaluation): { key: string; title: string; drawings: Drawing[] }[] =>
  groupsOf(evaluation).map(({ strips, parts, title }) => ({
    key: `compare-${parts[0]!.id}`,
    title,
    drawings: strips.map(stripDrawing),
  }))

function groupsOf(evaluation: Evaluation): Group[] {
  return allStrips(evaluation).flatMap((strips) => {
    if (strips.length === 0) return []
    const parts = new Map(strips.flatMap(({ members }) => members.map((one) => [one.part.id, one.part] as const)))
    const own = [...parts.values()]
    return [{ strips, parts: own, title: stripsTitle(evaluation.plant.arrayOf(own[0]!)?.data.tag) }]
  })
}

function tableOf(evaluation: Evaluation, { strips, parts, title }: Group): Table {
  const told = new Set(parts)
  const inOrder = evaluation.plant.ofKind('string').filter((one) => told.has(one))
  return {
    id: `compare-${parts[0]!.id}`,
    title,
    note: say(strips.some(({ asRead }) => asRead) ? 'compare.about-read' : 'compare.about'),
    columns: [
      { label: say('compare.string'), align: 'left' },
      ...strips.flatMap((strip) => headsOf(strip).map((label) => ({ label, align: 'right' as const }))),
    ],
    rows: inOrder.map((part) => [left(part.data.tag), ...strips.flatMap((strip) => cellsOf(strip, part))]),
  }
}

function headsOf({ step, unit }: Strip): string[] {
  const what = sayCode('step', `${step.id}.short`)
  return unit === 'pct' ? [what, say('compare.percent', { what })] : [what]
}

function cellsOf(strip: Strip, part: Part): Cell[] {
  const own = strip.members.find((one) => one.part.id === part.id)
  const cell = (text: string): Cell => ({ text, align: 'right' })
  const figures = own
    ? [own.verdict === 'outside' ? { ...cell(textOf(own)), verdict: own.verdict } : cell(textOf(own))]
    : [cell('–')]
  return strip.unit === 'pct' ? [...figures, cell(own ? figure(own.value, 1) : '–')] : figures
}

const textOf = ({ figure: { value, unit } }: Alike): string => quantity(value, unit, DECIMALS[unit] ?? 1)
