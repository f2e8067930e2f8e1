/** The running application of this test run, and how its tests knock at its doors. */
export const base = process.env.UPSTAND_TEST_URL ?? 'http://127.0.0.1:4380'

export const demo = {
  job: {
    open: 'de300000-0000-7000-8000-000000000310',
    mill: 'de300000-0000-7000-8000-000000000320',
    sealed: 'de300000-0000-7000-8000-000000000330',
    empty: 'de300000-0000-7000-8000-000000000340',
    barn: 'de300000-0000-7000-8000-000000000350',
    glasshouse: 'de300000-0000-7000-8000-0000000003a0',
    house: 'de300000-0000-7000-8000-000000000360',
    workshop: 'de300000-0000-7000-8000-000000000370',
    mews: 'de300000-0000-7000-8000-000000000390',
    boathouse: 'de300000-0000-7000-8000-0000000003c0',
    joinery: 'de300000-0000-7000-8000-0000000003b0',
    cottage: 'de300000-0000-7000-8000-000000000380',
    hazelbank: 'de300000-0000-7000-8000-0000000003d0',
    fennel: 'de300000-0000-7000-8000-0000000003e0',
  },
  visit: { open: 'de300000-0000-7000-8000-000000000311', mill: 'de300000-0000-7000-8000-000000000321' },
  person: {
    tester: 'de300000-0000-7000-8000-000000000001',
    supervisor: 'de300000-0000-7000-8000-000000000002',
    viewer: 'de300000-0000-7000-8000-000000000003',
  },
  part: { cottageElectrode: 'de300000-0000-7000-8000-000000000386' },
  tester07: 'de300000-0000-7000-8000-000000000101',
  meter02: 'de300000-0000-7000-8000-000000000102',
}

export type Who = keyof typeof demo.person | 'nobody'
const cookies = new Map<Who, string>()

/** Forgets a session that a test ended. */
export const forget = (who: Who): void => void cookies.delete(who)

/** Signs a demo person in. @returns the cookies of a session of its own */
export async function signedIn(who: Exclude<Who, 'nobody'>): Promise<{ name: string; value: string }[]> {
  const answer = await fetch(`${base}/api/demo/sign-in`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', origin: base },
    body: JSON.stringify({ id: demo.person[who] }),
  })
  if (!answer.ok) throw new Error(`sign-in of ${who}: ${answer.status} ${await answer.text()}`)
  return answer.headers.getSetCookie().map((one) => {
    const [, name = '', value = ''] = /^([^=]+)=([^;]*)/.exec(one) ?? []
    return { name, value }
  })
}

/** The session cookie of a demo person. */
export async function cookieOf(who: Who): Promise<string> {
  if (who === 'nobody') return ''
  const known = cookies.get(who)
  if (known) return known
  const cookie = (await signedIn(who)).map(({ name, value }) => `${name}=${value}`).join('; ')
  cookies.set(who, cookie)
  return cookie
}

export type Answer<T = Record<string, unknown>> = { status: number; body: T; text: string; headers: Headers }

/** A batch of entries says whose it is; here it is of who knocks. */
function whose(who: Who, path: string, body: unknown): unknown {
  const isBatch = path.endsWith('/entries') && typeof body === 'object' && who !== 'nobody'
  return isBatch ? { personId: demo.person[who], ...body } : body
}

/** Knocks at a door as somebody. A body makes it a POST; a string body is sent as it is. */
export async function knock<T = Record<string, unknown>>(
  who: Who,
  path: string,
  body?: unknown,
  headers: Record<string, string> = {},
): Promise<Answer<T>> {
  const answer = await fetch(base + path, {
    method: body === undefined ? 'GET' : 'POST',
    headers: {
      cookie: await cookieOf(who),
      origin: base,
      ...(body === undefined ? {} : { 'content-type': 'application/json' }),
      ...headers,
    },
    body: body === undefined ? undefined : typeof body === 'string' ? body : JSON.stringify(whose(who, path, body)),
    redirect: 'manual',
  })
  const text = await answer.text()
  let parsed: unknown = null
  try {
    parsed = JSON.parse(text)
  } catch {
    // A file, not JSON.
  }
  return { status: answer.status, body: parsed as T, text, headers: answer.headers }
}
