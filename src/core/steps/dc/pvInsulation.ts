/**
 * Insulation of a string to earth, positive and negative in turn or joined. Sources: IEC 62446-1:2016 6.7 and table 2
 * (from memory); schools of test voltage as handbook 5 names them.
 */
import { electronicsOf } from '../../plant/moduleElectronics'
import type { InsulationTest } from '../../pv/insulation'
import { readValueOf } from '../../quantity/readValue'
import { causeOf } from '../../verdict/cause'
import { atLeast } from '../../verdict/compare'
import { decide, type Ruling } from '../../verdict/judgement'
import type { Finding, Flag } from '../../verdict/verdict'
import { isolatedGate, notReversed } from '../gates'
import { hold, notYet, ruled, saying } from '../holding'
import { choiceIn, lowestOf, figureOf, figuresOf, numberIn } from '../reading'
import { risePictures } from '../rise'
import { choiceSlot, type NumberSlot, numberSlot, type Slot } from '../slot'
import type { ReadStep, StepContext } from '../step'
import { exampleString } from '../worked'
import { againstSlot, earthRulings, earthSlot, notByRow, rowSlots } from './againstEarth'
import {
  byGroup,
  departs,
  groupOf,
  hasSurge,
  insulationAsked,
  powerOf_kW,
  SETTINGS,
  settingOf,
  strangeWorkingVolts,
  WITH_SURGE_V,
  workingVolts,
} from './insulationAsked'
import { insulationSum } from './workingOfInsulation'

const eachWay = [{ slot: 'method', is: ['each-to-earth'] }, notByRow]
const negative = numberSlot('negative-to-earth', 'insulation', 'Mohm', 1, { when: eachWay })
const positive = numberSlot('positive-to-earth', 'insulation', 'Mohm', 2, { when: eachWay })
const joined = numberSlot('joined', 'insulation', 'Mohm', 1, {
  when: [{ slot: 'method', is: ['joined-to-earth'] }, notByRow],
})
/** Everything that is held against the least. */
const against: readonly NumberSlot[] = [negative, positive, joined, ...rowSlots, earthSlot]
const applied = numberSlot('applied', 'dc-voltage', 'V', 3, { optional: true })

const slots: readonly Slot[] = [
  choiceSlot({ id: 'method', options: ['each-to-earth', 'joined-to-earth'], sticky: true, balloon: 1 }),
  workingVolts,
  choiceSlot({ id: 'set-voltage', options: SETTINGS, sticky: true, stated: true, balloon: 3 }),
  negative,
  positive,
  joined,
  ...rowSlots,
  earthSlot,
  applied,
  choiceSlot({
    id: 'behaviour',
    options: ['steady', 'risen-to-it', 'wandering'],
    sound: ['steady', 'risen-to-it'],
    balloon: 3,
  }),
  choiceSlot({ id: 'surface', options: ['dry', 'damp', 'wet'], sticky: true, balloon: 4 }),
  choiceSlot({ id: 'surge', options: ['none-there', 'disconnected', 'left-in'], sticky: true, balloon: 4 }),
  choiceSlot({
    id: 'together',
    options: ['by-string', 'with-its-group'],
    sticky: true,
    optional: true,
    balloon: 2,
  }),
  againstSlot,
]

const isSurgeIn = (context: StepContext<'string'>): boolean => choiceIn(context.reading, 'surge') === 'left-in'

/** Surge protection that is left in would conduct: then 250 V is the test, and the record says so. */
const testVoltage = (context: StepContext<'string'>, { testVoltage_V }: InsulationTest): number =>
  isSurgeIn(context) && hasSurge(context) ? Math.min(WITH_SURGE_V, testVoltage_V) : testVoltage_V

const sourceOf = ({ regime }: StepContext<'string'>) =>
  regime.schools['pv.insulation-voltage'] === 'table' ? 'iec-62446-insulation' : 'insulation-practice'

/** Each reading against the least; the lowest decides, and a bound no more than it can. */
function readingRulings(context: StepContext<'string'>, least: number): Ruling[] {
  const band = atLeast(least, least * context.limit('close.insulation').value)
  const set_V = settingOf(choiceIn(context.reading, 'set-voltage')) ?? 0
  const source = sourceOf(context)
  return figuresOf(context, against).map(({ read, span, slot }) =>
    hold(context, {
      step: 'pv-insulation',
      span,
      text: read.text,
      unit: 'Mohm',
      scale: 'log',
      band,
      source,
      limit: { id: 'pv.insulation', value: least },
      line: { code: 'pv-insulation.least', figures: { read: read.text }, decimals: 1 },
      figures: { least, set_V },
      slots: [slot.id],
    }),
  )
}

