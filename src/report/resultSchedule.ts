/** A row a part with all that was read of it: what an assessor looks at first. The tables test by test are its annex. */
import '@/words/plant'
import { isOnlyOffered } from '@/core/evaluation/hunts'
import type { Evaluation, StepEvaluation } from '@/core/evaluation/types'
import { kindOf } from '@/core/plant/kinds'
import type { Part, PartKind } from '@/core/plant/part'
import { unitSpellings } from '@/core/quantity/unit'
import type { Facts } from '@/core/record/facts'
import { answerVerdict } from '@/core/steps/checks'
import { isChecklist, isRead, mainSlot, slotsOf, type AnyStep } from '@/core/steps/step'
import type { RuleData } from '@/core/verdict/judgement'
import { gravest } from '@/core/verdict/verdict'
import { readingText, valueText, verdictWord } from '@/words/reading'
import { deviceWords } from '@/words/circuit'
import { figure, say, sayCode, type WordKey } from '@/words/say'
import { decimalsOf, sized } from './figureText'
import { type Cell, left, type Table } from './stepTable'

/** Kinds of part of which a plant has many: one row each. */
const inRows: readonly PartKind[] = ['string', 'circuit', 'rcd']
/** Its results stand in a row a part, or side by side on a sheet of their own: the tables test by test are an annex. */
export const toldInRows = (kind: PartKind): boolean => inRows.includes(kind) || kindOf(kind).hasSheet === true

type Column = { label: string; align: 'left' | 'right'; cell(part: Part): Cell }

/** What a part is told by, besides its tag. */
function toldBy({ data }: Part): string {
  switch (data.kind) {
    case 'string':
      return [`${data.modulesInSeries} × ${data.moduleType.name}`, electronicsWords(data.electronics?.acts)]
        .filter(Boolean)
        .join(', ')
    case 'circuit':
      return [data.feeds, deviceWords(data)].filter(Boolean).join(', ')
    case 'rcd':
      return say('certificate.rcd-told', { type: data.type, rated_mA: data.rated_mA })
    default:
      return ''
  }
}

/** What sits on each module, in a word; none where nothing does. */
const electronicsWords = (acts: 'shuts-off' | 'converts' | null | undefined): string =>
  acts ? say(`certificate.electronics.${acts}`) : ''

/** Schedules of results: of the kinds that are told in rows, as far as the plant has any. */
export const resultSchedules = (evaluation: Evaluation, steps: readonly AnyStep[]): Table[] =>
  inRows.flatMap((kind) => {
    const parts = evaluation.plant.ofKind(kind) as readonly Part[]
    const own = steps.filter((step) => step.appliesTo === kind)
    return parts.length > 0 && own.length > 0
      ? [scheduleOf(kind, parts, own, evaluation, steps.filter(isReadOfDevice))]
      : []
  })

function scheduleOf(
  kind: PartKind,
  parts: readonly Part[],
  steps: readonly AnyStep[],
  evaluation: Evaluation,
  ofDevices: readonly AnyStep[],
): Table {
  const at = (step: AnyStep, part: Part) => evaluation.byKey.get(`${step.id}:${part.id}`) ?? null
  // What was read of the device that a circuit hangs on stands in the circuit's row as well.
  const onDevice = (part: Part) => {
    const device = deviceIn(evaluation.plant, part)
    return device ? ofDevices.map((step) => at(step, device)) : []
  }
  const columns: Column[] = [
    { label: say('certificate.part'), align: 'left', cell: (part) => left(part.data.tag) },
    { label: say('certificate.told'), align: 'left', cell: (part) => left(toldBy(part)) },
    ...steps.flatMap((step) => columnsFor(step, parts, evaluation, (part) => at(step, part))),
    ...(kind === 'circuit' ? ofTheirDevices(parts, evaluation, at, ofDevices) : []),
    {
      label: say('certificate.verdict'),
      align: 'left',
      // A row is no better than any figure that stands in it.
      cell: (part) => verdictOf([...steps.map((step) => at(step, part)), ...onDevice(part)]),
    },
  ]
  return {
    id: `results-${kind}`,
    title: say(`certificate.results.${kind}` as WordKey),
    schedule: true,
    stretch: 1,
    steps: steps.map(({ id }) => id),
    wide: columns.length > MOST_UPRIGHT,
    columns: columns.map(({ label, align }) => ({ label, align })),
    rows: parts.map((part) => columns.map(({ cell }) => cell(part))),
  }
}

