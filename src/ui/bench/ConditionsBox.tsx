'use client'
import type { WithoutMeter } from '@/core/evaluate'
import type { Conditions } from '@/core/record/entry'
import type { ModuleData } from '@/core/pv/moduleData'
import { weatherOf } from '@/core/pv/conditions'
import { figure, say } from '@/words/say'

type Props = {
  conditions: Conditions | null
  module: ModuleData | null
  taken: boolean
  apart_s: number | null
  /** What is known of the air: all there is where there is no light meter. */
  without: WithoutMeter | null
  onOpen(): void
}

/** Light and warmth at the reading; dashed, because they came by themselves. Press it to type them. */
export function ConditionsBox({ conditions, module, taken, apart_s, without, onOpen }: Props) {
  const weather = conditions && module ? weatherOf(conditions, module) : null
  return (
    <button type="button" className="slot auto" onClick={onOpen} data-testid="conditions">
      <span className="nm">{say(taken ? 'conditions.then' : 'conditions.now')}</span>
      {weather ? (
        <span className="minis">
          <span>
            <b>{figure(weather.irradiance_Wm2, 0)}</b> W/m²
          </span>
          <span>
            <b>{figure(weather.cell.value_C, 1)}</b> °C {say('conditions.cell')}{' '}
            <span className="quiet">±{figure(weather.cell.uncertainty_K, 1)}</span>
          </span>
          {without?.air && <span className="small">{say('conditions.air', { value: without.air.read.text })}</span>}
          <span className="small quiet">
            {apart_s !== null && apart_s > 60
              ? say('conditions.apart', { minutes: Math.round(apart_s / 60) })
              : say('conditions.change')}
          </span>
        </span>
      ) : without && !conditions ? (
        <span className="minis">
          <b>{say('conditions.none-today')}</b>
          <span className="small">{say('conditions.by-strings')}</span>
          {without.air && <span className="small">{say('conditions.air', { value: without.air.read.text })}</span>}
          <span className="small quiet">{say('conditions.change')}</span>
        </span>
      ) : (
        <span className="minis">
          <b>{say('conditions.none')}</b>
          <span className="small quiet">{say('conditions.type-them')}</span>
        </span>
      )}
    </button>
  )
}
