/** Words of a day without a light meter: strings against each other, and light worked back from their currents. */
export const dull = {
  'finding.pv-voc.alone':
    '{read} V is kept. Without light and without an alike string beside it, it decides nothing yet: read the current too.',
  'finding.pv-isc.alone':
    '{read} A is kept. Without light it is held against alike strings that are read within 10 minutes: there is none yet.',
  'finding.operating.alone':
    '{read} A is kept. It is held against alike strings that are read within 10 minutes: there is none yet.',
  'finding.sisters.as-read.within':
    '{read} {unit:unit} is {gap_pct:1} % from the {expected:decimals} {unit:unit} of {others|one:the one alike string|other:# alike strings} read with it.',
  'finding.sisters.as-read.close':
    '{read} {unit:unit} is {gap_pct:1} % from the {expected:decimals} {unit:unit} of {others|one:the one alike string|other:# alike strings} read with it, near the limit of {allowed_pct:0} %.',
  'finding.sisters.as-read.not-yet':
    '{read} {unit:unit} decides nothing beside the {expected:decimals} {unit:unit} of its sisters. Take it again on another range.',
  'finding.sisters.as-read-below':
    '{read} {unit:unit} is {gap_pct:1} % below the {expected:decimals} {unit:unit} of {others} alike strings read with it.',
  'finding.sisters.as-read-above':
    '{read} {unit:unit} is {gap_pct:1} % above the {expected:decimals} {unit:unit} of {others} alike strings read with it.',
  'finding.sisters.pair-below':
    '{read} {unit:unit} is {gap_pct:1} % below the {expected:decimals} {unit:unit} of the one alike string. One of the two is wrong: read both again.',
  'finding.sisters.pair-above':
    '{read} {unit:unit} is {gap_pct:1} % above the {expected:decimals} {unit:unit} of the one alike string. One of the two is wrong: read both again.',
  'finding.sisters.light-moved':
    'The light moved between alike strings: one that was read twice came to another figure. Read them again, quickly one after another.',
  'finding.sisters.nothing-there':
    'Most of the alike strings show nothing: {read} {unit:unit} decides nothing beside them. Read them again.',
  'finding.sisters.none-agree':
    'No two of the alike strings agree within {allowed_pct:0} %. Read them again, quickly one after another, the first once more at the end.',
  'finding.by-light.within':
    '{read} V is {gap_pct:1} % from the {expected:1} V (±{off:1}) that {light_Wm2:0} W/m² give, the light which the currents tell.',
  'finding.by-light.close':
    '{read} V is {gap_pct:1} % from the {expected:1} V (±{off:1}) that {light_Wm2:0} W/m² give, the light which the currents tell: near ±{allowed_pct:0} %.',
  'finding.by-light.not-yet':
    '{read} V decides nothing beside the {expected:1} V (±{off:1}) of the light that the currents tell.',
  'finding.by-light.below':
    '{read} V is {gap_pct:1} % below the {expected:1} V (±{off:1}) that {light_Wm2:0} W/m² give, the light which the currents tell.',
  'finding.by-light.above':
    '{read} V is {gap_pct:1} % above the {expected:1} V (±{off:1}) that {light_Wm2:0} W/m² give, the light which the currents tell.',
  'finding.by-plate.within': '{read} V lies where the plate leaves it in whatever light, {expected:1} V ±{off:1}.',
  'finding.by-plate.close':
    '{read} V lies where the plate leaves it in whatever light, {expected:1} V ±{off:1}. That is not much: read the current, or an alike string.',
  'finding.by-plate.not-yet':
    '{read} V decides nothing against the {expected:1} V ±{off:1} of the plate in whatever light.',
  'finding.by-plate.below': '{read} V is too low for any light: the plate leaves {expected:1} V ±{off:1}.',
  'finding.by-plate.above': '{read} V is too high for any light: the plate leaves {expected:1} V ±{off:1}.',

  'left-out-as.no-light-meter': 'No light meter today: the strings are held against each other.',
  'left-out-as.not-bonded-by-design': 'These rails are not bonded, by design.',
  'refused.air-out-of-reach': '{temperature:1} °C is no air that anybody works in. Leave it empty where nobody knows.',
  'conditions.meter.none': 'No light meter today',
  'conditions.without':
    'The strings are each other’s meter: read alike ones within 10 minutes, voltage then current, and the first once more at the end. A fault that all of them share is seen only in the voltages.',
  'conditions.air-about': 'Air, about °C (empty where nobody knows)',
  'conditions.none-today': 'No light meter',
  'conditions.by-strings': 'strings against each other',
  'conditions.air': 'air {value} °C',
  'bench.without-meter': 'No light meter: alike strings that are read within 10 minutes are held against each other.',

  'slot.read-by': 'Read with',
  'choice.clamp-and-volts': 'clamp and voltage',
  'choice.clamp-alone': 'a clamp alone',

  'flag.sisters-only': 'held against its sisters alone: a fault that all of them share is not seen',
  'flag.light-worked-back': 'light worked back from the strings’ own currents',

  'working.sisters.nothing-there': 'Most of the alike show nothing',
  'working.sisters.as-read': 'From the {expected:decimals} of {count} alike, as read; allowed ±{allowed_pct:0} %',
  'working.by-light.band': 'From the expected {expected:1}, with its bracket; allowed ±{allowed_pct:0} %',
  'working.by-plate.band': 'From the middle of the plate’s bracket, {expected:1}; allowed ±{allowed_pct:0} %',
  'working.air.read': 'Air, as it was read (±{off_K:0} K)',
  'working.air.unread': 'Air that nobody read: taken as (±{off_K:0} K)',
  'working.light.worked-back': 'Light by the median current of {count}, known to ±{off_Wm2:0} W/m²',
  'working.by-light.expected': '{modules|one:# module|other:# modules} in that light, known to ±{off:1} V',
  'working.by-plate.expected': '{modules|one:# module|other:# modules} from 50 to 1100 W/m², known to ±{off:1} V',
  'working.by-light.open': 'Too roughly known to decide by it',
} as const
