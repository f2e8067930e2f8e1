/** One sentence for whatever a schema refuses: what stands there, and what may stand there. */
import type { z } from 'zod'

type Issue = z.core.$ZodIssue & { input?: unknown }

const MOST_SHOWN = 60
function shown(value: unknown): string {
  if (value === undefined) return 'nothing'
  const text = JSON.stringify(value) ?? String(value)
  return text.length > MOST_SHOWN ? `${text.slice(0, MOST_SHOWN)}…` : text
}

const kinds: Readonly<Record<string, string>> = {
  string: 'a text',
  number: 'a number',
  int: 'a whole number',
  boolean: 'true or false',
  array: 'a list',
  object: 'an object',
  record: 'an object',
}

/** What may stand there, as far as the issue tells. */
function wanted(issue: Issue): string | null {
  switch (issue.code) {
    case 'invalid_type':
      return kinds[issue.expected] ?? issue.expected
    case 'invalid_value':
      return issue.values.length === 1 ? shown(issue.values[0]) : `one of ${issue.values.map(shown).join(', ')}`
    case 'too_small':
      return `${issue.inclusive ? 'at least' : 'more than'} ${issue.minimum}${issue.origin === 'string' ? ' characters' : issue.origin === 'array' ? ' of them' : ''}`
    case 'too_big':
      return `${issue.inclusive ? 'at most' : 'less than'} ${issue.maximum}${issue.origin === 'string' ? ' characters' : issue.origin === 'array' ? ' of them' : ''}`
    case 'not_multiple_of':
      return `a multiple of ${issue.divisor}`
    case 'invalid_union':
      return [...new Set(issue.errors.flatMap((list) => list.map((one) => wanted(one) ?? one.message)))].join(', or ')
    case 'invalid_key':
      return issue.issues[0]?.message ?? 'another key'
    default:
      return null
  }
}

/** A form of input is told by one field: what stands in it, and which forms there are. */
function formOf(issue: Issue): string | null {
  if (issue.code !== 'invalid_union' || issue.errors.length > 0 || !('options' in issue)) return null
  const field = String(issue.path.at(-1))
  const given = (issue.input as Record<string, unknown> | null)?.[field]
  return `${field} is ${shown(given)}; it may be: ${(issue.options as unknown[]).map(shown).join(' or ')}`
}

/** A sentence of our own is kept, and what stands there is added to it. */
export function sentenceOf(issue: Issue): string {
  const field = String(issue.path.at(-1) ?? 'the input')
  const form = formOf(issue)
  if (form) return form
  if (issue.code === 'unrecognized_keys') return `${issue.keys.join(', ')}: not known here; look at --schema`
  const own = /^(Invalid|Too (small|big)|Unrecognized|Expected)/.test(issue.message) ? null : issue.message
  const may = own ?? wanted(issue)
  return may
    ? `${field} is ${shown(issue.input)}; it may be: ${may}`
    : `${field} is ${shown(issue.input)}: ${issue.message}`
}
