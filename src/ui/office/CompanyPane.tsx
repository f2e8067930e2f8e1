'use client'
import { Button } from 'antd'
import { useMemo, useState } from 'react'
import { type Company, companySchema, type Letterhead, papers } from '@/core/record/company'
import { say, type WordKey } from '@/words/say'
import { ask } from '../device/api'
import { Choice, Field, Form, Said, Words } from '../shell/Form'
import { LetterheadLines } from './LetterheadLines'
import { quietly, useAsked, whyNot } from './useAsked'

/** Who issues certificates: what is printed above them, on what paper, and the zone of new jobs. */
export function CompanyPane({ mayChange }: { mayChange: boolean }) {
  const [asked] = useAsked<Company>('/api/office/company')
  if (asked.state !== 'here') return <p style={{ padding: '20px 0' }}>{quietly(asked)}</p>
  return <CompanyForm kept={asked.value} mayChange={mayChange} />
}

/** The first thing that is wrong with each field, by its name. */
function wrongs(draft: Company): Map<string, WordKey> {
  const parsed = companySchema.safeParse(draft)
  const fields = parsed.success ? [] : parsed.error.issues.map((one) => String(one.path.at(-1)))
  return new Map(fields.map((field) => [field, `company.bad-${field}` as WordKey]))
}

const zones = (): string[] => [...new Set(['UTC', ...Intl.supportedValuesOf('timeZone')])]

function CompanyForm({ kept, mayChange }: { kept: Company; mayChange: boolean }) {
  const [draft, setDraft] = useState(kept)
  const [said, setSaid] = useState<{ words: string; bad: boolean } | null>(null)
  const wrong = wrongs(draft)
  const options = useMemo(() => zones().map((zone) => ({ value: zone, text: zone.replaceAll('_', ' ') })), [])
  const set = (change: Partial<Company>): void => {
    setSaid(null)
    setDraft({ ...draft, ...change })
  }
  const head = (change: Partial<Letterhead>): void => set({ letterhead: { ...draft.letterhead, ...change } })
  const message = (field: string): string | null => (wrong.has(field) ? say(wrong.get(field)!) : null)
  const keep = (): void => {
    if (wrong.size > 0) return
    ask<Company>('/api/office/company', draft).then(
      (now) => {
        setDraft(now)
        setSaid({ words: say('company.kept'), bad: false })
      },
      (error: unknown) => setSaid({ words: whyNot(error), bad: true }),
    )
  }
  const { letterhead } = draft
  return (
    <div className="company">
      {mayChange && (
        <Form onSubmit={keep}>
          <p>{say('company.about')}</p>
          <Field
            label={say('company.name')}
            value={draft.name}
            onValue={(name) => set({ name })}
            most={120}
            message={message('name')}
            testId="company-name"
          />
          <Words
            label={say('company.address')}
            value={letterhead.address}
            onValue={(address) => head({ address })}
            most={300}
          />
          <div className="two">
            <Field
              label={say('company.phone')}
              value={letterhead.phone}
              onValue={(phone) => head({ phone })}
              most={40}
              testId="company-phone"
            />
            <Field
              label={say('company.email')}
              value={letterhead.email}
              onValue={(email) => head({ email })}
              most={200}
              message={message('email')}
              testId="company-email"
            />
          </div>
          <Words
            label={say('company.registration')}
            value={letterhead.registration}
            onValue={(registration) => head({ registration })}
            most={300}
          />
          <div className="two">
            <Choice
              label={say('company.paper')}
              value={letterhead.paper}
              options={papers.map((paper) => ({ value: paper, text: say(`company.paper-${paper}`) }))}
              onValue={(paper) => head({ paper })}
            />
            <Choice
              label={say('company.zone')}
              value={draft.timeZone}
              options={options}
              onValue={(timeZone) => set({ timeZone })}
            />
          </div>
          <Said message={said?.bad ? said.words : null} />
          <div className="acts-row">
            <Button type="primary" htmlType="submit" data-testid="company-keep">
              {say('company.keep')}
            </Button>
            <span role="status">{said && !said.bad ? said.words : ''}</span>
          </div>
        </Form>
      )}
      <section aria-label={say('company.printed')}>
        <h2>{say('company.printed')}</h2>
        <LetterheadLines name={draft.name} letterhead={letterhead} />
        <p className="src">{say('company.printed-about')}</p>
      </section>
    </div>
  )
}
