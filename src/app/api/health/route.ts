import { sql } from 'drizzle-orm'
import { database } from '@/server/db/client'

export const dynamic = 'force-dynamic'

/** Says that this is Upstand, which start it belongs to, and whether its database answers. */
export async function GET(): Promise<Response> {
  const about = { name: 'upstand', instance: process.env.UPSTAND_INSTANCE ?? '' }
  try {
    await database().execute(sql`SELECT 1`)
    return Response.json({ ...about, database: true })
  } catch {
    return Response.json({ ...about, database: false }, { status: 503 })
  }
}
