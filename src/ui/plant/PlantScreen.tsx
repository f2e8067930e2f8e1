'use client'
import '@/words/everyTest'
import '@/words/plant'
import { Button, Drawer, Modal } from 'antd'
import { lazy, Suspense, useCallback, useMemo, useRef, useState } from 'react'
import { v7 as uuid } from 'uuid'
import type { Evaluation } from '@/core/evaluation/types'
import { checkOf, troublesOf } from '@/core/evaluation/troubles'
import { type AddedKind, copiesOf, modelString, type NewPart, partsAt } from '@/core/plant/additions'
import { roofWith } from '@/core/plant/begin'
import type { RuledField } from '@/core/plant/kinds'
import { type ModuleType, type Part, type PartData, partKinds } from '@/core/plant/part'
import { PlantIndex } from '@/core/plant/plantIndex'
import type { Facts } from '@/core/record/facts'
import { partName, say } from '@/words/say'
import type { JobStore, Snapshot } from '../device/jobStore'
import { FoldedRow } from '../shell/FoldedRow'
import { useKeys } from '../shell/keys'
import type { JobRoute } from '../shell/route'
import { BeginWith } from './BeginWith'
import { layoutOf } from './drawing/layout'
import { PlantDrawing } from './drawing/PlantDrawing'
import type { Piece } from './drawing/pieces'
import { Outline } from './Outline'
import { Pane } from './Pane'
import { PartSheet } from './PartSheet'
import { PlantFoot } from './PlantFoot'
import { StringsForm } from './StringsForm'
import { TypeForm } from './TypeForm'
import { useLibrary } from './useLibrary'
import { useEditKeys } from './useEditKeys'
import { usePlantChanges } from './usePlantChanges'
import { useSize } from '../shell/useSize'

// They bring fields and tables of their own, and are opened now and then.
const ModelForm = lazy(() => import('./ModelForm').then((module) => ({ default: module.ModelForm })))
const PasteTable = lazy(() => import('./PasteTable').then((module) => ({ default: module.PasteTable })))

type Props = {
  store: JobStore
  snapshot: Snapshot
  facts: Facts
  evaluation: Evaluation
  route: JobRoute
  hasSchedule: boolean
  go(route: JobRoute): void
}

/** What stands in the margin: a part, how to begin, strings for an array that has none, or a table. */
type Panel =
  | { is: 'part' }
  | { is: 'strings'; arrayId: string | null; brings: readonly NewPart[] }
  | { is: 'table'; text: string }
/** For which field of which part a new type of a library is entered. */
type NewType = { library: RuledField['library']; part: Part | null; field: string | null }

const NO_DRAFTS: readonly NewPart[] = []
const LEAST_ZOOM = 0.4
const MOST_ZOOM = 2.5

