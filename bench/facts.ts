import { moduleModel } from '@/core/pv/stringModel'
import type { Facts } from '@/core/record/facts'
import { exampleModule } from '@/core/steps/worked'
import { FactsBuilder } from '@/core/testing/factsBuilder'

/** A bundle of so many strings with six readings each: polarity twice, voltage twice, current twice. */
export function manyStrings(count: number): Facts {
  const model = moduleModel(exampleModule)
  const volts = 11 * model.voc_V(742, 43.6)
  const amperes = model.isc_A(742, 43.6)
  const build = new FactsBuilder()
  for (let n = 1; n <= count; n++) {
    const string = build.string(String(n))
    const off = 1 + 0.01 * Math.sin(n)
    for (let k = 0; k < 2; k++) {
      build.add(
        {
          kind: 'reading',
          v: 1,
          slots: { polarity: { choice: 'correct' } },
          conditions: null,
          how: 'typed',
          instrument: null,
          place: 'plugs',
          plantRevision: '',
          confirmed: [],
          note: null,
        },
        { step: 'pv-polarity', partId: string },
      )
      build.voltage(string, volts * off)
      build.current(string, amperes * off)
    }
  }
  return build.facts()
}