/** How it was tested: what decides nothing, and what is never better than close. */
function testRulings(context: StepContext<'string'>, wanted_V: number): Ruling[] {
  const source = sourceOf(context)
  const set_V = settingOf(choiceIn(context.reading, 'set-voltage'))
  const put = figureOf(context, applied)
  const rulings: Ruling[] = []
  const say = (verdict: Ruling['verdict'], code: string, figures: Record<string, number | string> = {}): void => {
    rulings.push(
      ruled(
        context,
        verdict,
        `pv-insulation.${code}`,
        { code: `pv-insulation.${code}`, figures: { wanted_V, ...figures }, source },
        { wanted_V, ...figures },
      ),
    )
  }
  if (choiceIn(context.reading, 'behaviour') === 'wandering') say('outside', 'wanders')
  if (set_V !== null && set_V < wanted_V) say('not-yet', 'too-low-voltage', { set_V })
  // By the figure itself, and by what a bound proves: a worse instrument must not make it right.
  if (put && put.span.least < wanted_V) say('not-yet', 'applied-too-low', { applied: put.read.text })
  if (byGroup(context.reading)) {
    const most_kW = context.limit('pv.insulation-group').value
    const group_kW = powerOf_kW(groupOf(context))
    if (group_kW > most_kW) say('not-yet', 'group-too-large', { group_kW, most_kW })
  }
  if (isSurgeIn(context)) say('close', 'surge-in-is-close')
  if (electronicsOf(context.part)?.insulation_V === null) say('close', 'electronics-unknown')
  return rulings
}

