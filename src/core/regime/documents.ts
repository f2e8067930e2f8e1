/** Each regime cites its own documents: what one calls by a clause of BS 7671 another has in IEC 60364. */
import type { Judgement } from '../verdict/judgement'
import type { WorkingLine } from '../verdict/working'
import type { Regime } from './regime'
import type { SourceId } from './sources'

/** What a regime by the international documents cites in place of the national ones. */
const international: Partial<Record<SourceId, SourceId>> = {
  'bs7671-continuity': 'iec-60364-6-continuity',
  'bs7671-insulation': 'iec-60364-6-insulation',
  'bs7671-polarity': 'iec-60364-6-polarity',
  'bs7671-electrode': 'iec-60364-4-electrode',
  'bs7671-ze': 'iec-60364-6-ze',
  'bs7671-zs': 'iec-60364-6-zs',
  'bs7671-disconnection': 'iec-60364-4-disconnection',
  'bs7671-fault-current': 'iec-60364-4-fault-current',
  'bs7671-rcd': 'iec-60364-6-rcd',
  'bs7671-rcd-type': 'iec-60364-5-rcd-type',
  'bs7671-rcd-pv': 'iec-60364-712',
  'bs7671-direction': 'direction-practice',
  'bs7671-inspection': 'iec-60364-6-inspection',
  'bs7671-bonding': 'iec-60364-5-bonding',
  'bs7671-sequence': 'iec-60364-6-sequence',
  'bs7671-functional': 'iec-60364-6-functional',
  'bs7671-point': 'iec-60364-722',
  'bs7671-point-earth': 'point-practice',
  'bs7430-rods': 'ieee-81',
}

/** The source as a regime cites it. */
export const cited = ({ schools }: Regime, source: SourceId): SourceId =>
  schools.cites === 'international' ? (international[source] ?? source) : source

/** A judgement with the sources of its regime. */
export function citing(regime: Regime, judgement: Judgement): Judgement {
  if (regime.schools.cites !== 'international') return judgement
  const of = (source: SourceId): SourceId => cited(regime, source)
  const line = (one: WorkingLine): WorkingLine => (one.source ? { ...one, source: of(one.source) } : one)
  return Object.create(judgement, {
    rule: { get: () => judgement.rule && { ...judgement.rule, source: of(judgement.rule.source) }, enumerable: true },
    limits: { get: () => judgement.limits.map((one) => ({ ...one, source: of(one.source) })), enumerable: true },
    lines: { get: () => judgement.lines.map(line), enumerable: true },
  }) as Judgement
}

/** Whether the national documents are cited, whose report wants letters beside the classes of what was found. */
export const citesNational = ({ schools }: Pick<Regime, 'schools'>): boolean => schools.cites === 'national'
