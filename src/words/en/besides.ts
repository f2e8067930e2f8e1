/** What one press of a live test gives besides its own figure. */
export const besides = {
  'besides.title': 'What the same press gave besides',
  'besides.one': '{name} {value} {unit:unit}',
  'slot.volts-l-n': 'Volts L-N',
  'slot.volts-l-pe': 'Volts L-PE',
  'slot.volts-l1-n': 'Volts L1-N',
  'slot.volts-l1-pe': 'Volts L1-PE',
  'slot.volts-l2-n': 'Volts L2-N',
  'slot.volts-l2-pe': 'Volts L2-PE',
  'slot.volts-l3-n': 'Volts L3-N',
  'slot.volts-l3-pe': 'Volts L3-PE',
  'slot.volts-n-pe': 'Volts N-PE',
  'slot.loop-l-pe': 'Loop L-PE',
  'slot.loop-l-n': 'Loop L-N',
  'slot.loop-n-pe': 'Loop N-PE',
  'slot.pefc-besides': 'PEFC here',
  'slot.pscc-besides': 'PSCC here',
  'slot.touch-besides': 'Touch voltage',
  'finding.besides-volts.within': '{pair} {read} V, between {low:0} and {limit:0} V.',
  'finding.besides-volts.not-yet': '{pair} {read} V decides nothing. Read on another range.',
  'finding.besides-volts.no-supply': '{read} V. Enter the supply of {tag}: without it nobody knows what it should be.',
  'finding.besides-volts.off':
    '{pair} {read} V lies outside {low:0} to {limit:0} V: not this circuit’s fault; ask the network.',
  'finding.besides-volts.missing':
    '{pair} {read} V while it is live: a conductor is open, or line and neutral are changed over. Switch off and look.',
  'finding.besides-neutral.within': 'Neutral {read} V from PE, at most {limit:0} V.',
  'finding.besides-neutral.close': 'Neutral {read} V from PE is near {limit:0} V: look at neutral and PE.',
  'finding.besides-neutral.outside':
    'Neutral is {read} V from PE: line and neutral are changed over, or one of them is open. Switch off and look.',
  'finding.besides-neutral.not-yet': 'N-PE {read} V decides nothing. Read on another range.',
  'finding.besides-touch.within': 'Touch voltage {read} V, at most {limit:0} V.',
  'finding.besides-touch.close': 'Touch voltage {read} V is near {limit:0} V.',
  'finding.besides-touch.outside':
    'Metalwork rises to {read} V at the rated current, above {limit:0} V: the earth is too poor for this device.',
  'finding.besides-touch.not-yet': 'Touch voltage {read} V decides nothing. Read on another range.',
  'finding.besides.loops-apart':
    'The three loops do not go together: one is more than the other two. Press firmly and read all three again.',
  'finding.besides.current-apart':
    '{read} A does not follow from a loop of {loop} Ω, which gives {gives:0} A. Read both again.',
  'working.supply-volts': 'Nominal −{low_pct:0} % to +{high_pct:0} %',
  'working.besides.neutral': 'Neutral to PE, at most',
  'working.besides.touch': 'Touch voltage, at most',
  'working.besides.loops-apart': 'No conductor has less than nothing',
  'working.besides.current-apart': 'A loop of {loop} Ω gives {gives:0} A',
  'working.besides.shares': 'Of it L {line:2}, N {neutral:2}, PE {earth:2} Ω',
  'cause.joint-in-line': 'The {above:2} Ω too many are in the line of {tag}',
  'cause.joint-in-protective': 'The {above:2} Ω too many are in the protective conductor of {tag}',
} as const
