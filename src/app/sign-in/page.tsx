import { SignInScreen } from '@/ui/signin/SignInScreen'

export default function Page() {
  return <SignInScreen />
}
