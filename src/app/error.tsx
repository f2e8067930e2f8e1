'use client'
import { say } from '@/words/say'

/** What is shown where a screen broke: nothing entered is lost, for it was kept before it was drawn. */
export default function Broken({ reset }: { reset(): void }) {
  return (
    <main className="center-page">
      <div className="signin" role="alert">
        <h1>{say('broken.title')}</h1>
        <p>{say('broken.about')}</p>
        <button type="button" className="slim-btn" onClick={reset}>
          {say('broken.again')}
        </button>
      </div>
    </main>
  )
}