const columnsFor = (step: AnyStep, parts: readonly Part[], { facts }: Evaluation, at: At): Column[] =>
  columnsOf(step, parts.map(at), facts, at)

type At = (part: Part) => StepEvaluation | null

/** The residual current device that a circuit hangs on; null where there is none, and for whatever is no circuit. */
const deviceIn = (plant: Evaluation['plant'], { data }: Part): Part | null =>
  data.kind === 'circuit' ? plant.inService('rcd', data.rcdId) : null

const isReadOfDevice = (step: AnyStep): boolean => step.appliesTo === 'rcd' && isRead(step)

/** A circuit's row has what its devices gave: the residual current device it hangs on, and the button of one against arcs. */
function ofTheirDevices(
  circuits: readonly Part[],
  evaluation: Evaluation,
  at: (step: AnyStep, part: Part) => StepEvaluation | null,
  ofDevices: readonly AnyStep[],
): Column[] {
  const { plant } = evaluation
  const dataOf = ({ data }: Part) => (data.kind === 'circuit' ? data : null)
  const deviceOf = (part: Part): Part | null => deviceIn(plant, part)
  const columns: Column[] = []
  if (circuits.some(deviceOf)) {
    const asked = new Set(evaluation.steps.map(({ step }) => step))
    const read = ofDevices.filter((step) => asked.has(step))
    columns.push({ label: 'RCD', align: 'left', cell: (part) => left(deviceOf(part)?.data.tag ?? '–') })
    for (const step of read)
      columns.push(
        ...columnsFor(step, circuits, evaluation, (part) => {
          const device = deviceOf(part)
          return device && at(step, device)
        }),
      )
  }
  if (circuits.some((part) => dataOf(part)?.arcDevice))
    columns.push({
      label: say('certificate.arc-button'),
      align: 'left',
      cell: (part) => (dataOf(part)?.arcDevice ? arcButton(dataOf(part)!.boardId, evaluation) : left('–')),
    })
  return columns
}

/** The line of the board's list in which the buttons of devices against arcs were pressed. */
const ARC_BUTTON = 'arc-button'

function arcButton(boardId: string | null, { steps }: Evaluation): Cell {
  const asked = steps.find(
    ({ step, part }) => slotsOf(step).some(({ id }) => id === ARC_BUTTON) && (boardId === null || part.id === boardId),
  )
  const answer = asked?.counting?.entry.body.slots[ARC_BUTTON]
  return { ...left(''), verdict: answerVerdict(answer && 'choice' in answer ? answer.choice : null) }
}

/** More columns than these want the paper on its side. */
const MOST_UPRIGHT = 16

