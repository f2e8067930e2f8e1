import type mysql from 'mysql2/promise'

const JOB = '11111111-1111-7111-8111-111111111111'
const VISIT = '22222222-2222-7222-8222-222222222222'

/** The database as the version before the last migrations left it: three entries, two seals of a clock that went back. */
export async function asVersionBefore(owner: mysql.Connection): Promise<void> {
  for (const statement of [
    'DROP TABLE source_check',
    'ALTER TABLE feed_sample ADD UNIQUE INDEX feed_once_of_value (instrument_id, quantity, at, value)',
    'ALTER TABLE feed_sample DROP INDEX feed_once_of_pair',
    'ALTER TABLE feed_sample DROP COLUMN pair',
    'ALTER TABLE company DROP COLUMN letterhead',
    'ALTER TABLE module_type DROP COLUMN retired',
    'DROP TABLE printed',
    'DROP TABLE audit',
    'DROP TABLE invitation',
    'ALTER TABLE job_person DROP COLUMN since',
    'ALTER TABLE feed_sample DROP COLUMN sweep',
    'DROP TABLE seal_key',
    'ALTER TABLE entry ADD INDEX entry_by_job (job_id, received_at)',
    'ALTER TABLE entry DROP INDEX entry_place',
    'ALTER TABLE entry DROP COLUMN seq, DROP COLUMN clock_moved_ms',
    'ALTER TABLE seal DROP INDEX seal_number',
    'ALTER TABLE seal DROP COLUMN number',
    'ALTER TABLE job DROP COLUMN seals, DROP COLUMN due_on, DROP COLUMN put_away_at',
    'DELETE FROM `__drizzle_migrations` ORDER BY created_at DESC LIMIT 11',
  ])
    await owner.query(statement)
  const [[{ id: person }]] = (await owner.query('SELECT id FROM person')) as unknown as [[{ id: string }]]
  const [[regime]] = (await owner.query('SELECT id, version FROM regime LIMIT 1')) as unknown as [
    [{ id: string; version: number }],
  ]
  await owner.query(
    "INSERT INTO job (id, number, name, place, time_zone, regime_id, regime_version, created_at) VALUES (?, '1', 'Old', '', 'UTC', ?, ?, '2026-01-01')",
    [JOB, regime.id, regime.version],
  )
  await owner.query("INSERT INTO visit VALUES (?, ?, '2026-01-01', '')", [VISIT, JOB])
  for (const [letter, received] of [
    ['a', '2026-01-02'],
    ['b', '2026-01-01'],
    ['c', '2026-01-02'],
  ] as const)
    await owner.query(
      "INSERT INTO entry (id, job_id, visit_id, kind, person_id, device_time, clock_offset_ms, received_at, body, body_hash) VALUES (?, ?, ?, 'remark', ?, ?, 0, ?, ?, REPEAT('0', 64))",
      [
        letter.repeat(36),
        JOB,
        VISIT,
        person,
        received,
        received,
        JSON.stringify({ kind: 'remark', v: 1, text: letter }),
      ],
    )
  for (const [issue, at] of [
    ['A', '2026-02-02'],
    ['B', '2026-02-01'],
  ] as const)
    await owner.query("INSERT INTO seal VALUES (?, ?, ?, ?, REPEAT('0', 64), '{}')", [issue.repeat(36), JOB, issue, at])
}
