/** I-V curves: what is asked, what they show, and why some are refused. */
export const curve = {
  'curve.refused-too-few-points':
    'A curve needs at least 5 points at different voltages, 8 for a fit: read it again with more of them.',
  'curve.refused-not-numbers': 'Some of the points are no numbers: take those lines out, or export the curve again.',
  'curve.refused-all-zero': 'Every point is zero: nothing was connected, or the string is dark.',
  'curve.refused-no-open-circuit':
    'The curve stops long before its current comes to nothing: it wants points up to open circuit.',
  'curve.refused-no-short-circuit':
    'The curve begins far above 0 V: it wants points down to short circuit, in volts and amperes.',
  'curve.refused-backwards':
    'Voltage or current is negative throughout: the leads were crossed. Turn them round, or the sign of that column.',
  'curve.refused-crosses-itself':
    'The current rises again with the voltage: these are two curves, or the columns are mixed up.',

  'step.pv-curve.title': 'Sweep the curve, string {tag}',
  'step.pv-curve.short': 'I-V curve',
  'step.pv-curve.about': 'Voltage against current from short to open circuit, with the light of the same moment.',
  'slot.curve': 'Curve',
  'reading.points': '{count} points',
  'caution.tracer-rating': 'The string’s voltage in the cold and its current lie under the tracer’s own rating',
  'lead.tracer-to-plugs': 'tracer, DC switch off',
  'lead.sensors-beside': 'sensors in the plane',
  'measures.iv-curve': 'I-V curve',
  'kit-need.iv-curve': 'an I-V curve',

  'finding.pv-curve.no-reading': 'No curve yet.',
  'finding.pv-curve.no-conditions': 'Light and cell temperature of the sweep are needed before a curve can be judged.',
  'finding.pv-curve.unreadable': 'These points are no curve that can be judged. Sweep it again.',
  'finding.pv-curve.dull':
    '{irradiance_Wm2:0} W/m² is too little light to judge a curve: at least {least_Wm2:0}. Kept, and to be swept again.',
  'finding.pv-curve.light-moved':
    'Light went from {irradiance_Wm2:0} to {endIrradiance_Wm2:0} W/m² during the sweep, more than {most_pct:0} %: the shape is not the string’s. Sweep it again.',
  'finding.pv-curve.power.within':
    '{read} W at standard test conditions, {gap_pct:1} % {side} the plate’s {expected:0} W. The shape is that of a sound string.',
  'finding.pv-curve.power.close':
    '{read} W at standard test conditions lies near the limit, {gap_pct:1} % {side} {expected:0} W.',
  'finding.pv-curve.power.outside':
    '{read} W at standard test conditions is {gap_pct:1} % {side} the plate’s {expected:0} W.',
  'finding.pv-curve.power.not-yet': 'The power decides nothing. Sweep the curve again.',
  'finding.pv-curve.voltage.within': 'Open circuit at {read} V is as expected.',
  'finding.pv-curve.voltage.close':
    'Open circuit at {read} V lies near the limit, {gap_pct:1} % {side} {expected:1} V.',
  'finding.pv-curve.voltage.outside': 'Open circuit at {read} V is {gap_pct:1} % {side} the {expected:1} V expected.',
  'finding.pv-curve.voltage.not-yet': 'The open-circuit voltage decides nothing. Sweep the curve again.',
  'finding.pv-curve.current.within': 'Short circuit at {read} A is as expected.',
  'finding.pv-curve.current.close':
    'Short circuit at {read} A lies near the limit, {gap_pct:1} % {side} {expected:2} A.',
  'finding.pv-curve.current.outside': 'Short circuit at {read} A is {gap_pct:1} % {side} the {expected:2} A expected.',
  'finding.pv-curve.current.not-yet': 'The short-circuit current decides nothing. Sweep the curve again.',
  'finding.pv-curve.fill.within': 'A fill factor of {read} % is as expected.',
  'finding.pv-curve.fill.close': 'A fill factor of {read} % lies near the limit of {limit:1} %.',
  'finding.pv-curve.fill.outside':
    'A fill factor of {read} % is {gap_pct:1} % under the {expected:1} % expected: the curve is too round, or falls too early.',
  'finding.pv-curve.fill.not-yet': 'The fill factor decides nothing. Sweep the curve again.',
  'finding.pv-curve.no-ledge': 'The curve has no ledge.',
  'finding.pv-curve.ledge.within': 'The curve has no ledge.',
  'finding.pv-curve.ledge.close': 'A small ledge at {voltage_V:0} V takes {share_pct:1} % of the current.',
  'finding.pv-curve.ledge.outside':
    'A ledge at {voltage_V:0} V takes {drop_A:2} A, {share_pct:0} % of the current: some cell groups give less than the others.',
  'finding.pv-curve.ledge.not-yet': 'The ledges decide nothing. Sweep the curve again.',

  'working.pv-curve.top': 'Highest power of {points:0} points: {vmp_V:1} V × {imp_A:2} A',
  'working.pv-curve.model': 'Single diode: {modules} modules at {irradiance_Wm2:0} W/m², {cell_C:1} °C',
  'working.pv-curve.carried': 'Carried from {irradiance_Wm2:0} W/m², {cell_C:1} °C to 1000 W/m², 25 °C by procedure 2',
  'working.pv-curve.known':
    'Known to ± (light ±{light_pct:1} %, cell ±{warmth_K:1} K, instrument ±{instrument_pct:1} %, modules ±1 %)',
  'working.pv-curve.power-low': 'Least power at 1000 W/m², 25 °C: {expected:0} × (1 − {allowed_pct:1} %)',
  'working.pv-curve.power-high': 'Most power at 1000 W/m², 25 °C: {expected:0} × (1 + {allowed_pct:1} %)',
  'working.pv-curve.voltage-low': 'Open circuit, low limit: {expected:1} × (1 − {allowed_pct:0} %)',
  'working.pv-curve.voltage-high': 'Open circuit, high limit: {expected:1} × (1 + {allowed_pct:0} %)',
  'working.pv-curve.current-low': 'Short circuit, low limit: {expected:2} × (1 − {allowed_pct:0} %)',
  'working.pv-curve.current-high': 'Short circuit, high limit: {expected:2} × (1 + {allowed_pct:0} %)',
  'working.pv-curve.fill-low': 'Least fill factor: {expected:1} × (1 − {allowed_pct:0} %)',
  'working.pv-curve.ledge': 'Deepest ledge: {drop_A:2} A at {voltage_V:0} V, {share_pct:1} % of Isc. At most',
  'working.pv-curve.no-ledge': 'No ledge between short and open circuit',
  'working.pv-curve.dull': '{irradiance_Wm2:0} W/m² is less than {least_Wm2:0}',
  'working.pv-curve.light-moved':
    '{endIrradiance_Wm2:0} ÷ {irradiance_Wm2:0} − 1 is {moved_pct:1} %, more than {most_pct:0} %',
  'working.pv-curve.gap': '{stc_W:0} ÷ {plate_W:0} − 1',
  'working.pv-curve.currents': 'Imp ÷ Isc: {imp_A:2} ÷ {isc_A:2}',
  'working.pv-curve.voltages': 'Vmp ÷ Voc: {vmp_V:1} ÷ {voc_V:1}',
  'working.pv-curve.slope-open': 'Slope at open circuit, −dV/dI, with all that is in series',
  'working.pv-curve.slope-short': 'Slope at short circuit, −dV/dI, with all shunts',

  'cause.curve-sound': 'A sound string: light, warmth and scatter explain it',
  'cause.curve-shade':
    '{count:0} of {groups} cell groups with {light_pct:0} % of the light: shade, a leaf, a cracked cell',
  'cause.curve-shade-two-levels':
    '{count:0} cell groups with {light_pct:0} % of the light, {deeper:0} with {lower_pct:0} %: shade of two things',
  'cause.curve-groups-bypassed': '{count:0} of {groups} cell groups bypassed: a shorted diode',
  'cause.curve-modules-missing': '{count:0} of {modules} modules left out',
  'cause.curve-module-reversed': '{count:0} module the wrong way round',
  'cause.curve-soiling': 'Dirt or even shade over all of it: {light_pct:0} % of the light gets through',
  'cause.curve-wrong-light': 'Light meter off: {light_pct:0} % of what it showed lay on the modules',
  'cause.curve-series-resistance': '{ohm:1} Ω in series at one place: a bad connector or thin cable',
  'cause.curve-shunt': 'Shunts {times:0} times as strong: leaking cell edges or ageing by voltage',
  'cause.curve-hot-cells': 'Cells {warmer_K:0} K warmer than read',
  'cause.curve-rounder-knee': 'Rounder knee throughout: aged cells',
  'cause.curve-other-type': 'Modules of another type: {current_pct:0} % of the current',

  'next.curve-nothing': 'Nothing to look for. Sweep it again if in doubt.',
  'next.curve-look-for-shade':
    'Look along string {tag} for a mast, a vent, leaves, dirt on part of a module. Sweep again when the shadow has moved.',
  'next.curve-thermal': 'Look at the modules with a thermal camera under load: a bypassed group is warmer by itself.',
  'next.curve-halve': 'Halve string {tag} and read both voltages: the half that is short by two modules holds it.',
  'next.curve-clean-one': 'Clean one module of string {tag} and sweep again; compare with a string that was cleaned.',
  'next.curve-second-sensor': 'Lay a second light meter beside the first, in the plane, and sweep again.',
  'next.curve-joints':
    'Feel and tug each connector of string {tag}; under load the bad one is warm. Inverter off before it is parted.',
  'next.curve-less-light': 'Sweep again at half the light: what shunts take stays, all else falls with the light.',
  'next.curve-cell-sensor': 'Read the back of three modules. {cell_C:0} °C was taken for the cells.',
  'next.curve-commissioning': 'Hold it beside the curve of commissioning, and beside its sisters.',
  'next.curve-read-the-type': 'Read the type on the back of a module of string {tag}.',
  'next.curve-soiling-or-light':
    'Sweep a sister string at once: if it is as low, the meter is off. Else wipe one module and sweep again.',
  'next.curve-hot-or-bypassed':
    'Read the back of three modules: if none is that warm, look for the bypassed group with a thermal camera.',
  'next.curve-hot-or-missing':
    'Count the modules of string {tag}: {modules} are expected. Then read the back of three.',
  'next.curve-missing-or-turned':
    'Count the modules of string {tag}: {modules} are expected. If all are there, halve the string and read both voltages.',
  'next.curve-joint-or-age':
    'Sweep its sisters: aged modules are alike, a bad joint is this string’s alone. Then feel each connector.',
  'next.curve-shade-or-bypassed':
    'Sweep again in an hour: shade moves, a shorted diode stays. Then look with a thermal camera.',
}
