// Fields, lists and tables are the component library's: fails where a native one stands outside the few files that draw
// their own, each with its reason, and where a file of the list needs it no longer.
import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'

const ROOM = 'src/ui'
const LEAST_FILES = 60
const NATIVE = /<(?:select|table|textarea|input)\b/g

/** Files that draw their own, and why. */
const OWN = {
  'src/ui/bench/Slots.tsx': 'the big figure of a reading, with its keypad',
  'src/ui/plug/PlugPanel.tsx': 'columns that stand under the drawn track of the pilot',
  'src/ui/plug/TripGuide.tsx': 'the figure of a trip, read at arm’s length',
  'src/ui/record/Preview.tsx': 'the sheet as it is printed',
  'src/ui/schedule/CellInput.tsx': 'the pen in a cell of the grid',
  'src/ui/signin/CodeSignIn.tsx': 'an unseen name for the keeper of passwords',
}

const files = readdirSync(ROOM, { recursive: true, withFileTypes: true })
  .filter((entry) => entry.isFile() && /\.tsx$/.test(entry.name) && !/\.test\.tsx$/.test(entry.name))
  .map((entry) => join(entry.parentPath, entry.name))
const found = files.flatMap((file) => {
  const text = readFileSync(file, 'utf8')
  const lines = [...text.matchAll(NATIVE)].map((match) => text.slice(0, match.index).split('\n').length)
  return lines.map((line) => ({ file, line }))
})
const strange = found.filter(({ file }) => !(file in OWN))
const idle = Object.keys(OWN).filter((file) => !found.some((one) => one.file === file))

for (const { file, line } of strange)
  console.error(`${file}:${line}: a native field or table; the component library has one`)
for (const file of idle) console.error(`${file}: stands in the list of those that draw their own, and does not`)
console.log(
  `${files.length} files of the interface, ${Object.keys(OWN).length} of them draw fields or tables of their own`,
)
if (files.length < LEAST_FILES) {
  console.error(`too few files were seen (${files.length}): the check itself is broken`)
  process.exit(1)
}
process.exit(strange.length + idle.length > 0 ? 1 : 0)
