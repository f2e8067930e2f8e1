/** The core's version, from what it holds: a verdict that may come out otherwise never bears the same. */
import { createHash } from 'node:crypto'
import { readdirSync, readFileSync } from 'node:fs'
import { join, relative } from 'node:path'

const core = join(import.meta.dirname, '../../src/core')
const isPart = (name: string): boolean =>
  name.endsWith('.ts') && !name.endsWith('.test.ts') && !name.startsWith('testing/')

/** @example coreVersion() // 'core-3f2a90c1d4e5' */
export function coreVersion(): string {
  const hash = createHash('sha256')
  const files = readdirSync(core, { recursive: true, withFileTypes: true })
    .filter((entry) => entry.isFile())
    .map((entry) => relative(core, join(entry.parentPath, entry.name)).replaceAll('\\', '/'))
    .filter(isPart)
    .sort()
  for (const name of files) hash.update(`${name}\n`).update(readFileSync(join(core, name)))
  return `core-${hash.digest('hex').slice(0, 12)}`
}
