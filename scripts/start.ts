import { buildWorkers, ensureBuild } from './lib/build'
import { keepNewest, writeBackup } from './lib/backups'
import { passphraseGiven } from './lib/companyDatabase'
import { alone } from './lib/folderLock'
import { type Instance, startInstance } from './lib/instance'
import { ownPlaces } from './lib/paths'
import { Stop, say } from './lib/say'
import { prepareData } from './lib/state'

export type BackupPlan = { every_h: number; keep: number }

export async function start(options: {
  port: number
  empty: boolean
  dev: boolean
  backups: BackupPlan | null
}): Promise<number> {
  await prepareData(ownPlaces)
  await (options.dev ? buildWorkers() : ensureBuild(ownPlaces))
  let stopRequested: (() => void) | null = null
  const asked = new Promise<null>((resolve) => {
    stopRequested = () => resolve(null)
  })
  // A signal during the start is kept until the database can be stopped cleanly.
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'] as const) process.on(signal, () => stopRequested?.())
  const instance = await startInstance(ownPlaces, options)
  say(`\nUpstand is at ${instance.application.address}`)
  if (instance.demo) say('The demo company is loaded: sign in by one tap. Its instruments are simulated.')
  if (instance.firstCode)
    say(`Nobody is in this company yet. Open the address and enter this code: ${instance.firstCode}`)
  const endBackups = options.backups ? scheduled(options.backups, instance) : () => undefined
  say('Ctrl-C stops it; everything entered is kept.')
  const why = await Promise.race([asked, instance.ended])
  if (why) say(`\n${why}`)
  else say('\nStopping ...')
  endBackups()
  await instance.stop()
  say('Stopped.')
  return why ? 1 : 0
}

const HOUR_ms = 3_600_000

/** Writes a backup every so many hours, the first at once, and keeps the newest of them. Gives what ends that. */
function scheduled({ every_h, keep }: BackupPlan, { databases }: Instance): () => void {
  if (!databases.own) throw new Stop('Scheduled backups are of the private database only: use your own server’s tools.')
  const write = () =>
    alone(ownPlaces, async () => {
      const { file } = await writeBackup(
        ownPlaces,
        databases.adminUrl,
        databases.secrets,
        'scheduled',
        passphraseGiven(),
      )
      await keepNewest(ownPlaces, keep)
      say(`Backup written: ${file}`)
    }).catch((error) => say(`The scheduled backup was not written: ${(error as Error).message}`))
  const timer = setInterval(write, every_h * HOUR_ms)
  void write()
  return () => clearInterval(timer)
}
