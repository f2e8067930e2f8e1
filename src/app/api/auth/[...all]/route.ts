import { toNextJsHandler } from 'better-auth/next-js'
import { auth } from '@/server/people/auth'

export const dynamic = 'force-dynamic'
export const GET = (request: Request): Promise<Response> => toNextJsHandler(auth()).GET(request)
export const POST = (request: Request): Promise<Response> => toNextJsHandler(auth()).POST(request)
