'use client'
import { Button } from 'antd'
import { acKinds, type PartKind } from '@/core/plant/part'
import { say } from '@/words/say'
import type { AddedKind } from './partForm'

/** In which order the parts of a plant are listed, and the tag with which a button adds one; null where none does. */
export const sections: readonly { kind: PartKind; adds: string | null }[] = [
  { kind: 'site', adds: null },
  { kind: 'array', adds: 'A' },
  { kind: 'string', adds: null },
  { kind: 'row', adds: 'R' },
  { kind: 'combiner', adds: 'C' },
  { kind: 'surge-protection', adds: 'SPD' },
  { kind: 'dc-switch', adds: 'DC' },
  { kind: 'inverter', adds: 'INV' },
  { kind: 'supply', adds: 'S' },
  { kind: 'board', adds: 'DB' },
  { kind: 'rcd', adds: 'RCD' },
  { kind: 'circuit', adds: '' },
  { kind: 'electrode', adds: 'E' },
  { kind: 'buried-service', adds: 'P' },
]

type Props = {
  /** The site is entered once something else is. */
  mayAddSite: boolean
  onStrings(): void
  onType(): void
  onSite(): void
  onPart(kind: AddedKind, prefix: string): void
}

/** What can be added: the side of the sun in one row, earth and the AC side in another. */
export function AddParts({ mayAddSite, onStrings, onType, onSite, onPart }: Props) {
  const buttons = (ac: boolean) =>
    sections
      .filter(({ kind, adds }) => adds !== null && acKinds.has(kind) === ac)
      .map(({ kind, adds }) => (
        <Button
          key={kind}
          className="small"
          onClick={() => onPart(kind as AddedKind, adds ?? '')}
          data-testid={`add-${kind}`}
        >
          {say(`plant.add-${kind as AddedKind}`)}
        </Button>
      ))
  return (
    <>
      <div className="acts-row" style={{ paddingTop: 12 }}>
        <Button className="small" onClick={onStrings} data-testid="add-strings">
          {say('plant.add-strings')}
        </Button>
        <Button className="small" onClick={onType} data-testid="add-type">
          {say('plant.add-type')}
        </Button>
        {buttons(false)}
        {mayAddSite && (
          <Button className="small" onClick={onSite} data-testid="add-site">
            {say('plant.add-site')}
          </Button>
        )}
      </div>
      <div className="acts-row" style={{ paddingTop: 8 }}>
        {buttons(true)}
      </div>
    </>
  )
}
