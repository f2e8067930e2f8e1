import { NextRequest } from 'next/server'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { proxy } from './proxy'

const policy = (): string =>
  proxy(new NextRequest('http://127.0.0.1:4380/job')).headers.get('content-security-policy') ?? ''
afterEach(() => vi.unstubAllEnvs())

describe('a page as it is sent', () => {
  it('runs only scripts that carry the nonce of this very answer', () => {
    vi.stubEnv('NODE_ENV', 'production')
    const [one, other] = [policy(), policy()]
    expect(one).toMatch(/script-src 'self' 'nonce-[A-Za-z0-9+/=]{24}' 'strict-dynamic';/)
    expect(one).not.toBe(other)
    expect(/script-src ([^;]*)/.exec(one)![1]).not.toContain('unsafe')
  })

  it('asks browsers to stay with HTTPS where the company is reached by it, and only there', () => {
    vi.stubEnv('NODE_ENV', 'production')
    const sent = () => proxy(new NextRequest('http://127.0.0.1:4380/')).headers.get('strict-transport-security')
    expect(sent()).toBeNull()
    vi.stubEnv('UPSTAND_URL', 'https://upstand.example')
    expect(sent()).toBe('max-age=31536000')
  })
})
