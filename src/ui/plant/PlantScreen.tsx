'use client'
import '@/words/ac'
import '@/words/plant'
import { Button } from 'antd'
import { lazy, Suspense, useMemo, useState } from 'react'
import { v7 as uuid } from 'uuid'
import type { Evaluation } from '@/core/evaluation/types'
import { type Part, partKinds } from '@/core/plant/part'
import type { Facts } from '@/core/record/facts'
import { partName, say } from '@/words/say'
import type { JobStore, Snapshot } from '../device/jobStore'
import { useKeys } from '../shell/keys'
import type { JobRoute } from '../shell/route'
import { AddParts } from './AddParts'
import { type AddedKind, newPart, nextTag } from './partForm'
import { usualSite } from '@/core/plant/kinds/site'
import { PartRow } from './PartRow'
import { StringsForm } from './StringsForm'
import { TypeForm } from './TypeForm'
import { useLibrary } from './useLibrary'
import { usePlantChanges } from './usePlantChanges'

/** It brings the fields of the component library: loaded when a model is entered. */
const ModelForm = lazy(() => import('./ModelForm').then((module) => ({ default: module.ModelForm })))

type Props = {
  store: JobStore
  snapshot: Snapshot
  facts: Facts
  evaluation: Evaluation
  route: JobRoute
  go(route: JobRoute): void
}

export function PlantScreen({ store, snapshot, facts, evaluation, route, go }: Props) {
  const { plant } = evaluation
  const strings = plant.ofKind('string')
  // The site that every job has is there before anybody entered it.
  const isSiteEntered = plant.site?.revision !== ''
  const isEmpty = partKinds.every((kind) => kind === 'site' || plant.ofKind(kind).length === 0)
  const used = useMemo(() => strings.map((one) => one.data.moduleType), [strings])
  const [types, addType] = useLibrary('module-types', used)
  const points = plant.ofKind('charge-point')
  const usedModels = useMemo(() => points.flatMap((one) => one.data.model ?? []), [points])
  const [models, addModel] = useLibrary('charge-point-models', usedModels)
  const libraries = useMemo(() => ({ module: types, 'charge-point': models }), [types, models])
  const [open, setOpen] = useState<'strings' | 'type' | 'model' | string | null>(isEmpty ? 'strings' : null)
  const isTestable = !isEmpty
  const changes = usePlantChanges(store, evaluation)
  const canWrite = snapshot.right !== 'viewer' && !snapshot.notSaved
  const twice = partKinds.flatMap((kind) => tagsTwice(plant.ofKind(kind)))
  const toggle = (what: string): void => setOpen(open === what ? null : what)
  useKeys({ u: () => canWrite && void changes.undo() })

  const addOne = async (kind: AddedKind, prefix: string): Promise<void> => {
    const id = uuid()
    const tag = nextTag([...plant.parts.values()], kind, prefix)
    await changes.add([
      {
        id,
        data: newPart(kind, tag, {
          arrayId: plant.ofKind('array')[0]?.id ?? null,
          boardId: plant.ofKind('board')[0]?.id ?? null,
          phases: plant.only('supply')?.data.phases ?? 1,
          like: plant.ofKind('circuit').at(-1)?.data ?? null,
        }),
      },
    ])
    setOpen(id)
  }

  return (
    <section className="pane">
      <div className="dayhd">
        <h1>{say('plant.title')}</h1>
        <div className="acts-row">
          {changes.canUndo && (
            <Button className="small" onClick={() => void changes.undo()} data-testid="undo">
              {say('plant.undo')} <kbd>U</kbd>
            </Button>
          )}
          {isTestable && (
            <Button
              className="small"
              type="primary"
              onClick={() => go({ ...route, view: 'run', step: null, partId: null })}
              data-testid="ready"
            >
              {say('plant.ready')}
            </Button>
          )}
        </div>
      </div>
      {isEmpty && <p style={{ paddingTop: 12 }}>{say('plant.empty')}</p>}
      {canWrite && (
        <AddParts
          mayAddSite={!isEmpty && !isSiteEntered}
          onStrings={() => toggle('strings')}
          onType={() => toggle('type')}
          onModel={() => toggle('model')}
          onSite={() => plant.site && void changes.add([{ id: plant.site.id, data: usualSite }])}
          onPart={(kind, prefix) => void addOne(kind, prefix)}
        />
      )}
      {twice.map((name) => (
        <p key={name} className="banner" role="alert">
          {say('plant.twice', { part: name })}
        </p>
      ))}
      {open === 'type' && (
        <TypeForm
          onClose={() => setOpen(null)}
          onAdd={(type) => {
            addType(type)
            setOpen('strings')
          }}
        />
      )}
      {open === 'model' && (
        <Suspense fallback={<p className="quiet">{say('loading.day')}</p>}>
          <ModelForm
            onClose={() => setOpen(null)}
            onAdd={(model) => {
              addModel(model)
              setOpen(null)
            }}
          />
        </Suspense>
      )}
      {open === 'strings' && canWrite && (
        <StringsForm
          libraries={libraries}
          plant={plant}
          onNewType={() => setOpen('type')}
          onAdd={(list) => {
            setOpen(null)
            void changes.add(list)
          }}
        />
      )}
      {partKinds.map((kind) => {
        const parts: readonly Part[] = plant.ofKind(kind)
        if (parts.length === 0) return null
        return (
          <section key={kind} aria-label={say(`plant.section.${kind}`)}>
            <h2 className="sect">
              {say(`plant.section.${kind}`)} <span>{kind === 'site' ? '' : parts.length}</span>
            </h2>
            <div className="plantlist">
              {parts.map((one) => (
                <PartRow
                  key={one.id}
                  part={one}
                  plant={plant}
                  libraries={libraries}
                  canWrite={canWrite}
                  open={open === one.id}
                  setOpen={(isOpen) => setOpen(isOpen ? one.id : null)}
                  change={changes.change}
                />
              ))}
            </div>
          </section>
        )
      })}
      <p className="src" style={{ paddingTop: 12 }}>
        {say('plant.judged-by', { regime: facts.regime.name })}
      </p>
    </section>
  )
}

/** Parts of one kind that share a tag: two devices without reception can each have entered one. */
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
