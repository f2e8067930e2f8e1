/**
 * Voltage of a string whose modules each have a converter. Until it is released every one of them gives the few volts that
 * its maker names, whatever the light: the sum counts modules and converters, and says nothing of cells. Common practice,
 * no source; the figure is the maker's.
 */
import { convertersOf, electronicsOf } from '../../plant/moduleElectronics'
import type { StringPart } from '../../plant/part'
import { bandAround } from '../../verdict/compare'
import { decide, type Judgement } from '../../verdict/judgement'
import type { WorkingLine } from '../../verdict/working'
import { hold, notYet, saying } from '../holding'
import { figureOf } from '../reading'
import type { NumberSlot } from '../slot'
import type { StepContext, Variant } from '../step'

/** Half of what one module gives: further off, one is missing or one too many. */
const HALF_MODULE = 0.5
/** Beyond so many times what is held, nothing holds it back: it stands at what the light gives [D]. */
const NOT_HELD = 2

const heldOf = (part: StringPart): number | null => {
  const each_V = convertersOf(part)?.held_V ?? null
  return each_V === null ? null : part.data.modulesInSeries * each_V
}

export function heldExpected({ part }: StepContext<'string'>): { value: number; uncertainty: number } | null {
  const value = heldOf(part)
  return value === null ? null : { value, uncertainty: 0 }
}

/** Judges the voltage of a string that its converters hold down. */
export function judgeHeld(context: StepContext<'string'>, slot: NumberSlot): Judgement {
  const { modulesInSeries: modules } = context.part.data
  const each_V = convertersOf(context.part)?.held_V ?? null
  const expected_V = heldOf(context.part)
  if (each_V === null || expected_V === null) return notYet(context, 'pv-voc.held-unknown')
  const sum = (): WorkingLine[] => [
    {
      code: 'pv-voc.held',
      figures: { modules, each_V },
      result: { value: expected_V, unit: 'V', decimals: 1 },
      source: 'rating-plate',
    },
  ]
  const figure = figureOf(context, slot)
  if (!figure) return notYet(context, 'pv-voc.held-no-reading', { expected_V }, sum)
  const allowed_V = HALF_MODULE * each_V
  const ruling = hold(context, {
    step: 'pv-voc.held',
    span: figure.span,
    text: figure.read.text,
    unit: 'V',
    band: bandAround(expected_V, (100 * HALF_MODULE) / modules, context.limit('close.two-sided').value),
    expected: { value: expected_V, uncertainty: 0 },
    source: 'rating-plate',
    limit: { id: 'held-voltage', value: allowed_V },
    line: { code: 'pv-voc.held-allowed', figures: { each_V }, decimals: 2 },
    figures: { expected_V, modules, count: Math.round(figure.read.value / each_V), allowed_V },
    slots: [slot.id],
  })
  const isFree = ruling.verdict === 'outside' && figure.span.least > NOT_HELD * expected_V
  return decide([isFree ? saying(ruling, 'pv-voc.held-not') : ruling], { before: sum })
}

/** Held back is not off. */
export const heldVariants: readonly Variant[] = [
  {
    where: (part) => electronicsOf(part) !== null,
    cautions: [
      { id: 'no-load-before-parting', hard: true },
      { id: 'tester-rating', hard: true },
      { id: 'held-is-not-off', hard: true },
      { id: 'live-in-daylight', hard: false },
    ],
  },
]
