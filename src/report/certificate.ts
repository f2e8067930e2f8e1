/**
 * What a certificate says, section by section, computed from the facts. The preview on the screen and the PDF draw the
 * same sections; nothing here knows a test by name.
 */
import { spoken } from '@/words/language'
import '@/words/everyTest'
import '@/words/record'
import '@/words/print'
import '@/words/regime'
import { evaluate, linesOf, picturesOf } from '@/core/evaluate'
import { limitsUsed } from '@/core/evaluation/limitsUsed'
import { onSheet } from '@/core/evaluation/onSheet'
import { sheetsOf } from '@/core/evaluation/particulars'
import type { Sheet } from '@/core/plant/kinds/descriptor'
import type { Evaluation } from '@/core/evaluation/types'
import { partsOfKind } from '@/core/plant/projection'
import { bareLetterhead, type Letterhead } from '@/core/record/company'
import type { Facts } from '@/core/record/facts'
import { isPeriodicWork } from '@/core/plant/work'
import { citesNational } from '@/core/regime/documents'
import type { InstrumentCopy } from '@/core/record/instrument'
import { stepsOf } from '@/core/steps'
import { isRead, mainSlot, NOTHING_READ } from '@/core/steps/step'
import type { WorkingLine } from '@/core/verdict/working'
import { hasWords, quantity, say, sayCode, stepShort } from '@/words/say'
import { dayIn, dayWords } from './dayWords'
import { compareDrawings, compareTables } from './compareTable'
import { drawingOf } from './drawing'
import type { Drawing } from './drawing/node'
import { snagTable } from './snagTable'
import { type Declaration, declarationsOf, particularsTable, type Result, resultOf, siteParticulars } from './firstPage'
import { type OwnersPage, ownersPage } from './ownersPage'
import { partSheets } from './partSheet'
import { plantTables, supplyParticulars } from './plantTables'
import { resultSchedules, toldInRows } from './resultSchedule'
import { remarksOf } from './remarks'
import { type Compared, sourceLine } from './sourceLine'
import { type Cell, designTable, left, stepTable, type Table } from './stepTable'

export type { Cell, Table } from './stepTable'
/** Pictures of what was read on a part, as they are drawn on the screen. */
export type DrawingSection = { key: string; title: string; drawings: Drawing[] }
export type WorkingSection = { key: string; title: string; lines: readonly WorkingLine[] }
export type Certificate = {
  title: string
  /** Who issues it, and on what paper. */
  company: { name: string; letterhead: Letterhead }
  /** Issue of the seal, null on a draft. */
  issue: string | null
  /** How the whole came out, with what must be known besides. */
  result: Result
  particulars: [string, string][]
  declarations: Declaration[]
  /** A row a part; what the parts are, field by field; lists, sheets and tests; then how each reading was taken. */
  tables: Table[]
  drawings: DrawingSection[]
  remarks: string[]
  photos: { attachment: string; title: string; about: string }[]
  working: WorkingSection[]
  limits: Table
  /** Which sources were held against their documents. */
  compared: Compared
  instruments: Table
  owner: OwnersPage
  /** Whoever tested has also checked. */
  byOnePerson: boolean
  cautions: string[]
}

const right = (text: string): Cell => ({ text, align: 'right' })

function instant(at: number | string, timeZone: string): string {
  const format = new Intl.DateTimeFormat(spoken().locale, {
    day: 'numeric',
    month: 'short',
    year: 'numeric',
    hour: '2-digit',
    minute: '2-digit',
    hourCycle: 'h23',
    timeZone,
  })
  return format.format(new Date(at))
}

