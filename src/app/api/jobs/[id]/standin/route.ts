import { and, eq } from 'drizzle-orm'
import { z } from 'zod'
import { database } from '@/server/db/client'
import { entry, instrument, part } from '@/server/db/schema'
import { measurableSchema } from '@/core/record/instrument'
import { remedyKey } from '@/standin/remedyKey'
import { skyOver } from '@/standin/sky'
import { bodyOf, door, memberIn, Refused } from '@/server/door'
import { ingest } from '@/server/feed/ingest'
import { pressStandIn } from '@/standin/press'

type Context = { params: Promise<{ id: string }> }

const schema = z.strictObject({
  instrumentId: z.uuid(),
  partId: z.uuid(),
  key: measurableSchema,
  /** The inverter runs: the string is at its working point. */
  loaded: z.boolean().default(false),
  /** Its leads were nulled in this visit. */
  nulled: z.boolean().default(true),
  /** Which slot it is pressed for, and how the test was set up. */
  setting: z
    .strictObject({
      step: z.string().max(60).optional(),
      slot: z.string().max(60),
      choices: z.record(z.string().max(60), z.string().max(60)),
      figures: z.record(z.string().max(60), z.number()).optional(),
    })
    .default({ slot: '', choices: {} }),
})

/** Presses a key of a simulated tester connected to a part; what it shows comes in through the feed. */
export const POST = door<Context>(async (request, { params }) => {
  const { id } = await params
  await memberIn(request, id, 'tester')
  const { instrumentId, partId, key, loaded, nulled, setting } = await bodyOf(request, schema)
  const [tool] = await database().select().from(instrument).where(eq(instrument.id, instrumentId))
  if (!tool?.standIn) throw new Refused(409, 'door.standin-only')
  const others = await database()
    .select()
    .from(part)
    .where(and(eq(part.jobId, id), eq(part.retired, false)))
  const found = others.find((one) => one.id === partId)
  if (!found) throw new Refused(404, 'refused.no-part')
  const mendedParts = await mendedIn(id)
  const now = new Date()
  const pressed = pressStandIn(tool.data, key, found, skyOver(id), now.getTime(), {
    loaded,
    nulled,
    mended: mendedParts.has(partId),
    mendedParts,
    others,
    setting,
  })
  if (pressed.state === 'refused') {
    const { code, state: _, ...figures } = pressed
    throw new Refused(409, `door.${code}`, figures)
  }
  const samples = pressed.state === 'swept' ? pressed.samples : [pressed.sample]
  await ingest(database(), tool.data, samples, now)
  return Response.json({ samples })
})

/** What was wrong with a simulated part is gone once somebody wrote down that it was mended. */
async function mendedIn(jobId: string): Promise<ReadonlySet<string>> {
  const rows = await database()
    .selectDistinct({ partId: entry.partId, step: entry.step })
    .from(entry)
    .where(and(eq(entry.jobId, jobId), eq(entry.kind, 'remedy')))
  return new Set(
    rows.flatMap(({ partId, step }) => (partId ? [partId, ...(step ? [remedyKey(step, partId)] : [])] : [])),
  )
}
