'use client'
import { Input, Tree } from 'antd'
import type { Ref } from 'react'
import { useMemo, useState } from 'react'
import { lackingIn, missingOf } from '@/core/plant/missing'
import type { Part } from '@/core/plant/part'
import { type Twig, treeOf } from '@/core/plant/tree'
import type { PlantIndex } from '@/core/plant/plantIndex'
import type { Verdict } from '@/core/verdict/verdict'
import { deviceWords } from '@/words/circuit'
import { say, type WordKey } from '@/words/say'
import { ChevronDown } from '../shell/ChevronDown'
import { Mark } from '../mark/Mark'
import { labelOf } from './partForm'

type Props = {
  plant: PlantIndex
  troubles: ReadonlyMap<string, Verdict>
  selected: string | null
  height: number
  findRef: Ref<{ focus(): void }>
  onSelect(id: string): void
}

type Node = { key: string; title: React.ReactNode; selectable: boolean; children: Node[] }

/** All parts as an outline, found by typing. */
export function Outline({ plant, troubles, selected, height, findRef, onSelect }: Props) {
  const [wanted, setWanted] = useState('')
  const tree = useMemo(() => treeOf(plant), [plant])
  const shown = useMemo(() => found(tree, wanted.trim().toLowerCase()), [tree, wanted])
  const nodes = useMemo(() => shown.map((twig) => nodeOf(twig, troubles)), [shown, troubles])
  const isFinding = wanted.trim() !== ''
  const [folded, setFolded] = useState<ReadonlySet<string>>(new Set())
  // What holds few parts is open, until somebody folds it; whoever finds sees all that was found.
  const open = useMemo(
    () => keysIn(shown, isFinding).filter((key) => isFinding || !folded.has(key)),
    [shown, isFinding, folded],
  )
  const [opened, setOpened] = useState<ReadonlySet<string>>(new Set())
  const fold = (key: string, isOpen: boolean): void => {
    setFolded((before) => without(before, key, isOpen))
    setOpened((before) => without(before, key, !isOpen))
  }
  return (
    <div className="outline">
      <Input
        allowClear
        placeholder={say('plant.find')}
        aria-label={say('plant.find')}
        value={wanted}
        ref={findRef as never}
        data-testid="find-part"
        onChange={(event) => setWanted(event.target.value)}
        onPressEnter={() => {
          const first = parts(shown).find((one) => textOf(one).includes(wanted.trim().toLowerCase()))
          if (first) onSelect(first.id)
        }}
      />
      <Tree
        switcherIcon={({ expanded }) => <ChevronDown folded={!expanded} />}
        treeData={nodes}
        expandedKeys={[...open, ...opened]}
        onExpand={(_, { node, expanded }) => fold(String(node.key), expanded)}
        selectedKeys={selected ? [selected] : []}
        virtual
        height={height}
        itemHeight={44}
        blockNode
        aria-label={say('plant.outline')}
        onSelect={(_, { node }) => onSelect(String(node.key))}
      />
      <p className="outline-foot">{summaryOf(plant)}</p>
    </div>
  )
}

/** The set with the key, or without it. */
function without(set: ReadonlySet<string>, key: string, isWithout: boolean): ReadonlySet<string> {
  const next = new Set(set)
  if (isWithout) next.delete(key)
  else next.add(key)
  return next
}

function nodeOf(twig: Twig, troubles: ReadonlyMap<string, Verdict>): Node {
  const { part, group, key, children } = twig
  return {
    key,
    selectable: part !== null,
    title: part ? (
      <PartTitle part={part} count={children.length} verdict={troubles.get(part.id) ?? null} />
    ) : (
      <GroupTitle group={group!} count={children.length} />
    ),
    children: children.map((one) => nodeOf(one, troubles)),
  }
}

function GroupTitle({ group, count }: { group: string; count: number }) {
  return (
    <span className="twig">
      <b>{say(`outline.${group}` as WordKey)}</b>
      <i>{count}</i>
    </span>
  )
}

function PartTitle({ part, count, verdict }: { part: Part; count: number; verdict: Verdict | null }) {
  const [missing] = missingOf(part.data)
  return (
    <span className={missing ? 'twig pencil' : 'twig'} data-twig={part.id}>
      <span>{nameIn(part)}</span>
      <i>
        {verdict && <Mark verdict={verdict} size={16} />}
        {missing ? `${labelOf(missing).split(',')[0]!.toLowerCase()} ?` : count > 0 ? count : shortOf(part)}
      </i>
    </span>
  )
}

function nameIn({ data }: Part): string {
  switch (data.kind) {
    case 'site':
      return say('drawing.site')
    case 'circuit':
      return [data.tag, data.feeds].filter(Boolean).join('  ')
    case 'board':
      return [data.tag, data.name].filter(Boolean).join(' ')
    case 'charge-point':
      return [data.tag, data.place].filter(Boolean).join(' ')
    default:
      return data.tag
  }
}

function shortOf({ data }: Part): string {
  switch (data.kind) {
    case 'string':
      return `${data.modulesInSeries} × ${data.moduleType.name}`
    case 'circuit':
      return deviceWords(data)
    case 'supply':
      return data.arrangement
    case 'rcd':
      return `${data.rated_mA} mA`
    case 'dc-switch':
      return data.rating_A === null ? '' : `${data.rating_A} A`
    default:
      return ''
  }
}

const textOf = (part: Part): string =>
  `${nameIn(part)} ${shortOf(part)} ${say(`drawing.kind.${part.data.kind}` as WordKey)}`.toLowerCase()

/** Twigs in which something was found, with what leads to it. */
function found(tree: readonly Twig[], wanted: string): readonly Twig[] {
  if (wanted === '') return tree
  return tree.flatMap((twig): Twig[] => {
    if (twig.part && textOf(twig.part).includes(wanted)) return [twig]
    const children = found(twig.children, wanted)
    return children.length > 0 ? [{ ...twig, children }] : []
  })
}

const parts = (tree: readonly Twig[]): Part[] =>
  tree.flatMap((twig) => [...(twig.part ? [twig.part] : []), ...parts(twig.children)])

/** A twig with more under it stays folded until it is asked for. */
const MOST_OPEN = 40

function keysIn(tree: readonly Twig[], all: boolean): string[] {
  return tree.flatMap((twig) =>
    all || twig.children.length <= MOST_OPEN ? [twig.key, ...keysIn(twig.children, all)] : [],
  )
}

function summaryOf(plant: PlantIndex): string {
  const strings = plant.ofKind('string')
  const modules = strings.reduce((sum, one) => sum + one.data.modulesInSeries, 0)
  const circuits = plant.ofKind('circuit').length
  const missing = lackingIn(plant.parts.values()).length
  return [
    strings.length > 0 && say('outline.strings', { strings: strings.length, modules }),
    circuits > 0 && say('outline.circuits', { count: circuits }),
    missing > 0 && say('outline.missing', { count: missing }),
  ]
    .filter(Boolean)
    .join(', ')
}
