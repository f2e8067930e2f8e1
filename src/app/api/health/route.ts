export const dynamic = 'force-dynamic'

/** Says that this is Upstand, and which start it belongs to. */
export function GET(): Response {
  return Response.json({ name: 'upstand', instance: process.env.UPSTAND_INSTANCE ?? '' })
}
