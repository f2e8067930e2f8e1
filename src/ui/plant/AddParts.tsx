'use client'
import { Button } from 'antd'
import { type Kind, kinds, nameOf } from '@/core/plant/kinds'
import { say } from '@/words/say'
import type { AddedKind } from './partForm'

type Props = {
  /** The site is entered once something else is. */
  mayAddSite: boolean
  onStrings(): void
  onType(): void
  onModel(): void
  onSite(): void
  onPart(kind: AddedKind, prefix: string): void
}

/** What can be added: the side of the sun in one row, earth and the AC side in another. */
export function AddParts({ mayAddSite, onStrings, onType, onModel, onSite, onPart }: Props) {
  const buttons = (side: Kind['side']) =>
    kinds
      .filter((kind) => kind.prefix !== null && kind.side === side)
      .map((kind) => {
        const name = nameOf(kind) as AddedKind
        return (
          <Button
            key={name}
            className="small"
            onClick={() => onPart(name, kind.prefix ?? '')}
            data-testid={`add-${name}`}
          >
            {say(`plant.add-${name}`)}
          </Button>
        )
      })
  return (
    <>
      <div className="acts-row" style={{ paddingTop: 12 }}>
        <Button className="small" onClick={onStrings} data-testid="add-strings">
          {say('plant.add-strings')}
        </Button>
        <Button className="small" onClick={onType} data-testid="add-type">
          {say('plant.add-type')}
        </Button>
        {buttons('dc')}
        {mayAddSite && (
          <Button className="small" onClick={onSite} data-testid="add-site">
            {say('plant.add-site')}
          </Button>
        )}
      </div>
      <div className="acts-row" style={{ paddingTop: 8 }}>
        {buttons('ac')}
        <Button className="small" onClick={onModel} data-testid="add-model">
          {say('plant.add-model')}
        </Button>
      </div>
    </>
  )
}
