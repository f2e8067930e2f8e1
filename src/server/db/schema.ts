/** One database is one company. Instants are UTC. Entries and seals are append-only: see the triggers in migrations. */
import {
  bigint,
  boolean,
  char,
  customType,
  datetime,
  double,
  index,
  int,
  json,
  longtext,
  mysqlEnum,
  mysqlTable,
  primaryKey,
  text,
  uniqueIndex,
  varchar,
} from 'drizzle-orm/mysql-core'
import type { ChargePointModel, ModuleType, PartData } from '@/core/plant/part'
import type { Letterhead } from '@/core/record/company'
import type { EntryBody } from '@/core/record/entry'
import type { SweepPart } from '@/core/record/feed'
import type { Instrument } from '@/core/record/instrument'
import type { Regime } from '@/core/regime/regime'

const id = (name = 'id') => char(name, { length: 36 })
const instant = (name: string) => datetime(name, { fsp: 3, mode: 'date' })
const longblob = customType<{ data: Buffer }>({ dataType: () => 'longblob' })
const mediumblob = customType<{ data: Buffer }>({ dataType: () => 'mediumblob' })

export const company = mysqlTable('company', {
  id: int().primaryKey(),
  name: varchar({ length: 120 }).notNull(),
  address: varchar({ length: 300 }).notNull(),
  timeZone: varchar('time_zone', { length: 60 }).notNull(),
  language: varchar({ length: 8 }).notNull(),
  demo: boolean().notNull(),
  /** Null until somebody wrote it. */
  letterhead: json().$type<Letterhead>(),
})

export const roles = ['viewer', 'tester', 'supervisor'] as const
export type Role = (typeof roles)[number]

export const person = mysqlTable('person', {
  id: id().primaryKey(),
  userId: varchar('user_id', { length: 36 }).notNull().unique(),
  name: varchar({ length: 80 }).notNull(),
  role: mysqlEnum(roles).notNull(),
  active: boolean().notNull().default(true),
})

export const regime = mysqlTable(
  'regime',
  { id: varchar({ length: 60 }).notNull(), version: int().notNull(), data: json().$type<Regime>().notNull() },
  (table) => [primaryKey({ columns: [table.id, table.version] })],
)

export const job = mysqlTable('job', {
  id: id().primaryKey(),
  number: varchar({ length: 20 }).notNull().unique(),
  name: varchar({ length: 80 }).notNull(),
  place: varchar({ length: 160 }).notNull(),
  timeZone: varchar('time_zone', { length: 60 }).notNull(),
  regimeId: varchar('regime_id', { length: 60 }).notNull(),
  regimeVersion: int('regime_version').notNull(),
  createdAt: instant('created_at').notNull(),
  /** How many seals were made: one that is missing is missed. */
  seals: int().notNull().default(0),
  /** A cache for lists: what it was computed from stands beside it, and readers recompute when it is behind. */
  summary: json().$type<unknown>(),
  summarySeen: int('summary_seen'),
  /** The day by which it is wanted. */
  dueOn: char('due_on', { length: 10 }),
  putAwayAt: instant('put_away_at'),
})

export const jobPerson = mysqlTable(
  'job_person',
  {
    jobId: id('job_id')
      .notNull()
      .references(() => job.id),
    personId: id('person_id')
      .notNull()
      .references(() => person.id),
    /** Null where nobody wrote it down: before this was kept. */
    since: instant('since'),
  },
  (table) => [primaryKey({ columns: [table.jobId, table.personId] })],
)

/** A one-time code that lets somebody in, or gives somebody a new password. Only its hash is here. */
export const invitation = mysqlTable('invitation', {
  id: id().primaryKey(),
  codeHash: char('code_hash', { length: 64 }).notNull().unique(),
  /** Whose password it sets anew; null where it lets somebody new in. */
  personId: id('person_id').references(() => person.id),
  name: varchar({ length: 80 }).notNull(),
  email: varchar({ length: 255 }).notNull(),
  role: mysqlEnum(roles).notNull(),
  createdAt: instant('created_at').notNull(),
  expiresAt: instant('expires_at').notNull(),
  /** When it was used or withdrawn: it is worth nothing from then on. */
  endedAt: instant('ended_at'),
})

/** What was done in the company besides testing, and by whom: append-only. Names stand as they were then. */
export const audit = mysqlTable(
  'audit',
  {
    id: bigint({ mode: 'number' }).primaryKey().autoincrement(),
    at: instant('at').notNull(),
    /** Null: in the terminal. */
    by: varchar({ length: 80 }),
    action: varchar({ length: 40 }).notNull(),
    about: json().$type<Record<string, string>>().notNull(),
  },
  (table) => [index('audit_by_time').on(table.at)],
)

