import { DateTime } from 'luxon'
import { describe, expect, it } from 'vitest'
import { evaluate, stepKey } from '../evaluate'
import { moduleModel } from '../pv/stringModel'
import { exampleModule } from '../steps/worked'
import { conditions, FactsBuilder, START_ms } from '../testing/factsBuilder'
import { type Entry, isKind } from './entry'
import { guessClock, joinLogger, type LoggerRecord, MOST_LOGGER_ROWS, readLogger } from './loggerFile'

const recordOf = (text: string, zone = 'Europe/London'): LoggerRecord => {
  const read = readLogger(text, zone)
  if ('refused' in read) throw new Error(read.refused)
  return read
}
/** A record every ten seconds, light rising by 1 W/m2 a row so that each minute is unlike the next. */
function rising(from_ms: number, rows = 1000): LoggerRecord {
  return {
    way: 'back',
    skipped: 0,
    rows: Array.from({ length: rows }, (_, k) => ({
      at: from_ms + k * 10_000,
      irradiance: String(300 + k),
      warmth: '40.0',
    })),
  }
}
const options = { ahead_s: 0, reach_s: 60, mounting: 'insulated-back' as const }
const readingsOf = (build: FactsBuilder): Entry<'reading'>[] =>
  build.entries.filter((entry) => isKind(entry, 'reading')) as Entry<'reading'>[]

describe('a logger’s table', () => {
  it('is read with times of the site, in summer too', () => {
    const record = recordOf('time,irradiance,module_temperature\n2026-05-14 11:00:00,742,43.6\n')
    expect(record).toMatchObject({ way: 'back', skipped: 0 })
    expect(record.rows).toEqual([{ at: START_ms, irradiance: '742', warmth: '43.6' }])
  })

  it.each(['Europe/London', 'Australia/Lord_Howe', 'America/St_Johns', 'Asia/Kathmandu'])(
    'reads each time in %s as the zone has it, on the days too when clocks change',
    (zone) => {
      const days = ['2026-03-29', '2026-10-25', '2026-04-05', '2026-10-04', '2026-03-08', '2026-11-01', '2026-06-30']
      const times = days.flatMap((day) =>
        Array.from({ length: 24 * 4 }, (_, k) => {
          const [hour, minute] = [Math.floor(k / 4), (k % 4) * 15 + (k % 7)]
          return `${day} ${String(hour).padStart(2, '0')}:${String(minute).padStart(2, '0')}:30`
        }),
      )
      const text = `time,irradiance,air\n${times.map((time) => `${time},700,20`).join('\n')}`
      const wanted = times.map((time) => DateTime.fromISO(time.replace(' ', 'T'), { zone }).toMillis())
      expect(recordOf(text, zone).rows.map((row) => row.at)).toEqual(wanted.sort((a, b) => a - b))
    },
  )

  it('takes a zone that stands with the time, other orders, semicolons, commas and a byte order mark', () => {
    const record = recordOf(
      '\uFEFFT_air (°C);G_poa (W/m²);Timestamp\n18,5;742,3;14.05.2026 12:00:00\n18,6;743,0;2026-05-14T10:00:10Z\n',
      'Europe/Berlin',
    )
    expect(record.way).toBe('air')
    expect(record.rows).toEqual([
      { at: START_ms, irradiance: '742.3', warmth: '18.5' },
      { at: START_ms + 10_000, irradiance: '743.0', warmth: '18.6' },
    ])
  })

  it('passes over rows that are none, and counts them', () => {
    const record = recordOf(
      'time,irradiance,air\n2026-05-14T10:00:00Z,742,18\nnever,=1+1,x\n2026-05-14T10:01:00Z,,18\n',
    )
    expect([record.rows.length, record.skipped]).toEqual([1, 2])
  })

  it.each([
    ['', 'logger-empty'],
    ['time,irradiance,air', 'logger-empty'],
    ['time,air\n2026-05-14T10:00:00Z,18', 'logger-columns'],
    ['time,irradiance,air\nyesterday,742,18', 'logger-times'],
  ])('refuses %j', (text, refused) => {
    expect(readLogger(text, 'UTC')).toEqual({ refused })
  })

  it('refuses a record without end', () => {
    const text = `time,irradiance,air\n${'2026-05-14T10:00:00Z,742,18\n'.repeat(MOST_LOGGER_ROWS + 5)}`
    expect(readLogger(text, 'UTC')).toEqual({ refused: 'logger-too-many' })
  })
})

