import { env } from '../env'
import { Refused } from '../door'
import { isDemo } from './people'
import { database } from '../db/client'

const LOOPBACK = /^(127\.0\.0\.1|localhost|\[::1\])(:\d+)?$/
const LOOPBACK_ADDRESS = /^(::ffff:)?127\.0\.0\.1$|^::1$/
/** What proxies write into requests that they pass on, besides what the server framework writes itself. */
const PROXY_HEADERS = [
  'forwarded',
  'via',
  'x-real-ip',
  'x-forwarded-server',
  'x-original-forwarded-for',
  'cf-connecting-ip',
]

/**
 * One-tap sign-in exists only for demo people, in a database marked demo, on this machine itself: the socket is loopback
 * (the framework writes its address into `x-forwarded-for` where nobody did), and nothing says that a proxy passed it on.
 */
export async function refuseUnlessDemo(request: Request): Promise<void> {
  const { headers } = request
  const names = [headers.get('host'), headers.get('x-forwarded-host') ?? headers.get('host')]
  const isHere =
    names.every((name) => LOOPBACK.test(name ?? '')) &&
    LOOPBACK_ADDRESS.test(headers.get('x-forwarded-for') ?? '') &&
    PROXY_HEADERS.every((name) => !headers.has(name))
  if (env().UPSTAND_URL || !isHere || !(await isDemo(database()))) throw new Refused(404, 'door.not-demo')
}
