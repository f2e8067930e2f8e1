import type { Verdict } from '@/core/verdict/verdict'
import { say } from '@/words/say'

/** The shape of a verdict in a 24-unit box around 0,0: solid where there is a reading, open where there is none. */
export function MarkShape({ verdict }: { verdict: Verdict }) {
  switch (verdict) {
    case 'within':
      return (
        <>
          <circle r="10.5" fill="var(--within)" />
          <path d="M-5.2 .4 -1.6 4.2 5.4-4" fill="none" stroke="var(--on-within)" strokeWidth="2.8" />
        </>
      )
    case 'close':
      return (
        <>
          <path
            d="M0-11.4 11.4 0 0 11.4-11.4 0Z"
            fill="var(--close-fill)"
            stroke="var(--mark-edge)"
            strokeWidth="1.8"
            strokeLinejoin="round"
          />
          <path d="M1.8-5.6V5.6" stroke="var(--on-close)" strokeWidth="2.8" />
          <circle cx="-3.6" r="2" fill="var(--on-close)" />
        </>
      )
    case 'outside':
      return (
        <>
          <rect x="-10" y="-10" width="20" height="20" fill="var(--outside)" />
          <path d="M-5-5 5 5M5-5-5 5" stroke="var(--on-outside)" strokeWidth="3" />
        </>
      )
    case 'not-yet':
      return <circle r="9.2" fill="none" stroke="var(--pencil)" strokeWidth="2" strokeDasharray="3.6 3.63" />
    case 'held-back':
      return (
        <>
          <path d="M-9-10V10M9-10V10" stroke="var(--ink2)" strokeWidth="3" />
          <path d="M-9-4.5H9M-9 4.5H9M-8 4.5 8-4.5" stroke="var(--ink2)" strokeWidth="1.8" />
        </>
      )
    case 'left-out':
      return (
        <>
          <circle r="9.2" fill="none" stroke="var(--ink2)" strokeWidth="2" />
          <path d="M-4.6 0H4.6" stroke="var(--ink2)" strokeWidth="2.6" />
        </>
      )
  }
}

/** A verdict as word, shape and colour: the word is read aloud, or stands beside it. */
export function Mark({
  verdict,
  size = 20,
  named = true,
  word,
}: {
  verdict: Verdict
  size?: 16 | 20 | 24 | 34 | 46
  named?: boolean
  /** Its name where the test has a word of its own for it. */
  word?: string
}) {
  const name = word ?? say(`verdict.${verdict}`)
  return (
    // biome-ignore lint/a11y/noSvgWithoutTitle: named by aria-label, or hidden where the word stands beside it
    <svg
      className="mk"
      width={size}
      height={size}
      viewBox="-12 -12 24 24"
      {...(named ? { role: 'img', 'aria-label': name } : { 'aria-hidden': true })}
    >
      <MarkShape verdict={verdict} />
    </svg>
  )
}

/** Fills of the rule's zones; drawn once a page. */
export function ZonePatterns() {
  return (
    <svg width="0" height="0" style={{ position: 'absolute' }} aria-hidden="true">
      <defs>
        <pattern id="p-no" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <rect width="7" height="7" fill="var(--outside-tint)" />
          <path d="M0 0V7" stroke="var(--outside)" strokeWidth="2.2" />
        </pattern>
        <pattern id="p-close" width="7" height="7" patternUnits="userSpaceOnUse">
          <rect width="7" height="7" fill="var(--close-tint)" />
          <circle cx="2" cy="2" r="1.15" fill="var(--close)" />
          <circle cx="5.5" cy="5.5" r="1.15" fill="var(--close)" />
        </pattern>
      </defs>
    </svg>
  )
}
