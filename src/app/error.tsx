'use client'
import { Button } from 'antd'
import { broken } from '@/words/en/broken'

/** What is shown where a screen broke: nothing entered is lost, for it was kept before it was drawn. */
export default function Broken({ reset }: { reset(): void }) {
  return (
    <main className="center-page">
      <div className="signin" role="alert">
        <h1>{broken['broken.title']}</h1>
        <p>{broken['broken.about']}</p>
        <Button className="small" onClick={reset}>
          {broken['broken.again']}
        </Button>
      </div>
    </main>
  )
}
