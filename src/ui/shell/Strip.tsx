'use client'
import type { ReactNode } from 'react'
import { say, type WordKey } from '@/words/say'
import { type ThemeName, themeNames } from '@/look/tokens'
import { useTheme } from '../theme/Theme'

export function Logo() {
  return (
    <svg width="30" height="30" viewBox="0 0 32 32" aria-hidden="true">
      <path d="M6 4V26.5H28" fill="none" stroke="var(--ink)" strokeWidth="5" />
      <circle cx="19" cy="13" r="5.5" fill="var(--accent)" />
    </svg>
  )
}

const themeShapes: Record<ThemeName, ReactNode> = {
  day: (
    <>
      <path d="M-9 5H9" stroke="currentColor" strokeWidth="2.4" />
      <path d="M-6 5A6 6 0 0 1 6 5Z" fill="currentColor" />
      <path d="M0-9V-5M-9-3l3 2M9-3l-3 2" stroke="currentColor" strokeWidth="2" />
    </>
  ),
  sun: (
    <>
      <circle r="5" fill="currentColor" />
      {[0, 45, 90, 135, 180, 225, 270, 315].map((angle) => (
        <path key={angle} d="M7.4 0H11" transform={`rotate(${angle})`} stroke="currentColor" strokeWidth="2.4" />
      ))}
    </>
  ),
  night: <path d="M3-9A9 9 0 1 0 9 3 7.5 7.5 0 0 1 3-9Z" fill="currentColor" />,
}

export function ThemeSwitch() {
  const { name, set } = useTheme()
  return (
    // biome-ignore lint/a11y/useSemanticElements: a row of three switches in the strip, not a form
    <div className="themes" role="group" aria-label={say('theme.name')}>
      {themeNames.map((one) => (
        <button
          key={one}
          type="button"
          title={say(`theme.${one}` as WordKey)}
          aria-pressed={name === one}
          aria-label={say(`theme.${one}` as WordKey)}
          onClick={() => set(one)}
        >
          <svg width="24" height="24" viewBox="-12 -12 24 24" aria-hidden="true">
            {themeShapes[one]}
          </svg>
        </button>
      ))}
    </div>
  )
}

/** The top strip: ruled cells; what is saved where, who is here, and the theme, always one tap away. */
export function Strip({
  title,
  about,
  children,
  who,
}: {
  title: string
  about: string
  children?: ReactNode
  who: ReactNode
}) {
  return (
    <header className="strip">
      <a className="brand" href="/">
        <Logo />
        <span className="name">Upstand</span>
        <span className="hidden">{say('strip.to-today')}</span>
      </a>
      <div className="grow">
        <b>{title}</b>
        <small>{about}</small>
      </div>
      {children}
      {who}
      <ThemeSwitch />
    </header>
  )
}
