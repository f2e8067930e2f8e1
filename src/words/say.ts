/** Every sentence that people read comes from here: a keyed table a language, filled with the core's figures. */
import { type Unit, unitSpellings } from '@/core/quantity/unit'
import type { Figures, Finding } from '@/core/verdict/verdict'
import type { ac } from './en/ac'
import type { asked } from './en/asked'
import type { besides } from './en/besides'
import type { account } from './en/account'
import type { acLook } from './en/acLook'
import type { acSays } from './en/acSays'
import type { charts } from './en/charts'
import type { compare } from './en/compare'
import { broken } from './en/broken'
import type { curve } from './en/curve'
import type { day } from './en/day'
import { dc } from './en/dc'
import type { dialogs } from './en/dialogs'
import { design } from './en/design'
import type { doors } from './en/doors'
import { dull } from './en/dull'
import { electronics } from './en/electronics'
import type { fault } from './en/fault'
import type { found } from './en/found'
import type { glossary } from './en/glossary'
import type { guide } from './en/guide'
import type { keys } from './en/keys'
import { live } from './en/live'
import type { office } from './en/office'
import type { particulars } from './en/particulars'
import type { people } from './en/people'
import type { plant } from './en/plant'
import type { plantDrawn } from './en/plantDrawn'
import type { plug } from './en/plug'
import type { plugAsks } from './en/plugAsks'
import type { plugSays } from './en/plugSays'
import type { planner } from './en/planner'
import type { print } from './en/print'
import type { record } from './en/record'
import type { regime } from './en/regime'
import type { schedule } from './en/schedule'
import type { signin } from './en/signin'
import { refusals } from './en/refusals'
import { site } from './en/site'
import { sound } from './en/sound'
import { trade } from './en/trade'
import type { today } from './en/today'
import type { tour } from './en/tour'
import { ui } from './en/ui'
import type { why } from './en/why'
import { spoken } from './language'

const atOnce = {
  ...broken,
  ...trade,
  ...dc,
  ...design,
  ...dull,
  ...electronics,
  ...live,
  ...refusals,
  ...site,
  ...sound,
  ...ui,
}
type Later = typeof ac &
  typeof account &
  typeof acLook &
  typeof acSays &
  typeof asked &
  typeof besides &
  typeof charts &
  typeof compare &
  typeof curve &
  typeof day &
  typeof dialogs &
  typeof doors &
  typeof fault &
  typeof found &
  typeof glossary &
  typeof guide &
  typeof keys &
  typeof office &
  typeof particulars &
  typeof people &
  typeof plant &
  typeof plantDrawn &
  typeof planner &
  typeof plug &
  typeof plugAsks &
  typeof plugSays &
  typeof print &
  typeof record &
  typeof regime &
  typeof schedule &
  typeof signin &
  typeof today &
  typeof tour &
  typeof why
export type WordKey = keyof typeof atOnce | keyof Later

/** Every sentence that is known by now: what only some screens say comes with them (`words/plant`, `words/record`, `words/office`, `words/print`). */
export const english: Partial<Record<WordKey, string>> = { ...atOnce }

export function addWords(words: Partial<Record<WordKey, string>>): void {
  Object.assign(english, words)
}

/** A figure with its decimals and a true minus sign. */
export function figure(value: number, decimals: number, signed = false): string {
  if (!Number.isFinite(value)) return '?'
  const text = Math.abs(value).toFixed(decimals)
  const isZero = Number(text) === 0
  const sign = value < 0 && !isZero ? '−' : signed && !isZero ? '+' : ''
  return `${sign}${text}`
}

type Result = { value: number; unit: Unit; decimals: number; signed?: boolean; asRead?: string }
/** The result of a line of the working: as it was read, or the figure with its decimals. */
export function resultText({ value, unit, decimals, signed, asRead }: Result): string {
  const { written } = unitSpellings[unit]
  return asRead === undefined
    ? quantity(value, unit, decimals, signed)
    : `${asRead}${written ? `\u00a0${written}` : ''}`
}

/** A figure with its unit, a space between. */
export function quantity(value: number, unit: Unit, decimals: number, signed = false): string {
  const written = unitSpellings[unit].written
  if (unit === 'deg') return `${figure(value, decimals, signed)}${written}`
  return written ? `${figure(value, decimals, signed)} ${written}` : figure(value, decimals, signed)
}

/** Formats under which a figure is the last part of a key of words. */
const named: ReadonlySet<string> = new Set(['slot', 'rating', 'limit', 'field', 'choice', 'bound', 'need', 'than'])
const slot = /\{(\w+)(?::([+\w]+))?\}/g

