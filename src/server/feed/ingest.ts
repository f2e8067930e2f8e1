import { and, asc, count, desc, eq, gt, gte, inArray, lt, max } from 'drizzle-orm'
import { type FeedSample, type LiveSample, liveSample } from '@/core/record/feed'
import type { Instrument, Measurable } from '@/core/record/instrument'
import type { Unit } from '@/core/quantity/unit'
import { type Database, DUPLICATE_KEY, errnoOf, type Queries, retried } from '../db/client'
import { feedSample, instrument } from '../db/schema'
import { Refused } from '../door'

/** How far a sample's time may lie from this clock. */
const MOST_AWAY_MINUTES = 10
/** Samples that one instrument may send in a minute. */
const MOST_A_MINUTE = 600
const KEPT_HOURS = 24

/** Takes samples of one instrument: its own quantities only, in their unit, near this clock, each once. */
export async function ingest(
  db: Database,
  from: Instrument,
  samples: readonly FeedSample[],
  now: Date,
): Promise<number> {
  const live = samples.map((sample) => checked(from, sample, now))
  const minuteAgo = new Date(now.getTime() - 60_000)
  const [recent] = await db
    .select({ n: count() })
    .from(feedSample)
    .where(and(eq(feedSample.instrumentId, from.id), gte(feedSample.receivedAt, minuteAgo)))
  if ((recent?.n ?? 0) + live.length > MOST_A_MINUTE) throw new Refused(429, 'door.feed-rate')
  const rows = live.map((one) => ({
    instrumentId: one.instrumentId,
    quantity: one.quantity,
    pair: one.pair ?? '',
    value: one.read.value,
    bound: one.read.bound,
    text: one.read.text,
    unit: one.read.unit,
    sweep: one.sweep ?? null,
    at: new Date(one.at),
    receivedAt: now,
  }))
  try {
    await retried(() => db.insert(feedSample).values(rows))
  } catch (error) {
    if (errnoOf(error) === DUPLICATE_KEY) throw new Refused(409, 'door.feed-replay')
    throw error
  }
  return rows.length
}

/**
 * What nobody would see is not taken. A simulated key that is pressed on a bench shows there by itself and needs no pairing.
 *
 * @throws Refused where no job has the instrument.
 */
export async function refuseUnpaired(db: Queries, instrumentId: string): Promise<void> {
  const [paired] = await db
    .select({ job: instrument.pairedJobId })
    .from(instrument)
    .where(eq(instrument.id, instrumentId))
  if (!paired?.job) throw new Refused(409, 'door.feed-unpaired')
}

function checked(from: Instrument, sample: FeedSample, now: Date): LiveSample {
  const taken = liveSample(from, sample)
  if ('code' in taken) {
    const { code, ...figures } = taken
    throw new Refused(422, `door.${code}`, figures)
  }
  if (Math.abs(Date.parse(sample.at) - now.getTime()) > MOST_AWAY_MINUTES * 60_000) {
    throw new Refused(422, 'door.feed-time', { minutes: MOST_AWAY_MINUTES })
  }
  return taken
}

export type FeedPage = { cursor: number; samples: LiveSample[]; paired: string[] }
const MOST_IN_A_PAGE = 300
/** What a page that asks for the first time is shown: the last few minutes. */
const FIRST_LOOK_MINUTES = 3

/** Samples of the instruments paired with a job, after a cursor. */
export async function feedOf(db: Queries, jobId: string, after: number | null, now: Date): Promise<FeedPage> {
  const paired = (await db.select({ id: instrument.id }).from(instrument).where(eq(instrument.pairedJobId, jobId))).map(
    (row) => row.id,
  )
  if (paired.length === 0) return { cursor: after ?? (await newestSample(db)), samples: [], paired }
  const since = new Date(now.getTime() - FIRST_LOOK_MINUTES * 60_000)
  const here = after === null ? gte(feedSample.receivedAt, since) : gt(feedSample.id, after)
  const rows = await db
    .select()
    .from(feedSample)
    .where(and(inArray(feedSample.instrumentId, paired), here))
    .orderBy(after === null ? desc(feedSample.id) : asc(feedSample.id))
    .limit(MOST_IN_A_PAGE)
  if (after === null) rows.reverse()
  return {
    cursor: rows.at(-1)?.id ?? after ?? (await newestSample(db)),
    samples: rows.map((row) => ({
      instrumentId: row.instrumentId,
      quantity: row.quantity as Measurable,
      read: {
        text: row.text,
        value: row.value,
        bound: row.bound as LiveSample['read']['bound'],
        unit: row.unit as Unit,
      },
      at: row.at.toISOString(),
      receivedAt: row.receivedAt.toISOString(),
      ...(row.pair === '' ? {} : { pair: row.pair }),
      ...(row.sweep ? { sweep: row.sweep } : {}),
    })),
    paired,
  }
}

/** Where a page begins that has heard nothing yet: what came before it belongs to other strings and other jobs. */
async function newestSample(db: Queries): Promise<number> {
  const [row] = await db.select({ id: max(feedSample.id) }).from(feedSample)
  return row?.id ?? 0
}

/** Forgets samples older than a day. */
export async function forgetOldSamples(db: Queries, now: Date): Promise<void> {
  await db.delete(feedSample).where(lt(feedSample.receivedAt, new Date(now.getTime() - KEPT_HOURS * 3_600_000)))
}
