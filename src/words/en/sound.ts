/** What looks wrong to the eye and is not. */
export const sound = {
  'finding.sound.dull-light':
    '{low_pct:0} % below the plate’s {plate_V:1} V is the dull light: {irradiance_Wm2:0} W/m² cost {byLight_pct:1} %, cells at {cell_C:0} °C {byWarmth_pct:1} %.',
  'finding.sound.warm-cells':
    '{low_pct:0} % below the plate’s {plate_V:1} V is the warmth: cells at {cell_C:0} °C cost {byWarmth_pct:1} %, {irradiance_Wm2:0} W/m² {byLight_pct:1} %.',
  'finding.sound.longer':
    'String {tag} has {more|one:# module|other:# modules} more than string {other}: {more_V:1} V above it is right.',
  'finding.sound.risen':
    'It rose while the array charged: {read} MΩ is the lowest once it stood. A cable of some length takes a minute.',
  'finding.sound.above-electrode':
    'The loop of {read} Ω is more than the electrode’s {electrode} Ω: the source’s electrode and the copper are in it as well.',
  'finding.sound.under-sum':
    'Less than Ze + (R1+R2), {sum:2} Ω: pipes and other circuits help, in parallel. It is not a fault.',
  'finding.sound.alternating':
    'A device of type {type} was tested with alternating current, as usual: it must trip on that too.',
  'side.sound': 'Sound, though it may not look so',
} as const
