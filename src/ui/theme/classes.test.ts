import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { verdicts } from '@/core/verdict/verdict'

const files = readdirSync('src', { recursive: true, withFileTypes: true })
  .filter((entry) => entry.isFile())
  .map((entry) => join(entry.parentPath, entry.name))
const textOf = (wanted: RegExp): string =>
  files
    .filter((file) => wanted.test(file) && !/\.test\./.test(file))
    .map((file) => readFileSync(file, 'utf8'))
    .join('\n')
const sheets = textOf(/\.css$/).replace(/\/\*[\s\S]*?\*\//g, '')
const code = textOf(/\.tsx?$/)

/** Classes in selectors: what stands before a block, not in it. */
const classes = new Set([...sheets.replace(/\{[^{}]*\}/g, '{}').matchAll(/\.([a-z][\w-]*)/g)].map((found) => found[1]!))
/** Families whose last part is a verdict, and what the component library gives. */
const isMade = (name: string): boolean =>
  name.startsWith('ant-') || verdicts.some((verdict) => [`v-${verdict}`, `t-${verdict}`, `c-${verdict}`].includes(name))

describe('style sheets', () => {
  it('know no class that nobody gives', () => {
    expect(classes.size).toBeGreaterThan(150)
    const idle = [...classes].filter((name) => !isMade(name) && !new RegExp(`(?<![\\w-])${name}(?![\\w-])`).test(code))
    expect(idle).toEqual([])
  })
})
