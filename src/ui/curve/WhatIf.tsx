'use client'
import { Button, InputNumber, Slider } from 'antd'
import type { StepEvaluation } from '@/core/evaluation/types'
import { GROUPS_PER_MODULE } from '@/core/curve/reference'
import { say } from '@/words/say'

/** What somebody asks about a string: as many modules as it has and nothing wrong to begin with. */
export type WhatIfState = { modules: number; shaded: number; light_pct: number; bypassed: number; ohm: number }

export const NOTHING_ASKED = ({ part: { data } }: StepEvaluation): WhatIfState => ({
  modules: data.kind === 'string' ? data.modulesInSeries : 1,
  shaded: 0,
  light_pct: 50,
  bypassed: 0,
  ohm: 0,
})

type Props = {
  one: StepEvaluation
  state: WhatIfState
  onState(state: WhatIfState): void
  /** Keeps it as a remark; null where nothing may be kept. */
  onRemark: ((text: string) => void) | null
}

/** Shade some, short a diode, add an ohm, take a module out: the dotted curve follows at once. */
export function WhatIf({ one, state, onState, onRemark }: Props) {
  const groups = state.modules * GROUPS_PER_MODULE
  const change = (next: Partial<WhatIfState>): void => onState({ ...state, ...next })
  const number = (id: keyof WhatIfState, least: number, most: number, step = 1) => (
    <div className="what-if-field">
      <span id={`if-${id}`}>{say(`curve.if-${id}` as 'curve.if-ohm', { groups })}</span>
      <InputNumber
        aria-labelledby={`if-${id}`}
        size="small"
        controls={false}
        min={least}
        max={most}
        step={step}
        value={state[id]}
        onChange={(value) => change({ [id]: value ?? least })}
        data-testid={`if-${id}`}
      />
    </div>
  )
  return (
    <section className="what-if" aria-label={say('curve.what-if')}>
      {number('shaded', 0, groups - 1)}
      <div className="what-if-field">
        <span id="if-light">{say('curve.if-light_pct', { light_pct: state.light_pct })}</span>
        <Slider
          min={0}
          max={100}
          value={state.light_pct}
          onChange={(light_pct) => change({ light_pct })}
          ariaLabelledByForHandle="if-light"
          tooltip={{ open: false }}
        />
      </div>
      {number('bypassed', 0, groups - 1)}
      {number('ohm', 0, 100, 0.5)}
      {number('modules', 1, 60)}
      {onRemark && (
        <Button className="small" onClick={() => onRemark(remarkOf(one, state))} data-testid="if-remark">
          {say('curve.if-remark')}
        </Button>
      )}
    </section>
  )
}

/** What was tried, in one sentence. */
export function remarkOf(one: StepEvaluation, state: WhatIfState): string {
  const { tag } = one.part.data
  const base = NOTHING_ASKED(one)
  const parts = [
    state.modules !== base.modules ? say('curve.tried-modules', state) : null,
    state.shaded > 0 ? say('curve.tried-shaded', state) : null,
    state.bypassed > 0 ? say('curve.tried-bypassed', state) : null,
    state.ohm > 0 ? say('curve.tried-ohm', state) : null,
  ].filter((part) => part !== null)
  return say('curve.tried', { tag, what: parts.join(', ') || say('curve.tried-nothing') })
}
