/** The way back, drawn; its words stand beside it. */
export function BackArrow() {
  return (
    <svg width="26" height="22" viewBox="-14 -12 28 24" aria-hidden="true">
      <path d="M10 0H-9M-2-8-10 0-2 8" fill="none" stroke="var(--ink)" strokeWidth="2.6" />
    </svg>
  )
}
