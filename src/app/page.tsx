import { TodayScreen } from '@/ui/today/TodayScreen'

export default function Page() {
  return <TodayScreen />
}
