import type { Letterhead } from '@/core/record/company'

/** The letterhead as it stands above a certificate. */
export function LetterheadLines({ name, letterhead }: { name: string; letterhead: Letterhead }) {
  const reach = [letterhead.phone, letterhead.email].filter(Boolean).join(' · ')
  return (
    <div className="letterhead" data-testid="letterhead">
      <div>
        <b>{name}</b>
        <span className="as-written">{letterhead.registration}</span>
      </div>
      <div>
        <span className="as-written">{letterhead.address}</span>
        <span>{reach}</span>
      </div>
    </div>
  )
}
