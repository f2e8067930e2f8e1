import { readdirSync } from 'node:fs'
import { get } from 'node:http'
import { join, relative } from 'node:path'
import { v7 as uuid } from 'uuid'
import { describe, expect, it } from 'vitest'
import { base, demo, knock, type Who } from '../support/server'

/**
 * Every route by role by assigned or not. Tester and viewer are assigned to the open roof; the viewer is not assigned
 * to the mill, and to the sealed chapel only the tester is.
 */
type Row = {
  route: string
  path(jobId: string): string
  body?(jobId: string): unknown
  may: Record<Exclude<Who, 'nobody'>, number>
  notAssigned: number
}

const NO = 403
const HIDDEN = 404
const rows: Row[] = [
  {
    route: 'jobs/[id]/facts',
    path: (id) => `/api/jobs/${id}/facts`,
    may: { viewer: 200, tester: 200, supervisor: 200 },
    notAssigned: HIDDEN,
  },
  {
    route: 'jobs/[id]/feed',
    path: (id) => `/api/jobs/${id}/feed`,
    may: { viewer: 200, tester: 200, supervisor: 200 },
    notAssigned: HIDDEN,
  },
  {
    route: 'jobs/[id]/certificate',
    path: (id) => `/api/jobs/${id}/certificate`,
    may: { viewer: 200, tester: 200, supervisor: 200 },
    notAssigned: HIDDEN,
  },
  {
    route: 'jobs/[id]/record',
    path: (id) => `/api/jobs/${id}/record?issue=Q`,
    may: { viewer: 404, tester: 404, supervisor: 404 },
    notAssigned: HIDDEN,
  },
  {
    route: 'jobs/[id]/verify',
    path: (id) => `/api/jobs/${id}/verify`,
    may: { viewer: 200, tester: 200, supervisor: 200 },
    notAssigned: HIDDEN,
  },
  {
    route: 'jobs/[id]/entries',
    path: (id) => `/api/jobs/${id}/entries`,
    body: () => ({ entries: [{ id: uuid() }] }),
    may: { viewer: NO, tester: 200, supervisor: 200 },
    notAssigned: HIDDEN,
  },
  {
    route: 'jobs/[id]/pair',
    path: (id) => `/api/jobs/${id}/pair`,
    body: () => ({ instrumentId: uuid() }),
    may: { viewer: NO, tester: 404, supervisor: 404 },
    notAssigned: HIDDEN,
  },
  {
    route: 'jobs/[id]/standin',
    path: (id) => `/api/jobs/${id}/standin`,
    body: () => ({ instrumentId: demo.tester07, partId: uuid(), key: 'dc-voltage' }),
    may: { viewer: NO, tester: 404, supervisor: 404 },
    notAssigned: HIDDEN,
  },
  {
    route: 'jobs/[id]/attachments/[attachmentId]',
    path: (id) => `/api/jobs/${id}/attachments/00000000-0000-7000-8000-00000000ffff`,
    may: { viewer: 404, tester: 404, supervisor: 404 },
    notAssigned: HIDDEN,
  },
  {
    route: 'jobs/[id]/attachments/[attachmentId]',
    path: (id) => `/api/jobs/${id}/attachments/00000000-0000-7000-8000-00000000ffff`,
    body: () => ({}),
    may: { viewer: NO, tester: 422, supervisor: 422 },
    notAssigned: HIDDEN,
  },
  {
    route: 'jobs/[id]/visits',
    path: (id) => `/api/jobs/${id}/visits`,
    body: () => ({}),
    may: { viewer: NO, tester: 422, supervisor: 422 },
    notAssigned: HIDDEN,
  },
  {
    route: 'jobs/[id]/people',
    path: (id) => `/api/jobs/${id}/people`,
    may: { viewer: 200, tester: 200, supervisor: 200 },
    notAssigned: HIDDEN,
  },
  {
    route: 'jobs/[id]/people',
    path: (id) => `/api/jobs/${id}/people`,
    body: () => ({}),
    may: { viewer: NO, tester: NO, supervisor: 422 },
    notAssigned: HIDDEN,
  },
  {
    route: 'jobs/[id]/plan',
    path: (id) => `/api/jobs/${id}/plan`,
    body: () => ({}),
    may: { viewer: NO, tester: NO, supervisor: 422 },
    notAssigned: HIDDEN,
  },
  {
    route: 'jobs/[id]/regime',
    path: (id) => `/api/jobs/${id}/regime`,
    body: () => ({}),
    may: { viewer: NO, tester: NO, supervisor: 422 },
    notAssigned: HIDDEN,
  },
  {
    route: 'jobs/[id]/seal',
    path: (id) => `/api/jobs/${id}/seal`,
    body: () => ({}),
    may: { viewer: NO, tester: NO, supervisor: 409 },
    notAssigned: HIDDEN,
  },
]

