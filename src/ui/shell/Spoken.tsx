'use client'
import { Fragment, type ReactNode, useEffect, useState } from 'react'
import { speak, spoken } from '@/words/language'
import { languageOf } from '@/words/languages'

const KEY = 'upstand.language'

/** Draws everything in this device's language. A page comes in English; another language is drawn once it is here. */
export function Spoken({ children }: { children: ReactNode }) {
  const [tag, setTag] = useState(spoken().tag)
  useEffect(() => {
    void languageOf(localStorage.getItem(KEY)).then((language) => {
      speak(language)
      document.documentElement.lang = language.tag
      setTag(language.tag)
    })
  }, [])
  return <Fragment key={tag}>{children}</Fragment>
}
