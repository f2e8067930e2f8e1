import { Alert, Button } from 'antd'
import { useState } from 'react'
import type { Certificate, Table } from '@/report/certificate'
import { say } from '@/words/say'
import { LetterheadLines } from '../office/LetterheadLines'
import { Mark } from '../mark/Mark'
import { Drawn } from '../picture/Drawn'
import { Working } from '../working/Working'

/** A table of hundreds of rows is shown whole only when it is asked for; its print always is. */
const MOST_ROWS = 60

function CertificateTable({ table }: { table: Table }) {
  const [whole, setWhole] = useState(false)
  const rows = whole ? table.rows : table.rows.slice(0, MOST_ROWS)
  return (
    <>
      <h3>{table.title}</h3>
      {table.note && <p className="small quiet">{table.note}</p>}
      {/* biome-ignore lint/a11y/noNoninteractiveTabindex: a wide table is scrolled by keyboard */}
      <section className="scroll" tabIndex={0} aria-label={table.title}>
        <table className="own-table">
          <thead>
            <tr>
              {table.columns.map((column, k) => (
                <th key={k} className={column.align === 'left' ? 'l' : ''} scope="col">
                  {column.label}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.map((row, r) => (
              <tr key={r}>
                {row.map((cell, k) => (
                  <td
                    key={k}
                    className={cell.align === 'left' ? 'l' : ''}
                    style={cell.verdict ? { whiteSpace: 'nowrap' } : undefined}
                  >
                    {cell.verdict && <Mark verdict={cell.verdict} size={16} named={false} />} {cell.text}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
        {rows.length < table.rows.length && (
          <Button className="small" onClick={() => setWhole(true)}>
            {say('record.all-rows', { count: table.rows.length })}
          </Button>
        )}
      </section>
    </>
  )
}

/** How the whole came out, in one sentence, with how many of each verdict. */
function ResultBand({ result }: { result: Certificate['result'] }) {
  return (
    <Alert
      className="result"
      style={{ background: TINTS[result.verdict], borderColor: 'var(--ink)', padding: '12px 16px' }}
      type={ALERTS[result.verdict]}
      showIcon
      icon={<Mark verdict={result.verdict} size={24} />}
      title={result.sentence}
      description={
        <>
          <p className="counts">
            {result.counts.map(({ verdict, count }) => (
              <span key={verdict}>
                <Mark verdict={verdict} size={16} named={false} /> {count} {say(`verdict.${verdict}`).toLowerCase()}
              </span>
            ))}
          </p>
          {result.besides.map((one) => (
            <p key={one}>{one}</p>
          ))}
        </>
      }
      data-testid="result"
    />
  )
}
/** The tints of verdicts; what has none stands on the paper. */
const TINTS: Partial<Record<Certificate['result']['verdict'], string>> = {
  within: 'var(--within-tint)',
  close: 'var(--close-tint)',
  outside: 'var(--outside-tint)',
}
const ALERTS = {
  within: 'success',
  close: 'warning',
  outside: 'error',
  'not-yet': 'info',
  'held-back': 'info',
  'left-out': 'info',
} as const

/** Who answers for design, construction, inspection: on paper, or signed here. */
function Declarations({ declarations }: Pick<Certificate, 'declarations'>) {
  return (
    <>
      <h3>{say('certificate.signatures')}</h3>
      <dl className="calc declared">
        {declarations.map((one) => (
          <div key={one.role} style={{ display: 'contents' }}>
            <dt>{one.role}</dt>
            <dd>
              <b>{one.name}</b> {one.statement}{' '}
              <span className="quiet">
                {one.at === null
                  ? say('certificate.on-paper')
                  : one.fresh
                    ? one.at
                    : `${one.at} (${say('certificate.stale')})`}
              </span>
            </dd>
          </div>
        ))}
      </dl>
      {declarations.every(({ at }) => at === null) && <p className="small">{say('certificate.unsigned')}</p>}
    </>
  )
}

function Owner({ owner }: Pick<Certificate, 'owner'>) {
  return (
    <section aria-label={owner.title} className="owner">
      <h2>{owner.title}</h2>
      {owner.blocks.map(({ title, lines, inOrder }) => {
        const List = inOrder ? 'ol' : 'ul'
        return (
          <section key={title} aria-label={title}>
            <h3>{title}</h3>
            <List className="small">
              {lines.map((one) => (
                <li key={one}>{one}</li>
              ))}
            </List>
          </section>
        )
      })}
    </section>
  )
}

/** The certificate as it stands, from the same sections as its print. */
type Props = {
  certificate: Certificate
  signed: boolean
  /** Where a picture is, by its id. */
  photoAt(attachment: string): string
}

export function Preview({ certificate, signed, photoAt }: Props) {
  const [sums, setSums] = useState(false)
  const annex = certificate.tables.filter((table) => table.annex)
  return (
    <article className={`cert ${signed ? 'signed' : ''}`} aria-label={certificate.title}>
      <LetterheadLines {...certificate.company} />
      <header className="top">
        <div>
          <b>{certificate.title}</b>
          <small>{certificate.particulars[0]?.[1]}</small>
        </div>
        <div style={{ textAlign: 'right' }}>
          <small>{certificate.issue ? '' : say('record.state')}</small>
          <b>{certificate.issue ? say('certificate.issue', { issue: certificate.issue }) : say('record.draft')}</b>
        </div>
      </header>
      <ResultBand result={certificate.result} />
      <dl className="calc" style={{ gridTemplateColumns: 'auto minmax(0, 1fr)', fontSize: 14, paddingTop: 8 }}>
        {certificate.particulars.map(([label, value]) => (
          <div key={label} style={{ display: 'contents' }}>
            <dt style={{ paddingRight: 14 }}>{label}</dt>
            <dd style={{ textAlign: 'left', whiteSpace: 'normal' }}>{value}</dd>
          </div>
        ))}
      </dl>
      <Declarations declarations={certificate.declarations} />
      {certificate.tables
        .filter(({ head }) => head)
        .map((table) => (
          <CertificateTable key={table.id} table={table} />
        ))}
      <h3>{say('certificate.remarks')}</h3>
      {certificate.remarks.length === 0 ? (
        <p className="small">{say('certificate.no-remarks')}</p>
      ) : (
        <ul className="small">
          {certificate.remarks.map((one) => (
            <li key={one}>{one}</li>
          ))}
        </ul>
      )}
      {certificate.tables
        .filter(({ annex, head }) => !annex && !head)
        .map((table) => (
          <CertificateTable key={table.id} table={table} />
        ))}
      {certificate.drawings.map(({ key, title, drawings }) => (
        <section key={key} aria-label={title}>
          <h3>{title}</h3>
          <div className="drawings">
            {drawings.map((one) => (
              <Drawn key={one.name} drawing={one} />
            ))}
          </div>
        </section>
      ))}
      {certificate.photos.length > 0 && (
        <>
          <h3>{say('certificate.photos')}</h3>
          <div className="photos">
            {certificate.photos.map((photo) => (
              <figure key={photo.attachment}>
                {/* biome-ignore lint/performance/noImgElement: private and small already */}
                <img src={photoAt(photo.attachment)} alt={photo.title || say('photo.title')} loading="lazy" />
                <figcaption className="small">
                  {photo.title} <span className="quiet">{photo.about}</span>
                </figcaption>
              </figure>
            ))}
          </div>
        </>
      )}
      <CertificateTable table={certificate.instruments} />
      <CertificateTable table={certificate.limits} />
      <Owner owner={certificate.owner} />
      {annex.length > 0 && <h2>{say('certificate.annex')}</h2>}
      {annex.map((table) => (
        <CertificateTable key={table.id} table={table} />
      ))}
      <details style={{ paddingTop: 12 }} onToggle={(event) => setSums(event.currentTarget.open)}>
        <summary style={{ minHeight: 44, cursor: 'pointer', fontWeight: 'var(--w-strong)' as never }}>
          {say('certificate.working')}
        </summary>
        {(sums ? certificate.working : []).map((section) => (
          <section key={section.key}>
            <h3>{section.title}</h3>
            <Working lines={section.lines} />
          </section>
        ))}
      </details>
      {certificate.cautions.map((one) => (
        <p key={one} className="src">
          {one}
        </p>
      ))}
    </article>
  )
}