const company: { route: string; path: string; body?: () => unknown; may: Record<Who, number> }[] = [
  { route: 'me', path: '/api/me', may: { nobody: 401, viewer: 200, tester: 200, supervisor: 200 } },
  { route: 'me/sessions', path: '/api/me/sessions', may: { nobody: 401, viewer: 200, tester: 200, supervisor: 200 } },
  {
    route: 'me/sessions',
    path: '/api/me/sessions',
    body: () => ({ end: 'no session' }),
    may: { nobody: 401, viewer: 200, tester: 200, supervisor: 200 },
  },
  {
    route: 'instruments',
    path: '/api/instruments',
    may: { nobody: 401, viewer: 200, tester: 200, supervisor: 200 },
  },
  {
    route: 'instruments',
    path: '/api/instruments',
    body: () => ({}),
    may: { nobody: 401, viewer: 403, tester: 403, supervisor: 422 },
  },
  ...(['key', 'retire'] as const).map((what) => ({
    route: `instruments/[id]/${what}`,
    path: `/api/instruments/${demo.job.empty}/${what}`,
    body: () => ({ give: true }),
    may: { nobody: 401, viewer: 403, tester: 403, supervisor: 404 },
  })),
  { route: 'regimes', path: '/api/regimes', may: { nobody: 401, viewer: 200, tester: 200, supervisor: 200 } },
  {
    route: 'regimes',
    path: '/api/regimes',
    body: () => ({}),
    may: { nobody: 401, viewer: 403, tester: 403, supervisor: 422 },
  },
  { route: 'sources', path: '/api/sources', may: { nobody: 401, viewer: 200, tester: 200, supervisor: 200 } },
  {
    route: 'sources',
    path: '/api/sources',
    body: () => ({}),
    may: { nobody: 401, viewer: 403, tester: 403, supervisor: 422 },
  },
  {
    route: 'office/company',
    path: '/api/office/company',
    may: { nobody: 401, viewer: 200, tester: 200, supervisor: 200 },
  },
  {
    route: 'office/company',
    path: '/api/office/company',
    body: () => ({}),
    may: { nobody: 401, viewer: 403, tester: 403, supervisor: 422 },
  },
  { route: 'people', path: '/api/people', may: { nobody: 401, viewer: 200, tester: 200, supervisor: 200 } },
  {
    route: 'office/people',
    path: '/api/office/people',
    may: { nobody: 401, viewer: 403, tester: 403, supervisor: 200 },
  },
  {
    route: 'office/people',
    path: '/api/office/people',
    body: () => ({ do: 'nothing' }),
    may: { nobody: 401, viewer: 403, tester: 403, supervisor: 422 },
  },
  {
    route: 'office/audit',
    path: '/api/office/audit',
    may: { nobody: 401, viewer: 403, tester: 403, supervisor: 200 },
  },
  {
    route: 'code',
    path: '/api/code',
    body: () => ({ code: 'no code' }),
    may: { nobody: 403, viewer: 403, tester: 403, supervisor: 403 },
  },
  { route: 'jobs', path: '/api/jobs', may: { nobody: 401, viewer: 200, tester: 200, supervisor: 200 } },
  {
    route: 'jobs',
    path: '/api/jobs',
    body: () => ({}),
    may: { nobody: 401, viewer: 403, tester: 403, supervisor: 422 },
  },
  { route: 'module-types', path: '/api/module-types', may: { nobody: 401, viewer: 200, tester: 200, supervisor: 200 } },
  {
    route: 'module-types',
    path: '/api/module-types',
    body: () => ({}),
    may: { nobody: 401, viewer: 403, tester: 422, supervisor: 422 },
  },
  {
    route: 'module-types/[id]',
    path: '/api/module-types/00000000-0000-7000-8000-00000000ffff',
    body: () => ({}),
    may: { nobody: 401, viewer: 403, tester: 403, supervisor: 422 },
  },
  {
    route: 'module-types/[id]/retire',
    path: '/api/module-types/00000000-0000-7000-8000-00000000ffff/retire',
    body: () => ({}),
    may: { nobody: 401, viewer: 403, tester: 403, supervisor: 404 },
  },
  {
    route: 'charge-point-models',
    path: '/api/charge-point-models',
    may: { nobody: 401, viewer: 200, tester: 200, supervisor: 200 },
  },
  {
    route: 'charge-point-models',
    path: '/api/charge-point-models',
    body: () => ({}),
    may: { nobody: 401, viewer: 403, tester: 422, supervisor: 422 },
  },
  {
    route: 'feed',
    path: '/api/feed',
    body: () => ({ samples: [] }),
    may: { nobody: 401, viewer: 401, tester: 401, supervisor: 401 },
  },
  { route: 'health', path: '/api/health', may: { nobody: 200, viewer: 200, tester: 200, supervisor: 200 } },
  { route: 'first', path: '/api/first', may: { nobody: 200, viewer: 200, tester: 200, supervisor: 200 } },
  { route: 'demo/people', path: '/api/demo/people', may: { nobody: 200, viewer: 200, tester: 200, supervisor: 200 } },
  {
    route: 'demo/sign-in',
    path: '/api/demo/sign-in',
    body: () => ({}),
    may: { nobody: 422, viewer: 422, tester: 422, supervisor: 422 },
  },
]
/** The sign-in library's own routes are its own to test. */
const OTHERS = new Set(['auth/[...all]'])

