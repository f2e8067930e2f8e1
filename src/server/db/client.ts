import { drizzle } from 'drizzle-orm/mysql2'
import mysql from 'mysql2/promise'
import { env } from '../env'
import * as schema from './schema'

export function openDatabase(url: string, connections = 10) {
  const pool = mysql.createPool({ uri: url, timezone: 'Z', charset: 'utf8mb4', connectionLimit: connections })
  return Object.assign(drizzle({ client: pool, schema, mode: 'default' }), { close: () => ended(pool) })
}

const LONGEST_END_ms = 3000

/** A connection whose server fell at this very moment never says that it ended: it is not waited for. */
async function ended(pool: mysql.Pool): Promise<void> {
  let timer: NodeJS.Timeout | undefined
  const longEnough = new Promise<void>((resolve) => {
    timer = setTimeout(resolve, LONGEST_END_ms)
  })
  await Promise.race([pool.end().catch(() => undefined), longEnough])
  clearTimeout(timer)
}

export type Database = ReturnType<typeof openDatabase>
/** A database or a transaction of it. */
export type Queries = Pick<Database, 'select' | 'insert' | 'update' | 'delete' | 'execute'>

const holder = globalThis as { upstandDatabase?: Database }

/** The application's own pool, one a process. */
export function database(): Database {
  holder.upstandDatabase ??= openDatabase(env().DATABASE_URL)
  return holder.upstandDatabase
}

/** Deadlock, lock wait, and the certification failure of a cluster: nothing was kept, so the work is done again. */
const RETRIED_ERRNOS = new Set([1213, 1205, 1047])
const ATTEMPTS = 4

export async function retried<T>(work: () => Promise<T>): Promise<T> {
  for (let attempt = 1; ; attempt++) {
    try {
      return await work()
    } catch (error) {
      if (attempt >= ATTEMPTS || !RETRIED_ERRNOS.has(errnoOf(error) ?? 0)) throw error
      await new Promise((resolve) => setTimeout(resolve, 20 * attempt ** 2))
    }
  }
}

/** The database's own error number; the query builder wraps it. */
export function errnoOf(error: unknown): number | null {
  const inner = (error as { cause?: unknown }).cause ?? error
  return (inner as { errno?: number }).errno ?? null
}

/** What a connection says that has no server behind it: it fell, is being stopped, or takes no part in its cluster. */
const AWAY = new Set([
  'ECONNREFUSED',
  'ECONNRESET',
  'EPIPE',
  'ETIMEDOUT',
  'PROTOCOL_CONNECTION_LOST',
  'ER_SERVER_SHUTDOWN',
])
const NOT_READY = 1047

/** Whether the database itself cannot be asked: nothing was kept, and soon it may be there again. */
export function isAway(error: unknown): boolean {
  const inner = ((error as { cause?: unknown }).cause ?? error) as { code?: string }
  return AWAY.has(inner.code ?? '') || errnoOf(error) === NOT_READY
}

/** What went wrong, for the log: what was asked, and never with which values, for a session's secret may be among them. */
export function withoutValues(error: unknown): unknown {
  const { query, cause, sql, message } = error as { query?: string; cause?: unknown; sql?: string; message?: string }
  // The driver's own error holds the statement with its values in it.
  if (typeof sql === 'string') return `${message} in: ${sql.slice(0, sql.search(/['"(]|$/))}...`
  return typeof query === 'string' ? `${String((cause as Error)?.message ?? cause)} in: ${query.slice(0, 300)}` : error
}

/** Whether the database has no room left: nothing was kept. */
export const isFull = (error: unknown): boolean => FULL.has(errnoOf(error) ?? 0)
const FULL = new Set([1021, 1114])

export const DUPLICATE_KEY = 1062
/** A row names another one that is not there. */
export const NO_SUCH_ROW = 1452
