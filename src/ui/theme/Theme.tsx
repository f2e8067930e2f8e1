'use client'
import { spoken } from '@/words/language'
import { ChevronDown } from '../shell/ChevronDown'
import { libraryWords } from './libraryWords'
import { ConfigProvider, theme as antd, type ThemeConfig } from 'antd'
import { createContext, type ReactNode, useCallback, useContext, useEffect, useMemo, useState } from 'react'
import { colours, FONT_FAMILY, type ThemeName, themeNames } from '@/look/tokens'

function antdTheme(name: ThemeName): ThemeConfig {
  const t = colours[name]
  return {
    ...(name === 'night' ? { algorithm: antd.darkAlgorithm } : {}),
    cssVar: { key: 'upstand' },
    token: {
      colorPrimary: t.accent,
      colorTextLightSolid: t['on-accent'],
      colorSuccess: t.within,
      colorWarning: t.close,
      colorError: t.outside,
      colorInfo: t.accent,
      colorText: t.ink,
      colorTextSecondary: t.ink2,
      colorTextTertiary: t.ink2,
      colorTextDescription: t.ink2,
      colorTextPlaceholder: t.ink2,
      colorIcon: t.ink2,
      // The arrow of a list.
      colorTextQuaternary: t.ink2,
      controlOutline: t.accent,
      controlOutlineWidth: 2,
      // What cannot be changed now is read all the same.
      colorTextDisabled: t.ink2,
      colorBgContainerDisabled: t.paper,
      colorBgLayout: t.paper,
      colorBgContainer: t.sheet,
      colorBgElevated: t.sheet,
      colorBorder: t.ink,
      colorBorderSecondary: t.hair,
      colorSplit: t.hair,
      controlItemBgActive: t['accent-tint'],
      borderRadius: 0,
      borderRadiusSM: 0,
      borderRadiusLG: 0,
      borderRadiusXS: 0,
      fontFamily: FONT_FAMILY,
      fontSize: 16,
      fontSizeSM: 14,
      fontSizeLG: 18,
      fontWeightStrong: 640,
      controlHeight: 52,
      controlHeightSM: 44,
      controlHeightLG: 64,
      controlInteractiveSize: 26,
      lineWidthFocus: 3,
      lineWidth: name === 'sun' ? 2 : 1,
      boxShadow: 'none',
      boxShadowSecondary: 'none',
      boxShadowTertiary: 'none',
      motion: false,
    },
    components: {
      Table: {
        headerBg: 'transparent',
        headerColor: t.ink2,
        headerSplitColor: 'transparent',
        cellPaddingBlockSM: 6,
        cellPaddingInlineSM: 10,
      },
      Segmented: {
        trackBg: t.sheet,
        trackPadding: 0,
        itemSelectedBg: t.ink,
        itemSelectedColor: t.sheet,
        itemHoverBg: t.paper,
        itemColor: t.ink,
        itemHoverColor: t.ink,
      },
      Form: { itemMarginBottom: 0, labelColor: t.ink2, labelFontSize: 14, verticalLabelPadding: '0 0 4px' },
      Button: { primaryShadow: 'none', defaultShadow: 'none', dangerShadow: 'none', paddingInline: 16 },
    },
  }
}

type ThemeState = { name: ThemeName; set(name: ThemeName): void }
const ThemeContext = createContext<ThemeState>({ name: 'day', set: () => undefined })
export const useTheme = (): ThemeState => useContext(ThemeContext)

const KEY = 'upstand.theme'

/** The three themes; the choice stays on the device. */
export function Theme({ nonce, children }: { nonce?: string | undefined; children: ReactNode }) {
  const [name, setName] = useState<ThemeName>('day')
  useEffect(() => {
    const kept = localStorage.getItem(KEY)
    if (themeNames.includes(kept as ThemeName)) setName(kept as ThemeName)
  }, [])
  useEffect(() => {
    document.documentElement.dataset.theme = name
  }, [name])
  const set = useCallback((next: ThemeName) => {
    localStorage.setItem(KEY, next)
    setName(next)
  }, [])
  const csp = useMemo(() => (nonce === undefined ? {} : { nonce }), [nonce])
  const [locale] = useState(() => libraryWords(spoken()))
  const state = useMemo(() => ({ name, set }), [name, set])
  return (
    <ThemeContext.Provider value={state}>
      <ConfigProvider
        theme={antdTheme(name)}
        locale={locale}
        wave={{ disabled: true }}
        csp={csp}
        collapse={{ expandIcon: ({ isActive }) => <ChevronDown folded={!isActive} /> }}
        select={{ suffixIcon: <ChevronDown /> }}
      >
        {children}
      </ConfigProvider>
    </ThemeContext.Provider>
  )
}
