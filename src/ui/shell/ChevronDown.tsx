/** There is a list below. */
export const ChevronDown = () => (
  <svg width="16" height="16" viewBox="0 0 20 20" aria-hidden="true" fill="none" stroke="currentColor" strokeWidth="2">
    <path d="M4 7 10 13 16 7" />
  </svg>
)
