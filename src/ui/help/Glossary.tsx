'use client'
import '@/words/help'
import '@/words/everyTest'
import { Descriptions, Drawer, Empty, Input, Tabs } from 'antd'
import { useState } from 'react'
import { steps } from '@/core/steps'
import { verdicts } from '@/core/verdict/verdict'
import { say, sayCode, type WordKey } from '@/words/say'
import { stationSymbol } from '../line/symbols'
import { MarkShape } from '../mark/Mark'
import { termsOf } from './terms'

/** Every word of the trade with its meaning, and every sign with its name, in one place. */
export function Glossary({ onClose }: { onClose(): void }) {
  return (
    <Drawer open size="large" title={say('glossary.title')} onClose={onClose} destroyOnHidden>
      <Tabs
        items={[
          { key: 'words', label: say('glossary.words'), children: <Words /> },
          { key: 'signs', label: say('glossary.signs'), children: <Signs /> },
        ]}
      />
    </Drawer>
  )
}

const plain = (text: string): string => text.normalize('NFD').replace(/\p{M}/gu, '').toLocaleLowerCase()

function Words() {
  const [wanted, setWanted] = useState('')
  const found = termsOf().filter(({ word, means }) => plain(`${word} ${means}`).includes(plain(wanted.trim())))
  return (
    <>
      <Input.Search
        value={wanted}
        aria-label={say('glossary.find')}
        placeholder={say('glossary.find')}
        onChange={(event) => setWanted(event.target.value)}
        data-testid="find-word"
      />
      {found.length === 0 ? (
        <Empty image={null} description={say('glossary.none')} />
      ) : (
        <Descriptions
          column={1}
          size="small"
          layout="vertical"
          colon={false}
          className="glossary"
          items={found.map((term) => ({ key: term.id, label: <b>{term.word}</b>, children: term.means }))}
        />
      )}
    </>
  )
}

const BOX = '-32 -32 64 64'
const stations = [...new Set(steps.map((one) => one.station))]
const zones = ['within', 'close', 'outside', 'limit', 'expected', 'fault', 'measured'] as const

const onSheet = ['code', 'count', 'begun', 'again', 'simulated'] as const

function Signs() {
  return (
    <div className="signs">
      <h3>{say('glossary.verdicts')}</h3>
      <ul>
        {verdicts.map((verdict) => (
          <li key={verdict}>
            <svg width="24" height="24" viewBox="-12 -12 24 24" aria-hidden="true">
              <MarkShape verdict={verdict} />
            </svg>
            <span>
              <b>{sayCode('verdict', verdict)}</b>: {say(`verdict.about.${verdict}`)}
            </span>
          </li>
        ))}
      </ul>
      <h3>{say('glossary.stations')}</h3>
      <ul>
        {stations.map((station) => (
          <li key={station}>
            <svg width="48" height="48" viewBox={BOX} aria-hidden="true">
              {stationSymbol(station, 'var(--ink)', 'var(--sheet)', ['within'])}
            </svg>
            <b>{sayCode('station', station)}</b>
          </li>
        ))}
      </ul>
      <h3>{say('glossary.zones')}</h3>
      <ul>
        {zones.map((zone) => (
          <li key={zone}>{say(`glossary.zone.${zone}` as WordKey)}</li>
        ))}
      </ul>
      <h3>{say('glossary.sheet')}</h3>
      <ul>
        {onSheet.map((one) => (
          <li key={one}>{say(`glossary.sheet.${one}` as WordKey)}</li>
        ))}
      </ul>
    </div>
  )
}
