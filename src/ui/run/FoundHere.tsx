'use client'
import { Radio } from 'antd'
import type { Found } from '@/core/evaluation/found'
import { type FoundClass, foundClasses } from '@/core/record/entry'
import { classText, foundText } from '@/words/found'
import { say } from '@/words/say'
import type { JobStore } from '../device/jobStore'

type Props = {
  found: readonly Found[]
  store: Pick<JobStore, 'add'>
  canWrite: boolean
  /** National rules want letters beside the words. */
  marked: boolean
  /** Where it was found, with the way there; null at the test itself. */
  whereOf: ((one: Found) => { text: string; href: string } | null) | null
}

/** How grave each thing is that a periodic inspection found: whoever inspects says it, and it makes the result. */
export function FoundHere({ found, store, canWrite, marked, whereOf }: Props) {
  const classed = (one: Found, as: FoundClass): void => {
    const { target, line, step, partId } = one
    void store.add({ kind: 'class', v: 1, target, line, as }, { step, partId })
  }
  return (
    <section className="found" data-testid="found">
      <h2>{say('found.title')}</h2>
      <p className="small quiet">{say('found.about')}</p>
      {found.map((one) => {
        const where = whereOf?.(one) ?? null
        return (
          <div key={one.id} className="matter" data-found={one.line ?? one.id} data-as={one.as ?? ''}>
            {where && (
              <a className="small" href={where.href}>
                {where.text}
              </a>
            )}
            <p>{foundText(one)}</p>
            <Radio.Group
              optionType="button"
              aria-label={`${say('found.as')}: ${foundText(one)}`}
              value={one.said?.as ?? null}
              disabled={!canWrite}
              onChange={({ target }) => classed(one, target.value as FoundClass)}
              options={foundClasses.map((as) => ({
                value: as,
                label: <span data-class={as}>{classText(as, marked)}</span>,
              }))}
            />
            {one.as === 'danger' && (
              <p className="said bad" role="alert">
                {say('found.danger-now')}
              </p>
            )}
            {one.said !== null && one.said.as !== one.as && (
              <p className="said" role="status">
                {say('found.protects')}
              </p>
            )}
          </div>
        )
      })}
    </section>
  )
}