/** Sources that somebody held against their documents; the latest of each counts, and none is ever changed. */
export const sourceCheck = mysqlTable('source_check', {
  id: bigint({ mode: 'number' }).primaryKey().autoincrement(),
  source: varchar({ length: 60 }).notNull(),
  edition: varchar({ length: 60 }).notNull(),
  by: varchar({ length: 80 }).notNull(),
  at: instant('at').notNull(),
  agrees: boolean().notNull(),
  note: varchar({ length: 300 }).notNull(),
})

export const visit = mysqlTable(
  'visit',
  {
    id: id().primaryKey(),
    jobId: id('job_id')
      .notNull()
      .references(() => job.id),
    startsAt: instant('starts_at').notNull(),
    title: varchar({ length: 80 }).notNull(),
  },
  (table) => [index('visit_by_job').on(table.jobId)],
)

/** Projection of the plant-change entries, for lists and search; evaluation reads the entries. */
export const part = mysqlTable(
  'part',
  {
    id: id().primaryKey(),
    jobId: id('job_id')
      .notNull()
      .references(() => job.id),
    data: json().$type<PartData>().notNull(),
    revision: id('revision').notNull(),
    retired: boolean().notNull(),
  },
  (table) => [index('part_by_job').on(table.jobId)],
)

/** Two writers who take one place in a job: the second is told so by this key, looks again, and takes the next. */
export const ENTRY_PLACE = 'entry_place'

export const entry = mysqlTable(
  'entry',
  {
    id: id().primaryKey(),
    jobId: id('job_id')
      .notNull()
      .references(() => job.id),
    visitId: id('visit_id')
      .notNull()
      .references(() => visit.id),
    partId: id('part_id'),
    step: varchar({ length: 60 }),
    kind: varchar({ length: 24 }).notNull(),
    personId: id('person_id')
      .notNull()
      .references(() => person.id),
    /** Its place among the entries of its job: 1, 2, 3 without a gap, in the order in which they were kept. */
    seq: int().notNull(),
    deviceTime: instant('device_time').notNull(),
    clockOffset_ms: bigint('clock_offset_ms', { mode: 'number' }).notNull(),
    clockMoved_ms: bigint('clock_moved_ms', { mode: 'number' }),
    receivedAt: instant('received_at').notNull(),
    body: json().$type<EntryBody>().notNull(),
    bodyHash: char('body_hash', { length: 64 }).notNull(),
  },
  (table) => [uniqueIndex(ENTRY_PLACE).on(table.jobId, table.seq)],
)

export const attachment = mysqlTable(
  'attachment',
  {
    id: id().primaryKey(),
    jobId: id('job_id')
      .notNull()
      .references(() => job.id),
    sha256: char({ length: 64 }).notNull(),
    mediaType: varchar('media_type', { length: 60 }).notNull(),
    bytes: mediumblob().notNull(),
  },
  (table) => [index('attachment_by_job').on(table.jobId)],
)

/** Certificates as they were drawn, so that the same is not drawn twice: only a store, which may be emptied at any time. */
export const printed = mysqlTable(
  'printed',
  {
    key: char({ length: 64 }).primaryKey(),
    jobId: id('job_id')
      .notNull()
      .references(() => job.id),
    name: varchar({ length: 80 }).notNull(),
    madeAt: instant('made_at').notNull(),
    bytes: longblob().notNull(),
  },
  (table) => [index('printed_by_time').on(table.madeAt)],
)

export const instrument = mysqlTable('instrument', {
  id: id().primaryKey(),
  data: json().$type<Instrument>().notNull(),
  standIn: boolean('stand_in').notNull(),
  pairedJobId: id('paired_job_id').references(() => job.id),
  retired: boolean().notNull().default(false),
})

export const instrumentToken = mysqlTable('instrument_token', {
  tokenHash: char('token_hash', { length: 64 }).primaryKey(),
  instrumentId: id('instrument_id')
    .notNull()
    .references(() => instrument.id),
  createdAt: instant('created_at').notNull(),
  revokedAt: instant('revoked_at'),
})

export const moduleType = mysqlTable('module_type', {
  id: id().primaryKey(),
  data: json().$type<ModuleType>().notNull(),
  retired: boolean().notNull().default(false),
})

export const chargePointModel = mysqlTable('charge_point_model', {
  id: id().primaryKey(),
  data: json().$type<ChargePointModel>().notNull(),
})

