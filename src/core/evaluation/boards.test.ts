import { describe, expect, it } from 'vitest'
import { evaluate } from '../evaluate'
import type { PartData } from '../plant/part'
import { exampleBoard, exampleCircuit, exampleRcd, exampleSupply } from '../steps/worked'
import { FactsBuilder } from '../testing/factsBuilder'
import { readValueOf } from '../quantity/readValue'
import { boardIdOf, boardsOf } from './boards'

const build = new FactsBuilder()
const supply = build.part({ ...exampleSupply })
const board = (tag: string, boardId: string | null): string => build.part({ ...exampleBoard, tag, boardId })
const origin = board('DB1', null)
const hall = board('DB2', origin)
const shed = board('DB3', hall)
const rcd = build.part({ ...exampleRcd, boardId: shed })
const circuit = build.part({ ...exampleCircuit, boardId: hall })
build.reading('r1r2', circuit, { slots: { r1r2: readValueOf(9, 'ohm', 2) }, conditions: null })

describe('the tree of boards', () => {
  const evaluation = evaluate(build.facts(), 0)
  const tree = boardsOf(evaluation)

  it('goes from the origin outwards', () => {
    expect(tree.map((one) => [one.part.data.tag, one.depth, one.parentId])).toEqual([
      ['DB1', 0, null],
      ['DB2', 1, origin],
      ['DB3', 2, hall],
    ])
  })

  it('has the worst of what stands on each', () => {
    expect(tree.map((one) => one.verdict)).toEqual(['held-back', 'outside', 'held-back'])
    expect(tree[1]!.next!.part.id).toBe(circuit)
  })

  it('knows on which board a part stands', () => {
    const of = (id: string): string | null => boardIdOf(evaluation.parts.get(id)!, evaluation.plant)
    expect([of(circuit), of(rcd), of(hall), of(supply)]).toEqual([hall, shed, hall, null])
  })

  it('does not go round for ever where two boards feed each other', () => {
    const ring = new FactsBuilder()
    const first = ring.part({ ...exampleBoard, tag: 'DB1' })
    const second = ring.part({ ...exampleBoard, tag: 'DB2', boardId: first })
    const round: PartData = { ...exampleBoard, tag: 'DB1', boardId: second }
    ring.add(
      {
        kind: 'plant-change',
        v: 1,
        before: { ...exampleBoard, tag: 'DB1' },
        after: round,
        base: ring.revisionOf(first),
      },
      { partId: first },
    )
    expect(boardsOf(evaluate(ring.facts(), 0))).toHaveLength(2)
  })
})