/** @param now ms since 1970; `issue` names a seal, null a draft; `sheet` one side of a plant that has both. */
export function certificateOf(
  facts: Facts,
  now: number,
  issue: string | null,
  sheet: Sheet | null = null,
): Certificate {
  const whole = evaluate(facts, now)
  const isOneOfTwo = sheet !== null && sheetsOf(whole.plant).size > 1
  const evaluation = isOneOfTwo ? onSheet(whole, sheet) : whole
  const zone = facts.job.timeZone
  let sums: WorkingSection[] | null = null
  return {
    title: titleOf(evaluation),
    company: { name: facts.job.company, letterhead: facts.job.letterhead ?? bareLetterhead(zone) },
    issue,
    result: resultOf(evaluation, citesNational(facts.regime)),
    particulars: [
      ...particulars(facts, evaluation),
      ...(isOneOfTwo ? [[say('certificate.sheet'), say(`certificate.sheet.${sheet}`)] as [string, string]] : []),
    ],
    declarations: declarationsOf(evaluation, (at) => instant(at, zone)),
    tables: tablesOf(facts, evaluation),
    owner: ownersPage(evaluation, facts),
    drawings: [...compareDrawings(evaluation), ...drawingsOf(facts, evaluation)],
    remarks: remarksOf(facts, evaluation),
    // Hundreds of sums: worked out once somebody looks at them.
    get working() {
      sums ??= workingOf(evaluation)
      return sums
    },
    photos: evaluation.photos.map((photo) => {
      const one = photo.step && photo.partId ? evaluation.byKey.get(`${photo.step}:${photo.partId}`) : undefined
      const who = facts.people.find((person) => person.id === photo.personId)?.name ?? ''
      const about = [instant(photo.takenAt ?? photo.at, zone), who].filter(Boolean).join(', ')
      const title = [one ? stepShort(one) : '', photo.caption].filter(Boolean).join(': ')
      return { attachment: photo.attachment, title, about }
    }),
    limits: limitsTable(facts, evaluation),
    compared: facts.compared,
    instruments: instrumentTable(facts, evaluation),
    byOnePerson:
      evaluation.signatures.length > 1 && new Set(evaluation.signatures.map((one) => one.personId)).size === 1,
    cautions: [say('caution.general'), say('certificate.recalled')],
  }
}

function tablesOf(facts: Facts, evaluation: Evaluation): Table[] {
  const steps = stepsOf(facts.regime)
  const ofSteps = steps.filter(isRead).flatMap((step) => {
    const table = stepTable(step, evaluation, facts)
    return table ? [toldInRows(step.appliesTo) ? { ...table, annex: true as const } : table] : []
  })
  const day = (at_ms: number): string => dayIn(at_ms, facts.job.timeZone)
  const found = snagTable(evaluation, facts, (at) => instant(at, facts.job.timeZone))
  return [
    found?.head ? found : null,
    ...resultSchedules(evaluation, steps),
    particularsTable(evaluation, day),
    ...plantTables(evaluation),
    ...partSheets(evaluation, steps),
    designTable(evaluation, facts),
    ...ofSteps.filter(({ annex }) => !annex),
    found?.head ? null : found,
    ...compareTables(evaluation),
    ...ofSteps.filter(({ annex }) => annex),
  ].filter((table) => table !== null)
}

function drawingsOf(facts: Facts, evaluation: Evaluation): DrawingSection[] {
  return evaluation.steps.flatMap((one) => {
    if (!isRead(one.step) || !(one.step.pictures || one.step.trend || one.step.pictureOfAll)) return []
    // A hunt that is over stands in the record as it went, though nothing of it counts any more.
    const body = one.counting?.entry.body ?? (one.step.pictureOfAll && one.readings.length > 0 ? NOTHING_READ : null)
    if (!body) return []
    const drawings = picturesOf(evaluation, one, body)
      .map((picture) => drawingOf(picture, facts.job.timeZone))
      .filter((drawing) => drawing !== null)
    const title = sayCode('step', `${one.step.id}.title`, { tag: one.part.data.tag })
    return drawings.length > 0 ? [{ key: one.key, title, drawings }] : []
  })
}

function workingOf(evaluation: Evaluation): WorkingSection[] {
  return evaluation.steps
    .filter((one) => one.computed || (one.counting && ['number', 'curve'].includes(mainSlot(one.step)?.kind ?? '')))
    .map((one) => ({
      key: one.key,
      title: sayCode('step', `${one.step.id}.title`, { tag: one.part.data.tag }),
      lines: linesOf(evaluation, one),
    }))
}

function particulars(facts: Facts, evaluation: Evaluation): [string, string][] {
  const strings = partsOfKind(evaluation.parts, 'string')
  const times = evaluation.steps.flatMap((one) => one.readings.map((reading) => reading.at))
  const zone = facts.job.timeZone
  return [
    [say('certificate.job'), `${facts.job.number} ${facts.job.name}`],
    ...(facts.job.place ? [[say('certificate.place'), facts.job.place] as [string, string]] : []),
    ...siteParticulars(evaluation),
    [say('certificate.company'), facts.job.company],
    ...(strings.length > 0 || !evaluation.plant.hasAcSide ? pvParticulars(evaluation) : []),
    ...supplyParticulars(evaluation),
    [
      say('certificate.regime'),
      `${facts.regime.name}, ${say('certificate.version', { version: facts.regime.version })}`,
    ],
    ...(facts.regime.changed
      ? [[say('certificate.regime-changed'), say('office.changed', facts.regime.changed)] as [string, string]]
      : []),
    [
      say('certificate.tested'),
      times.length > 0 ? `${instant(Math.min(...times), zone)} – ${instant(Math.max(...times), zone)}` : '–',
    ],
  ]
}

