'use client'
import { Button } from 'antd'
import { useState } from 'react'
import type { Instrument } from '@/core/record/instrument'
import { say } from '@/words/say'
import { ask } from '../device/api'
import { Said } from '../shell/Form'
import { whyNot } from './useAsked'

/** What else is done to an instrument of the kit: its key to the feed, shown once, and its last day. */
export function FeedKey({ tool, onRetired }: { tool: Instrument; onRetired(): void }) {
  const [key, setKey] = useState<string | null>(null)
  const [said, setSaid] = useState<string | null>(null)
  const [sure, setSure] = useState(false)
  const [busy, setBusy] = useState(false)
  const send = async (give: boolean): Promise<void> => {
    setBusy(true)
    setSaid(null)
    try {
      const answer = await ask<{ key: string | null }>(`/api/instruments/${tool.id}/key`, { give })
      setKey(answer.key)
      if (!give) setSaid(say('kit.key-void', { tag: tool.tag }))
    } catch (error) {
      setSaid(whyNot(error))
    }
    setBusy(false)
  }
  const retire = async (): Promise<void> => {
    if (!sure) return setSure(true)
    try {
      await ask(`/api/instruments/${tool.id}/retire`, {})
      onRetired()
    } catch (error) {
      setSaid(whyNot(error))
    }
  }
  return (
    <section style={{ paddingBlock: 14 }} aria-label={say('kit.key-title')}>
      {!tool.standIn && (
        <p className="small">
          <b>{say('kit.key-title')}.</b> {say('kit.key-about')}
        </p>
      )}
      {key && (
        <p style={{ paddingBlock: 6 }}>
          <code data-testid="feed-key">{key}</code>
        </p>
      )}
      <Said message={said} />
      <div className="acts-row">
        {!tool.standIn && (
          <>
            <Button className="small" disabled={busy} onClick={() => void send(true)} data-testid="give-key">
              {say('kit.key-give')}
            </Button>
            <Button className="small" disabled={busy} onClick={() => void send(false)} data-testid="take-key">
              {say('kit.key-take')}
            </Button>
          </>
        )}
        <Button className="small" onClick={() => void retire()} data-testid="retire-tool">
          {say(sure ? 'kit.retire-sure' : 'kit.retire', { tag: tool.tag })}
        </Button>
      </div>
    </section>
  )
}
