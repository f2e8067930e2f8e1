import { env } from '../env'
import { Refused } from '../door'
import { isDemo } from './people'
import { database } from '../db/client'

const LOOPBACK = /^(127\.0\.0\.1|localhost|\[::1\])(:\d+)?$/

/** One-tap sign-in exists only for demo people, in a database marked demo, on loopback, and behind no proxy. */
export async function refuseUnlessDemo(request: Request): Promise<void> {
  const host = request.headers.get('host') ?? ''
  if (env().UPSTAND_URL || !LOOPBACK.test(host) || !(await isDemo(database()))) throw new Refused(404, 'door.not-demo')
}
