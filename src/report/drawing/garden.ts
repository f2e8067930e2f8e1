/** The ground around an electrode from above, north up: spikes as they stand, and what is buried. */
import { endsWithin, placeAt, type Point } from '@/core/earth/garden'
import type { GardenPicture } from '@/core/steps/picture'
import { say } from '@/words/say'
import { type Drawing, dot, line, type Node, words } from './node'

const WIDE = 344
const HIGH = 300
const MIDDLE = { x: WIDE / 2, y: HIGH / 2 }
/** The widest circle that is drawn, in units of the drawing. */
const REACH = 132
const SCALES_m = [1, 2, 5, 10, 20, 50, 100]
const LEAST_m = 8

export function gardenDrawing(picture: GardenPicture): Drawing {
  const { way, services } = picture
  const radius_m = 1.1 * Math.max(LEAST_m, way?.distance_m ?? 0, ...services.map((one) => 1.4 * one.away_m))
  const at = ({ east_m, north_m }: Point): [number, number] => [
    MIDDLE.x + (REACH * east_m) / radius_m,
    MIDDLE.y - (REACH * north_m) / radius_m,
  ]
  return {
    name: 'garden',
    wide: WIDE,
    high: HIGH,
    label: say('picture.garden', { tag: picture.tag, services: services.length }),
    nodes: [
      ...services.flatMap((service) => serviceNodes(service, radius_m, at)),
      ...(way ? wayNodes(way, at) : []),
      dot(...at({ east_m: 0, north_m: 0 }), 7),
      words(MIDDLE.x + 11, MIDDLE.y - 9, picture.tag, 'start', true),
      line(`M${WIDE - 18} 40V12m-6 9l6-9 6 9`, 'ink', 2),
      words(WIDE - 18, 56, say('picture.north'), 'middle', true),
      ...scaleNodes(radius_m),
    ],
  }
}

type At = (point: Point) => [number, number]

/** Metal as a full line, anything else dashed; what spoils the reading as thick as a limit. */
function serviceNodes(service: GardenPicture['services'][number], radius_m: number, at: At): Node[] {
  const ends = endsWithin(service, radius_m)
  if (!ends) return []
  const [a, b] = ends.map(at)
  const [labelX, labelY] = a![1] > b![1] ? b! : a!
  const colour = service.spoils ? 'outside' : 'ink2'
  const name = `${service.tag} ${say(`plate-option.${service.what}` as never)}`
  const isRight = labelX > MIDDLE.x
  return [
    line(`M${a!.join(' ')}L${b!.join(' ')}`, colour, service.spoils ? 5 : 2.4, service.isMetal ? '' : '6 4'),
    words(labelX + (isRight ? -4 : 4), Math.max(14, labelY - 8), name, isRight ? 'end' : 'start'),
  ]
}

function wayNodes(way: NonNullable<GardenPicture['way']>, at: At): Node[] {
  const end = placeAt(way.bearing_deg, way.distance_m)
  const [endX, endY] = at(end)
  const spikes = way.shares.map((share) => at(placeAt(way.bearing_deg, share * way.distance_m)))
  const isLeft = endX < MIDDLE.x
  return [
    line(`M${at({ east_m: 0, north_m: 0 }).join(' ')}L${endX} ${endY}`, way.isPlanned ? 'pencil' : 'ink', 1.4, '3 4'),
    ...spikes.map(([x, y]) => dot(x, y, 4, false)),
    { tag: 'rect', attrs: { x: endX - 5, y: endY - 5, width: 10, height: 10, fill: 'var(--ink)' } },
    words(
      endX + (isLeft ? -10 : 10) * (Math.abs(endX - MIDDLE.x) > 90 ? -1 : 1),
      endY + (endY < MIDDLE.y ? -10 : 20),
      say(way.isPlanned ? 'picture.way-planned' : 'picture.way', {
        distance: way.distance_m,
        bearing: way.bearing_deg,
      }),
      Math.abs(endX - MIDDLE.x) > 90 ? (isLeft ? 'start' : 'end') : 'middle',
    ),
  ]
}

function scaleNodes(radius_m: number): Node[] {
  const metres = SCALES_m.findLast((one) => one <= radius_m / 2) ?? SCALES_m[0]!
  const long = (REACH * metres) / radius_m
  return [
    line(`M8 ${HIGH - 16}v6h${long}v-6`, 'ink', 1.8),
    words(14 + long, HIGH - 8, say('picture.scale', { metres })),
  ]
}
