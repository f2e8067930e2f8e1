/**
 * The facts of a job: a closed union of entries, append-only, a version in each body. Kinds which only later steps
 * write stand here from the start, because a record that was once written must always be readable.
 */
import { z } from 'zod'
import { curveValueSchema } from '../curve/curveValue'
import { idSchema, mountingSchema, partDataSchema } from '../plant/part'
import { readValueSchema } from '../quantity/readValue'
import { watchedSchema } from '../quantity/watched'
import { instrumentCopySchema } from './instrument'

/** The longest remark or reason, in characters. */
export const LONGEST_NOTE = 2000
const note = z.string().trim().min(1).max(LONGEST_NOTE)
const reason = z.string().trim().min(3, 'a reason of a few words').max(LONGEST_NOTE)
const instant = z.iso.datetime({ precision: 3 })
const code = z.string().regex(/^[a-z][a-z0-9.-]{0,59}$/, 'a short name of lower-case letters, digits, dots and hyphens')

/** How grave it is what a periodic inspection finds, the gravest first. */
export const foundClasses = ['danger', 'could-be', 'look-further', 'improve'] as const
export type FoundClass = (typeof foundClasses)[number]

export const howSchema = z.enum(['typed', 'file', 'feed', 'stand-in'])
export type How = z.infer<typeof howSchema>

const cellReadingSchema = z.discriminatedUnion('way', [
  z.strictObject({
    way: z.literal('back'),
    read: readValueSchema,
    mounting: mountingSchema,
    instrument: instrumentCopySchema.nullable(),
  }),
  z.strictObject({ way: z.literal('air'), read: readValueSchema, instrument: instrumentCopySchema.nullable() }),
  z.strictObject({
    way: z.literal('voltage'),
    read: readValueSchema,
    modulesInSeries: z.number().int().min(1).max(60),
    instrument: instrumentCopySchema.nullable(),
  }),
])

/** Light and warmth at a reading, as they were read. */
export const conditionsSchema = z.strictObject({
  irradiance: z.strictObject({ read: readValueSchema, instrument: instrumentCopySchema.nullable() }),
  cell: cellReadingSchema,
  at: instant,
  how: howSchema,
})
export type Conditions = z.infer<typeof conditionsSchema>

/**
 * A slot holds a value as read, one of a step's choices, or a curve. Each says where it came from; one that does not came the way
 * of its whole reading.
 */
export const slotValueSchema = z.union([
  // What it showed while it was watched stands beside the figure that was read off.
  readValueSchema.extend({ how: howSchema.optional(), watched: watchedSchema.optional() }),
  z.strictObject({ choice: code, note: note.optional(), how: howSchema.optional() }),
  z.strictObject({ curve: curveValueSchema, how: howSchema.optional() }),
])
export type SlotValue = z.infer<typeof slotValueSchema>

/** A reading is asked what its step asked in its version; what came later it is whole without. */
const readingVersion = z.union([z.literal(1), z.literal(2), z.literal(3), z.literal(4), z.literal(5), z.literal(6)])
export type ReadingVersion = z.infer<typeof readingVersion>
/** The version that is written now. */
export const READING_VERSION = 6 satisfies ReadingVersion

const reading = z.strictObject({
  kind: z.literal('reading'),
  v: readingVersion,
  slots: z.record(code, slotValueSchema),
  conditions: conditionsSchema.nullable(),
  /** The air beside the array; on a day without a light meter all that is known of the warmth. */
  air: z.strictObject({ read: readValueSchema, instrument: instrumentCopySchema.nullable() }).optional(),
  /** How its figures came, those that do not say so themselves. */
  how: howSchema,
  instrument: instrumentCopySchema.nullable(),
  /** Where it was taken: at the plugs, at the switch, at the inverter's end. */
  place: z.enum(['plugs', 'switch', 'inverter']).nullable(),
  /** The part's revision that the tester saw. */
  plantRevision: z.string().max(36),
  /** Codes of what was asked about and confirmed, such as a value ten times the expected. */
  confirmed: z.array(code).max(8),
  note: note.nullable(),
})

