/** Sentences for what the core finds: steps, slots, verdicts, findings, gates, cautions, causes, working. */
export const trade = {
  'verdict.within': 'Within',
  'verdict.close': 'Close to limit',
  'verdict.outside': 'Outside',
  'verdict.to-mend': 'To be mended',
  'verdict.not-yet': 'Not yet',
  'verdict.held-back': 'Held back',
  'verdict.left-out': 'Left out',

  'station.modules': 'Modules',
  'station.strings': 'Strings',
  'station.dc-switch': 'DC switch',
  'station.inverter': 'Inverter',

  'tag.live': 'Live',
  'tag.live-in-daylight': 'Live in daylight',
  'tag.dead': 'Dead',

  'step.pv-polarity.title': 'Check polarity, string {tag}',
  'step.pv-polarity.short': 'Polarity',
  'step.pv-polarity.about': 'At the open plugs, nothing connected.',
  'step.pv-voc.title': 'Read voltage, string {tag}',
  'step.pv-voc.short': 'Voltage',
  'step.pv-voc.about': 'Open plugs, no load connected.',
  'step.pv-isc.title': 'Read current, string {tag}',
  'step.pv-isc.short': 'Current',
  'step.pv-isc.about': 'Short-circuit current, with the light of the same moment.',

  'slot.polarity': 'Polarity',
  'slot.voltage': '+ to −',
  'slot.current': 'Current',
  'choice.correct': 'Right way',
  'choice.reversed': 'Reversed',

  'place.plugs': 'at the plugs',
  'place.switch': 'at the switch',
  'place.inverter': 'at the inverter’s end',

  'measures.dc-polarity': 'polarity',
  'measures.dc-voltage': 'DC voltage',
  'measures.dc-current': 'DC current',
  'measures.irradiance': 'irradiance in plane',
  'measures.module-back-temperature': 'temperature of a module’s back',
  'measures.air-temperature': 'air temperature',

  'finding.not-yet.no-reading': 'No reading yet.',
  'finding.not-yet.nothing-to-compare': 'Nothing is entered that it could be compared with.',
  'finding.incomplete': 'Still wanted: {slot:slot}.',
  'finding.leads-not-nulled': 'These leads were not the last to be nulled on this tester in this visit: close at best.',
  'finding.regime-lacks': 'This job’s regime has no figure for “{limit:limit}”: a reading, and no verdict.',
  'finding.close.whisker': 'Its own uncertainty of ±{whisker:3} {unit:unit} reaches the limit.',
  'finding.close.on-limit': 'It lies exactly on the limit.',
  'finding.lapsed.dead.entry':
    'No longer proved dead: the supply came on since. Prove it again before anything is touched.',
  'finding.lapsed.dead.visit': 'Proved dead on an earlier visit. Prove it again before anything is touched.',
  'finding.lapsed.isolated.entry': 'Switched on again since. Isolate again before a plug is parted.',
  'finding.lapsed.isolated.visit': 'Isolated on an earlier visit. Isolate again before a plug is parted.',
  'finding.lapsed.nulled.entry': 'The null no longer holds. Null the leads again.',
  'finding.lapsed.nulled.visit': 'Nulled on an earlier visit. Null the leads of today.',
  'finding.lapsed.earth-on.entry': 'The earthing conductor came off again for {step:step}. Put it back, and say so.',
  'finding.lapsed.electrode-on.entry': 'The conductor of electrode {tag} came off again. Put it back, and say so.',
  'finding.lapsed.plugs-locked.entry':
    'The plugs of string {tag} were opened again for {step:step}. Lock and tug them again.',
  'finding.lapsed.surge-in.entry':
    'Surge protection {tag} was taken out again for {step:step}. Press it home, and say so.',
  'finding.of-new-work':
    'Asked of new work. In a periodic inspection take it where something was altered, or where another reading gives cause.',
  'finding.on-need': 'Asked for only where another test of {tag} gives cause, as it does now.',
  'finding.not-needed': 'Not asked for now: no other test of {tag} gives cause.',
  'finding.left-out': 'Not to be tested: {reason}',
  'finding.plant-changed':
    'The plant was changed after this reading: {what:field}. Take it again, or confirm that it still belongs to {tag}.',
  'finding.two-people': 'Two people read unlike values on {tag}. Choose which one counts; both are kept.',
  'finding.pv-polarity.within': 'String {tag} is the right way round.',
  'finding.pv-polarity.outside':
    'String {tag} is reversed. Do not join it to anything, and take no current or insulation reading until it is put right.',
  'finding.pv-polarity.not-yet': 'Say which way round the string is.',
  'finding.pv-voc.no-reading': 'No voltage yet.',
  'finding.pv-voc.no-conditions': 'Light and cell temperature are needed before a voltage can be judged.',
  'finding.pv-voc.within-below':
    '{read} V is {gap:1} V below the {expected:1} V expected, {gap_pct:1} % low. Allowed: ±{allowed_pct:0} %.',
  'finding.pv-voc.within-above':
    '{read} V is {gap:1} V above the {expected:1} V expected, {gap_pct:1} % high. Allowed: ±{allowed_pct:0} %.',
  'finding.pv-voc.close-below':
    '{read} V is {gap_pct:1} % below the {expected:1} V expected and near the −{allowed_pct:0} % limit. Take it again before you go on.',
  'finding.pv-voc.close-above':
    '{read} V is {gap_pct:1} % above the {expected:1} V expected and near the +{allowed_pct:0} % limit. Take it again before you go on.',
  'finding.pv-voc.outside-below': '{read} V is {gap:1} V below the {expected:1} V expected, {gap_pct:1} % low.',
  'finding.pv-voc.outside-above': '{read} V is {gap:1} V above the {expected:1} V expected, {gap_pct:1} % high.',
  'finding.pv-voc.bound-within': '{read} V lies within ±{allowed_pct:0} % of the {expected:1} V expected.',
  'finding.pv-voc.bound-close': '{read} V lies near the limit of ±{allowed_pct:0} % of {expected:1} V.',
  'finding.pv-voc.bound-outside': '{read} V lies beyond the {expected:1} V expected by more than ±{allowed_pct:0} %.',
  'finding.pv-voc.bound-not-yet': '{read} V decides nothing against {expected:1} V. Take it again on another range.',
  'finding.pv-isc.no-reading': 'No current yet.',
  'finding.pv-isc.no-conditions': 'Light and cell temperature are needed before a current can be judged.',
  'finding.pv-isc.within-below':
    '{read} A is {gap:2} A below the {expected:2} A expected, {gap_pct:1} % low. Allowed: ±{allowed_pct:0} %.',
  'finding.pv-isc.within-above':
    '{read} A is {gap:2} A above the {expected:2} A expected, {gap_pct:1} % high. Allowed: ±{allowed_pct:0} %.',
  'finding.pv-isc.close-below':
    '{read} A is {gap_pct:1} % below the {expected:2} A expected and near the −{allowed_pct:0} % limit. Read light and current at one moment, and again.',
  'finding.pv-isc.close-above':
    '{read} A is {gap_pct:1} % above the {expected:2} A expected and near the +{allowed_pct:0} % limit. Read light and current at one moment, and again.',
  'finding.pv-isc.outside-below': '{read} A is {gap:2} A below the {expected:2} A expected, {gap_pct:1} % low.',
  'finding.pv-isc.outside-above': '{read} A is {gap:2} A above the {expected:2} A expected, {gap_pct:1} % high.',
  'finding.pv-isc.bound-within': '{read} A lies within ±{allowed_pct:0} % of the {expected:2} A expected.',
  'finding.pv-isc.bound-close': '{read} A lies near the limit of ±{allowed_pct:0} % of {expected:2} A.',
  'finding.pv-isc.bound-outside': '{read} A lies beyond the {expected:2} A expected by more than ±{allowed_pct:0} %.',
  'finding.pv-isc.bound-not-yet': '{read} A decides nothing against {expected:2} A. Take it again on another range.',
  'finding.sisters.below':
    'Referred to the same light, string {tag} reads {deviation_pct:1} % below its {others|one:# sister string|other:# sister strings}. Strings alike agree within {allowed_pct:0} %.',
  'finding.sisters.above':
    'Referred to the same light, string {tag} reads {deviation_pct:1} % above its {others|one:# sister string|other:# sister strings}. Strings alike agree within {allowed_pct:0} %.',
  'finding.held-back.polarity-first': 'Waits for the polarity of string {tag}.',
  'finding.held-back.reversed-polarity': 'String {tag} is reversed. Put it right and check its polarity again first.',
  'finding.held-back.polarity-known':
    'Waits for the polarity of string {tag}: no current is taken from a string that may be reversed.',
  'finding.held-back.voltage-first':
    'Waits for the voltage of string {tag}: current and insulation are read on strings that are known to be whole.',
  'finding.held-back.tester-unknown':
    'Nothing in the kit says that it may be connected to {needed:0} {unit:unit} of {tag}. Enter the instrument, or say with what you read it.',
  'finding.held-back.tester-rating':
    'String {tag} can reach {needed:1} {unit:unit}; the highest input in the kit is {best:0} {unit:unit}. Do not connect it: bring an instrument that is made for it.',

  'gate.polarity-first': 'Polarity of string {tag}',
  'gate.reversed-polarity': 'String {tag} not reversed',
  'gate.polarity-known': 'Polarity of string {tag} right',
  'gate.voltage-first': 'Voltage of string {tag}',
  'gate.tester-rating': 'An instrument rated for string {tag}',
  'gate.tester-unknown': 'An instrument that is known to bear string {tag}',

  'caution.no-load-before-parting': 'DC switch open, clamp reads 0 A before a plug is parted',
  'caution.live-in-daylight': 'Open plugs are live in daylight; nobody can switch the sun off',
  'caution.leads-rated': 'Probes with finger guards, leads rated for the string',
  'caution.tester-rating': 'Tester and leads rated above this string’s voltage',
  'caution.switch-off-to-connect': 'Short-circuit switch is OFF while connecting and before parting',
  'caution.dc-arcs': 'Never touch probes together: DC arcs. Switch rated for Voc and 1.25 × Isc',
  'caution.general': 'This tool records and calculates; the competent person decides; local rules come first.',

  'lead.red-to-plus': 'red',
  'lead.black-to-minus': 'black',
  'lead.tester-or-clamp': 'tester or clamp',
  'lead.switch-rated': 'rated switch',

  'flag.stand-in': 'from a simulated instrument',
  'flag.weak-conditions': 'weak: light and warmth are known too roughly for this band',
  'flag.weak-light': 'weak: less than 400 W/m²',
  'flag.weak-translation': 'weak at standard test conditions: less than 700 W/m²',
  'flag.fast-sweep': 'swept in under 10 ms: cells with much capacitance lag behind, and their power is off',
  'flag.light-moved': 'weak: light moved more than 5 % between strings',
  'flag.conditions-apart': 'light was read more than a minute away',
  'flag.clock-moved': 'time unsure: the device’s clock was moved',
  'flag.instrument-out-of-date': 'instrument out of calibration',
  'flag.over-instrument-range': 'above the instrument’s rating',
  'flag.while-held-back': 'taken while held back',
  'flag.plant-changed': 'plant changed since',
  'flag.departs-from-table': 'departs from the standard’s table',
  'flag.earlier-questions': 'read before all of today’s questions were asked',
  'flag.two-people': 'two people read unlike values',
  'flag.unlikely-confirmed': 'unlikely value, confirmed',
  'flag.fallback-model': 'data sheet has no single-diode solution: quick rule with light term used',
  'flag.estimated-temperature': 'cell temperature estimated from the air: ±10 % band',

  'cause.modules-missing': '{count} of {modules} modules left out',
  'cause.modules-extra': '{count|one:# module|other:# modules} more than entered',
  'cause.module-reversed': 'One module the wrong way round',
  'cause.module-missing-at-all': 'A module left out',
  'cause.groups-bypassed': '{count} of {groups} bypass diodes shorted',
  'cause.cells-hotter': 'Cells hotter than read',
  'cause.cells-cooler': 'Cells cooler than read',
  'cause.plugged-into-the-wrong-string': 'A module plugged into string {other}',
  'cause.plugs-crossed': 'Plugs made up the wrong way round',
  'cause.leads-crossed': 'Tester leads crossed',
  'cause.light-moved': 'Light moved between light and current',
  'cause.sensor-out-of-plane': 'Light sensor not in the plane of this array',
  'cause.soiling-or-even-shade': 'Soiling or even shade',
  'cause.switch-not-closed': 'Short-circuit switch not closed',
  'cause.two-strings-joined': 'Two strings joined',
  'cause.edge-of-cloud': 'Bright edge of a cloud',
  'cause.another-module-type': 'Another module type than entered',

  'meaning.modules-missing': 'String {tag} reads as if {count} of {modules} modules were left out.',
  'meaning.modules-extra': 'String {tag} reads as if it had {count|one:# module|other:# modules} more than entered.',
  'meaning.groups-bypassed': 'String {tag} reads as if {count} bypass diodes were shorted.',
  'meaning.plugged-into-the-wrong-string':
    'String {tag} and string {other} read as if a module had been plugged into the wrong one.',
  'meaning.two-strings-joined': 'String {tag} reads as if two strings were joined.',
  'meaning.switch-not-closed': 'String {tag} reads as if the short-circuit switch were open.',

  'fit.fits': 'fits',
  'fit.may-fit': 'may fit',
  'fit.does-not-fit': 'doesn’t fit',
  'fit.needs_V': 'needs {predicted:1} V',
  'fit.needs_C': 'needs {needed_C:0} °C',

  'next.count-the-modules': 'Count the modules and plugs along string {tag}. Expect {modules}.',
  'next.find-the-reversed-module':
    'Under load it loses 2 to 3 % less power than two missing modules. Look for a crossed pair of plugs.',
  'next.sweep-a-curve': 'Sweep a curve; look at the modules with a thermal camera.',
  'next.check-the-cell-sensor':
    'See that the sensor sits on a module’s back and reads what the cells are: {needed_C:0} °C would explain it.',
  'next.follow-both-strings': 'Follow strings {tag} and {other} to their ends and count both.',
  'next.follow-the-marks': 'Follow the marks from the last module to the plug; remake the plug.',
  'next.check-the-leads': 'Red lead to the plug marked +. Read again.',
  'next.take-both-at-once': 'Read light and current at the same moment, and again.',
  'next.check-the-sensor-plane': 'Lay the sensor flat on this array. {needed_Wm2:0} W/m² would explain it.',
  'next.look-along-the-string': 'Look along the string for dirt, covers, a mast, a chimney.',
  'next.close-the-switch': 'Close the switch, wait for a steady figure, read again.',
  'next.part-the-strings': 'Part the strings and read each one alone.',
  'next.read-the-data-plate': 'Read the data plate on a module’s back.',

  'working.not-judged': 'Nothing to judge yet',
  'working.nothing-to-compare': 'Nothing is entered to compare with',
  'working.regime-lacks': 'The regime has no figure for {limit:limit}',
  'working.overruled': 'Not by the figure: {because:finding}',
  'working.pv-polarity.rule': 'Each string before it is joined to others, and before any current',
  'working.cell-temperature.back': 'Cell: {back_C:1} °C back + {above_K:0} K × {irradiance_Wm2:0} ÷ 1000',
  'working.cell-temperature.air': 'Cell: {air_C:1} °C air + ({noct_C:0} − 20) ÷ 800 × {irradiance_Wm2:0}',
  'working.cell-temperature.voltage':
    'Cell, from {voltage_V:1} V of {modules} sound modules at {irradiance_Wm2:0} W/m²',
  'working.pv-voc.plate': 'Plate: {modules} × {voc_V:2} V',
  'working.pv-voc.quick-rule': 'Quick rule: {plate_V:1} × (1 + ({beta_pctPerK:2} %) × ({cell_C:1} − 25.0))',
  'working.pv-voc.light-term': 'Light: {cells} × {ideality:1} × {thermal_mV:2} mV × ln({irradiance_Wm2:0} ÷ 1000)',
  'working.pv-voc.light-rule': 'With light: {quick_V:1} + ({light_V:1})',
  'working.pv-voc.model':
    'Single diode: {modules} × V(I = 0), a {a_V:3} V, Rs {rs_ohm:3} Ω, at {irradiance_Wm2:0} W/m², {cell_C:1} °C',
  'working.pv-voc.one-module': 'One module: 1 ÷ {modules}',
  'working.pv-isc.plate': 'Plate: Isc of {type}',
  'working.pv-isc.quick-rule':
    'Quick rule: {isc_A:2} × {irradiance_Wm2:0} ÷ 1000 × (1 + {alpha_pctPerK:3} % × ({cell_C:1} − 25.0))',
  'working.pv-isc.model':
    'Single diode: I(V = 0), Rs {rs_ohm:3} Ω, Rsh {rsh_ohm:0} Ω, at {irradiance_Wm2:0} W/m², {cell_C:1} °C',
  'working.expectation.bracket':
    'Expected is known to ± (light ±{light_Wm2:0} W/m², cell ±{warmth_K:1} K, modules ±1 %)',
  'working.expectation.low': 'Low limit: {expected:decimals} × (1 − {allowed_pct:0} %)',
  'working.expectation.high': 'High limit: {expected:decimals} × (1 + {allowed_pct:0} %)',
  'working.expectation.whisker': 'Reading is known to ± (instrument {instrument})',
  'working.expectation.gap': '{read:decimals} ÷ {expected:decimals} − 1',
  'working.expectation.referred': 'At 1000 W/m², 25 °C: {read:decimals} × {stc:decimals} ÷ {expected:decimals}',
  'working.sisters.gap':
    'Against the middle of {count|one:# sister string|other:# sister strings}, same light. Allowed ±{allowed_pct:0} %',

  'source.recalled': 'recalled from memory, not yet compared with the document',
} as const
