/** The company as its letterhead prints it. One database is one company. */
import { bareLetterhead, type Company } from '@/core/record/company'
import type { Database, Queries } from '../db/client'
import { company } from '../db/schema'
import { writeAudit } from '../people/audit'

/** @throws where the database holds no company: it was never made ready. */
export async function companyOf(db: Queries): Promise<Company> {
  const [firm] = await db.select().from(company)
  if (!firm) throw new Error('companyOf: expected a company')
  const { name, timeZone, address } = firm
  return { name, timeZone, letterhead: firm.letterhead ?? bareLetterhead(timeZone, address) }
}

/** What is sealed keeps the letterhead that it was sealed under; jobs keep the zone that they were made in. */
export async function changeCompany(db: Database, next: Company, by: string): Promise<void> {
  await db.transaction(async (tx) => {
    await tx.update(company).set(next)
    await writeAudit(tx, by, 'company-changed')
  })
}