describe('a record joined to readings', () => {
  const build = new FactsBuilder()
  const string = build.string('1')
  build.polarity(string)
  build.voltage(string, 380, {}, { conditions: null })
  const [, voltage] = readingsOf(build)
  const at = Date.parse(voltage!.deviceTime)

  it('gives each the row nearest to it, in the device’s own time', () => {
    const [joined] = joinLogger(rising(at - 100_000), [{ ...voltage!, clockOffset_ms: 20_000 }], options)
    // Ten rows to the reading by the device, two more by its offset.
    expect(joined!.conditions.irradiance.read.text).toBe('312')
    expect(joined!.conditions.at).toBe(voltage!.deviceTime)
    expect(joined!.conditions.how).toBe('file')
  })

  it('takes a clock off that is ahead', () => {
    const [joined] = joinLogger(rising(at - 100_000 + 3_600_000), [voltage!], { ...options, ahead_s: 3600 })
    expect(joined!.conditions.irradiance.read.text).toBe('310')
  })

  it('leaves a reading alone that the record does not cover', () => {
    expect(joinLogger(rising(at + 70_000), [voltage!], options)).toEqual([])
    expect(joinLogger(rising(at + 50_000), [voltage!], options).length).toBe(1)
  })

  it('takes no light that no sky gives', () => {
    const night = { ...rising(at - 1000, 2), rows: [{ at, irradiance: '0', warmth: '12.0' }] }
    expect(joinLogger(night, [voltage!], options)).toEqual([])
  })

  it('is judged with its light, and says where that came from', () => {
    const volts = 11 * moduleModel(exampleModule).voc_V(742, 43.6)
    const own = new FactsBuilder()
    const id = own.string('1')
    own.polarity(id)
    const reading = own.voltage(id, volts, {}, { conditions: null })
    const key = stepKey('pv-voc', id)
    expect(evaluate(own.facts(), START_ms).byKey.get(key)!.finding.code).toBe('by-plate.close')
    own.add({ kind: 'conditions', v: 1, target: reading, conditions: conditions(742, 43.6), file: 'roof.csv' })
    const one = evaluate(own.facts(), START_ms).byKey.get(key)!
    expect(one.verdict).toBe('within')
    expect(one.flags).toContain('conditions-from-file')
    expect(one.counting!.entry.id).toBe(reading)
  })
})

describe('a logger whose clock is off', () => {
  const build = new FactsBuilder()
  const string = build.string('1')
  build.polarity(string)
  for (const light of [310, 350, 420]) build.current(string, 3, light)
  const readings = readingsOf(build).slice(1)
  const at = Date.parse(readings[0]!.deviceTime)
  const steady = (ahead_s: number): LoggerRecord => ({
    way: 'back',
    skipped: 0,
    rows: rising(at - 10_000_000 + ahead_s * 1000, 2000).rows.map((row, k) => ({
      ...row,
      irradiance: String(Math.round(100 + k / 3)),
    })),
  })

  it.each([0, 3600, -3600, 7200])('by %d s is found by the light which readings carry', (ahead_s) => {
    const record = steady(ahead_s)
    const own = readings.map((entry) => {
      const k = Math.round((Date.parse(entry.deviceTime) - (at - 10_000_000)) / 10_000)
      return withLight(entry, Math.round(100 + k / 3))
    })
    expect(guessClock(record, own, 60)).toEqual({ ahead_s, why: 'light-agrees' })
  })

  it('is found by what the record covers where no reading carries light', () => {
    const bare = readings.map((entry) => ({ ...entry, body: { ...entry.body, conditions: null } }))
    expect(guessClock(rising(at + 3_590_000, 60), bare, 60)).toEqual({ ahead_s: 3600, why: 'covers' })
    expect(guessClock(rising(at - 10_000, 60), bare, 60)).toEqual({ ahead_s: 0, why: 'covers' })
  })

  it('of another day covers nothing', () => {
    expect(guessClock(rising(at - 86_400_000 * 3, 60), readings, 60)).toEqual({ ahead_s: 0, why: 'none' })
  })
})

function withLight(entry: Entry<'reading'>, value: number): Entry<'reading'> {
  return { ...entry, body: { ...entry.body, conditions: conditions(value) } }
}
