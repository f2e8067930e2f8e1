/** The half-wave that is due in ink, the other in pencil; of direct current a line above or below. */
export function HalfWave({ angle_deg, isDirect }: { angle_deg: 0 | 180; isDirect: boolean }) {
  const up = angle_deg === 0
  if (isDirect)
    return (
      <svg width="48" height="28" viewBox="0 0 48 28" aria-hidden="true">
        <path d="M2 14H46" stroke="var(--hair)" />
        <path d={up ? 'M4 5H44' : 'M4 23H44'} stroke="var(--ink)" strokeWidth="3" />
      </svg>
    )
  return (
    <svg width="48" height="28" viewBox="0 0 48 28" aria-hidden="true">
      <path d="M2 14H46" stroke="var(--hair)" />
      <path
        d="M4 14q10-22 20 0"
        fill="none"
        stroke={up ? 'var(--ink)' : 'var(--pencil)'}
        strokeWidth={up ? 3 : 1.6}
        strokeDasharray={up ? undefined : '3 3'}
      />
      <path
        d="M24 14q10 22 20 0"
        fill="none"
        stroke={up ? 'var(--pencil)' : 'var(--ink)'}
        strokeWidth={up ? 1.6 : 3}
        strokeDasharray={up ? '3 3' : undefined}
      />
    </svg>
  )
}
