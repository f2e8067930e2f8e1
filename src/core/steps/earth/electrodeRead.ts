/** What the electrodes of a place were read to be, for the tests that rest on it. */
import { type Span, standingFor } from '../../quantity/span'
import type { StepContext } from '../step'
import { electrodeSpan } from './electrodeSlots'

/** The highest of the electrodes that were read, by spikes or by the loop; null where none was. */
export function electrodeSpanOf({
  plant,
  counted,
}: Pick<StepContext, 'plant' | 'counted'>): { span: Span; text: string } | null {
  let highest: Span | null = null
  for (const { id } of plant.ofKind('electrode')) {
    const body = counted('electrode', id) ?? counted('electrode-loop', id)
    const span = body && electrodeSpan(body)
    if (span && (highest === null || span.most > highest.most)) highest = span
  }
  return highest && { span: highest, text: standingFor(highest).toFixed(1) }
}
