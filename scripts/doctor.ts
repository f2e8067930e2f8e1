import { alone } from './lib/folderLock'
import { findingsOf } from './lib/findings'
import { ensureMariadb } from './lib/packages'
import { ownPlaces } from './lib/paths'
import { say } from './lib/say'

const MARKS = { well: 'well  ', note: 'note  ', wrong: 'WRONG ' } as const

/** Says what a data folder holds and what to do about it; ends with 1 where something is wrong. */
export async function doctor(): Promise<number> {
  if (process.env.DATABASE_URL) {
    say('DATABASE_URL names a database server of your own: look at it with its own tools.')
    return 0
  }
  await ensureMariadb()
  const findings = await alone(ownPlaces, () => findingsOf(ownPlaces))
  for (const { is, text, todo } of findings) {
    say(`${MARKS[is]} ${text}`)
    if (todo) say(`        ${todo}`)
  }
  return findings.some((one) => one.is === 'wrong') ? 1 : 0
}
