import { say } from '@/words/say'

export default function NotFound() {
  return (
    <main className="center-page">
      <div className="signin">
        <h1>{say('not-found.title')}</h1>
        <p>
          <a href="/">{say('not-found.today')}</a>
        </p>
      </div>
    </main>
  )
}
