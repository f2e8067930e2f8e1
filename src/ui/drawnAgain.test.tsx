// @vitest-environment jsdom
import { describe, expect, it, vi } from 'vitest'
import { type Evaluation, evaluate, evaluateNext } from '@/core/evaluate'
import { walkOf } from '@/core/evaluation/walk'
import type { Part } from '@/core/plant/part'
import type { Facts } from '@/core/record/facts'
import { exampleBoard, exampleCircuit, exampleSupply } from '@/core/steps/worked'
import { FactsBuilder, START_ms } from '@/core/testing/factsBuilder'
import { readStepById } from '@/core/steps'
import type { JobStore } from './device/jobStore'
import { RunSheet } from './run/RunSheet'
import { rowsOf } from './schedule/model'
import { ScheduleBoard } from './schedule/ScheduleBoard'
import { inDom } from './testing/inDom'

// Every row names its part once each time it is drawn: what was named is what was drawn.
const named = vi.hoisted(() => ({ tags: [] as string[] }))
vi.mock('@/words/say', async (original) => {
  const words = await original<typeof import('@/words/say')>()
  return {
    ...words,
    partName: (part: Part) => {
      named.tags.push(part.data.tag)
      return words.partName(part)
    },
  }
})
const drawn = (): string[] => [...new Set(named.tags.splice(0))].sort()

const { draw } = inDom()
const nothing = (): undefined => undefined
const withMore = ({ facts }: Evaluation, build: FactsBuilder): Facts => ({ ...facts, entries: [...build.entries] })

const NONE: ReadonlySet<string> = new Set()

describe('one reading more', () => {
  it('draws its own row of the run sheet again, and no other', async () => {
    const build = new FactsBuilder()
    const strings = ['1', '2', '3', '4', '5'].map((tag) => build.string(tag))
    const sheet = (evaluation: Evaluation) => {
      const walks = {
        'by-test': walkOf(evaluation, 'by-test'),
        'by-place': walkOf(evaluation, 'by-place'),
      }
      return (
        <RunSheet
          evaluation={evaluation}
          walks={walks}
          way="by-test"
          setWay={nothing}
          nowKey={`pv-polarity:${strings[4]}`}
          begun={NONE}
          onOpen={nothing}
        />
      )
    }
    const before = evaluate(build.facts({ entries: [...build.entries] }), START_ms)
    await draw(sheet(before))
    expect(drawn()).toEqual(['1', '2', '3', '4', '5'])
    build.polarity(strings[1]!)
    await draw(sheet(evaluateNext(before, withMore(before, build), START_ms)))
    expect(drawn()).toEqual(['2'])
  })

  it('draws its own row of the schedule again, and no other', async () => {
    // A page of some size: only what is in sight is drawn.
    vi.spyOn(HTMLElement.prototype, 'clientWidth', 'get').mockReturnValue(1280)
    vi.spyOn(HTMLElement.prototype, 'clientHeight', 'get').mockReturnValue(500)
    const build = new FactsBuilder()
    const supply = build.part(exampleSupply)
    const board = build.part({ ...exampleBoard, supplyId: supply })
    const circuits = ['C1', 'C2', 'C3', 'C4'].map((tag) =>
      build.part({ ...exampleCircuit, tag, boardId: board, rcdId: null }),
    )
    // How the leads lie is carried over from the last reading: the first one sets it for all rows.
    const reading = readStepById('r1r2')!.example.reading!
    build.reading('r1r2', circuits[0]!, reading)
    const store = {
      jobId: 'job',
      me: { id: '', name: '' },
      add: nothing,
      addAll: nothing,
      officeTime: () => START_ms,
    } as unknown as JobStore
    const silent = { paired: [], latest: {}, light: [], watched: [] }
    const grid = (evaluation: Evaluation) => (
      <ScheduleBoard
        store={store}
        evaluation={evaluation}
        rows={rowsOf(evaluation, board)}
        boardId={board}
        partId={null}
        mayWrite
        live={silent}
        onBoard={nothing}
        onBench={nothing}
      />
    )
    const before = evaluate(build.facts({ entries: [...build.entries] }), START_ms)
    await draw(grid(before))
    expect(drawn()).toEqual(['C1', 'C2', 'C3', 'C4'])
    build.reading('r1r2', circuits[2]!, reading)
    await draw(grid(evaluateNext(before, withMore(before, build), START_ms)))
    expect(drawn()).toEqual(['C3'])
  })
})