describe.each(rows)('$route', ({ path, body, may, notAssigned }) => {
  it.each(['viewer', 'tester', 'supervisor'] as const)('answers an assigned %s as the role allows', async (who) => {
    expect((await knock(who, path(demo.job.open), body?.(demo.job.open))).status).toBe(may[who])
  })

  it('tells somebody not assigned nothing, not even that the job is there', async () => {
    const hidden = await knock('viewer', path(demo.job.mill), body?.(demo.job.mill))
    const absent = await knock('viewer', path(uuid()), body?.(uuid()))
    expect(hidden.status).toBe(notAssigned)
    expect(absent.status).toBe(notAssigned)
    expect(hidden.text).toBe(absent.text)
  })

  it('lets nobody in who is not signed in', async () => {
    expect((await knock('nobody', path(demo.job.open), body?.(demo.job.open))).status).toBe(401)
  })
})

describe.each(company)('$route $path', ({ path, body, may }) => {
  it.each(['nobody', 'viewer', 'tester', 'supervisor'] as const)('answers %s as the role allows', async (who) => {
    expect((await knock(who, path, body?.())).status).toBe(may[who])
  })
})

describe('the table of rights', () => {
  it('names every route there is', () => {
    const root = join(import.meta.dirname, '../../src/app/api')
    const found = readdirSync(root, { recursive: true, withFileTypes: true })
      .filter((entry) => entry.name === 'route.ts')
      .map((entry) => relative(root, entry.parentPath))
      .filter((route) => !OTHERS.has(route))
    expect(found.length).toBeGreaterThan(10)
    expect([...new Set([...rows, ...company].map((row) => row.route))].sort()).toEqual(found.sort())
  })

  it('lets nobody in by one tap who comes by another name than loopback', async () => {
    const { port } = new URL(base)
    const status = await new Promise<number>((resolve, reject) => {
      const path = '/api/demo/people'
      get({ host: '127.0.0.1', port, path, headers: { host: 'upstand.example' } }, (answer) => {
        answer.resume()
        resolve(answer.statusCode ?? 0)
      }).on('error', reject)
    })
    expect(status).toBe(404)
  })

  it('refuses writes that another site sends', async () => {
    const answer = await knock('supervisor', '/api/jobs', {}, { origin: 'https://elsewhere.example' })
    expect(answer.status).toBe(403)
  })
})