export const seal = mysqlTable(
  'seal',
  {
    id: id().primaryKey(),
    jobId: id('job_id')
      .notNull()
      .references(() => job.id),
    issue: varchar({ length: 4 }).notNull(),
    /** Its place among the seals of its job: 1, 2, 3, whatever any clock says. */
    number: int().notNull(),
    sealedAt: instant('sealed_at').notNull(),
    hash: char({ length: 64 }).notNull(),
    /** The sealed record as text: canonical JSON, never parsed and written again. */
    record: longtext().notNull(),
  },
  (table) => [
    uniqueIndex('seal_issue').on(table.jobId, table.issue),
    uniqueIndex('seal_number').on(table.jobId, table.number),
  ],
)

/** The company's public keys, each vouched for by the one before. */
export const sealKey = mysqlTable('seal_key', {
  number: int().primaryKey(),
  publicKey: varchar('public_key', { length: 200 }).notNull(),
  since: instant('since').notNull(),
  previous: char({ length: 64 }),
  signature: varchar({ length: 120 }).notNull(),
  vouched: varchar({ length: 120 }),
})

/** Live samples of the instrument feed, kept for a day. A sample becomes an entry only when a person keeps it. */
export const feedSample = mysqlTable(
  'feed_sample',
  {
    id: bigint({ mode: 'number' }).primaryKey().autoincrement(),
    instrumentId: id('instrument_id')
      .notNull()
      .references(() => instrument.id),
    quantity: varchar({ length: 40 }).notNull(),
    /** Between which conductors; empty where nobody said. */
    pair: varchar({ length: 12 }).notNull().default(''),
    value: double().notNull(),
    bound: varchar({ length: 10 }).notNull(),
    text: varchar({ length: 24 }).notNull(),
    unit: varchar({ length: 8 }).notNull(),
    /** The next points of a curve. */
    sweep: json().$type<SweepPart>(),
    at: instant('at').notNull(),
    receivedAt: instant('received_at').notNull(),
  },
  (table) => [
    uniqueIndex('feed_once_of_pair').on(table.instrumentId, table.quantity, table.pair, table.at, table.value),
    index('feed_by_time').on(table.receivedAt),
  ],
)

// The sign-in library's own tables.
export const user = mysqlTable('user', {
  id: varchar({ length: 36 }).primaryKey(),
  name: varchar({ length: 255 }).notNull(),
  email: varchar({ length: 255 }).notNull().unique(),
  emailVerified: boolean('email_verified').notNull().default(false),
  image: text(),
  createdAt: instant('created_at').notNull(),
  updatedAt: instant('updated_at').notNull(),
})

export const session = mysqlTable('session', {
  id: varchar({ length: 36 }).primaryKey(),
  expiresAt: instant('expires_at').notNull(),
  token: varchar({ length: 255 }).notNull().unique(),
  createdAt: instant('created_at').notNull(),
  updatedAt: instant('updated_at').notNull(),
  ipAddress: varchar('ip_address', { length: 64 }),
  userAgent: text('user_agent'),
  userId: varchar('user_id', { length: 36 })
    .notNull()
    .references(() => user.id, { onDelete: 'cascade' }),
})

export const account = mysqlTable('account', {
  id: varchar({ length: 36 }).primaryKey(),
  accountId: varchar('account_id', { length: 255 }).notNull(),
  providerId: varchar('provider_id', { length: 60 }).notNull(),
  userId: varchar('user_id', { length: 36 })
    .notNull()
    .references(() => user.id, { onDelete: 'cascade' }),
  accessToken: text('access_token'),
  refreshToken: text('refresh_token'),
  idToken: text('id_token'),
  accessTokenExpiresAt: instant('access_token_expires_at'),
  refreshTokenExpiresAt: instant('refresh_token_expires_at'),
  scope: text(),
  password: text(),
  createdAt: instant('created_at').notNull(),
  updatedAt: instant('updated_at').notNull(),
})

export const verification = mysqlTable('verification', {
  id: varchar({ length: 36 }).primaryKey(),
  identifier: varchar({ length: 255 }).notNull(),
  value: text().notNull(),
  expiresAt: instant('expires_at').notNull(),
  createdAt: instant('created_at').notNull(),
  updatedAt: instant('updated_at').notNull(),
})

export const rateLimit = mysqlTable('rate_limit', {
  id: varchar({ length: 36 }).primaryKey(),
  key: varchar({ length: 255 }).notNull().unique(),
  count: int().notNull(),
  lastRequest: bigint('last_request', { mode: 'number' }).notNull(),
})
