/**
 * For every test, what makes each verdict: read off the core itself. Random plants and readings are judged, and the
 * sentences that came out are written down by verdict; gates and set-ups that hold it back stand beside them.
 * Run: npm run truth-table
 */
import { writeFileSync } from 'node:fs'
import fc from 'fast-check'
import { evaluateDraft } from '@/core/evaluate'
import { steps } from '@/core/steps'
import { isRead } from '@/core/steps/step'
import '@/words/everyTest'
import { english } from '@/words/say'
import { answers, bodyOf, Play, plants } from '../tests/laws/play'

const SEED = 20260514
const PLANTS = 400
const READINGS = 80
const COLUMNS = ['within', 'close', 'outside', 'not-yet'] as const

type Seen = Record<(typeof COLUMNS)[number], Set<string>> & { held: Set<string> }
const seen = new Map<string, Seen>(
  steps.map((step) => [
    step.id,
    { within: new Set(), close: new Set(), outside: new Set(), 'not-yet': new Set(), held: new Set() },
  ]),
)
const note = (step: string, verdict: string, code: string): void => {
  if (verdict in seen.get(step)!) seen.get(step)![verdict as (typeof COLUMNS)[number]].add(code)
}

const wishes = fc.sample(plants, { numRuns: PLANTS, seed: SEED })
const given = fc.sample(answers, { numRuns: READINGS, seed: SEED })
for (const wish of wishes) {
  const { evaluation } = new Play(wish)
  for (const at of evaluation.steps) {
    for (const gate of at.gates)
      seen.get(at.step.id)!.held.add(`${gate.hard ? '**' : ''}${gate.id}${gate.hard ? '**' : ''}`)
    if (at.computed) note(at.step.id, at.computed.verdict, at.computed.finding.code)
    if (!isRead(at.step)) continue
    for (const answer of given) {
      const draft = evaluateDraft(evaluation, at, bodyOf(at, evaluation, answer))
      note(at.step.id, draft.judgement.verdict, draft.judgement.finding.code)
      if (draft.trap) seen.get(at.step.id)!.held.add(draft.trap.code)
    }
  }
}

const words = english as Readonly<Record<string, string>>
const said = (code: string): string => (words[`finding.${code}`] ?? code).replaceAll('|', '/').replaceAll('\u00a0', ' ')
const list = (codes: ReadonlySet<string>): string =>
  codes.size === 0
    ? 'was not met in these plays'
    : [...codes]
        .sort()
        .map((code) => `\`${code}\` ${said(code)}`)
        .join('<br>')
const rows = steps.map((step) => {
  const own = seen.get(step.id)!
  const held = own.held.size === 0 ? 'nothing' : [...own.held].sort().join(', ')
  const cells = COLUMNS.map((verdict) => `| ${verdict.replace('-', ' ')} | ${list(own[verdict])} |`)
  return [
    `## ${step.order} ${words[`step.${step.id}.title`] ?? step.id}`,
    '',
    '| verdict | by |',
    '| --- | --- |',
    ...cells,
    `| held back | by ${held} (bold: no reason passes it) |`,
    `| left out | by somebody with a reason; it opens no hard gate |`,
  ].join('\n')
})
const text = `# What makes each verdict

Made by \`npm run truth-table\` from the core: ${PLANTS} random plants, ${READINGS} readings of each test. Sentences stand as
they are written, with their figures in braces. Besides, at every test: a reading that lacks an answer is not yet; a figure
that the regime lacks makes not yet; sisters that differ, two people who disagree and a flagged reading make it close at best.

${rows.join('\n\n')}
`
writeFileSync(new URL('../docs/truth-table.md', import.meta.url), text)
console.log(
  `${steps.length} tests, ${[...seen.values()].reduce((sum, one) => sum + COLUMNS.reduce((all, verdict) => all + one[verdict].size, 0), 0)} sentences`,
)
