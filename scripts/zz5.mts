import { exampleString } from '../src/core/steps/worked'
import { tarnlight } from '../src/server/demo/modules'
import { pressTracer } from '../src/standin/tracer'
import { asBuilt } from '../src/standin/roof'
import { explain } from '../src/core/curve/explain'
import { demoInstruments, demoId } from '../src/server/demo/instruments'
import { sensorReading } from '../src/standin/sensors'
import { moduleModel } from '../src/core/pv/stringModel'
const kit = demoInstruments(Date.now())
const tracer = kit.find(t => t.tag === '06')!, meter = kit.find(t => t.tag === '02')!
const now = Date.parse('2026-05-14T10:00:00.000Z')
const N = Number(process.argv[2] ?? 14)
const string = { ...exampleString(N), moduleType: tarnlight } as any
const model = moduleModel(tarnlight.data)
let n = 0
for (const fault of ['none','none', 'none','shaded', 'bad-joint', 'leaky-cells', 'group-shorted', 'module-turned', 'soiled', 'module-left-out']) {
  n++; while (asBuilt(demoId(n), N).fault !== fault) n++
  const p = pressTracer(tracer, demoId(n), string, 'practice-sky', now) as any
  const pts = p.samples.flatMap((s: any) => s.sweep.points)
  const G = sensorReading('irradiance', 'practice-sky', meter.id, now), back = sensorReading('module-back-temperature', 'practice-sky', meter.id, now)
  const t = performance.now()
  const e = explain({ points: pts, parameters: model.parameters!, module: tarnlight.data, modulesInSeries: N, irradiance_Wm2: G, irradianceUncertainty_Wm2: G * 0.02 + 1, cellTemperature_C: back + 3 * G / 1000, cellTemperatureUncertainty_K: 2, instrument_pct: 0.5 }) as any
  const ms = performance.now() - t
  console.log(fault.padEnd(16), ms.toFixed(0), 'sound', e.isSound, 'ahead', e.ahead_sigma?.toFixed(1), 'tell', e.canTell, '|', e.ranked.slice(0, 5).map((x: any) => `${x.id} ${x.behind_sigma.toFixed(1)}s ${(100 * x.probability).toFixed(0)}% ${JSON.stringify(x.figures, (k, v) => typeof v === 'number' ? Math.round(v * 100) / 100 : v)}`).join(' | '))
}
