import type { CircuitData, PartData } from '@/core/plant/part'

/** Its device as it is said: B32; empty where none was entered. */
export const deviceWords = ({ device, rating_A }: Pick<CircuitData, 'device' | 'rating_A'>): string =>
  device ? `${device}${rating_A ?? ''}` : ''

/** Its conductors, line and protective: 2.5/1.5 mm²; empty where none were entered. */
export const conductorWords = ({
  line_mm2,
  protective_mm2,
}: Pick<CircuitData, 'line_mm2' | 'protective_mm2'>): string =>
  line_mm2 === null ? '' : `${line_mm2}${protective_mm2 === null ? '' : `/${protective_mm2}`} mm²`

const listed = (...words: readonly string[]): string => words.filter(Boolean).join(', ')

/** What a part is to those who use it: what a circuit feeds and its device, how a board is called. */
export const calledOf = (data: PartData): string =>
  data.kind === 'circuit' ? listed(data.feeds, deviceWords(data)) : data.kind === 'board' ? data.name : ''

/** A circuit or board told from its neighbours by more than its number. */
export const toldApart = (data: PartData): string =>
  data.kind === 'circuit' ? listed(calledOf(data), conductorWords(data)) : calledOf(data)