/** A count with the form of the word that the language wants: `{days|one:# day|other:# days}`. */
const counted = /\{(\w+)((?:\|(?:zero|one|two|few|many|other):[^|}]*)+)\}/g
const plurals = new Map<string, Intl.PluralRules>()
function formOf(value: number): Intl.LDMLPluralRule {
  const { locale } = spoken()
  const rules = plurals.get(locale) ?? new Intl.PluralRules(locale)
  plurals.set(locale, rules)
  return rules.select(value)
}

function inNumber(value: number, forms: string): string {
  const all = Object.fromEntries(
    forms
      .slice(1)
      .split('|')
      .map((form) => [form.slice(0, form.indexOf(':')), form.slice(form.indexOf(':') + 1)]),
  )
  return (all[formOf(value)] ?? all.other ?? '#').replace('#', figure(value, Number.isInteger(value) ? 0 : 1))
}

/** A figure and its unit stay on one line. */
const beforeUnit = /(?<=[\d)]) (?=(?:V|A|W|K|Ω|mV|mA|MΩ|kΩ|%|°C|W\/m²|ms|mA|kA|mm²)(?![\p{L}\p{N}]))/gu

/** The sentence of a key in the language that is spoken. */
function wordOf(key: string): string | undefined {
  const own = (english as Record<string, string>)[key]
  return spoken().sentence(key, own) ?? own
}

/**
 * Fills a sentence: `{name}` as text, `{name:2}` with two decimals, `{name:+1}` signed, `{name:unit}` as a unit,
 * `{name:slot}`, `{name:rating}`, `{name:limit}`, `{name:field}`, `{name:choice}`, `{name:bound}`, `{name:need}` and `{name:than}` as the words of one, `{name:step}` as a step’s short name,
 * `{name|one:# day|other:# days}` in the form that goes with the count, `{name:finding}` as the sentence of another finding with the same figures.
 */
export function fill(sentence: string, figures: Figures = {}): string {
  const numbered = sentence.replace(counted, (_, name: string, forms: string) => {
    const value = figures[name]
    return typeof value === 'number' ? inNumber(value, forms) : '?'
  })
  const filled = numbered.replace(slot, (_, name: string, format: string | undefined) => {
    const value = figures[name]
    if (value === undefined) return '?'
    if (format !== undefined && named.has(format)) return wordOf(`${format}.${value}`) ?? String(value)
    if (format === 'step') return wordOf(`step.${value}.short`) ?? String(value)
    if (format === 'finding') return fill(wordOf(`finding.${value}`) ?? String(value), figures)
    if (format === 'unit') return unitSpellings[value as Unit]?.written ?? String(value)
    if (typeof value === 'string') return value
    if (format === undefined) return figure(value, Number.isInteger(value) ? 0 : 1)
    if (format === 'decimals') return figure(value, Number(figures.decimals ?? 1))
    return figure(value, Number(format.replace('+', '')), format.startsWith('+'))
  })
  return filled.replace(beforeUnit, '\u00a0')
}

/** The sentence of a key. */
export function say(key: WordKey, figures?: Figures): string {
  return fill(wordOf(key) ?? key, figures)
}

/** The sentence of a code that the core gave. A test walks every code, so the code itself is only ever a last resort. */
export function sayCode(family: string, code: string, figures?: Figures): string {
  const sentence = wordOf(`${family}.${code}`)
  return sentence === undefined ? code : fill(sentence, figures)
}

/** The sentence of a finding, and those that follow it. */
export function sayFinding({ code, figures, also = [] }: Finding): string {
  return [{ code, figures }, ...also].map((one) => sayCode('finding', one.code, one.figures)).join(' ')
}

type Named = { data: { kind: string; tag: string } }

/** A part by kind and tag: "string 2", "the site". */
export function partName({ data }: Named): string {
  return sayCode('part', data.kind, { tag: data.tag })
}

/** A step by its short name, with the tag of its part where there is more than one of that kind. */
export function stepShort({ step, part }: { step: { id: string }; part: Named }): string {
  const name = sayCode('step', `${step.id}.short`)
  return part.data.kind === 'site' ? name : `${name} ${part.data.tag}`
}

/** What a reading means when its likeliest cause fits; empty where there is nothing sure to say. */
export function meaningOf(cause: { code: string; fit: string; figures: Figures } | undefined): string {
  // Where two causes explain it as well none of them is told as if it were the one.
  if (cause?.fit !== 'fits' || cause.figures.canTell === 0 || !hasWords(`meaning.${cause.code}`)) return ''
  return sayCode('meaning', cause.code, cause.figures)
}

export function hasWords(key: string): key is WordKey {
  return key in english
}
