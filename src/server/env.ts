import { z } from 'zod'

/** One schema for everything that the server takes from its environment. */
const schema = z.object({
  DATABASE_URL: z.url({ protocol: /^(mysql|mariadb)$/ }),
  UPSTAND_SECRET: z.string().min(32),
  UPSTAND_SEAL_KEY_FILE: z.string().min(1),
  /** The public HTTPS origin when a company runs it behind its proxy. */
  UPSTAND_URL: z.url().optional(),
  UPSTAND_PORT: z.coerce.number().int().default(4380),
  /** The code that lets the first person in, printed in the terminal. */
  UPSTAND_FIRST_CODE: z.string().optional(),
})

export type Env = z.infer<typeof schema>

let cached: Env | null = null

/** @throws Error naming what is missing: the start command sets all of it. */
export function env(): Env {
  if (cached) return cached
  const parsed = schema.safeParse(process.env)
  if (!parsed.success) {
    const missing = parsed.error.issues.map((issue) => issue.path.join('.')).join(', ')
    throw new Error(`environment: expected ${missing}; start the application with ./upstand start`)
  }
  cached = parsed.data
  return cached
}

/** Origins from which a browser may write. */
export function allowedOrigins(): string[] {
  const { UPSTAND_URL, UPSTAND_PORT } = env()
  if (UPSTAND_URL) return [new URL(UPSTAND_URL).origin]
  return [`http://127.0.0.1:${UPSTAND_PORT}`, `http://localhost:${UPSTAND_PORT}`]
}