/** The plant, drawn from sun to earth: every part and every place where one may come, with the fields of one in the margin. */
export function PlantScreen({ store, snapshot, facts, evaluation, route, hasSchedule, go }: Props) {
  const { plant } = evaluation
  const isEmpty = partKinds.every((kind) => kind === 'site' || plant.ofKind(kind).length === 0)
  const canWrite = snapshot.right !== 'viewer' && !snapshot.notSaved
  const changes = usePlantChanges(store)
  const libraries = useLibraries(plant)
  const [selected, setSelected] = useState<string | null>(route.partId)
  const [panel, setPanel] = useState<Panel>({ is: 'part' })
  const [newType, setNewType] = useState<NewType | null>(null)
  const [opened, setOpened] = useState<ReadonlySet<string>>(new Set())
  const [drafts, setDrafts] = useState<readonly NewPart[]>(NO_DRAFTS)
  const [zoom, setZoom] = useState(1)
  const [wantsFocus, setWantsFocus] = useState(false)
  const onFocused = useCallback(() => setWantsFocus(false), [])
  const [isOutlineOpen, setIsOutlineOpen] = useState(false)
  const [modal, holder] = Modal.useModal()
  const find = useRef<{ focus(): void }>(null)
  const pane = useRef<HTMLDivElement>(null)
  const size = useSize(pane)
  const part = selected ? (evaluation.parts.get(selected) ?? null) : null
  const chosen = part && !part.retired ? part : null

  const troubles = useMemo(() => troublesOf(evaluation), [evaluation])
  const verdicts = useMemo(
    () => new Map([...troubles].reverse().map(({ part, one }) => [part.id, one.verdict])),
    [troubles],
  )
  const layout = useMemo(() => {
    const parts = new Map(plant.parts)
    for (const { id, data } of drafts) parts.set(id, { id, data, revision: '', retired: false })
    const drawn = drafts.length > 0 ? new PlantIndex(parts) : plant
    const ids = new Set(drafts.map((one) => one.id))
    const least = size.width > 0 ? (size.height * 672) / Math.max(size.width, 600) - 4 : 0
    return layoutOf({ plant: drawn, opened, troubles: verdicts, drafts: ids, selected, canWrite }, Math.max(300, least))
  }, [plant, drafts, opened, verdicts, selected, canWrite, size])

  const select = (id: string): void => {
    setSelected(id)
    setPanel({ is: 'part' })
    setIsOutlineOpen(false)
  }
  const onPiece = (piece: Piece): void => {
    if (piece.fold) setOpened((before) => new Set(before).add(piece.fold!))
    select(piece.ids[0]!)
  }
  const addParts = async (parts: readonly NewPart[], toSelect: string | null): Promise<void> => {
    if (!(await changes.apply(parts))) return
    setPanel({ is: 'part' })
    if (!toSelect) return
    setSelected(toSelect)
    setWantsFocus(true)
  }
  const add = (kind: AddedKind, at: string | null): void => {
    if (!canWrite) return
    const beside = at ? (plant.parts.get(at) ?? null) : null
    if (kind === 'string' && !(beside && modelString(beside, plant)))
      return setPanel({ is: 'strings', arrayId: beside?.id ?? null, brings: [] })
    const made = partsAt(kind, beside, plant, uuid)
    void addParts(made, made[0]!.id)
  }
  const copies = (count: number): void => {
    if (!chosen || !canWrite || chosen.data.kind === 'site') return
    const made = copiesOf(chosen, count, plant).map((data) => ({ id: uuid(), data }))
    void addParts(made, made.at(-1)!.id)
  }
  const takeOut = (): void => {
    if (!chosen || !canWrite || chosen.data.kind === 'site') return
    const out = (): void => {
      void changes.apply([{ id: chosen.id, data: null }])
      setSelected(null)
    }
    const count = evaluation.steps.filter((one) => one.part.id === chosen.id && one.readings.length > 0).length
    if (count === 0) return out()
    modal.confirm({
      title: say('plant.retire-title', { part: partName(chosen) }),
      content: say('plant.retire-readings', { count }),
      okText: say('plant.retire'),
      cancelText: say('action.close'),
      onOk: out,
    })
  }
  const toRunSheet = (): void => go({ ...route, view: 'run', step: null, partId: null })
  const paste = (text: string): void => setPanel({ is: 'table', text })
  const leave = (): void => {
    setPanel({ is: 'part' })
    setDrafts(NO_DRAFTS)
  }
  useKeys({
    f: () => (find.current ? find.current.focus() : setIsOutlineOpen(true)),
    u: () => canWrite && void changes.undo(),
    '+': () => document.querySelector<HTMLElement>('.add-here button')?.focus(),
    Escape: leave,
    ...(isEmpty || panel.is !== 'part' ? {} : { Enter: toRunSheet }),
    ...(panel.is === 'part' ? { Delete: takeOut } : {}),
  })
  useEditKeys(canWrite, { undo: changes.undo, redo: changes.redo, duplicate: () => copies(1), paste })

  const addType = (type: ModuleType | { id: string }): void => {
    if (newType?.part && newType.field && newType.part.id === selected)
      void changes.apply([{ id: newType.part.id, data: { ...newType.part.data, [newType.field]: type } as PartData }])
    setNewType(null)
  }
  const outline = (
    <Outline
      plant={plant}
      troubles={verdicts}
      selected={selected}
      height={Math.max(200, size.height - 50)}
      findRef={find}
      onSelect={select}
    />
  )
  const parts = useMemo(() => partKinds.flatMap((kind): readonly Part[] => plant.ofKind(kind)), [plant])
  return (
    <>
      <FoldedRow route={route} go={go} hasSchedule={hasSchedule}>
        <Button className="tool only-narrow" onClick={() => setIsOutlineOpen(true)} data-testid="open-outline">
          {say('plant.outline')}
        </Button>
        {canWrite && (
          <>
            <Button className="tool" disabled={!changes.canUndo} onClick={() => void changes.undo()} data-testid="undo">
              {say('plant.undo-short')}
            </Button>
            <Button className="tool" disabled={!changes.canRedo} onClick={() => void changes.redo()} data-testid="redo">
              {say('plant.redo')}
            </Button>
          </>
        )}
        <Button className="tool" onClick={() => setZoom(1)} data-testid="fit">
          {say('plant.fit')}
        </Button>
        <span className="grow" />
        {canWrite && (
          <Button className="tool" onClick={() => paste('')} data-testid="paste-table">
            {say('plant.paste')}
          </Button>
        )}
      </FoldedRow>
      {holder}
      <main className="plant">
        <aside className="outline-side only-wide">{outline}</aside>
        <section className="draw">
          <Pane
            paneRef={pane}
            onZoom={(by) => setZoom((before) => Math.min(MOST_ZOOM, Math.max(LEAST_ZOOM, before * by)))}
          >
            <Banners evaluation={evaluation} />
            <PlantDrawing
              layout={layout}
              selected={selected}
              zoom={zoom}
              onSelect={onPiece}
              onAdd={add}
              onFields={() => setWantsFocus(true)}
            />
          </Pane>
          <PlantFoot
            troubles={troubles}
            check={checkOf(evaluation)}
            parts={parts}
            drafts={panel.is === 'table' && drafts.length > 0 ? drafts.length : null}
            isEmpty={isEmpty}
            onSelect={(id) => {
              select(id)
              setWantsFocus(true)
            }}
            onReady={toRunSheet}
          />
        </section>
        <aside className="plant-margin">
          {panel.is === 'table' && (
            <Suspense fallback={<p className="quiet">{say('loading.job')}</p>}>
              <PasteTable
                plant={plant}
                libraries={libraries.all}
                text={panel.text}
                onDrafts={setDrafts}
                onTake={(made) => {
                  setDrafts(NO_DRAFTS)
                  void addParts(made, made[0]?.id ?? null)
                }}
                onLeave={leave}
              />
            </Suspense>
          )}
          {panel.is === 'strings' && canWrite && (
            <section aria-label={say('plant.first-strings')}>
              <h2>{say('plant.first-strings')}</h2>
              <StringsForm
                libraries={libraries.all}
                plant={plant}
                arrayId={panel.arrayId}
                onNewType={() => setNewType({ library: 'module', part: null, field: null })}
                onAdd={(list) => {
                  void addParts([...list, ...panel.brings], null)
                  setSelected(list.at(-1)?.id ?? null)
                }}
              />
            </section>
          )}
          {panel.is === 'part' && chosen && (
            <PartSheet
              key={chosen.id}
              part={chosen}
              evaluation={evaluation}
              libraries={libraries.all}
              canWrite={canWrite}
              wantsFocus={wantsFocus}
              onFocused={onFocused}
              onKeep={(data, together) =>
                void changes.apply([
                  { id: chosen.id, data },
                  ...together.map((one) => ({ id: one.id, data: { ...data, tag: one.data.tag } as PartData })),
                ])
              }
              onAdd={(kind) => add(kind, chosen.id)}
              onCopies={copies}
              onTakeOut={takeOut}
              onNewType={(field) => setNewType({ library: field.library, part: chosen, field: field.id })}
              onBack={() => document.querySelector<SVGElement>('.plant-drawing .now')?.focus()}
            />
          )}
          {panel.is === 'part' && !chosen && isEmpty && canWrite && (
            <BeginWith
              job={facts.job}
              siteId={plant.site?.id ?? null}
              onRoof={() => setPanel({ is: 'strings', arrayId: null, brings: roofWith(uuid) })}
              onPaste={() => paste('')}
              onParts={(made) => void addParts(made, made[0]?.id ?? null)}
            />
          )}
          {panel.is === 'part' && !chosen && !isEmpty && <Nothing facts={facts} />}
        </aside>
      </main>
      <Drawer
        open={isOutlineOpen}
        onClose={() => setIsOutlineOpen(false)}
        placement="left"
        title={say('plant.outline')}
      >
        {isOutlineOpen && outline}
      </Drawer>
      <Drawer
        open={newType !== null}
        onClose={() => setNewType(null)}
        afterOpenChange={(open) => !open && onToModules()}
        focusable={{ focusTriggerAfterClose: false }}
        size={520}
        destroyOnHidden
        title={say(newType?.library === 'charge-point' ? 'model.title' : 'plant.add-type')}
      >
        {newType?.library === 'module' && (
          <TypeForm
            onClose={() => setNewType(null)}
            onAdd={(type) => {
              libraries.addType(type)
              addType(type)
            }}
          />
        )}
        {newType?.library === 'charge-point' && (
          <Suspense fallback={<p className="quiet">{say('loading.day')}</p>}>
            <ModelForm
              onClose={() => setNewType(null)}
              onAdd={(model) => {
                libraries.addModel(model)
                addType(model)
              }}
            />
          </Suspense>
        )}
      </Drawer>
    </>
  )
}

