/** Why a loop that looks wrong is not: above its electrode in TT, below its sum where paths lie beside each other. */
import type { Judgement } from '../../verdict/judgement'
import type { Finding } from '../../verdict/verdict'
import { electrodeSpanOf } from '../earth/electrodeRead'
import type { StepContext } from '../step'
import { isTt } from './shared'

export function soundLoop(context: StepContext<'circuit'>, { rule }: Judgement): Finding[] {
  const measured = rule?.measured
  if (!measured || measured.bound !== 'exact') return []
  const found: Finding[] = []
  const electrode = isTt(context) ? electrodeSpanOf(context) : null
  if (electrode && electrode.span.bound === 'exact' && measured.value > electrode.span.most)
    found.push({ code: 'sound.above-electrode', figures: { read: measured.text, electrode: electrode.text } })
  const { expected } = rule
  if (expected && measured.value + measured.whisker < expected.value - expected.uncertainty)
    found.push({ code: 'sound.under-sum', figures: { read: measured.text, sum: expected.value } })
  return found
}
