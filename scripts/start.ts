import { buildWorkers, ensureBuild } from './lib/build'
import { startInstance } from './lib/instance'
import { ownPlaces } from './lib/paths'
import { say } from './lib/say'
import { prepareData } from './lib/state'

export async function start(options: { port: number; empty: boolean; dev: boolean }): Promise<number> {
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
  say('Ctrl-C stops it; everything entered is kept.')
  const why = await Promise.race([asked, instance.ended])
  if (why) say(`\n${why}`)
  else say('\nStopping ...')
  await instance.stop()
  say('Stopped.')
  return why ? 1 : 0
}