export const pvInsulation: ReadStep<'string'> = {
  kind: 'read',
  id: 'pv-insulation',
  order: 'B8',
  appliesTo: 'string',
  station: 'strings',
  protects: true,
  tag: 'live-in-daylight',
  slots,
  counts: 'worst',
  compared: 'own-scale',
  effects: [
    { state: 'plugs-locked', on: 'part', does: 'end' },
    {
      state: 'surge-in',
      on: 'surge-protection',
      does: 'end',
      when: (reading) => choiceIn(reading, 'surge') === 'disconnected',
    },
  ],
  gates: [
    isolatedGate,
    notReversed,
    { id: 'voltage-before-insulation', hard: false, waitsFor: 'pv-voc', until: 'done' },
  ],
  cautions: [
    { id: 'nobody-touches', hard: true },
    { id: 'warn-others', hard: true },
    { id: 'discharge-after', hard: false },
    { id: 'not-dead', hard: false },
  ],
  hookup: {
    drawing: 'insulation-to-frame',
    leads: [
      { balloon: 1, code: 'minus-first' },
      { balloon: 2, code: 'then-plus' },
      { balloon: 3, code: 'insulation-tester' },
      { balloon: 4, code: 'frame-or-rail' },
    ],
  },
  variants: [
    {
      slot: 'method',
      is: 'joined-to-earth',
      joins: true,
      hookup: {
        drawing: 'insulation-joined',
        leads: [
          { balloon: 1, code: 'joining-switch' },
          { balloon: 3, code: 'insulation-tester' },
          { balloon: 4, code: 'frame-or-rail' },
        ],
      },
      cautions: [
        { id: 'joining-switch-off', hard: true },
        { id: 'nobody-touches', hard: true },
        { id: 'warn-others', hard: true },
        { id: 'discharge-after', hard: false },
        { id: 'not-dead', hard: false },
      ],
    },
  ],
  minutes: 4,
  sources: ['iec-62446-insulation', 'insulation-practice'],
  mendingTouches: ['pv-polarity', 'pv-voc', 'earth-fault', 'plugs-locked'],
  sharedWith: (context) =>
    byGroup(context.reading) ? groupOf(context).filter((one) => one.id !== context.part.id) : [],
  asksFor(context): Readonly<Record<string, string>> {
    const asked = insulationAsked(context)
    return asked ? { 'set-voltage': `v${testVoltage(context, asked.test)}` } : {}
  },
  trap(context): Finding | null {
    const entered = context.plant.surgeProtection[0]
    if (entered && choiceIn(context.reading, 'surge') === 'none-there')
      return { code: 'pv-insulation.surge-entered', figures: { tag: context.part.data.tag, surge: entered.data.tag } }
    const strange = strangeWorkingVolts(context)
    if (strange) return { code: 'pv-insulation.strange-working', figures: { tag: context.part.data.tag, ...strange } }
    const set_V = settingOf(choiceIn(context.reading, 'set-voltage'))
    const bears_V = electronicsOf(context.part)?.insulation_V
    if (bears_V && set_V !== null && set_V > bears_V) {
      const figures = { tag: context.part.data.tag, set_V, most_V: bears_V }
      return { code: 'pv-insulation.above-electronics', figures }
    }
    // More than the modules are made for is not put on them, whatever it would read.
    const most_V = context.part.data.moduleType.data.maxSystemVoltage_V
    if (!most_V || set_V === null || set_V <= most_V) return null
    return { code: 'pv-insulation.above-module', figures: { tag: context.part.data.tag, set_V, most_V } }
  },
  judge(context) {
    const ask = insulationAsked(context)
    if (!ask) return notYet(context, 'pv-insulation.no-step')
    const read = readingRulings(context, ask.test.minimum_Mohm)
    const flags: Flag[] = []
    if (ask.test.loweredFrom_V !== null) flags.push('test-voltage-lowered')
    if (departs(ask)) flags.push('departs-from-table')
    if (isSurgeIn(context)) flags.push('surge-left-in')
    if (choiceIn(context.reading, 'surge') === 'disconnected' && !hasSurge(context)) flags.push('surge-not-entered')
    if ((choiceIn(context.reading, 'surface') ?? 'dry') !== 'dry') flags.push('damp-surface')
    const wanted_V = testVoltage(context, ask.test)
    if (read.length === 0) {
      const line = { code: 'pv-insulation.wanted', figures: { wanted_V }, source: sourceOf(context) } as const
      return decide([ruled(context, 'not-yet', 'pv-insulation.no-reading', line, { wanted_V })], {
        before: () => insulationSum(context, ask),
      })
    }
    // A pair of good readings counts by the lower: it is told first.
    const [first, ...more] = read.sort((a, b) => (a.rule!.measured!.value ?? 0) - (b.rule!.measured!.value ?? 0))
    const tests = [...testRulings(context, wanted_V), ...earthRulings(context)]
    return decide([first!, ...more, ...tests.map((one) => saying(one, one.finding.code, first!.finding.figures))], {
      flags,
      before: () => insulationSum(context, ask),
    })
  },
  sound(context) {
    if (choiceIn(context.reading, 'behaviour') !== 'risen-to-it') return []
    const lowest = lowestOf(figuresOf(context, against))
    return lowest ? [{ code: 'sound.risen', figures: { read: lowest.read.text } }] : []
  },
  causes(context, judgement) {
    if (judgement.verdict !== 'outside' && judgement.verdict !== 'close') return []
    const figures = { tag: context.part.data.tag }
    const damp = choiceIn(context.reading, 'surface') !== 'dry'
    const minus = numberIn(context.reading, negative.id)
    const plus = numberIn(context.reading, positive.id)
    const side = minus && plus && minus.value < plus.value ? 'damp-plug-minus' : 'damp-plug-plus'
    return [
      causeOf(side, damp ? 'fits' : 'may-fit', 'dry-and-halve', figures),
      causeOf('cable-pinched', 'may-fit', 'find-the-fault', figures),
      causeOf('surge-protection-in', isSurgeIn(context) ? 'fits' : 'does-not-fit', 'take-surge-out', figures),
    ]
  },
  pictures: (context) => risePictures(context.reading, against, insulationAsked(context)?.test.minimum_Mohm ?? null),
  example: {
    source: 'IEC 62446-1:2016 table 2 (from memory): 9 modules of 37.40 V, system 421 V, are tested at 500 V, 1 Mohm',
    part: exampleString(9),
    reading: {
      slots: {
        method: { choice: 'joined-to-earth' },
        'set-voltage': { choice: 'v500' },
        joined: readValueOf(410, 'Mohm', 0),
        behaviour: { choice: 'risen-to-it' },
        surface: { choice: 'dry' },
        surge: { choice: 'none-there' },
      },
      conditions: null,
    },
    verdict: 'within',
  },
}
