import { parseArgs } from 'node:util'
import { Stop, say } from './lib/say'

const usage = `./upstand start [--port N] [--empty]   install what is missing, build, and serve on this machine
      [--backup-every HOURS] [--keep N] and write a backup every so often, of which the newest are kept
./upstand test                        every check, from types to the real interface
./upstand dev [--port N]              for developers: rebuilds while you type
./upstand calc [NAME]                 calculations: JSON in, JSON out
./upstand verify-seal FILE             whether a sealed record is whole, and who sealed it
./upstand backup [--encrypt]          write all that the company has into one checked file, also while it runs
./upstand restore FILE [--try]        put a backup back; --try only shows that it could be
./upstand doctor                      says what is found in the data folder and what to do
./upstand seal-key [new]              show the keys that seal, or let a new one follow (--lost where the old is gone)
./upstand add-user                    add a person who signs in by e-mail and password`

const DEFAULT_PORT = 4380
const DEFAULT_KEEP = 14

async function main(): Promise<number> {
  const [command, ...rest] = process.argv.slice(2)
  if (rest.some((one) => one === '--help' || one === '-h')) {
    say(usage)
    return 0
  }
  switch (command) {
    case 'start':
    case 'dev': {
      const text = { type: 'string' } as const
      const options = { port: text, empty: { type: 'boolean' }, 'backup-every': text, keep: text } as const
      const { values } = parsed(() => parseArgs({ args: rest, options }))
      const port = values.port === undefined ? DEFAULT_PORT : wholeNumber('--port', values.port, 1024, 65535)
      const every = values['backup-every']
      const backups = every !== undefined && {
        every_h: wholeNumber('--backup-every', every, 1, 744),
        keep: values.keep === undefined ? DEFAULT_KEEP : wholeNumber('--keep', values.keep, 1, 1000),
      }
      const { start } = await import('./start')
      return start({ port, empty: values.empty ?? false, dev: command === 'dev', backups: backups || null })
    }
    case 'test': {
      const { test } = await import('./test')
      return test(rest)
    }
    case 'backup': {
      const options = { encrypt: { type: 'boolean' } } as const
      const { values } = parsed(() => parseArgs({ args: rest, options }))
      const { backup } = await import('./data')
      return backup({ encrypt: values.encrypt ?? false })
    }
    case 'restore': {
      const options = { try: { type: 'boolean' } } as const
      const { positionals, values } = parsed(() => parseArgs({ args: rest, options, allowPositionals: true }))
      const { restore } = await import('./data')
      return restore(positionals[0], { trial: values.try ?? false })
    }
    case 'doctor': {
      const { doctor } = await import('./doctor')
      return doctor()
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
      const { addUser } = await import('./addUser')
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

function wholeNumber(name: string, text: string, least: number, most: number): number {
  const value = Number(text)
  if (!Number.isInteger(value) || value < least || value > most)
    throw new Stop(`${name} takes a number from ${least} to ${most}, not "${text}".`)
  return value
}

main().then(
  (code) => process.exit(code),
  (error) => {
    process.stderr.write(error instanceof Stop ? `\n${error.message}\n` : `\n${(error as Error).stack}\n`)
    process.exit(1)
  },
)