/** After the plate comes how many modules there are in series. */
const onToModules = (): void => document.querySelector<HTMLElement>('.plant-margin [data-testid=modules]')?.focus()

/** The company's libraries with what this plant has a copy of. */
function useLibraries(plant: PlantIndex) {
  const used = useMemo(() => plant.ofKind('string').map((one) => one.data.moduleType), [plant])
  const usedModels = useMemo(() => plant.ofKind('charge-point').flatMap((one) => one.data.model ?? []), [plant])
  const [types, addType] = useLibrary('module-types', used)
  const [models, addModel] = useLibrary('charge-point-models', usedModels)
  const all = useMemo(() => ({ module: types, 'charge-point': models }), [types, models])
  return { all, addType, addModel }
}

/** Two devices without reception can each have entered a part under one tag. */
function Banners({ evaluation }: { evaluation: Evaluation }) {
  const twice = partKinds.flatMap((kind) => tagsTwice(evaluation.plant.ofKind(kind)))
  return twice.map((name) => (
    <p key={name} className="banner" role="alert">
      {say('plant.twice', { part: name })}
    </p>
  ))
}

function Nothing({ facts }: { facts: Facts }) {
  return (
    <div className="nothing">
      <p>{say('plant.nothing-chosen')}</p>
      <p className="src">{say('plant.judged-by', { regime: facts.regime.name })}</p>
    </div>
  )
}

/** Parts of one kind that share a tag. */
function tagsTwice(parts: readonly Part[]): string[] {
  const seen = new Set<string>()
  const twice = new Set<string>()
  for (const part of parts) {
    const tag = part.data.tag.toLowerCase()
    if (seen.has(tag)) twice.add(partName(part))
    seen.add(tag)
  }
  return [...twice]
}
