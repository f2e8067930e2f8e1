import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { steps } from '@/core/steps'
import { partKinds } from '@/core/plant/part'
import { stationsOfLine } from '@/core/plant/stations'
import { measurableSchema } from '@/core/record/instrument'

/** The shared pieces: a new test of the trade must need no line in any of them. */
const SHARED = [
  'src/ui/bench',
  'src/ui/run',
  'src/ui/schedule',
  'src/ui/record',
  'src/ui/rule',
  'src/ui/working',
  'src/report',
]
/** Words that are also kinds of part, stations or quantities say nothing of a test. */
const other = new Set<string>([...partKinds, ...stationsOfLine.map((one) => one.id), ...measurableSchema.options])
const ids = steps.map((step) => step.id).filter((id) => !other.has(id))

const filesIn = (folder: string): string[] =>
  readdirSync(folder, { recursive: true, encoding: 'utf8' })
    .filter((name) => /\.tsx?$/.test(name) && !/\.test\./.test(name))
    .map((name) => join(folder, name))

describe('the pieces that every test shares', () => {
  const files = SHARED.flatMap(filesIn)

  it('are looked at, all of them', () => {
    expect(files.length).toBeGreaterThan(40)
    expect(ids.length).toBeGreaterThan(20)
  })

  it.each(files)('%s knows no test by its name', (file) => {
    const text = readFileSync(file, 'utf8')
    expect(ids.filter((id) => new RegExp(`['"\`]${id}['"\`.:]`).test(text))).toEqual([])
  })
})
