import { describe, expect, it } from 'vitest'
import { Layered } from './layered'

describe('a layered map', () => {
  it('holds what a copied map holds, however often it is added to', () => {
    const first = new Map([...Array(100).keys()].map((k) => [k, `first ${k}`]))
    let plain = new Map(first)
    let layered = Layered.over(first)
    for (let k = 50; k < 400; k++) {
      plain = new Map(plain).set(k, `then ${k}`)
      layered = Layered.over(layered)
      layered.set(k, `then ${k}`)
    }
    for (let k = -1; k <= 400; k++) expect([layered.has(k), layered.get(k)]).toEqual([plain.has(k), plain.get(k)])
  })

  it('leaves what it lies over as it was', () => {
    const first = new Map([['a', 1]])
    const second = Layered.over(first)
    second.set('a', 2)
    const third = Layered.over(second)
    third.set('a', 3)
    expect([first.get('a'), second.get('a'), third.get('a')]).toEqual([1, 2, 3])
  })
})
