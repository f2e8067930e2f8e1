import { describe, expect, it } from 'vitest'
import { ByKey, OnParts } from './onParts'

describe('what each step has on each part', () => {
  it('is what a copied map holds, however often it is copied and added to', () => {
    let plain = new Map([...Array(100).keys()].map((k) => [`part ${k}`, `first ${k}`]))
    let one = OnParts.empty<string>()
    for (const [part, value] of plain) one.set('zs', part, value)
    for (let k = 50; k < 400; k++) {
      plain = new Map(plain).set(`part ${k}`, `then ${k}`)
      one = one.copy()
      one.set('zs', `part ${k}`, `then ${k}`)
    }
    for (let k = -1; k <= 400; k++)
      expect([one.has('zs', `part ${k}`), one.get('zs', `part ${k}`)]).toEqual([
        plain.has(`part ${k}`),
        plain.get(`part ${k}`),
      ])
    expect(one.all()).toEqual([...plain.values()])
    expect(one.get('r1r2', 'part 1')).toBeUndefined()
  })

  it('stays as it was where a copy is added to, and two copies do not meet', () => {
    const first = OnParts.empty<number>()
    first.set('zs', 'a', 1)
    const [second, third] = [first.copy(), first.copy()]
    second.set('zs', 'a', 2)
    second.set('zs', 'b', 20)
    second.set('zs', 'c', 21)
    third.set('zs', 'c', 30)
    const seen = (one: OnParts<number>) => ['a', 'b', 'c'].map((part) => one.get('zs', part))
    expect([first, second, third].map(seen)).toEqual([
      [1, undefined, undefined],
      [2, 20, 21],
      [1, undefined, 30],
    ])
    first.set('zs', 'b', 10)
    expect([first, second, third].map(seen)).toEqual([
      [1, 10, undefined],
      [2, 20, 21],
      [1, undefined, 30],
    ])
  })

  it('is made into something else place by place, and found by the name of a step on a part', () => {
    const numbers = OnParts.empty<number>()
    numbers.column('zs').add('a', 1)
    numbers.column('zs').add('b', 2)
    numbers.column('r1r2').add('a', 3)
    const texts = numbers.map(String)
    expect(texts.all()).toEqual(['1', '2', '3'])
    const byKey = new ByKey(texts)
    expect([byKey.get('zs:b'), byKey.get('r1r2:a'), byKey.get('r1r2:b'), byKey.has('ze:a')]).toEqual([
      '2',
      '3',
      undefined,
      false,
    ])
  })
})
