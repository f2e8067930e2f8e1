/** There is a list below; or to the right, where it is folded. */
export const ChevronDown = ({ folded = false }: { folded?: boolean }) => (
  <svg width="16" height="16" viewBox="0 0 20 20" aria-hidden="true" fill="none" stroke="currentColor" strokeWidth="2">
    <path d={folded ? 'M7 4 13 10 7 16' : 'M4 7 10 13 16 7'} />
  </svg>
)
