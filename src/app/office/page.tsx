import { OfficeScreen } from '@/ui/office/OfficeScreen'

export default function Page() {
  return <OfficeScreen />
}
