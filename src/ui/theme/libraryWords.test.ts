import english from 'antd/locale/en_US'
import { describe, expect, it } from 'vitest'
import { inEnglish, tabled } from '@/words/language'
import { pseudo } from '@/words/pseudo'
import { libraryWords } from './libraryWords'

describe('what the component library says by itself', () => {
  it('is its own in English', () => {
    expect(libraryWords(inEnglish)).toEqual(english)
  })

  it('comes from the table of another language where it stands there', () => {
    const words = libraryWords(tabled('xx', 'de', { 'library.Empty.description': 'Nichts' }))
    expect(words.Empty?.description).toBe('Nichts')
    expect(words.Popconfirm?.okText).toBe('OK')
  })

  it('keeps how days are formatted, whatever the language', () => {
    const days = libraryWords(pseudo).DatePicker!.lang
    expect(days.today).not.toMatch(/[A-Za-z]{2}/)
    expect([days.locale, days.dateFormat]).toEqual([
      english.DatePicker!.lang.locale,
      english.DatePicker!.lang.dateFormat,
    ])
  })
})
