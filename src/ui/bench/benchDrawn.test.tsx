import { renderToStaticMarkup } from 'react-dom/server'
import { describe, expect, it } from 'vitest'
import { evaluate, stepKey } from '@/core/evaluate'
import { walkOf, type Way } from '@/core/evaluation/walk'
import type { PartData } from '@/core/plant/part'
import { moduleModel } from '@/core/pv/stringModel'
import { readValueOf } from '@/core/quantity/readValue'
import type { Instrument } from '@/core/record/instrument'
import { steps } from '@/core/steps'
import { isRead } from '@/core/steps/step'
import { exampleModule, exampleSite, exampleString } from '@/core/steps/worked'
import { conditions, FactsBuilder, START_ms, testId } from '@/core/testing/factsBuilder'
import { sayCode } from '@/words/say'
import { RunSheet } from '../run/RunSheet'
import { noActions } from '../testing/noActions'
import { noDrafts } from '../testing/noDrafts'
import { Bench } from './Bench'

const nothing = (): undefined => undefined
const tester: Instrument = {
  id: testId(7),
  tag: '07',
  name: 'String tester',
  serial: '',
  calibrationDue: '2020-01-01',
  standIn: true,
  ranges: (['dc-voltage', 'insulation', 'continuity', 'dc-polarity'] as const).map((measures) => ({
    measures,
    accuracy: { ofReading_pct: 1, digits: 1 },
    most: 1000,
    decimals: 1,
  })),
  leadSets: [{ id: 'reel-30', name: '30 m reel' }],
}
const plain = (html: string): string => html.replaceAll('\u00a0', ' ')

/** The bench as it first stands, for a step on a part. */
function drawn(build: FactsBuilder, step: string, part: string, canWrite = true): string {
  const facts = build.facts({ instruments: [tester] })
  const evaluation = evaluate(facts, START_ms)
  const one = evaluation.byKey.get(stepKey(step, part))!
  return plain(
    renderToStaticMarkup(
      <Bench
        facts={facts}
        evaluation={evaluation}
        one={one}
        stepNumber="step"
        canWrite={canWrite}
        conditions={conditions()}
        without={null}
        latest={{}}
        watched={[]}
        opened={0}
        instrumentId={tester.id}
        setInstrument={nothing}
        actions={noActions}
        drafts={noDrafts}
        onLook={nothing}
        side={null}
      />,
    ),
  )
}
const count = (text: string, part: string): number => text.split(part).length - 1