/** By what the plant has: modules, earth and the AC side, charge points. */
function titleOf({ plant }: Evaluation): string {
  if (isPeriodicWork(plant)) return say('certificate.title-periodic')
  const hasStrings = plant.ofKind('string').length > 0
  const hasPoints = plant.ofKind('charge-point').length > 0
  if (!plant.hasAcSide) return say('certificate.title')
  if (hasPoints) return say(hasStrings ? 'certificate.title-all' : 'certificate.title-points')
  return say(hasStrings ? 'certificate.title-both' : 'certificate.title-ac')
}

/** Power, modules and arrays of the side of the sun. */
function pvParticulars(evaluation: Evaluation): [string, string][] {
  const strings = partsOfKind(evaluation.parts, 'string')
  const peak_W = strings.reduce((sum, one) => sum + one.data.modulesInSeries * one.data.moduleType.data.pmax_W, 0)
  const count = new Map<string, number>()
  for (const { data } of strings) {
    const type = `${data.moduleType.make} ${data.moduleType.name}`
    count.set(type, (count.get(type) ?? 0) + data.modulesInSeries)
  }
  const types = [...count].map(([type, modules]) => say('certificate.modules-of', { modules, type }))
  const arrays = partsOfKind(evaluation.parts, 'array').map((one) =>
    say('certificate.array', { tag: one.data.tag, tilt: one.data.tilt_deg, azimuth: one.data.azimuth_deg }),
  )
  return [
    [say('certificate.power'), say('certificate.power-value', { kWp: peak_W / 1000, strings: strings.length })],
    [say('certificate.modules'), types.join('; ') || '–'],
    [say('certificate.arrays'), arrays.join('; ') || '–'],
  ]
}

function limitsTable(facts: Facts, evaluation: Evaluation): Table {
  const used = limitsUsed(evaluation)
  const limits = Object.entries(facts.regime.limits)
    .filter(([id]) => used.has(id))
    .map(([id, limit]) => [
      left(sayCode('limit', id)),
      right(quantity(limit.value, limit.unit, Number.isInteger(limit.value) ? 0 : 2)),
      left(sourceLine(limit.source, facts.compared)),
    ])
  const own = new Map<string, Cell[]>()
  for (const one of evaluation.steps) {
    for (const limit of one.judgement?.limits ?? []) {
      // Figures of a table or of a plate belong to no regime: each is printed once, with where it comes from.
      if (limit.id in facts.regime.limits || own.has(`${limit.id} ${limit.value}`)) continue
      own.set(`${limit.id} ${limit.value}`, [
        left(hasWords(`limit.${limit.id}`) ? sayCode('limit', limit.id) : sayCode('rating', limit.id)),
        right(quantity(limit.value, limit.unit, Number.isInteger(limit.value) ? 0 : 2)),
        left(sourceLine(limit.source, facts.compared)),
      ])
    }
  }
  const schools = Object.entries(facts.regime.schools)
    .filter(([id]) => used.has(id))
    .map(([id, school]) => [left(sayCode('school', id)), left(sayCode('school', `${id}.${school}`)), left('')])
  return {
    id: 'limits',
    fine: true,
    title: say('certificate.limits-title'),
    stretch: 0,
    columns: [
      { label: say('certificate.limit'), align: 'left' },
      { label: say('certificate.value'), align: 'right' },
      { label: say('certificate.source'), align: 'left' },
    ],
    rows: [...limits, ...own.values(), ...schools],
  }
}

function instrumentTable(facts: Facts, evaluation: Evaluation): Table {
  const serialOf = (id: string): string => facts.instruments.find((tool) => tool.id === id)?.serial || '–'
  const used = new Map<string, InstrumentCopy>()
  const add = (copy: InstrumentCopy | null | undefined): void => {
    if (copy) used.set(copy.id, copy)
  }
  for (const one of evaluation.steps) {
    const body = one.counting?.entry.body
    add(body?.instrument)
    add(body?.conditions?.irradiance.instrument)
    add(body?.conditions?.cell.instrument)
  }
  return {
    id: 'instruments',
    title: say('certificate.instruments'),
    columns: [
      { label: say('certificate.number'), align: 'left' },
      { label: say('certificate.instrument'), align: 'left' },
      { label: say('certificate.serial'), align: 'left' },
      { label: say('certificate.calibration'), align: 'left' },
      { label: '', align: 'left' },
    ],
    rows: [...used.values()].map((one) => [
      left(one.tag),
      left(one.name),
      left(serialOf(one.id)),
      left(one.calibrationDue ? dayWords(one.calibrationDue) : '–'),
      left(one.standIn ? say('flag.stand-in') : ''),
    ]),
  }
}
