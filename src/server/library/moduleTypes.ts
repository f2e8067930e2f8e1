/** The company's module types: added, corrected, taken out. Parts carry a copy, so nothing of it changes a verdict. */
import { eq } from 'drizzle-orm'
import type { ModuleType } from '@/core/plant/part'
import { type Database, DUPLICATE_KEY, errnoOf } from '../db/client'
import { moduleType } from '../db/schema'
import { Refused } from '../door'
import { writeAudit } from '../people/audit'

const nameOf = ({ make, name }: ModuleType): string => `${make} ${name}`

/** What may be chosen. */
export async function moduleTypes(db: Database): Promise<ModuleType[]> {
  const rows = await db.select({ data: moduleType.data }).from(moduleType).where(eq(moduleType.retired, false))
  return rows.map((row) => row.data)
}

/** Adds a type. The same one again is no other; under a known id other figures are a correction, and not made here. */
export async function addModuleType(db: Database, type: ModuleType): Promise<void> {
  try {
    await db.insert(moduleType).values({ id: type.id, data: type })
  } catch (error) {
    if (errnoOf(error) !== DUPLICATE_KEY) throw error
    const known = await typeOf(db, type.id)
    if (!isSame(known.data, type)) throw new Refused(409, 'door.module-type-differs', { what: nameOf(known.data) })
  }
}

/** Puts figures right that were mistyped; parts that carry the type keep what they carry. */
export async function correctModuleType(db: Database, id: string, type: ModuleType, by: string): Promise<void> {
  if (type.id !== id) throw new Refused(422, 'door.module-type-other')
  await db.transaction(async (tx) => {
    const known = await typeOf(tx, id)
    if (known.retired) throw new Refused(409, 'door.module-type-retired')
    await tx.update(moduleType).set({ data: type }).where(eq(moduleType.id, id))
    await writeAudit(tx, by, 'module-type-corrected', { what: nameOf(type) })
  })
}

/** Takes a type out of what may be chosen; plants that have it keep it. */
export async function retireModuleType(db: Database, id: string, by: string): Promise<void> {
  await db.transaction(async (tx) => {
    const known = await typeOf(tx, id)
    if (known.retired) return
    await tx.update(moduleType).set({ retired: true }).where(eq(moduleType.id, id))
    await writeAudit(tx, by, 'module-type-retired', { what: nameOf(known.data) })
  })
}

type Reader = Pick<Database, 'select'>
async function typeOf(db: Reader, id: string): Promise<{ data: ModuleType; retired: boolean }> {
  const [row] = await db.select().from(moduleType).where(eq(moduleType.id, id))
  if (!row) throw new Refused(404, 'door.not-found')
  return row
}

const sorted = (value: object): string =>
  JSON.stringify(Object.entries(value).sort(([a], [b]) => (a < b ? -1 : a > b ? 1 : 0)))
const isSame = (a: ModuleType, b: ModuleType): boolean =>
  a.make === b.make && a.name === b.name && sorted(a.data) === sorted(b.data)
