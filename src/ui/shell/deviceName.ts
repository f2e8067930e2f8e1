import { say } from '@/words/say'

/** What kind of device it is, from what its browser calls itself: enough to know one's own again, beside its times. */
export function deviceName(userAgent: string): string {
  if (userAgent === '') return say('account.device-unknown')
  if (/iPad|Tablet|Android(?!.*Mobile)/.test(userAgent)) return say('account.tablet')
  return say(/Mobi|iPhone/.test(userAgent) ? 'account.phone' : 'account.computer')
}
