/** What a string of alike modules gives at an irradiance and cell temperature, by the best model its data sheet allows. */
import { STC_IRRADIANCE_Wm2, STC_TEMPERATURE_C } from './constants'
import { atConditions, fitDeSoto } from './deSoto'
import type { ModuleData } from './moduleData'
import { lightTerm, quickRuleCurrent, quickRuleVoltage } from './quickRule'
import { maximumPowerPoint, openCircuitVoltage, type SingleDiode, shortCircuitCurrent } from './singleDiode'

export type Method = 'de-soto' | 'quick-rule-with-light-term'

/** Per module; a string multiplies volts by its modules in series and amperes by strings in parallel. */
export type ModuleModel = {
  method: Method
  parameters: SingleDiode | null
  voc_V(irradiance_Wm2: number, cellTemperature_C: number): number
  isc_A(irradiance_Wm2: number, cellTemperature_C: number): number
  maximumPower(irradiance_Wm2: number, cellTemperature_C: number): { vmp_V: number; imp_A: number; pmax_W: number }
}

/** The model of a module; a data sheet without a physical solution falls back to the quick rule with the light term. */
export function moduleModel(module: ModuleData): ModuleModel {
  const fit = fitDeSoto(module)
  return fit.state === 'fitted' ? deSotoModel(module, fit.parameters) : quickModel(module)
}

function deSotoModel(module: ModuleData, parameters: SingleDiode): ModuleModel {
  // Every referral asks for the values at STC: they are solved once.
  const stc = { voc_V: openCircuitVoltage(parameters), isc_A: shortCircuitCurrent(parameters) }
  const isStc = (irradiance: number, temperature: number): boolean =>
    irradiance === STC_IRRADIANCE_Wm2 && temperature === STC_TEMPERATURE_C
  return {
    method: 'de-soto',
    parameters,
    voc_V: (irradiance, temperature) =>
      isStc(irradiance, temperature)
        ? stc.voc_V
        : openCircuitVoltage(atConditions(parameters, module, irradiance, temperature)),
    isc_A: (irradiance, temperature) =>
      isStc(irradiance, temperature)
        ? stc.isc_A
        : shortCircuitCurrent(atConditions(parameters, module, irradiance, temperature)),
    maximumPower: (irradiance, temperature) =>
      maximumPowerPoint(atConditions(parameters, module, irradiance, temperature)),
  }
}

function quickModel(module: ModuleData): ModuleModel {
  const voc_V = (irradiance: number, temperature: number): number =>
    quickRuleVoltage(module, 1, temperature) + lightTerm(module.cellsInSeries, irradiance, temperature)
  return {
    method: 'quick-rule-with-light-term',
    parameters: null,
    voc_V,
    isc_A: (irradiance, temperature) => quickRuleCurrent(module, irradiance, temperature),
    maximumPower: (irradiance, temperature) => {
      const imp_A = (module.imp_A * irradiance) / STC_IRRADIANCE_Wm2
      const warmth = 1 + (module.gamma_pctPerK / 100) * (temperature - STC_TEMPERATURE_C)
      const light = lightTerm(module.cellsInSeries, irradiance, temperature)
      const vmp_V = Math.max(0, module.vmp_V * warmth + light)
      return { vmp_V, imp_A, pmax_W: vmp_V * imp_A }
    },
  }
}

/** Fits are costly beside everything else: a bundle of facts holds many copies of few module types. */
export class ModelCache {
  private readonly models = new Map<string, ModuleModel>()
  private readonly bySheet = new WeakMap<ModuleData, ModuleModel>()

  of(module: ModuleData): ModuleModel {
    const known = this.bySheet.get(module)
    if (known) return known
    const key = [
      module.voc_V,
      module.isc_A,
      module.vmp_V,
      module.imp_A,
      module.alpha_pctPerK,
      module.beta_pctPerK,
      module.gamma_pctPerK,
      module.cellsInSeries,
    ].join()
    let model = this.models.get(key)
    if (!model) {
      model = moduleModel(module)
      this.models.set(key, model)
    }
    this.bySheet.set(module, model)
    return model
  }
}

/** value * model(STC)/model(G, Tc): what a reading would have been at standard test conditions. */
export function referToStc(
  value: number,
  modelled: (irradiance_Wm2: number, cellTemperature_C: number) => number,
  irradiance_Wm2: number,
  cellTemperature_C: number,
): number {
  return (value * modelled(STC_IRRADIANCE_Wm2, STC_TEMPERATURE_C)) / modelled(irradiance_Wm2, cellTemperature_C)
}
