'use client'
import { memo } from 'react'
import type { PartOf } from '@/core/plant/plantIndex'
import { worst } from '@/core/verdict/verdict'
import { deviceWords } from '@/words/circuit'
import { partName, say, sayCode } from '@/words/say'
import { Mark } from '../mark/Mark'
import type { Row } from './model'

/** Three strokes across the line: a circuit of three phases. */
function ThreeLines() {
  return (
    <svg
      className="three-lines"
      width="20"
      height="14"
      viewBox="0 0 20 14"
      role="img"
      aria-label={say('schedule.three')}
    >
      <path d="M2 13 8 1M7 13 13 1M12 13 18 1" stroke="currentColor" strokeWidth="2" />
    </svg>
  )
}

type Props = { row: Row; rcd: PartOf<'rcd'> | null; isShared: boolean }

const isSame = (before: Props, after: Props): boolean =>
  before.row.part === after.row.part &&
  before.rcd === after.rcd &&
  before.isShared === after.isShared &&
  before.row.byStep.size === after.row.byStep.size &&
  [...before.row.byStep].every(([step, one]) => after.row.byStep.get(step) === one)

/** What a row is about: its worst mark, the way, what it feeds, its device and the one that watches over it. */
export const RowHead = memo(function RowHead({ row, rcd, isShared }: Props) {
  const { part, byStep } = row
  const { data } = part
  const name = partName(part)
  const mark = <Mark verdict={worst([...byStep.values()].map((one) => one.verdict))} size={16} />
  if (data.kind === 'rcd')
    return (
      <>
        {mark}
        <b className="no">{data.tag}</b>
        <span className="feeds">{`${sayCode('choice', data.delay)}, ${data.type}`}</span>
        <em />
        <em className="rcd">{`${data.rated_mA} mA`}</em>
      </>
    )
  if (data.kind !== 'circuit') return null
  return (
    <>
      {mark}
      <b className="no" title={name}>
        {data.tag}
      </b>
      <span className="feeds" title={data.feeds}>
        {data.feeds}
      </span>
      {data.phases === 3 && <ThreeLines />}
      <em>{deviceWords(data)}</em>
      <em className="rcd">{rcd ? (isShared ? rcd.data.tag : `${rcd.data.rated_mA} mA`) : ''}</em>
    </>
  )
}, isSame)
