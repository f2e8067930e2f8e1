/** Who issues certificates: the name, the letterhead and the zone by which new jobs tell the time. */
import { z } from 'zod'

export const papers = ['A4', 'LETTER'] as const
export type Paper = (typeof papers)[number]

/** What stands above a certificate besides the name; lines as they are to be printed. Empty is not printed. */
export const letterheadSchema = z.strictObject({
  address: z.string().trim().max(300),
  phone: z.string().trim().max(40),
  email: z.union([z.literal(''), z.email().max(200)]),
  /** Registrations and memberships under which the company works, one a line. */
  registration: z.string().trim().max(300),
  paper: z.enum(papers),
})
export type Letterhead = z.infer<typeof letterheadSchema>

export const companySchema = z.strictObject({
  name: z.string().trim().min(2).max(120),
  timeZone: z.string().max(60).refine(isZone),
  letterhead: letterheadSchema,
})
export type Company = z.infer<typeof companySchema>

/** An IANA zone that times can be told by. */
export function isZone(zone: string): boolean {
  try {
    new Intl.DateTimeFormat('en', { timeZone: zone })
    return true
  } catch {
    return false
  }
}

/** The paper that printers of a zone hold. Source: common practice (Letter in North America, A4 elsewhere). */
export const paperOf = (zone: string): Paper => (/^(?:America|US|Canada)\//.test(zone) ? 'LETTER' : 'A4')

/** A letterhead of which nothing was said yet. */
export const bareLetterhead = (zone: string, address = ''): Letterhead => ({
  address,
  phone: '',
  email: '',
  registration: '',
  paper: paperOf(zone),
})
