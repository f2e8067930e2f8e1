import { betterAuth } from 'better-auth'
import { drizzleAdapter } from 'better-auth/adapters/drizzle'
import { v7 as uuid } from 'uuid'
import { database } from '../db/client'
import { account, rateLimit, session, user, verification } from '../db/schema'
import { allowedOrigins, env } from '../env'

const LEAST_PASSWORD = 10
/** A session that is used lives on: so old it is renewed. */
export const SESSION_RENEWED_AFTER_s = 60 * 60 * 24

function makeAuth() {
  const secure = env().UPSTAND_URL?.startsWith('https:') ?? false
  return betterAuth({
    appName: 'Upstand',
    baseURL: env().UPSTAND_URL ?? `http://127.0.0.1:${env().UPSTAND_PORT}`,
    secret: env().UPSTAND_SECRET,
    trustedOrigins: allowedOrigins(),
    database: drizzleAdapter(database(), {
      provider: 'mysql',
      schema: { user, session, account, verification, rateLimit },
    }),
    /** Passwords are hashed with scrypt, which is memory-hard: the library's own default. */
    emailAndPassword: { enabled: true, disableSignUp: true, minPasswordLength: LEAST_PASSWORD },
    session: { expiresIn: 60 * 60 * 24 * 30, updateAge: SESSION_RENEWED_AFTER_s },
    rateLimit: {
      enabled: true,
      window: 60,
      max: 100,
      storage: 'database',
      // Guessing is slowed by our own door, by account too.
      customRules: { '/sign-in/email': false },
    },
    advanced: { useSecureCookies: secure, database: { generateId: () => uuid() } },
    telemetry: { enabled: false },
    // A wrong password is no fault of the application.
    logger: { level: 'error' },
  })
}

type Auth = ReturnType<typeof makeAuth>
const holder = globalThis as { upstandAuth?: Auth }

export function auth(): Auth {
  holder.upstandAuth ??= makeAuth()
  return holder.upstandAuth
}
