import { JobApp } from '@/ui/JobApp'

export default function Page() {
  return <JobApp />
}
