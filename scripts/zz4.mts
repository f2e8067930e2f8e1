import { exampleString } from '../src/core/steps/worked'
import { corvane, tarnlight } from '../src/server/demo/modules'
import { pressTracer } from '../src/standin/tracer'
import { asBuilt } from '../src/standin/roof'
import { skyAt } from '../src/standin/sky'
import { featuresOf } from '../src/core/curve/features'
import { demoInstruments, demoId } from '../src/server/demo/instruments'
import { sensorReading } from '../src/standin/sensors'
import { moduleModel } from '../src/core/pv/stringModel'
import { referenceOf } from '../src/core/curve/reference'
const kit = demoInstruments(Date.now())
const tracer = kit.find(t => t.tag === '06')!, meter = kit.find(t => t.tag === '02')!
const now = Date.parse('2026-05-14T10:00:00.000Z')
const string = { ...exampleString(14), moduleType: tarnlight } as any
const model = moduleModel(tarnlight.data)
let n = 0
for (const fault of ['none','none', 'none','shaded', 'bad-joint', 'leaky-cells', 'group-shorted', 'module-turned', 'soiled', 'module-left-out']) {
  n++; while (asBuilt(demoId(n), 14).fault !== fault) n++
  const t = performance.now()
  const p = pressTracer(tracer, demoId(n), string, 'practice-sky', now) as any
  const ms = performance.now() - t
  const pts = p.samples.flatMap((s: any) => s.sweep.points)
  const f = featuresOf(pts) as any
  const G = sensorReading('irradiance', 'practice-sky', meter.id, now), back = sensorReading('module-back-temperature', 'practice-sky', meter.id, now)
  const ref = referenceOf(model.parameters!, tarnlight.data, 14, G, back + 3 * G / 1000) as any
  console.log(fault, ms.toFixed(0), typeof f === 'string' ? f : ['voc_V','isc_A','pmax_W','fillFactor'].map(k => k + ' ' + (100 * (f[k] / ref[k] - 1)).toFixed(2)).join(' '), f.slopeAtVoc_ohm?.toFixed(2), (1/f.slopeAtIsc_S).toFixed(0), JSON.stringify(f.steps), f.scatter_A)
}
