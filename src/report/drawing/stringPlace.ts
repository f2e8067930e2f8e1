/** A string with its modules, and where each reading of a hunt puts the fault. */
import type { PlaceFound, StringPlacePicture } from '@/core/steps/picture'
import { figure, say, sayCode } from '@/words/say'
import { type Drawing, line, type Node, words } from './node'

const WIDE = 344
const LEFT = 22
const RIGHT = WIDE - 22
const STRING_TOP = 26
const STRING_HIGH = 30
const ROW_TOP = STRING_TOP + STRING_HIGH + 26
const ROW_HIGH = 26
/** A range is never drawn narrower. */
const LEAST_WIDE = 6

export function stringPlaceDrawing(picture: StringPlacePicture): Drawing {
  const { modules, readings, suspect, tag } = picture
  const at = (module: number): number => LEFT + ((RIGHT - LEFT) * module) / modules
  const told = sentencesOf(picture)
  const under = ROW_TOP + readings.length * ROW_HIGH
  return {
    name: 'string-place',
    wide: WIDE,
    high: under + 8 + told.length * 20,
    label: [say('picture.string-place', { tag, count: readings.length }), ...told].join('. '),
    nodes: [
      words(LEFT - 12, STRING_TOP + 21, '+', 'middle', true),
      words(RIGHT + 12, STRING_TOP + 21, '−', 'middle', true),
      ...(suspect && !isNarrow(suspect) ? [suspectNode(suspect, at)] : []),
      ...modulesOf(modules, at),
      ...(suspect && isNarrow(suspect) ? [crossAt(at(middleOf(suspect)), STRING_TOP + STRING_HIGH / 2, 9, 5)] : []),
      ...numbersOf(modules, at),
      ...readings.flatMap((one, k) => rowOf(one, k, at)),
      ...told.map((text, k) => words(LEFT - 16, under + 18 + k * 20, text, 'start', k === 0)),
    ],
  }
}

type At = (module: number) => number

const modulesOf = (modules: number, at: At): Node[] =>
  Array.from({ length: modules }, (_, k) =>
    line(`M${at(k) + 1} ${STRING_TOP}H${at(k + 1) - 1}V${STRING_TOP + STRING_HIGH}H${at(k) + 1}Z`, 'ink', 1.4),
  )

/** Every module where there is room for its number, else every fifth. */
function numbersOf(modules: number, at: At): Node[] {
  const every = modules <= 12 ? 1 : 5
  return Array.from({ length: modules }, (_, k) => k + 1)
    .filter((module) => module === 1 || module % every === 0)
    .map((module) => words(at(module - 0.5), STRING_TOP - 8, String(module), 'middle'))
}

const suspectNode = ({ from, to }: { from: number; to: number }, at: At): Node => {
  return {
    tag: 'rect',
    attrs: { x: at(from), y: STRING_TOP, width: at(to) - at(from), height: STRING_HIGH, fill: 'var(--outside-tint)' },
  }
}

/** Down to a module and its plugs: one place. */
const isNarrow = ({ from, to }: { from: number; to: number }): boolean => to - from <= 1
const middleOf = ({ from, to }: { from: number; to: number }): number => (from + to) / 2

const crossAt = (x: number, y: number, reach: number, width: number, colour = 'outside'): Node =>
  line(`M${x - reach} ${y - reach}l${2 * reach} ${2 * reach}m0-${2 * reach}l-${2 * reach} ${2 * reach}`, colour, width)

/** One reading: its range as a bar, its place as a mark; what was read before a mending in pencil. */
function rowOf({ from, to, at: place, surface, ended }: PlaceFound, k: number, at: At): Node[] {
  const y = ROW_TOP + k * ROW_HIGH
  const colour = ended ? 'pencil' : 'ink'
  const said = [
    surface && sayCode('choice', surface),
    from === null ? say('picture.string-place.clean') : '',
    ended ? say('picture.string-place.earlier') : '',
  ]
    .filter(Boolean)
    .join(', ')
  if (from === null || to === null) return [words(LEFT, y + 5, said)]
  const [left, right] = [at(from), Math.max(at(to), at(from) + LEAST_WIDE)]
  const isLeft = (left + right) / 2 < (LEFT + RIGHT) / 2
  return [
    line(`M${left} ${y - 6}v12M${left} ${y}H${right}M${right} ${y - 6}v12`, colour, 2.4),
    ...(place === null ? [] : [crossAt(at(place), y, 5, 3, ended ? 'pencil' : 'outside')]),
    words(isLeft ? right + 8 : left - 8, y + 5, said, isLeft ? 'start' : 'end'),
  ]
}

function sentencesOf({ suspect, isUnlike, openNext, modules }: StringPlacePicture): string[] {
  const told: string[] = []
  if (isUnlike) told.push(say('picture.string-place.unlike'))
  if (suspect) told.push(placeWords(suspect, modules))
  if (openNext !== null) told.push(say('picture.string-place.next', { after: openNext }))
  return told
}

/** Modules are counted from one: what lies after module 3 is module 4, or the plugs between. */
function placeWords({ from, to }: { from: number; to: number }, modules: number): string {
  if (Math.round(to) === 0) return say('picture.string-place.at', { end: '+' })
  if (Math.round(from) === modules) return say('picture.string-place.at', { end: '−' })
  if (isNarrow({ from, to }) && Math.round(from) === Math.round(to))
    return say('picture.string-place.after', { after: Math.round(from) })
  return say('picture.string-place.suspect', { from: figure(from, 1), to: figure(to, 1) })
}
