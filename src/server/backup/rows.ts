/** Rows of a database as lines of a backup, out of it and into an empty one. */
import type { Connection } from 'mysql2'
import type mysql from 'mysql2/promise'
import type { BackupLine, Cell, RowCounts } from './backupFile'
import { UnusableBackup } from './backupFile'

export const MIGRATIONS = '__drizzle_migrations'

type Column = { table: string; column: string; isBytes: boolean; isKey: boolean }

/** Every table with its columns in their order; what the migrations keep of themselves is no fact of the company. */
async function columnsOf(connection: mysql.Connection): Promise<Map<string, Column[]>> {
  const [rows] = await connection.query(
    `SELECT c.table_name AS name, c.column_name AS col, c.data_type AS type, c.column_key AS keyed
       FROM information_schema.columns c JOIN information_schema.tables t USING (table_schema, table_name)
      WHERE c.table_schema = DATABASE() AND t.table_type = 'BASE TABLE' AND c.table_name <> ?
      ORDER BY c.table_name, c.ordinal_position`,
    [MIGRATIONS],
  )
  const tables = new Map<string, Column[]>()
  for (const row of rows as { name: string; col: string; type: string; keyed: string }[]) {
    const column = {
      table: row.name,
      column: row.col,
      isBytes: /blob|binary/.test(row.type),
      isKey: row.keyed === 'PRI',
    }
    tables.set(row.name, [...(tables.get(row.name) ?? []), column])
  }
  return tables
}

const named = (name: string): string => `\`${name.replaceAll('`', '``')}\``

/** Values as the database writes them, so that none is parsed and written again: a seal's text stays what was signed. */
function asWritten(isBytes: readonly boolean[]) {
  return {
    rowsAsArray: true,
    typeCast: (field: { buffer(): Buffer | null }) => field.buffer(),
    mapped: (row: (Buffer | null)[]): Cell[] =>
      row.map((value, n) =>
        value === null ? null : isBytes[n] ? { base64: value.toString('base64') } : value.toString('utf8'),
      ),
  }
}

/** All rows as they stood at one moment, whoever writes meanwhile. The connection is the reader's alone. */
export async function* linesOf(
  connection: mysql.Connection,
  without: readonly string[] = [],
): AsyncGenerator<BackupLine> {
  await connection.query('SET SESSION TRANSACTION ISOLATION LEVEL REPEATABLE READ')
  await connection.query('START TRANSACTION WITH CONSISTENT SNAPSHOT, READ ONLY')
  for (const [table, columns] of await columnsOf(connection)) {
    yield { table, columns: columns.map((one) => one.column) }
    if (without.includes(table)) continue
    const { mapped, ...options } = asWritten(columns.map((one) => one.isBytes))
    const keys = columns.filter((one) => one.isKey).map((one) => named(one.column))
    const order = keys.length > 0 ? ` ORDER BY ${keys.join(', ')}` : ''
    const sql = `SELECT ${columns.map((one) => named(one.column)).join(', ')} FROM ${named(table)}${order}`
    const plain = (connection as unknown as { connection: Connection }).connection
    for await (const row of plain.query({ sql, ...options } as never).stream({ highWaterMark: 50 }))
      yield mapped(row as (Buffer | null)[])
  }
  await connection.query('COMMIT')
}

const ROWS_AT_ONCE = 200
const BYTES_AT_ONCE = 4 * 1024 * 1024

/** Takes lines of a backup and writes their rows; nothing in a backup is ever run as SQL. */
export class Filler {
  private known: Map<string, Column[]> | null = null
  private table = ''
  private columns: string[] = []
  private rows: unknown[][] = []
  private bytes = 0

  constructor(
    private readonly connection: mysql.Connection,
    /** Tables whose rows are not wanted. */
    private readonly without: readonly string[] = [],
  ) {}

  async begin(): Promise<void> {
    this.known = await columnsOf(this.connection)
    await this.connection.query('SET SESSION foreign_key_checks = 0')
    await this.connection.query("SET SESSION sql_mode = 'STRICT_ALL_TABLES,NO_AUTO_VALUE_ON_ZERO'")
  }

  async take(line: BackupLine): Promise<void> {
    if (Array.isArray(line)) {
      if (this.without.includes(this.table)) return
      if (line.length !== this.columns.length) throw new UnusableBackup(`A row of ${this.table} has a wrong length.`)
      this.rows.push(line.map((cell) => (cell !== null && typeof cell === 'object' ? fromBase64(cell.base64) : cell)))
      this.bytes += line.reduce((sum, cell) => sum + sizeOf(cell), 0)
      if (this.rows.length >= ROWS_AT_ONCE || this.bytes > BYTES_AT_ONCE) await this.write()
    } else if ('table' in line) {
      await this.write()
      const held = this.known!.get(line.table)?.map((one) => one.column)
      if (!held || line.columns.length !== held.length || line.columns.some((one) => !held.includes(one)))
        throw new UnusableBackup(`The backup’s table ${line.table} is not one of the version that it names.`)
      this.table = line.table
      this.columns = line.columns
    }
  }

  async end(): Promise<void> {
    await this.write()
    await this.connection.query('SET SESSION foreign_key_checks = 1')
  }

  private async write(): Promise<void> {
    if (this.rows.length === 0) return
    const sql = `INSERT INTO ${named(this.table)} (${this.columns.map(named).join(', ')}) VALUES ?`
    await this.connection.query(sql, [this.rows])
    this.rows = []
    this.bytes = 0
  }
}

const fromBase64 = (text: string): Buffer => Buffer.from(text, 'base64')
const sizeOf = (cell: Cell): number => (cell === null ? 4 : typeof cell === 'string' ? cell.length : cell.base64.length)

/** How many rows each table holds. */
export async function countsOf(connection: mysql.Connection): Promise<RowCounts> {
  const counts: RowCounts = {}
  for (const table of (await columnsOf(connection)).keys()) {
    const [rows] = await connection.query(`SELECT COUNT(*) AS n FROM ${named(table)}`)
    counts[table] = Number((rows as { n: number }[])[0]!.n)
  }
  return counts
}

/** Rows that name another row which is not there; empty in a whole database. */
export async function danglingRows(connection: mysql.Connection): Promise<string[]> {
  const [keys] = await connection.query(
    `SELECT table_name AS child, column_name AS col, referenced_table_name AS parent, referenced_column_name AS target
       FROM information_schema.key_column_usage
      WHERE table_schema = DATABASE() AND referenced_table_name IS NOT NULL`,
  )
  const found: string[] = []
  for (const { child, col, parent, target } of keys as Record<'child' | 'col' | 'parent' | 'target', string>[]) {
    const [rows] = await connection.query(
      `SELECT COUNT(*) AS n FROM ${named(child)} c LEFT JOIN ${named(parent)} p ON c.${named(col)} = p.${named(target)}
        WHERE c.${named(col)} IS NOT NULL AND p.${named(target)} IS NULL`,
    )
    const n = Number((rows as { n: number }[])[0]!.n)
    if (n > 0) found.push(`${n} in ${child} name a ${parent} that is not there`)
  }
  return found
}
