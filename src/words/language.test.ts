import { describe, expect, it } from 'vitest'
import { inEnglish, inLanguage, spoken, tabled } from './language'
import { languageOf } from './languages'
import { pseudo, pseudoOf } from './pseudo'
import { fill, hasWords, say, sayCode } from './say'

describe('another language', () => {
  const table = { 'verdict.within': 'Drin', 'runsheet.done': '{done} von {total} getan' }
  const other = tabled('xx', 'de', table)

  it('is a table beside the first', () => {
    const said = inLanguage(other, () => [say('verdict.within'), say('runsheet.done', { done: 1, total: 2 })])
    expect(said).toEqual(['Drin', '1 von 2 getan'])
    expect(say('verdict.within')).toBe('Within')
  })

  it('says in English what it lacks', () => {
    expect(inLanguage(other, () => sayCode('verdict', 'outside'))).toBe('Outside')
    expect(inLanguage(other, () => hasWords('verdict.outside'))).toBe(true)
  })

  it('is left again where the work throws', () => {
    expect(() =>
      inLanguage(other, () => {
        throw new Error('no')
      }),
    ).toThrow('no')
    expect(spoken()).toBe(inEnglish)
  })

  it('counts by its own rules', () => {
    const days = '{n|one:# dzień|few:# dni|many:# dni|other:# dnia}'
    const polish = tabled('pl', 'pl', {})
    expect(inLanguage(polish, () => [1, 2, 5, 1.5].map((n) => fill(days, { n })))).toEqual([
      '1 dzień',
      '2 dni',
      '5 dni',
      '1.5 dnia',
    ])
  })

  it('is English where there is none of that name', async () => {
    expect(await languageOf('zz')).toBe(inEnglish)
    expect(await languageOf(null)).toBe(inEnglish)
    expect(await languageOf('en-XA')).toBe(pseudo)
  })
})

describe('the language that nobody speaks', () => {
  it('changes every letter, keeps every figure, and is a third longer', () => {
    const made = pseudoOf('Readings of {count|one:# string|other:# strings} at {at}')
    expect(made.replace(/\{\w+|\|\w+:/g, '')).not.toMatch(/[A-Za-z]{2}/)
    expect(inLanguage(pseudo, () => fill(made, { count: 2, at: '11:48' }))).toMatch(/ 2 \S+ \S+ 11:48$/)
    expect([...pseudoOf('measured')].length).toBe(10)
  })
})
