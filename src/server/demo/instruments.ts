/** The demo company's kit: simulated instruments of invented make. */
import type { Instrument } from '@/core/record/instrument'

export const demoId = (n: number): string => `de300000-0000-7000-8000-${n.toString(16).padStart(12, '0')}`

const day_ms = 86_400_000
const dateFrom = (now: number, days: number): string => new Date(now + days * day_ms).toISOString().slice(0, 10)

export function demoInstruments(now: number): Instrument[] {
  return [
    {
      id: demoId(0x101),
      tag: '07',
      name: 'String tester',
      serial: 'SIM-0007',
      calibrationDue: dateFrom(now, 112),
      standIn: true,
      ranges: [
        { measures: 'dc-polarity', accuracy: { ofReading_pct: 0, digits: 0 }, most: 1000, decimals: 0 },
        { measures: 'dc-voltage', accuracy: { ofReading_pct: 0.5, digits: 2 }, most: 1000, decimals: 1 },
        { measures: 'dc-current', accuracy: { ofReading_pct: 1, digits: 2 }, most: 20, decimals: 2 },
        { measures: 'insulation', accuracy: { ofReading_pct: 3, digits: 2 }, most: 999, decimals: 1 },
        { measures: 'continuity', accuracy: { ofReading_pct: 2, digits: 2 }, most: 200, decimals: 2 },
      ],
      leadSets: [
        { id: 'short', name: 'Short leads' },
        { id: 'reel-30', name: '30 m reel' },
      ],
      joining: { most_V: 1000, most_A: 32 },
    },
    {
      id: demoId(0x102),
      tag: '02',
      name: 'Light and temperature meter',
      serial: 'SIM-0002',
      calibrationDue: dateFrom(now, 9),
      standIn: true,
      ranges: [
        { measures: 'irradiance', accuracy: { ofReading_pct: 2, digits: 1 }, most: 1600, decimals: 0 },
        { measures: 'module-back-temperature', accuracy: { ofReading_pct: 0, digits: 10 }, most: 110, decimals: 1 },
        { measures: 'air-temperature', accuracy: { ofReading_pct: 0, digits: 10 }, most: 80, decimals: 1 },
      ],
    },
    {
      id: demoId(0x103),
      tag: '04',
      name: 'Clamp meter',
      serial: 'SIM-0004',
      calibrationDue: dateFrom(now, -12),
      standIn: true,
      ranges: [{ measures: 'dc-current', accuracy: { ofReading_pct: 1.5, digits: 3 }, most: 60, decimals: 2 }],
    },
    {
      id: demoId(0x104),
      tag: '09',
      name: 'Installation tester',
      serial: 'SIM-0009',
      calibrationDue: dateFrom(now, 71),
      standIn: true,
      ranges: [
        { measures: 'continuity', accuracy: { ofReading_pct: 2, digits: 2 }, most: 200, decimals: 2 },
        { measures: 'insulation', accuracy: { ofReading_pct: 3, digits: 2 }, most: 999, decimals: 1 },
        { measures: 'loop-impedance', accuracy: { ofReading_pct: 3, digits: 2 }, most: 2000, decimals: 2 },
        { measures: 'ac-voltage', accuracy: { ofReading_pct: 1, digits: 2 }, most: 500, decimals: 0 },
        { measures: 'fault-current', accuracy: { ofReading_pct: 5, digits: 5 }, most: 20_000, decimals: 0 },
        { measures: 'rcd-time', accuracy: { ofReading_pct: 2, digits: 2 }, most: 1999, decimals: 1 },
        { measures: 'rcd-current', accuracy: { ofReading_pct: 5, digits: 2 }, most: 1000, decimals: 1 },
        { measures: 'earth-resistance', accuracy: { ofReading_pct: 2, digits: 3 }, most: 2000, decimals: 1 },
        { measures: 'dc-residual-current', accuracy: { ofReading_pct: 4, digits: 1 }, most: 10, decimals: 1 },
        { measures: 'dc-residual-time', accuracy: { ofReading_pct: 2, digits: 2 }, most: 10_000, decimals: 0 },
      ],
      can: ['dc-safe-loop', 'pulsating-trips', 'smooth-trips'],
      halfWait_ms: 2000,
      leadSets: [{ id: 'probes', name: 'Probes and clips' }],
    },
    {
      id: demoId(0x105),
      tag: '11',
      name: 'Plug adapter',
      serial: 'SIM-0011',
      calibrationDue: dateFrom(now, 201),
      standIn: true,
      ranges: [
        { measures: 'ac-voltage', accuracy: { ofReading_pct: 1, digits: 2 }, most: 500, decimals: 0 },
        { measures: 'pilot-voltage', accuracy: { ofReading_pct: 1, digits: 1 }, most: 15, decimals: 1 },
        { measures: 'pilot-duty', accuracy: { ofReading_pct: 0, digits: 2 }, most: 100, decimals: 1 },
        { measures: 'proximity', accuracy: { ofReading_pct: 2, digits: 2 }, most: 5000, decimals: 0 },
        { measures: 'outlet', accuracy: { ofReading_pct: 0, digits: 0 }, most: 1, decimals: 0 },
        { measures: 'disconnection-time', accuracy: { ofReading_pct: 1, digits: 5 }, most: 10_000, decimals: 0 },
      ],
      can: ['ev-adapter'],
    },
    {
      id: demoId(0x106),
      tag: '06',
      name: 'Curve tracer',
      serial: 'SIM-0006',
      calibrationDue: dateFrom(now, 143),
      standIn: true,
      ranges: [{ measures: 'iv-curve', accuracy: { ofReading_pct: 0.5, digits: 0 }, most: 1000, decimals: 0 }],
    },
  ]
}