describe('the bench', () => {
  it.each(steps)('draws $id with its title, its cautions and its hook-up', (step) => {
    const build = new FactsBuilder()
    const { named } = step.example
    if (named) build.part(named.data, named.id)
    const id = build.part(step.example.part)
    for (const other of step.example.others?.(id) ?? []) build.part(other)
    const html = drawn(build, step.id, id)
    expect(html).toContain('id="bench-title"')
    for (const { id } of step.cautions) expect(html).toContain(plain(sayCode('caution', id)))
    // Where a panel stands over the questions the drawing is behind a key.
    expect(html).toContain(
      isRead(step) && (step.panel || step.id === 'safe-isolation' || step.slots.some(({ kind }) => kind === 'curve'))
        ? 'How it is connected'
        : 'role="img"',
    )
    expect(html).toContain('data-testid="verdict"')
    expect(html).not.toContain('NaN')
    expect(html).not.toContain('undefined')
    // What is isolated already is read, not taken: there is nothing to tick.
    const ticks = step.id === 'safe-isolation' ? [] : step.cautions.filter(({ hard }) => hard)
    for (const { id } of ticks) expect(html).toContain(`type="checkbox" value="${id}"`)
  })

  it('draws a list of checks as rows of three answers, the next one marked', () => {
    const build = new FactsBuilder()
    const html = drawn(build, 'inspection', build.part(exampleSite))
    expect(count(html, 'data-option="as-it-should"')).toBe(23)
    expect(count(html, 'data-option="not-as-it-should"')).toBe(23)
    expect(count(html, 'class="row next"')).toBe(1)
    expect(html).toContain('keys 1 acceptable, 2 to be mended, 3 left out')
  })

  it('draws only the figures of the method that was set up', () => {
    const build = new FactsBuilder()
    const [first, second] = [build.string('1'), build.string('2')]
    build.reading('pv-insulation', first, {
      slots: { method: { choice: 'joined-to-earth' }, joined: readValueOf(300, 'Mohm', 0) },
    })
    const html = drawn(build, 'pv-insulation', second)
    expect(html).toContain('id="slot-joined"')
    expect(html).not.toContain('id="slot-positive-to-earth"')
    expect(html).toMatch(/data-option="joined-to-earth" aria-pressed="true"/)
  })

  it('offers the lead sets of the kit by name', () => {
    const build = new FactsBuilder()
    expect(drawn(build, 'lead-null', build.part(exampleSite))).toContain('30 m reel')
  })

  it('wants cautions ticked before a simulated instrument is pressed', () => {
    const build = new FactsBuilder()
    const html = drawn(build, 'pv-polarity', build.string('1'))
    expect(html).toContain('Tick above first')
    expect(html).toMatch(/<button[^>]*disabled[^>]*data-testid="press"|data-testid="press"[^>]*disabled/)
  })

  it('says that the calibration of the instrument ran out', () => {
    const build = new FactsBuilder()
    expect(drawn(build, 'pv-polarity', build.string('1'))).toContain('ran out 1 Jan')
  })

  it('offers to mend what is outside, and the reading that was kept cannot be typed over', () => {
    const build = new FactsBuilder()
    const id = build.string('1')
    build.polarity(id)
    build.voltage(id, 10 * moduleModel(exampleModule).voc_V(742, 43.6))
    const html = drawn(build, 'pv-voc', id)
    expect(html).toContain('data-testid="mend"')
    expect(html).toContain('1 of 11 modules were left out')
    expect(html).toMatch(/id="slot-voltage"[^>]*readOnly=""/i)
  })

  it('lets somebody who reads along change nothing', () => {
    const build = new FactsBuilder()
    const html = drawn(build, 'pv-polarity', build.string('1'), false)
    expect(html).not.toContain('data-testid="keep"')
    expect(html).not.toContain('data-testid="press"')
    expect(html).not.toContain('data-testid="leave-out"')
    expect(html).toContain('data-testid="next"')
  })

  it('shows a check that follows from the plant, with nothing to type', () => {
    const build = new FactsBuilder()
    const arrayId = build.part({ kind: 'array', tag: 'South', tilt_deg: 35, azimuth_deg: 180, mounting: 'open-rack' })
    build.part({ ...exampleString(24), arrayId })
    build.part({ kind: 'inverter', tag: 'INV', maxInput_V: 800 })
    const html = drawn(build, 'design-voltage', arrayId)
    expect(html).toContain('Do not connect it')
    expect(html).toContain('data-verdict="outside"')
    expect(html).not.toContain('<input id="slot-')
  })
})

describe('the run sheet', () => {
  function sheet(way: Way): string {
    const build = new FactsBuilder()
    build.part(exampleSite)
    const ids = ['1', '2'].map((tag) => build.string(tag))
    build.part({ kind: 'inverter', tag: 'INV', maxInput_V: 1000 } satisfies PartData)
    build.polarity(ids[0]!)
    const evaluation = evaluate(build.facts(), START_ms)
    return plain(
      renderToStaticMarkup(
        <RunSheet
          evaluation={evaluation}
          walks={{ 'by-test': walkOf(evaluation, 'by-test'), 'by-place': walkOf(evaluation, 'by-place') }}
          way={way}
          setWay={nothing}
          nowKey={stepKey('pv-voc', ids[0]!)}
          begun={new Set()}
          onOpen={nothing}
        />,
      ),
    )
  }

  it('by test has a group a test, the current one open', () => {
    const html = sheet('by-test')
    expect(html).toContain('B6 Voltage')
    expect(html).toMatch(/aria-current="step"[\s\S]*String 1/)
    expect(html).toContain('waits for Polarity')
  })

  it('by place has a group a string, with its tests', () => {
    const html = sheet('by-place')
    expect(html).not.toContain('B6 Voltage')
    expect(html).toContain('String 2')
    expect(html).toMatch(/aria-current="step"[\s\S]*Voltage/)
  })

  it('shows minutes and lead changes of both ways at once', () => {
    const html = sheet('by-test')
    expect(html.match(/\d+ min, \d+ lead changes/g)?.length).toBe(2)
  })
})
