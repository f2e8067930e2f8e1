import { existsSync } from 'node:fs'
import { has, run } from './run'
import { Stop, step } from './say'

/** Installs a Debian package where root or sudo can; otherwise says exactly what to install. */
async function ensurePackage(name: string, isThere: () => Promise<boolean>): Promise<void> {
  if (await isThere()) return
  const isRoot = process.getuid?.() === 0
  const canSudo = !isRoot && (await has('sudo')) && (await run('sudo', ['-n', 'true'])).code === 0
  const byHand = `Install it with: apt-get install ${name}`
  if (!(await has('apt-get')))
    throw new Stop(`${name} is missing and this is no Debian system. Install it, then run this again.`)
  if (!isRoot && !canSudo) throw new Stop(`${name} is missing, and there is no right to install it here. ${byHand}`)
  const apt = (args: string[]) => {
    const line = [
      'env',
      'DEBIAN_FRONTEND=noninteractive',
      'apt-get',
      '-o',
      'DPkg::Lock::Timeout=300',
      '-qq',
      '-y',
      ...args,
    ]
    return canSudo ? run('sudo', ['-n', ...line]) : run(line[0]!, line.slice(1))
  }
  await step(`Installing ${name} from Debian's packages (once)`, async () => {
    let installed = await apt(['install', '--no-install-recommends', name])
    if (installed.code !== 0) {
      await apt(['update'])
      installed = await apt(['install', '--no-install-recommends', name])
    }
    if (installed.code !== 0 || !(await isThere())) {
      throw new Stop(`${name} could not be installed: ${installed.output.trim().split('\n').at(-1)}. ${byHand}`)
    }
  })
}

export async function ensureMariadb(): Promise<void> {
  await ensurePackage('mariadb-server', async () => existsSync('/usr/sbin/mariadbd') || (await has('mariadbd')))
}

/** Chromium without its windows, and the whole of it. */
export const CHROMIUM = { shell: '/usr/bin/chromium-headless-shell', whole: '/usr/bin/chromium' } as const

/** The shell is the same engine and a quarter quicker; where it cannot be had, the whole one does. */
export async function ensureChromium(): Promise<void> {
  await ensurePackage('chromium-headless-shell', async () => existsSync(CHROMIUM.shell)).catch(() =>
    ensurePackage('chromium', async () => existsSync(CHROMIUM.whole)),
  )
}
