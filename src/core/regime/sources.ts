/**
 * Where limits and rules come from. Every figure was written from memory, so `recalled` stays true until somebody
 * holds the document in hand; the certificate prints that mark.
 */
export type Source = {
  document: string
  edition: string | null
  clause: string | null
  standing: 'published' | 'trade' | 'house'
  recalled: boolean
  /** How sure whoever wrote it down was of document, edition and clause. */
  sure: Sure
}
export const sures = ['sure', 'fairly', 'doubt'] as const
export type Sure = (typeof sures)[number]

const published = (document: string, edition: string | null, clause: string | null, sure: Sure = 'fairly'): Source => ({
  document,
  edition,
  clause,
  standing: 'published',
  recalled: true,
  sure,
})

const trade: Source = {
  document: 'common practice, no source',
  edition: null,
  clause: null,
  standing: 'trade',
  recalled: false,
  sure: 'sure',
}
const house = (rule: number): Source => ({
  document: `house rule ${rule}`,
  edition: null,
  clause: null,
  standing: 'house',
  recalled: false,
  sure: 'sure',
})

export const sources = {
  'iec-62446-voltage': published('IEC 62446-1', '2016+A1', '6.4'),
  'iec-62446-current': published('IEC 62446-1', '2016+A1', '6.5'),
  'iec-62446-strings': published('IEC 62446-1', '2016+A1', '6.4 and 6.5'),
  'iec-62446-polarity': published('IEC 62446-1', '2016+A1', '6.2', 'sure'),
  'iec-62446-light': published('IEC 62446-1', '2016+A1', '7.2'),
  'iec-62446-curve': published('IEC 62446-1', '2016+A1', '7.2 and annex D'),
  'iec-62446-continuity': published('IEC 62446-1', '2016+A1', '6.1'),
  'iec-62446-combiner': published('IEC 62446-1', '2016+A1', '6.3'),
  'iec-62446-insulation': published('IEC 62446-1', '2016+A1', '6.7, table 2', 'sure'),
  'iec-62446-functional': published('IEC 62446-1', '2016+A1', '6.6', 'doubt'),
  'iec-62446-inspection': published('IEC 62446-1', '2016+A1', '5.2'),
  'iec-62446-retest': published('IEC 62446-1', '2016+A1', '5.3'),
  'iec-60364-712': published('IEC 60364-7-712', '2017', '712.4 and 712.5'),
  'iec-62548': published('IEC 62548-1', '2023', '6.3 and 7.2'),
  'temperature-table': published('IEC 62548-1', '2023', 'table of voltage factors; NEC 690.7(A)'),
  'iec-60891': published('IEC 60891', '2009', '3.2 to 3.4', 'doubt'),
  'de-soto': published(
    'De Soto, Klein, Beckman, Solar Energy 80',
    '2006',
    'eq. 1 to 12, fifth condition at 27 °C',
    'sure',
  ),
  'king-back': published('King et al., SAND2004-3535', '2004', 'eq. 12'),
  'iec-60904-5': published('IEC 60904-5', null, null),
  'iec-60228': published('IEC 60228', '2023', 'table 2'),
  'bs7671-continuity': published('BS 7671', '2018+A2', '643.2'),
  'bs7671-insulation': published('BS 7671', '2018+A2', '643.3; IEC 60364-6 table 6.1'),
  'bs7671-polarity': published('BS 7671', '2018+A2', '643.6'),
  'bs7671-electrode': published('BS 7671', '2018+A2', '411.5.3, table 41.5 and 643.7.2', 'sure'),
  'bs7671-ze': published('BS 7671', '2018+A2', '643.7.3 and 313.1'),
  'bs7671-zs': published('BS 7671', '2018+A2', '411.4.4, tables 41.2 to 41.4', 'sure'),
  'bs7671-disconnection': published('BS 7671', '2018+A2', 'table 41.1', 'sure'),
  'bs7671-fault-current': published('BS 7671', '2018+A2', '643.7.3.201 and 434.1'),
  'bs7671-overload': published('BS 7671', '2018+A2', '433.1.1 and 433.1.204'),
  'bs7671-drop': published('BS 7671', '2018+A2', '525, 643.11 and appendix 4, table 4Ab'),
  'bs7671-rcd': published('BS 7671', '2018+A2', '643.7 and 643.8'),
  'bs7671-connected': published('BS 7671', '2018+A2', '643.3.3', 'doubt'),
  'bs7671-rcd-type': published('BS 7671', '2018+A2', '531.3.3'),
  'bs7671-rcd-pv': published('BS 7671', '2018+A2', '712.531.3.5'),
  'bs7671-direction': published('BS 7671', '2018+A3', '530.3.201'),
  'iec-60364-5-rcd-type': published('IEC 60364-5-53', '2019+A1', '531.3.3'),
  'bs7671-inspection': published('BS 7671', '2018+A2', '642.3'),
  'bs7671-bonding': published('BS 7671', '2018+A2', '411.3.1.2, 415.2 and 544'),
  'bs7671-sequence': published('BS 7671', '2018+A2', '643.9'),
  'bs7671-functional': published('BS 7671', '2018+A2', '643.10'),
  'iec-60364-6-zs': published('IEC 60364-6', '2016', 'annex D'),
  'iec-60364-6-continuity': published('IEC 60364-6', '2016', '6.4.3.2'),
  'iec-60364-6-insulation': published('IEC 60364-6', '2016', '6.4.3.3, table 6.1'),
  'iec-60364-6-polarity': published('IEC 60364-6', '2016', '6.4.3.6'),
  'iec-60364-6-ze': published('IEC 60364-6', '2016', '6.4.3.7'),
  'iec-60364-6-rcd': published('IEC 60364-6', '2016', '6.4.3.7 and 6.4.3.8'),
  'iec-60364-6-inspection': published('IEC 60364-6', '2016', '6.4.2.3'),
  'iec-60364-6-sequence': published('IEC 60364-6', '2016', '6.4.3.9'),
  'iec-60364-5-bonding': published('IEC 60364-5-54', '2011', '544.1'),
  'iec-60364-6-functional': published('IEC 60364-6', '2016', '6.4.3.10'),
  'iec-60364-4-electrode': published('IEC 60364-4-41', '2005+A1', '411.5.3'),
  'iec-60364-4-disconnection': published('IEC 60364-4-41', '2005+A1', 'table 41.1'),
  'iec-60364-415': published('IEC 60364-4-41', '2005+A1', '415.1.1'),
  'iec-60364-4-fault-current': published('IEC 60364-4-43', '2008', '434.1'),
  'iec-61008': published('IEC 61008-1', '2024', 'table 1 and 9.9', 'doubt'),
  'iec-60364-535': published('IEC 60364-5-53', '2019', '535.3; BS 7671 536.4.1.4'),
  'iec-60059': published('IEC 60059', '1999', 'standard current ratings'),
  'iec-62955': published('IEC 62955', '2018', null, 'sure'),
  'iec-61851-states': published('IEC 61851-1', '2017', 'annex A, table A.2', 'sure'),
  'iec-61851-pilot': published('IEC 61851-1', '2017', 'annex A', 'sure'),
  'iec-61851-proximity': published('IEC 61851-1', '2017', 'annex B'),
  'bs7671-point': published('BS 7671', '2018+A2', '722.531.3 and 722.311'),
  'bs7671-point-earth': published('BS 7671', '2018+A2', '722.411.4.1'),
  'iec-60364-722': published('IEC 60364-7-722', '2018', '722.311 and 722.531'),
  'supply-voltage': published('IEC 60038; EN 50160', null, 'nominal voltage and its range'),
  'bs7430-rods': published('BS 7430', '2011', '9.5; Dwight 1936'),
  'ieee-81': published('IEEE 81', '2012', 'fall of potential; BS 7430'),
  company: {
    document: 'set by the company',
    edition: null,
    clause: null,
    standing: 'house',
    recalled: false,
    sure: 'sure',
  },
  'rating-plate': trade,
  'insulation-practice': trade,
  'continuity-practice': trade,
  'operating-practice': trade,
  'loop-practice': trade,
  'electrode-practice': trade,
  'rcd-practice': trade,
  'fault-current-practice': trade,
  'point-practice': trade,
  'network-rules': trade,
  'direction-practice': trade,
  'house-close-band': house(1),
  'house-light-moved': house(2),
  'house-minute': house(3),
  'house-module-spread': house(4),
  'house-sensor': house(5),
  'house-slip': house(6),
  'house-clamp': house(7),
  'house-plane': house(8),
  'house-joint': house(9),
  'house-earth-fault': house(10),
  'house-loop': house(12),
  'house-perfect': house(13),
  'house-keep-off': house(14),
  'house-along': house(15),
  'house-far-above': house(16),
  'house-curve-shape': house(20),
  'house-without-light': house(22),
  'house-expectation': house(24),
} as const satisfies Record<string, Source>

export type SourceId = keyof typeof sources

/** A source that somebody held against its document: what it says there, by whom and when. The latest counts. */
export type Comparison = {
  source: string
  /** The edition that was held, as it calls itself. */
  edition: string
  by: string
  /** ISO 8601. */
  at: string
  /** The document says the same; where it does not, the note says what. */
  agrees: boolean
  note: string
}
