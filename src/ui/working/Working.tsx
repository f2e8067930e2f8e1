import type { SourceId } from '@/core/regime/sources'
import type { WorkingLine } from '@/core/verdict/working'
import { resultText, sayCode } from '@/words/say'
import { sourceName } from '@/words/sourceName'

/** The written sum: every line with its figures put in, its result and its source. */
export function Working({ lines }: { lines: readonly WorkingLine[] }) {
  const used = [...new Set(lines.map((line) => line.source).filter((one): one is SourceId => one !== null))]
  return (
    <>
      <dl className="calc">
        {lines.map((line, k) => {
          const own = line.decides ? 'decides' : ''
          return (
            <div key={`${k} ${line.code}`} style={{ display: 'contents' }}>
              <dt className={own}>{sayCode('working', line.code, line.figures)}</dt>
              <dd className={own}>{line.result ? resultText(line.result) : ''}</dd>
            </div>
          )
        })}
      </dl>
      <ul className="src">
        {used.map((id) => (
          <li key={id}>{sourceName(id)}</li>
        ))}
      </ul>
    </>
  )
}
