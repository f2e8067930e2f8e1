import type { ReactNode } from 'react'
import type { Flag, Verdict } from '@/core/verdict/verdict'
import { sayCode } from '@/words/say'
import { Mark } from '../mark/Mark'

/** The verdict with its sentence, and what is to be said of the reading besides. */
export function VerdictBand({
  verdict,
  word,
  sentence,
  flags,
  children,
}: {
  verdict: Verdict
  /** The verdict in the word of its test. */
  word: string
  sentence: string
  flags: readonly Flag[]
  children?: ReactNode
}) {
  return (
    <div className={`verdict v-${verdict}`} role="status" data-testid="verdict" data-verdict={verdict}>
      <Mark verdict={verdict} size={46} named={false} />
      <div>
        <h2 className={`t-${verdict}`}>{word}</h2>
        <p>{sentence}</p>
        {flags.length > 0 && (
          <ul className="flags">
            {flags.map((flag) => (
              <li key={flag}>{sayCode('flag', flag)}</li>
            ))}
          </ul>
        )}
        {children}
      </div>
    </div>
  )
}
