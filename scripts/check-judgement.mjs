// Screens, reports and the command line show what the core judged and judge nothing themselves: fails where a comparison
// with a limit, a rank of verdicts or a count of what is missing has come back into them.
import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'

const ROOMS = ['src/ui', 'src/report', 'src/cli']
const LEAST_FILES = 100
const VERDICT = "'(?:within|close|outside|not-yet|held-back|left-out)'"

const rules = [
  { name: 'comparison', pattern: /^import (?!type).*\/verdict\/compare'/gm },
  { name: 'comparison', pattern: /\b(?:limit|minimum|maximum)\w*(?:\.value)?\s*[<>]=?\s*\w+\.value\b/g },
  { name: 'comparison', pattern: /\.value\s*[<>]=?\s*\w*(?:limit|minimum|maximum|band\.)\w*/gi },
  {
    name: 'rank of verdicts',
    pattern: new RegExp(`\\[\\s*${VERDICT}\\s*,\\s*${VERDICT}\\s*,\\s*${VERDICT}\\s*,\\s*${VERDICT}`, 'g'),
  },
  { name: 'rank of verdicts', pattern: new RegExp(`(?:${VERDICT}: ?\\d+[,\\s]+){2}`, 'g') },
  { name: 'rank of verdicts', pattern: /\b(?:within|outside): ?\d+,\s*\n?\s*(?:'not-yet'|close|outside): ?\d+/g },
  { name: 'grouped by verdicts', pattern: new RegExp(`=== ${VERDICT} \\|\\| [\\w.!?]+ === ${VERDICT}`, 'g') },
  { name: 'completeness', pattern: /\bmissingSlots\(/g },
]

const files = ROOMS.flatMap((room) =>
  readdirSync(room, { recursive: true, withFileTypes: true })
    .filter((entry) => entry.isFile() && /\.tsx?$/.test(entry.name) && !/\.test\.tsx?$/.test(entry.name))
    .map((entry) => join(entry.parentPath, entry.name)),
)
const found = files.flatMap((file) => {
  const text = readFileSync(file, 'utf8')
  return rules.flatMap(({ name, pattern }) =>
    [...text.matchAll(pattern)].map((match) => {
      const line = text.slice(0, match.index).split('\n').length
      return `${file}:${line}: ${name}: ${match[0].trim().slice(0, 80)}`
    }),
  )
})
for (const one of found) console.error(one)
console.log(`${files.length} files that show and do not judge, ${found.length} places that judge`)
if (files.length < LEAST_FILES) {
  console.error(`too few files were seen (${files.length}): the check itself is broken`)
  process.exit(1)
}
process.exit(found.length > 0 ? 1 : 0)
