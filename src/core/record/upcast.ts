import { type EntryBody, entryBodySchema } from './entry'

/**
 * Reads a body of any version ever shipped and gives the newest. Only version 1 exists: the first change of a shape
 * adds its pure upcaster here and keeps the fixture of the old one (src/core/record/fixtures.test.ts).
 *
 * @throws ZodError where the body is of no shipped shape.
 */
export function upcast(body: unknown): EntryBody {
  return entryBodySchema.parse(body)
}
