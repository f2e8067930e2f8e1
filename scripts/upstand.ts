import { parseArgs } from 'node:util'
import { Stop, say } from './lib/say'

const usage = `./upstand start [--port N] [--empty]   install what is missing, build, and serve on this machine
./upstand test                        every check, from types to the real interface
./upstand dev [--port N]              for developers: rebuilds while you type
./upstand calc [NAME]                 calculations: JSON in, JSON out
./upstand backup                      write a backup of the private database
./upstand restore FILE                put a backup back
./upstand seal-key [new]              show the keys that seal, or let a new one follow (--lost where the old is gone)
./upstand add-user                    add a person who signs in by e-mail and password`

const DEFAULT_PORT = 4380

async function main(): Promise<number> {
  const [command, ...rest] = process.argv.slice(2)
  switch (command) {
    case 'start':
    case 'dev': {
      const options = { port: { type: 'string' }, empty: { type: 'boolean' } } as const
      const { values } = parsed(() => parseArgs({ args: rest, options }))
      const { start } = await import('./start')
      return start({ port: portOf(values.port), empty: values.empty ?? false, dev: command === 'dev' })
    }
    case 'test': {
      const { test } = await import('./test')
      return test(rest)
    }
    case 'backup': {
      const { backup } = await import('./data')
      return backup()
    }
    case 'restore': {
      const { restore } = await import('./data')
      return restore(rest[0])
    }
    case 'seal-key': {
      const { positionals, values } = parsed(() =>
        parseArgs({ args: rest, allowPositionals: true, options: { lost: { type: 'boolean' } } }),
      )
      const { sealKeys, newSealKey } = await import('./sealKey')
      if (positionals[0] === undefined) return sealKeys()
      if (positionals[0] !== 'new' || positionals.length > 1)
        throw new Stop(`seal-key takes "new" or nothing.\n\n${usage}`)
      return newSealKey(values.lost ?? false)
    }
    case 'add-user': {
      const { addUser } = await import('./data')
      return addUser()
    }
    default:
      say(usage)
      return command === undefined || command === 'help' || command === '--help' ? 0 : 2
  }
}

function parsed<T>(work: () => T): T {
  try {
    return work()
  } catch (error) {
    throw new Stop(`${(error as Error).message}\n\n${usage}`)
  }
}

function portOf(text: string | undefined): number {
  if (text === undefined) return DEFAULT_PORT
  const port = Number(text)
  if (!Number.isInteger(port) || port < 1024 || port > 65535)
    throw new Stop(`--port takes a number from 1024 to 65535, not "${text}".`)
  return port
}

main().then(
  (code) => process.exit(code),
  (error) => {
    process.stderr.write(error instanceof Stop ? `\n${error.message}\n` : `\n${(error as Error).stack}\n`)
    process.exit(1)
  },
)