/** A test in one part's row: figures in columns of their own, answers and lists by their mark. */
function columnsOf(
  step: AnyStep,
  own: readonly (StepEvaluation | null)[],
  { regime }: Facts,
  at: (part: Part) => StepEvaluation | null,
): Column[] {
  if (own.every((one) => one === null || isOnlyOffered(one))) return []
  const short = sayCode('step', `${step.id}.short`)
  const kind = isRead(step) ? mainSlot(step)?.kind : null
  if (!isRead(step) || isChecklist(step) || (kind !== 'number' && kind !== 'curve' && step.stands !== 'highest'))
    return [{ label: short, align: 'left', cell: (part) => marked(at(part)) }]
  const rules = own.flatMap((one) => one?.judgement?.rule ?? [])
  const unit = rules[0]?.unit
  const written = unit ? unitSpellings[unit].written : ''
  const decimals = decimalsOf(unit)
  const right = (label: string, text: (one: StepEvaluation) => string | null): Column => ({
    label,
    align: 'right',
    cell: (part) => {
      const one = at(part)
      return { text: (one && text(one)) ?? '–', align: 'right' }
    },
  })
  const rule = (one: StepEvaluation): RuleData | null => one.judgement?.rule ?? null
  const columns: Column[] = []
  const set = slotsOf(step).find(({ id }) => id === SET)
  if (set)
    columns.push(
      right(say('certificate.set-at'), (one) => {
        const answer = one.counting?.entry.body.slots[SET]
        return answer ? valueText(answer) : null
      }),
    )
  if (rules.some(({ expected }) => expected))
    columns.push(
      right(say('certificate.expected'), (one) => {
        const expected = rule(one)?.expected
        return expected ? figure(expected.value, decimals) : null
      }),
    )
  const limits = own.flatMap((one) => one?.judgement?.limits ?? [])
  if (isOneSided(rules) && (isOwn(rules) || limits.some(({ id }) => !(id in regime.limits))))
    columns.push(
      right(say('certificate.greatest'), (one) => {
        const high = rule(one)?.band.high
        return high === null || high === undefined ? null : sized(high, decimals)
      }),
    )
  const apart = slotsOf(step).filter((slot) => slot.kind === 'number' && slot.apart)
  const isApart = (one: StepEvaluation | null, id?: string): boolean =>
    apart.some((slot) => (id ?? slot.id) === slot.id && slot.id in (one?.counting?.entry.body.slots ?? {}))
  const read = (label: string, has: (one: StepEvaluation | null) => boolean): Column => ({
    label: written ? `${label}, ${written}` : label,
    align: 'right',
    cell: (part) => readOf(has(at(part)) ? at(part) : null),
  })
  if (own.some((one) => one !== null && !isApart(one))) columns.push(read(short, (one) => !isApart(one)))
  for (const { id } of apart)
    if (own.some((one) => isApart(one, id))) columns.push(read(sayCode('slot', id), (one) => isApart(one, id)))
  if (own.some((one) => one?.judgement?.referred))
    columns.push(
      right(say('certificate.at-stc'), (one) => {
        const referred = one.judgement?.referred
        return referred ? figure(referred.value, decimals) : null
      }),
    )
  return columns
}

/** The voltage that an instrument was set to. */
const SET = 'set-voltage'

const isOneSided = (rules: readonly RuleData[]): boolean =>
  rules.length > 0 && rules.every(({ band }) => band.low === null && band.high !== null)

/** Not all of them have the same most: a loop has its own device's. */
const isOwn = (rules: readonly RuleData[]): boolean => new Set(rules.map(({ band }) => band.high)).size > 1

/** What was read, with the mark of whatever is not plainly within. */
function readOf(one: StepEvaluation | null): Cell {
  if (!one) return { text: '–', align: 'right' }
  const text =
    one.judgement?.rule?.measured?.text ?? (one.counting ? readingText(one.step, one.counting.entry.body) : '')
  return one.verdict === 'within'
    ? { text: text || '–', align: 'right' }
    : { text, align: 'right', verdict: one.verdict }
}

const marked = (one: StepEvaluation | null): Cell =>
  one ? { text: '', align: 'left', verdict: one.verdict } : left('–')

function verdictOf(own: readonly (StepEvaluation | null)[]): Cell {
  const there = own.flatMap((one) => (one && !isOnlyOffered(one) ? [one] : []))
  // As on the first page: what is not finished outweighs what is only close.
  const verdict = gravest(there.map((one) => one.verdict))
  const worstOf = there.find((one) => one.verdict === verdict)
  return { ...left(worstOf ? verdictWord(verdict, worstOf.step) : ''), verdict }
}
