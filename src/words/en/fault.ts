/** Words of the hunt for an earth fault: what is asked where a string's insulation is low. */
export const fault = {
  'rating.pv.earth-fault': 'Volts to earth of a string without a fault, at most',
  'step.earth-fault.title': 'Find the earth fault, string {tag}',
  'step.earth-fault.short': 'Earth fault',
  'step.earth-fault.about':
    'Only where insulation is low. Two voltages to earth tell where along the string it sits; halving finds one that hides.',

  'choice.two-voltages': 'Voltages to earth',
  'choice.halves': 'By halves',
  'choice.input-1': '1 MΩ',
  'choice.input-10': '10 MΩ',
  'choice.input-11': '11 MΩ',
  'choice.input-20': '20 MΩ',

  'slot.plus-to-minus': '+ to −',
  'slot.plus-volts': '+ to earth, settled',
  'slot.minus-volts': '− to earth, settled',
  'slot.input-resistance': 'Voltmeter’s input',
  'slot.opened-after': 'Opened after module',
  'slot.plus-half': 'Half with +, to earth',
  'slot.minus-half': 'Half with −, to earth',

  'finding.earth-fault.no-reading': 'Read the string itself, then + to earth and − to earth, each once it has settled.',
  'finding.earth-fault.above-string':
    '{plus} V and {minus} V to earth are together more than the string’s {whole} V. The light moved, or a lead was changed over: read all three again.',
  'finding.earth-fault.within':
    '{sum_V:1} V of {whole} V to earth is the meter’s own leakage: string {tag} is clean to earth now. A fault that comes and goes is read again wet and dry.',
  'finding.earth-fault.close':
    '{sum_V:1} V of {whole} V to earth is about what the meter itself leaks. Read again, wet and dry.',
  'finding.earth-fault.outside':
    'An earth fault sits after module {after} of {modules}, counted from +. By these volts: {at:1} modules, ±{off:1}.',
  'finding.earth-fault.outside-between':
    'An earth fault sits somewhere from {from:1} to {to:1} modules from +. Read on a smaller range to place it.',
  'finding.earth-fault.outside-at-plus':
    'An earth fault sits at the + end of string {tag}: plug or cable, not a module.',
  'finding.earth-fault.outside-at-minus':
    'An earth fault sits at the − end of string {tag}: plug or cable, not a module.',
  'finding.earth-fault.ohms.within':
    'What leaks from string {tag} comes to {read} MΩ, at least {least:1} MΩ: no fault now. One that comes and goes is read again wet and dry.',
  'finding.earth-fault.ohms.close':
    'What leaks from string {tag} comes to {read} MΩ, near {least:1} MΩ. Read again wet and dry.',
  'finding.earth-fault.ohms.not-yet': '{read} MΩ decides nothing against {least:1} MΩ. Read on a smaller range.',
  'finding.earth-fault.not-yet': '{read} V decides nothing. Read it on a smaller range.',
  'finding.earth-fault.no-halves': 'Open the string at a plug, say after which module, and read both halves to earth.',
  'finding.earth-fault.no-such-place':
    'String {tag} has {modules|one:# module|other:# modules}: it can be opened after module 1 to {last}, a whole number.',
  'finding.earth-fault.halves-within':
    'Both halves clear {least:1} MΩ. Look at the plug that was parted, and read again damp.',
  'finding.earth-fault.halves-close': '{read} MΩ in one half is near {least:1} MΩ: dry its plugs and read again.',
  'finding.earth-fault.halves-not-yet': '{read} MΩ decides nothing against {least:1} MΩ. Take it on another range.',
  'finding.earth-fault.halves-outside-plus': 'The fault is in the half with +: modules 1 to {after}, {read} MΩ.',
  'finding.earth-fault.halves-outside-minus':
    'The fault is in the half with −: modules {next} to {modules}, {read} MΩ.',
  'finding.earth-fault.halves-outside-both':
    'Both halves are low, {read} MΩ the lower: the plug that was just parted leaks to both sides, there is more than one fault, or damp everywhere. Dry that plug, then halve each by itself.',

  'caution.frame-may-be-live':
    'With an earth fault frames and rails may be at the string’s voltage: gloves, and no bare hand on metal',
  'caution.finger-guarded': 'Finger-guarded probes; earth clip first, one hand where possible',
  'caution.both-ends-open': 'Both plugs open and the string at nothing else: it must float',

  'lead.string-volts': 'string itself',
  'lead.plus-to-earth': '+ to earth',
  'lead.minus-to-earth': '− to earth',
  'lead.plug-parted': 'parted here',
  'lead.half-plus': 'half with +',
  'lead.half-minus': 'half with −',

  'working.earth-fault.sum': '{plus} V + {minus} V: clean to earth up to {share_pct:0} % of {whole} V',
  'working.earth-fault.ohms': 'What leaks, {read} MΩ, against the least insulation',
  'working.earth-fault.place': 'From +: {plus} ÷ ({plus} + {minus}) × {modules|one:# module|other:# modules}',
  'working.earth-fault.resistance': 'Fault: {input_Mohm:0} MΩ × ({whole} ÷ {sum_V:1} − 1)',
  'working.earth-fault.half': '{read} MΩ of {what:slot} against the least',
  'working.earth-fault.too-low-voltage': 'Set to {set_V:0} V, asked are {wanted_V:0} V',

  'picture.string-place': 'Where along string {tag} the fault was found, {count|one:# reading|other:# readings}',
  'picture.string-place.suspect': 'The fault: {from} to {to} modules from +.',
  'picture.string-place.at': 'The fault: plug or cable at the {end} end.',
  'picture.string-place.after': 'The fault: at the plugs after module {after}, counted from +.',
  'picture.string-place.next': 'Open it after module {after} next: that halves what is left.',
  'picture.string-place.unlike': 'Readings name unlike places: it wanders, or there is more than one.',
  'picture.string-place.clean': 'clean to earth',
  'picture.string-place.earlier': 'before it was mended',
}
