'use client'
import { Button } from 'antd'
import { lazy, Suspense, useEffect, useState } from 'react'
import type { Evaluation, Photo, StepEvaluation } from '@/core/evaluation/types'
import type { Facts } from '@/core/record/facts'
import { isRead } from '@/core/steps/step'
import { say } from '@/words/say'
import type { JobStore } from '../device/jobStore'
import { device, inGoodTime } from '../device/store'
import { clockTime, dayOf, yearDay } from '../shell/time'

// The chooser of files is large: it comes when somebody has a picture.
const PhotoAdd = lazy(() => import('./PhotoAdd').then((module) => ({ default: module.PhotoAdd })))

type Props = { store: JobStore; facts: Facts; evaluation: Evaluation; one: StepEvaluation; canWrite: boolean }

/** Pictures of a step: taken or chosen, made small on the device, and shown with their words and time. */
export function Photos({ store, facts, evaluation, one, canWrite }: Props) {
  const [adding, setAdding] = useState(false)
  const [caption, setCaption] = useState('')
  const [said, setSaid] = useState<string | null>(null)
  const own = evaluation.photos.filter((photo) => photo.step === one.step.id && photo.partId === one.part.id)
  const begun = Date.parse(facts.visits.at(-1)?.startsAt ?? '') || 0
  const before = own.filter(({ at }) => at < begun)
  // What is held against the last visit's figure is set up as it was then, or it compares nothing.
  const asThen = isRead(one.step) && one.step.trend && before.length === own.length ? before.at(-1) : undefined
  const take = async (file: File): Promise<void> => {
    setSaid(say('photo.working'))
    // The reader of camera files comes only when somebody has a picture.
    const { shrinkPhoto, MOST_FILE_BYTES } = await import('../device/photo')
    const small = await shrinkPhoto(file)
    if ('code' in small) return setSaid(say(small.code, { most: MOST_FILE_BYTES / 1e6 }))
    await store.addPhoto(small, caption.trim(), { partId: one.part.id, step: one.step.id })
    setCaption('')
    setSaid(null)
  }
  return (
    <section className="note" aria-labelledby="side-photos">
      <h2 id="side-photos">
        {say('photo.title')} <span>{own.length > 0 ? own.length : ''}</span>
      </h2>
      {asThen && <p>{say('photo.as-then', { day: yearDay(timeOf(asThen), facts.job.timeZone) })}</p>}
      <div className="photos">
        {own.map((photo) => (
          <Shown
            key={photo.entryId}
            photo={photo}
            jobId={store.jobId}
            zone={facts.job.timeZone}
            today={dayOf(begun, facts.job.timeZone)}
          />
        ))}
      </div>
      {canWrite && !adding && (
        <Button className="small" onClick={() => setAdding(true)} data-testid="photo-open">
          {say('photo.add')}
        </Button>
      )}
      {canWrite && adding && (
        <Suspense>
          <PhotoAdd caption={caption} onCaption={setCaption} onFile={(file) => void take(file)} />
        </Suspense>
      )}
      {said && (
        <p className="said" role="status">
          {said}
        </p>
      )}
    </section>
  )
}

/** When it was taken, as far as its file says, else when it was added. */
const timeOf = ({ takenAt, at }: Photo): number => (takenAt ? Date.parse(takenAt) : at)

type ShownProps = { photo: Photo; jobId: string; zone: string; today: string }

/** From the device while it has it, else from the office. */
function Shown({ photo, jobId, zone, today }: ShownProps) {
  const [url, setUrl] = useState<string | null>(null)
  useEffect(() => {
    let made: string | null = null
    void inGoodTime(() => device().photos.get(photo.attachment)).then((kept) => {
      made = kept ? URL.createObjectURL(kept.blob) : null
      setUrl(made ?? `/api/jobs/${jobId}/attachments/${photo.attachment}`)
    })
    return () => {
      if (made) URL.revokeObjectURL(made)
    }
  }, [photo.attachment, jobId])
  const at = timeOf(photo)
  const time = (dayOf(at, zone) === today ? clockTime : yearDay)(at, zone)
  return (
    <figure>
      {/* biome-ignore lint/performance/noImgElement: private and small already, and often on the device alone */}
      {url && <img src={url} alt={photo.caption || say('photo.of', { time })} loading="lazy" />}
      <figcaption className="small">
        {photo.caption} <span className="quiet">{time}</span>
      </figcaption>
    </figure>
  )
}