const bodies = [
  reading,
  z.strictObject({ kind: z.literal('confirmation'), v: z.literal(1), of: code, note: note.nullable() }),
  z.strictObject({ kind: z.literal('left-out'), v: z.literal(1), reason }),
  z.strictObject({ kind: z.literal('override'), v: z.literal(1), gate: code, reason }),
  z.strictObject({
    kind: z.literal('plant-change'),
    v: z.literal(1),
    before: partDataSchema.nullable(),
    after: partDataSchema.nullable(),
    base: idSchema.nullable(),
  }),
  z.strictObject({ kind: z.literal('remark'), v: z.literal(1), text: note }),
  /** What whoever checks asks of a test, and what is said to it: only a supervisor asks. */
  z.strictObject({ kind: z.literal('question'), v: z.literal(1), text: reason }),
  z.strictObject({ kind: z.literal('answer'), v: z.literal(1), question: idSchema, text: reason }),
  z.strictObject({
    kind: z.literal('photo'),
    v: z.literal(1),
    attachment: idSchema,
    sha256: z.string().length(64),
    takenAt: instant.nullable(),
    caption: z.string().max(LONGEST_NOTE),
  }),
  z.strictObject({ kind: z.literal('void'), v: z.literal(1), target: idSchema, reason }),
  z.strictObject({ kind: z.literal('choice'), v: z.literal(1), target: idSchema, reason: note.nullable() }),
  /** Light and warmth of a reading, joined later from a logger's file by its clock. */
  z.strictObject({
    kind: z.literal('conditions'),
    v: z.literal(1),
    target: idSchema,
    conditions: conditionsSchema,
    file: z.string().trim().min(1).max(120),
  }),
  z.strictObject({ kind: z.literal('snag'), v: z.literal(1), text: note }),
  /**
   * How grave it is, in a periodic inspection, what was found: a reading outside or a snag, or one line of a list; without a
   * target what follows from the plant by itself.
   */
  z.strictObject({
    kind: z.literal('class'),
    v: z.literal(1),
    target: idSchema.nullable(),
    line: code.nullable(),
    as: z.enum(foundClasses),
  }),
  z.strictObject({ kind: z.literal('remedy'), v: z.literal(1), snag: idSchema, text: note, repeat: z.array(code) }),
  z.strictObject({
    kind: z.literal('signature'),
    v: z.literal(1),
    role: z.enum(['tested', 'checked']),
    printedName: z.string().trim().min(2).max(80),
    statement: note,
    coversHash: z.string().regex(/^[0-9a-f]{64}$/),
    /** What was looked at before signing, and what was said of it; empty where it was only seen. */
    review: z
      .array(z.strictObject({ of: z.string().max(120), text: z.string().trim().max(500) }))
      .max(300)
      .optional(),
  }),
  /** The job goes on under a newer version of its regime; only the office writes it. */
  z.strictObject({
    kind: z.literal('regime-move'),
    v: z.literal(1),
    regime: z.string().min(1).max(60),
    from: z.number().int().positive(),
    to: z.number().int().positive(),
    reason,
  }),
  z.strictObject({ kind: z.literal('amendment'), v: z.literal(1), issue: z.string().max(4), reason }),
] as const

export const entryBodySchema = z.discriminatedUnion('kind', bodies)
export type EntryBody = z.infer<typeof entryBodySchema>
export type EntryKind = EntryBody['kind']
export type Body<Kind extends EntryKind> = Extract<EntryBody, { kind: Kind }>

/** A hundred years, ms: no device's clock is further off. */
const MOST_CLOCK_ms = 3_155_760_000_000

/** An entry as a device sends it. Who and when it was received is added by the server, never believed. */
export const sentEntrySchema = z.strictObject({
  id: idSchema,
  jobId: idSchema,
  visitId: idSchema,
  partId: idSchema.nullable(),
  step: code.nullable(),
  deviceTime: instant,
  /** Server clock less device clock at the last contact, ms. */
  clockOffset_ms: z.number().int().min(-MOST_CLOCK_ms).max(MOST_CLOCK_ms),
  /** How far the device's clock was moved at an unknown moment near this entry, ms: its time is unsure by that. */
  clockMoved_ms: z.number().int().min(-MOST_CLOCK_ms).max(MOST_CLOCK_ms).optional(),
  body: entryBodySchema,
})
export type SentEntry = z.infer<typeof sentEntrySchema>

/** An entry as facts hold it; `receivedAt` is null while it waits on the device. */
export const entrySchema = sentEntrySchema.extend({ personId: idSchema, receivedAt: instant.nullable() })
export type Entry<Kind extends EntryKind = EntryKind> = Omit<z.infer<typeof entrySchema>, 'body'> & { body: Body<Kind> }

/** True, and narrowed, where an entry is of a kind. */
export function isKind<Kind extends EntryKind>(entry: Entry, kind: Kind): entry is Entry<Kind> {
  return entry.body.kind === kind
}
