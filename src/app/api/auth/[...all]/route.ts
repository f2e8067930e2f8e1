import { auth } from '@/server/people/auth'
import { changePasswordDoor, signInDoor } from '@/server/people/signInDoor'

export const dynamic = 'force-dynamic'
export const GET = (request: Request): Promise<Response> => auth().handler(request)

const doors: Readonly<Record<string, (request: Request) => Promise<Response>>> = {
  '/api/auth/sign-in/email': signInDoor,
  '/api/auth/change-password': changePasswordDoor,
}
export const POST = (request: Request): Promise<Response> =>
  (doors[new URL(request.url).pathname] ?? ((one) => auth().handler(one)))(request)
