/** A page in plain words for whoever lives with it: what was built, how to switch it off, what to look at, whom to call. */
import { foundIn } from '@/core/evaluation/found'
import type { Evaluation } from '@/core/evaluation/types'
import { foundClasses } from '@/core/record/entry'
import type { Facts } from '@/core/record/facts'
import { dayWords } from './dayWords'
import { foundText } from '@/words/found'
import { figure, say } from '@/words/say'

export type OwnersPage = { title: string; blocks: { title: string; lines: string[]; inOrder?: true }[] }

const words = (...all: readonly (string | null | undefined)[]): string => all.filter(Boolean).join(', ')

function built({ plant }: Evaluation): string[] {
  const strings = plant.ofKind('string')
  const lines: string[] = []
  if (strings.length > 0) {
    const modules = strings.reduce((sum, one) => sum + one.data.modulesInSeries, 0)
    const peak_W = strings.reduce((sum, one) => sum + one.data.modulesInSeries * one.data.moduleType.data.pmax_W, 0)
    lines.push(say('owner.modules', { modules, strings: strings.length, kWp: figure(peak_W / 1000, 1) }))
  }
  for (const { data } of plant.ofKind('inverter'))
    lines.push(say('owner.inverter', { what: words(data.tag, data.make, data.model) }))
  for (const { data } of plant.ofKind('board'))
    lines.push(say('owner.board', { what: words(data.name || data.tag, data.place) }))
  const circuits = plant.ofKind('circuit').length
  if (circuits > 0) lines.push(say('owner.circuits', { count: circuits }))
  for (const { data } of plant.ofKind('charge-point'))
    lines.push(say('owner.point', { what: words(data.tag, data.place) }))
  return lines
}

/** AC first, then DC: nothing is parted under load. */
function switchingOff({ plant }: Evaluation): string[] {
  const lines: string[] = []
  for (const { data } of plant.ofKind('inverter')) lines.push(say('owner.off-inverter', { tag: data.tag }))
  for (const { data } of plant.ofKind('dc-switch'))
    lines.push(say('owner.off-switch', { what: words(data.tag, data.place) }))
  if (plant.ofKind('string').length > 0) lines.push(say('owner.still-live'))
  for (const { data } of plant.ofKind('charge-point')) lines.push(say('owner.off-point', { tag: data.tag }))
  const [supply] = plant.ofKind('supply')
  if (supply) {
    const told = words(supply.data.mainSwitch, plant.ofKind('board')[0]?.data.place)
    lines.push(say(lines.length > 0 ? 'owner.off-main' : 'owner.off-all', { what: told ? ` (${told})` : '' }))
  }
  return lines
}

function toLookAt({ plant }: Evaluation): string[] {
  const lines: string[] = []
  if (plant.ofKind('rcd').length > 0) lines.push(say('owner.press-button'))
  if (plant.ofKind('string').length > 0) lines.push(say('owner.after-storm'), say('owner.inverter-shows'))
  if (plant.ofKind('electrode').length > 0) lines.push(say('owner.electrode'))
  lines.push(say('owner.never-open'))
  return lines
}

/** How each charge point is set going again after it stopped, in its maker's steps. */
function startingAgain({ plant }: Evaluation): string[] {
  return plant.ofKind('charge-point').flatMap(({ data }) => {
    const { reset = [], ready_s = null } = data.model?.data ?? {}
    if (reset.length === 0) return []
    const steps = reset.join('; ')
    const ready = ready_s ? say('owner.ready-after', { ready_s }) : ''
    return [words(say('owner.start-again', { tag: data.tag, steps }), ready)]
  })
}

/** What was found and is still so, the gravest first, each with what to do. */
function whatToDo(evaluation: Evaluation): string[] {
  const found = foundIn(evaluation)
  return foundClasses.flatMap((as) =>
    found.filter((one) => one.as === as).map((one) => say(`owner.found-${as}`, { what: foundText(one) })),
  )
}

export function ownersPage(evaluation: Evaluation, facts: Facts): OwnersPage {
  const site = evaluation.plant.site?.data
  const { letterhead, company } = facts.job
  const call = site?.callWhom || words(company, letterhead?.phone)
  const all: OwnersPage['blocks'] = [
    { title: say('owner.built'), lines: built(evaluation) },
    { title: say('owner.found'), lines: whatToDo(evaluation) },
    { title: say('owner.off'), lines: switchingOff(evaluation), inOrder: true },
    { title: say('owner.again'), lines: startingAgain(evaluation) },
    { title: say('owner.look'), lines: toLookAt(evaluation) },
    { title: say('owner.call'), lines: [call] },
    { title: say('owner.next'), lines: [site?.nextOn ? dayWords(site.nextOn) : say('owner.next-open')] },
  ]
  return { title: say('owner.title'), blocks: all.filter(({ lines }) => lines.length > 0) }
}
