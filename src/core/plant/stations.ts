/** Stations of the line, from the sun to earth. */
export const stationsOfLine = [
  { id: 'modules', side: 'dc' },
  { id: 'strings', side: 'dc' },
  { id: 'dc-switch', side: 'dc' },
  /** What comes in is direct current, and what goes out is not. */
  { id: 'inverter', side: 'both' },
  { id: 'supply', side: 'ac' },
  { id: 'board', side: 'ac' },
  { id: 'rcd', side: 'ac' },
  { id: 'charge-point', side: 'ac' },
  { id: 'electrode', side: 'ac' },
] as const
export type Station = (typeof stationsOfLine)[number]['id']
